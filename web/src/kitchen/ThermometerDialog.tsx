import { changeKitchen } from '@cocotte/contract';
import { boilingPoint_C, MOST_ERROR_C, thermometerError_C } from '@cocotte/core/heat';
import { dayOf, fahrenheit, temperatureText } from '@cocotte/core/measure';
import { useQueryClient } from '@tanstack/react-query';
import { Temperature } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Soft } from '../kit/parts.tsx';
import { useRead } from '../kit/readers.ts';
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
  const form = useTyped({ shows: '' }, () => ({
    shows: (text: string) => {
      const shown = read.figure({ name: say('thermometer.shows'), min: inF ? 32 : 0, max: inF ? 400 : 200 })(
        text,
      );
      if (!shown.ok) return shown;
      const read_C = inF ? (shown.value - 32) / 1.8 : shown.value;
      const error_C = thermometerError_C(read_C, kitchen.altitude_m);
      return Math.abs(error_C) <= MOST_ERROR_C
        ? { ok: true as const, value: error_C }
        : misread('thermometer-off', { boils: temperatureText(boils_C, kitchen) });
    },
  }));
  const save = form.submit(async ({ shows }) => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = kitchen;
    const next = await call(changeKitchen, {
      body: {
        ...settings,
        thermometerError_C: Number(shows.toFixed(2)),
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
      <Temperature at={form.at('shows')} label={say('thermometer.shows')} autoFocus sx={{ mt: 2 }} />
    </FormDialog>
  );
}
