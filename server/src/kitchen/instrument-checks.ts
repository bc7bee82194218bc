import {
  type BodyOf,
  CHECKS_SHOWN,
  type checkInstrument,
  INSTRUMENTS_KEPT,
  type listInstrumentChecks,
  type ReplyOf,
  type retireInstrument,
} from '@cocotte/contract';
import { calibrationTyped } from '@cocotte/core/acid';
import { boilingPoint_C } from '@cocotte/core/heat';
import {
  calibrated,
  type CheckBody,
  type CheckedKind,
  type InstrumentCheck,
  JAM_THERMOMETER,
  type Kitchen,
  MOST_ERROR_C,
} from '@cocotte/core/kitchen';
import { canonicalJson, dayOf, type Fault } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { HttpProblem, idTaken, notFound, problem } from '../house/problems.ts';
import { namesOf } from './outside.ts';
import { updateKitchen } from './queries.ts';
import { readKitchen } from './service.ts';

interface Row {
  instrument_id: string;
  kind: CheckedKind;
  name: string;
  retired_at: Date | null;
}

interface CheckRow {
  check_id: string;
  instrument_id: string;
  person_id: string;
  body: CheckBody;
  checked_at: Date;
}

/** Checks that are read at once: of a year and more, also where a meter is calibrated each day. */
const CHECKS_READ = 2000;

/** The kitchen's instruments with their logs. */
export async function list(
  call: Call<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listInstrumentChecks>> {
  const { trx, kitchenId } = call;
  const instruments: Row[] = await trx('kept_instruments')
    .where({ kitchen_id: kitchenId })
    .orderBy(['retired_at', 'kind', 'name', 'instrument_id'])
    .limit(INSTRUMENTS_KEPT);
  const checks: CheckRow[] = await trx('instrument_checks')
    .where({ kitchen_id: kitchenId })
    .orderBy([
      { column: 'checked_at', order: 'desc' },
      { column: 'check_id', order: 'desc' },
    ])
    .limit(CHECKS_READ);
  const names = await namesOf(trx, [...new Set(checks.map(c => c.person_id))]);
  return {
    instruments: instruments.map(i => {
      const instrument = { id: i.instrument_id, kind: i.kind, name: i.name };
      return {
        instrument,
        retired: i.retired_at !== null,
        checks: checks
          .filter(c => c.instrument_id === i.instrument_id)
          .slice(0, CHECKS_SHOWN)
          .map(c => ({
            id: c.check_id,
            instrument,
            at: new Date(c.checked_at).toISOString(),
            personId: c.person_id,
            person: names[c.person_id] ?? '',
            body: c.body,
          })),
      };
    }),
  };
}

/** Keeps a check, and the instrument with the first one. What the jam thermometer showed goes into the kitchen's gel point. */
export async function check(
  call: Call<unknown, unknown, BodyOf<typeof checkInstrument>>,
): Promise<{ check: InstrumentCheck }> {
  const { trx, kitchenId, person, clock } = call;
  const { id, instrument } = call.body;
  const at = new Date(clock.now_ms()).toISOString();
  const kitchen = await readKitchen(call);
  const body = keptBody(call.body.body, kitchen, at);
  if (body.kind !== instrument.kind)
    throw problem(422, {
      code: 'other-kind',
      what: 'This check is of another kind of instrument.',
      why: 'Each kind is held against something of its own.',
      next: 'Choose the instrument anew.',
      path: 'body.kind',
    });
  const there = await trx('instrument_checks').where({ kitchen_id: kitchenId, check_id: id }).first();
  const same = (b: CheckBody) => canonicalJson(withoutTime(b)) === canonicalJson(withoutTime(body));
  if (there) {
    if (there.instrument_id !== instrument.id || !same(there.body)) throw idTaken('check');
    return {
      check: {
        id,
        instrument,
        at: new Date(there.checked_at).toISOString(),
        personId: there.person_id,
        body: there.body,
      },
    };
  }
  const known: Row | undefined = await trx('kept_instruments')
    .where({ kitchen_id: kitchenId, instrument_id: instrument.id })
    .first();
  if (known && known.kind !== instrument.kind) throw idTaken('instrument');
  if (!known) {
    const kept = await trx('kept_instruments').where({ kitchen_id: kitchenId }).select('instrument_id');
    if (kept.length >= INSTRUMENTS_KEPT)
      throw problem(422, {
        code: 'too-many-instruments',
        what: `A kitchen keeps ${INSTRUMENTS_KEPT} instruments.`,
        why: 'A list that nobody can look through helps nobody.',
        next: 'Check one that is there.',
        path: 'instrument.name',
      });
  }
  await trx('kept_instruments')
    .insert({
      kitchen_id: kitchenId,
      instrument_id: instrument.id,
      kind: instrument.kind,
      name: instrument.name,
    })
    .onConflict(['kitchen_id', 'instrument_id'])
    .merge({ name: instrument.name, retired_at: null });
  await trx('instrument_checks').insert({
    kitchen_id: kitchenId,
    check_id: id,
    instrument_id: instrument.id,
    person_id: person.id,
    body: JSON.stringify(body),
    checked_at: at,
  });
  if (instrument.id === JAM_THERMOMETER && body.kind === 'thermometer')
    await moveGelPoint(call, kitchen, body);
  return { check: { id, instrument, at, personId: person.id, body } };
}

/** A calibration has the time of its check: a device says which it was, and not when. */
const withoutTime = (body: CheckBody): CheckBody =>
  body.kind === 'ph meter' ? { ...body, calibration: { ...body.calibration, at: '' } } : body;

/** @throws HttpProblem for figures that no instrument of the kind shows */
function keptBody(body: CheckBody, kitchen: Kitchen, at: string): CheckBody {
  if (body.kind === 'ph meter') {
    const faults = calibrationTyped(body.calibration, kitchen).map(f => ({
      ...f,
      path: `body.calibration.${f.path}`,
    }));
    if (faults.length > 0) throw new HttpProblem(422, 'no-calibration', faults);
    return { ...body, calibration: calibrated({ ...body.calibration, at }) };
  }
  if (body.kind !== 'thermometer') return body;
  const off = (path: string, shown: number | null, really: number): Fault[] =>
    shown === null || Math.abs(shown - really) <= MOST_ERROR_C
      ? []
      : [
          {
            path: `body.${path}`,
            code: 'thermometer-off',
            what: `It is more than ${MOST_ERROR_C} °C off.`,
            why: 'One that is further off is replaced rather than reckoned with.',
            next: 'Look again, or take another thermometer.',
          },
        ];
  const faults = [
    ...off('ice_C', body.ice_C, 0),
    ...off('boils_C', body.boils_C, boilingPoint_C(kitchen.altitude_m)),
  ];
  if (faults.length > 0) throw new HttpProblem(422, 'thermometer-off', faults);
  return body;
}

async function moveGelPoint(
  call: Call<unknown, unknown, unknown>,
  kitchen: Kitchen,
  { ice_C, boils_C }: CheckBody & { kind: 'thermometer' },
): Promise<void> {
  const { id: _id, version, ...settings } = kitchen;
  const two = (value: number) => Number(value.toFixed(2));
  const moved = await updateKitchen(call.trx, call.kitchenId, version, {
    ...settings,
    thermometerError_C: two(boils_C - boilingPoint_C(kitchen.altitude_m)),
    thermometerIce_C: ice_C === null ? null : two(ice_C),
    thermometerCheckedOn: dayOf(call.clock.now_ms(), kitchen.zone),
  });
  if (!moved)
    throw problem(409, {
      code: 'stale',
      what: 'Somebody changed the settings of this kitchen meanwhile.',
      why: 'Its thermometer is kept with them.',
      next: 'Keep the check again.',
    });
}

/** Takes an instrument out of use, or into use again. */
export async function retire(
  call: Call<unknown, unknown, BodyOf<typeof retireInstrument>>,
): Promise<{ retired: boolean }> {
  const { trx, kitchenId, clock, body } = call;
  const changed = await trx('kept_instruments')
    .where({ kitchen_id: kitchenId, instrument_id: body.id })
    .update({ retired_at: body.retired ? new Date(clock.now_ms()).toISOString() : null });
  if (changed === 0) throw notFound('This instrument');
  return { retired: body.retired };
}
