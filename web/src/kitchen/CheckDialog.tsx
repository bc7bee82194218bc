import { checkInstrument, type InstrumentLog } from '@cocotte/contract';
import { BUFFER_NAMES, type Calibration, calibrationTyped } from '@cocotte/core/acid';
import { boilingPoint_C } from '@cocotte/core/heat';
import {
  calibrated,
  type CheckBody,
  type CheckedKind,
  checkVerdict,
  JAM_THERMOMETER,
} from '@cocotte/core/kitchen';
import {
  celsius,
  dayOf,
  fahrenheit,
  fieldText,
  numberText,
  type Reading,
  temperatureText,
} from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { Day, Figure, OneOf, Pick, Temperature, Text } from '../kit/fields.tsx';
import { useReadForm } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { Soft, Tag } from '../kit/parts.tsx';
import { orNone, readShape, type Readings, rows, useRead, words } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** What a meter shows of its calibration. */
const SHOWS = ['millivolts', 'slope', 'neither'] as const;
const KIND_WORDS: { readonly [K in CheckedKind]: string } = {
  'ph meter': say('check.meter'),
  thermometer: say('check.thermometer'),
  scale: say('check.scale'),
  refractometer: say('check.refractometer'),
};

/** Holds an instrument against something known, and keeps what it showed. What was entered last time stands there. */
export function CheckDialog({
  kind,
  log,
  onClose,
}: {
  kind: CheckedKind;
  /** The instrument, with what was checked before; null for a new one. */
  log: InstrumentLog | null;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const read = useRead();
  const last = log?.checks[0]?.body ?? null;
  const was = last?.kind === 'ph meter' ? last.calibration : null;
  const plain = (n: number | null | undefined, places = 2) =>
    n === null || n === undefined ? '' : fieldText(n, kitchen.locale, places);
  const degrees = (temp_C: number | null | undefined) =>
    temp_C === null || temp_C === undefined
      ? ''
      : plain(kitchen.temperature === 'F' ? fahrenheit(temp_C) : temp_C, 1);
  const inF = kitchen.temperature === 'F';
  const showed =
    (name: string) =>
    (text: string): Reading<number> => {
      const shown = read.figure({ name, min: inF ? -4 : -20, max: inF ? 266 : 130 })(text);
      return shown.ok && inF ? { ok: true, value: celsius(shown.value) } : shown;
    };
  const start = {
    name: log?.instrument.name ?? (kind === 'thermometer' ? say('check.jamThermometer') : ''),
    shows: (was === null || was.points.some(p => p.mV !== null)
      ? 'millivolts'
      : was.slope_pct === null
        ? 'neither'
        : 'slope') as (typeof SHOWS)[number],
    points: (was?.points ?? [{ ph: 4.01 }, { ph: 7 }]).map(p => ({ ph: plain(p.ph), mV: '' })),
    slope_pct: '',
    recheck_ph: '',
    temp_C: degrees(was?.temp_C ?? 24),
    resolution_ph: plain(was?.resolution_ph ?? 0.01),
    buffersOpenedOn: was?.buffersOpenedOn ?? '',
    electrodeSince: was?.electrodeSince ?? '',
    ice_C: '',
    boils_C: '',
    known_g: last?.kind === 'scale' ? plain(last.known_g, 0) : '500',
    shows_g: '',
    water_pct: '',
  };
  type Typed = typeof start;
  const readBody = (typed: Typed): Readings<CheckBody> => {
    if (kind === 'thermometer') {
      const found = readShape(
        { ice_C: orNone(showed(say('thermometer.ice'))), boils_C: showed(say('thermometer.shows')) },
        typed,
      );
      return found.ok ? { ok: true, value: { kind, ...found.value } } : found;
    }
    if (kind === 'scale') {
      const found = readShape(
        {
          known_g: read.figure({ name: say('check.known'), min: 1, max: 100_000, unit: ' g' }),
          shows_g: read.figure({ name: say('check.shows'), min: 0, max: 100_000, unit: ' g' }),
        },
        typed,
      );
      return found.ok ? { ok: true, value: { kind, ...found.value } } : found;
    }
    if (kind === 'refractometer') {
      const found = readShape(
        { water_pct: read.figure({ name: say('check.water'), min: -10, max: 20 }) },
        typed,
      );
      return found.ok ? { ok: true, value: { kind, ...found.value } } : found;
    }
    const mV = read.figure({ name: say('check.mV'), min: -1000, max: 1000 });
    const found = readShape(
      {
        temp_C: read.temperature_C({ name: say('check.bufferTemp'), min: 0, max: 60 }),
        points: rows(() => ({
          ph: read.figure({ name: say('check.buffer'), min: 1, max: 13 }),
          mV: typed.shows === 'millivolts' ? mV : () => ({ ok: true as const, value: null }),
        })),
        slope_pct:
          typed.shows === 'slope'
            ? read.figure({ name: say('check.slope'), min: 0, max: 200, unit: ' %' })
            : () => ({ ok: true as const, value: null }),
        recheck_ph:
          typed.shows === 'neither'
            ? read.figure({ name: say('check.again'), min: 0, max: 14 })
            : () => ({ ok: true as const, value: null }),
        resolution_ph: read.figure({ name: say('check.step'), min: 0, above: true, max: 1 }),
      },
      typed,
    );
    if (!found.ok) return found;
    const calibration: Calibration = {
      ...found.value,
      at: new Date(kitchenNow()).toISOString(),
      offset_mV: null,
      buffersOpenedOn: typed.buffersOpenedOn || null,
      electrodeSince: typed.electrodeSince || null,
    };
    const faults = calibrationTyped(calibration, kitchen);
    return faults.length > 0
      ? { ok: false, faults }
      : { ok: true, value: { kind, calibration: calibrated(calibration) } };
  };
  const form = useReadForm(start, (typed: Typed): Readings<{ name: string; body: CheckBody }> => {
    const name = readShape({ name: words(say('check.name')) }, typed);
    const body = readBody(typed);
    if (name.ok && body.ok) return { ok: true, value: { name: name.value.name, body: body.value } };
    return { ok: false, faults: [...(name.ok ? [] : name.faults), ...(body.ok ? [] : body.faults)] };
  });
  const save = form.submit(async ({ name, body }) => {
    const id =
      log?.instrument.id ?? (kind === 'thermometer' ? JAM_THERMOMETER : `${kind.slice(0, 4)}-${v7()}`);
    await call(checkInstrument, {
      body: { id: v7(), instrument: { id: id.slice(0, 40), kind, name }, body },
    });
    await Promise.all([
      client.invalidateQueries({ queryKey: ['instrument-checks'] }),
      client.invalidateQueries({ queryKey: ['kitchen'] }),
      client.invalidateQueries({ queryKey: ['session'] }),
    ]);
    onClose();
  });
  const typed: Typed = form.all();
  const found = readBody(typed);
  const today = dayOf(kitchenNow(), kitchen.zone);
  const verdict = found.ok ? checkVerdict(found.value, kitchen, today, ms => dayOf(ms, kitchen.zone)) : null;
  const { at } = form;
  const boils_C = boilingPoint_C(kitchen.altitude_m);
  return (
    <FormDialog
      title={log ? log.instrument.name : KIND_WORDS[kind]}
      action={say(kind === 'ph meter' ? 'check.keepCalibration' : 'check.keep')}
      form={form}
      onClose={onClose}
      onSubmit={save}
    >
      {!log && <Text at={at('name')} label={say('check.name')} fullWidth sx={{ mt: 1 }} />}
      {kind === 'thermometer' && (
        <>
          <Soft>
            {say('thermometer.how', {
              boils: temperatureText(boils_C, kitchen),
              other: inF ? `${boils_C.toFixed(1)} °C` : `${fahrenheit(boils_C).toFixed(1)} °F`,
            })}
          </Soft>
          <Cells wide="1fr 1fr" gap={2} mt={2}>
            <Temperature at={at('ice_C')} label={say('thermometer.ice')} />
            <Temperature at={at('boils_C')} label={say('thermometer.shows')} />
          </Cells>
        </>
      )}
      {kind === 'scale' && (
        <>
          <Soft>{say('check.scale.how')}</Soft>
          <Cells wide="1fr 1fr" gap={2} mt={2}>
            <Figure at={at('known_g')} label={say('check.known')} unit="g" />
            <Figure at={at('shows_g')} label={say('check.shows')} unit="g" />
          </Cells>
        </>
      )}
      {kind === 'refractometer' && (
        <>
          <Soft>{say('check.refractometer.how')}</Soft>
          <Cells wide="1fr" gap={2} mt={2}>
            <Figure at={at('water_pct')} label={say('check.water')} unit="°Brix" />
          </Cells>
        </>
      )}
      {kind === 'ph meter' && (
        <Box sx={{ mt: 1 }}>
          <Soft>{say('check.meter.how')}</Soft>
          <Box sx={{ mt: 1.5 }}>
            <OneOf
              at={at('shows')}
              label={say('check.meterShows')}
              row
              of={SHOWS.map(s => [s, say(`check.meterShows.${s === 'millivolts' ? 'mV' : s}`)] as const)}
            />
          </Box>
          {typed.points.map((point, i) => (
            // Buffers have no names but their place.
            // oxlint-disable-next-line react/no-array-index-key
            <Cells key={i} wide="1fr 1fr" narrow="1fr 1fr" gap={2} mt={1.5}>
              <Pick
                at={at(`points.${i}.ph`)}
                label={say('check.bufferN', { n: i + 1 })}
                of={[...new Set([...BUFFER_NAMES.map(b => plain(b)), point.ph])]}
              />
              {typed.shows === 'millivolts' && (
                <Figure at={at(`points.${i}.mV`)} label={say('check.mVN', { n: i + 1 })} unit="mV" />
              )}
            </Cells>
          ))}
          <Button
            sx={{ mt: 1 }}
            onClick={() =>
              form.set(
                'points',
                typed.points.length > 2
                  ? typed.points.slice(0, 2)
                  : [...typed.points, { ph: plain(10.01), mV: '' }],
              )
            }
          >
            {say(typed.points.length > 2 ? 'check.twoBuffers' : 'check.thirdBuffer')}
          </Button>
          <Cells wide="1fr 1fr" narrow="1fr" gap={2} mt={1}>
            {typed.shows === 'slope' && <Figure at={at('slope_pct')} label={say('check.slope')} unit="%" />}
            {typed.shows === 'neither' && <Figure at={at('recheck_ph')} label={say('check.again')} />}
            <Temperature at={at('temp_C')} label={say('check.bufferTemp')} />
            <Figure at={at('resolution_ph')} label={say('check.step')} unit="pH" />
            <Day at={at('buffersOpenedOn')} label={say('check.opened')} />
            <Day at={at('electrodeSince')} label={say('check.electrode')} />
          </Cells>
        </Box>
      )}
      {verdict && (
        <Box role="status" sx={{ mt: 2, display: 'flex', gap: 1, alignItems: 'baseline', flexWrap: 'wrap' }}>
          <Tag tone={verdict.good ? 'leaf' : 'ox'}>{say(verdict.good ? 'check.good' : 'check.bad')}</Tag>
          <span>{verdict.what}</span>
          {found.ok && found.value.kind === 'ph meter' && found.value.calibration.offset_mV !== null && (
            <Soft>
              {say('check.offset', { mV: numberText(found.value.calibration.offset_mV, kitchen, 1) })}
            </Soft>
          )}
          {verdict.next && <Box sx={{ width: '100%' }}>{verdict.next}</Box>}
        </Box>
      )}
    </FormDialog>
  );
}
