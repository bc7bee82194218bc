import { changeKitchen } from '@cocotte/contract';
import { boilingPoint_C } from '@cocotte/core/heat';
import { MOST_ERROR_C } from '@cocotte/core/kitchen';
import { dayOf, fahrenheit, type Reading, temperatureText } from '@cocotte/core/measure';
import { useQueryClient } from '@tanstack/react-query';
import { Temperature } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { orNone, useRead } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { misread, say } from '../words/views.ts';

/** What the jam thermometer shows in boiling water: how far it is off follows, and the day is kept. */
export function ThermometerDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const read = useRead();
  const boils_C = boilingPoint_C(kitchen.altitude_m);
  const inF = kitchen.temperature === 'F';
  /** How far off it is, from what it shows in something that is known. */
  const off =
    (name: string, really_C: number) =>
    (text: string): Reading<number> => {
      const shown = read.figure({ name, min: inF ? 0 : -20, max: inF ? 400 : 200 })(text);
      if (!shown.ok) return shown;
      const error_C = (inF ? (shown.value - 32) / 1.8 : shown.value) - really_C;
      return Math.abs(error_C) <= MOST_ERROR_C
        ? { ok: true as const, value: error_C }
        : misread('thermometer-off', { there: temperatureText(really_C, kitchen) });
    };
  const form = useTyped({ shows: '', ice: '' }, () => ({
    shows: off(say('thermometer.shows'), boils_C),
    ice: orNone(off(say('thermometer.ice'), 0)),
  }));
  const save = form.submit(async ({ shows, ice }) => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = kitchen;
    const next = await call(changeKitchen, {
      body: {
        ...settings,
        thermometerError_C: Number(shows.toFixed(2)),
        thermometerIce_C: ice === null ? null : Number(ice.toFixed(2)),
        thermometerCheckedOn: dayOf(kitchenNow(), kitchen.zone),
      },
    });
    client.setQueryData(['kitchen'], next);
    await client.invalidateQueries({ queryKey: ['session'] });
    onClose();
  });
  return (
    <FormDialog
      title={say('thermometer.title')}
      action={say('thermometer.action')}
      form={form}
      onClose={onClose}
      onSubmit={save}
    >
      <Soft>
        {say('thermometer.how', {
          boils: temperatureText(boils_C, kitchen),
          other: inF ? `${boils_C.toFixed(1)} °C` : `${fahrenheit(boils_C).toFixed(1)} °F`,
        })}
      </Soft>
      <Cells wide="1fr 1fr" gap={2} mt={2}>
        <Temperature at={form.at('ice')} label={say('thermometer.ice')} autoFocus />
        <Temperature at={form.at('shows')} label={say('thermometer.shows')} />
      </Cells>
    </FormDialog>
  );
}
