import type { KitchenSettings } from '@cocotte/contract';
import { PH_LIMIT } from '@cocotte/core/acid';
import type { Burner, Canner, Kitchen } from '@cocotte/core/kitchen';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import {
  type AskedUnit,
  type Reading,
  clockOf,
  dayOf,
  feetFromMetres,
  fieldText,
  kitchenUnits,
  metresFromFeet,
  ofNames,
  plainLocale,
  readNumber,
  weekStartOf,
  withHabits,
} from '@cocotte/core/measure';
import { type ValuesOf, anyWords, orElse, readersOf, rows, words } from '../kit/readers.ts';

type Holds = Record<JarSizeId, string>;

/** A field for each size, empty where none of it fits. */
const holdsOf = (text: (size: JarSizeId) => string) =>
  ofNames(JAR_SIZES.map(s => [s.id, text(s.id)])) as Holds;

/** A pot, a canner, a burner while nothing is typed in it. */
export const newPot = (id: string) => ({
  id,
  name: '',
  capacity_mL: '',
  diameter_mm: '',
  boilOff_gPerMin: '',
});
export const newCanner = (id: string) => ({
  id,
  name: '',
  kind: 'boiling water' as Canner['kind'],
  holds: holdsOf(() => ''),
});
export const newBurner = (id: string) => ({ id, name: '', kind: 'electric' as Burner['kind'], use: '' });

/** The settings as they stand in their fields: quarts or litres, inches or centimetres, as the kitchen measures. */
export function settingsTexts(kitchen: Kitchen, personIds: readonly string[]) {
  const plain = (value: number | string, places = 2) => fieldText(Number(value), kitchen.locale, places);
  const { volume, length } = kitchenUnits(kitchen);
  const { costs } = kitchen;
  return {
    name: kitchen.name,
    // Where nobody has entered it, nothing stands there that could be saved by mistake.
    altitude_m: kitchen.placed
      ? plain(kitchen.altitude === 'ft' ? feetFromMetres(kitchen.altitude_m) : kitchen.altitude_m)
      : '',
    zone: kitchen.placed ? kitchen.zone : Intl.DateTimeFormat().resolvedOptions().timeZone,
    phAct: fieldText(kitchen.phAct, kitchen.locale, 2),
    thermometerError_C: plain(kitchen.thermometerError_C * (kitchen.temperature === 'F' ? 1.8 : 1)),
    locale: plainLocale(kitchen.locale),
    clock: clockOf(kitchen.locale),
    weekStart: weekStartOf(kitchen.locale),
    paper: kitchen.paper,
    currency: kitchen.currency,
    temperature: kitchen.temperature,
    altitude: kitchen.altitude,
    measures: kitchen.measures,
    hourlyRate: plain(kitchen.hourlyRate),
    pots: kitchen.pots.map(p => ({
      id: p.id,
      name: p.name,
      capacity_mL: plain(p.capacity_mL / volume.size),
      diameter_mm: plain(p.diameter_mm / length.size),
      boilOff_gPerMin: plain(p.boilOff_gPerMin),
    })),
    canners: kitchen.canners.map(c => ({
      ...c,
      holds: holdsOf(size => (c.holds[size] === undefined ? '' : plain(c.holds[size]))),
    })),
    method: costs.method,
    // Whoever left keeps the rate that past minutes cost.
    rates: [...new Set([...personIds, ...costs.rates.map(r => r.personId)])].map(personId => {
      const rate = costs.rates.find(r => r.personId === personId);
      return { personId, hourlyRate: rate ? plain(rate.hourlyRate) : '' };
    }),
    burners: costs.burners.map(b => ({
      id: b.id,
      name: b.name,
      kind: b.kind,
      use: plain(b.kind === 'electric' ? b.power_W : b.use_gPerHour),
    })),
    electricity: plain(costs.electricity, 4),
    perBatch: plain(costs.overhead.perBatch),
    perJar: plain(costs.overhead.perJar),
    perMonth: plain(costs.overhead.perMonth),
    batchesPerMonth: plain(costs.overhead.batchesPerMonth),
    fee: plain(costs.market.fee),
    jars: plain(costs.market.jars),
    markup_pct: plain(costs.pricing.markup_pct),
    margin_pct: plain(costs.pricing.margin_pct),
    wholesale_pct: plain(costs.pricing.wholesale_pct),
    makerName: kitchen.makerName,
    makerAddress: kitchen.makerAddress,
    number: kitchen.jurisdiction.number,
    jurisdiction: kitchen.jurisdiction.name,
    source: kitchen.jurisdiction.source,
    statement: kitchen.jurisdiction.statement,
    confirmed: kitchen.jurisdiction.confirmedOn !== null,
  };
}
export type SettingsTexts = ReturnType<typeof settingsTexts>;

/** Readers of every setting. Figures are read as the kitchen reads them now; a new locale holds from the next time. */
export function settingsShape(kitchen: Kitchen) {
  const read = readersOf(kitchen);
  const number = (name: string, min: number, max: number, whole = false) =>
    read.figure({ name, min, max, whole });
  const money = (name: string, max = 1_000_000) => orElse('0', read.decimal({ name, min: 0, max }));
  const { volume, length } = kitchenUnits(kitchen);
  const inFeet = kitchen.altitude === 'ft';
  const inInches = kitchen.measures === 'US';
  /** Read in the unit that is asked in, kept in the one that is reckoned with. */
  const sized = (name: string, unit: AskedUnit, min: number, max: number) => (text: string) => {
    const found = readNumber(text, kitchen.locale, { name, min, max, unit: ` ${unit.sign}` });
    return found.ok ? { ok: true as const, value: found.value * unit.size } : found;
  };
  return {
    name: words('The name'),
    zone: words('The time zone'),
    locale: words('The locale'),
    altitude_m: (text: string): Reading<number> => {
      const found = readNumber(text, kitchen.locale, {
        name: 'The altitude',
        min: inFeet ? -300 : -90,
        max: inFeet ? 10_000 : 3048,
        unit: inFeet ? ' ft' : ' m',
        why: 'The published tables end at 10,000 ft.',
      });
      return found.ok && inFeet ? { ok: true, value: metresFromFeet(found.value) } : found;
    },
    phAct: number('The pH this kitchen acts at', 3, PH_LIMIT),
    thermometerError_C: orElse(0, (text: string) => {
      const found = number('The error', -9, 9)(text);
      return found.ok && kitchen.temperature === 'F'
        ? { ok: true as const, value: found.value / 1.8 }
        : found;
    }),
    hourlyRate: read.decimal({ name: 'The hourly rate', min: 0, max: 1000 }, 2),
    pots: rows((_pot: ReturnType<typeof newPot>) => ({
      name: words('The name', 'It is chosen by it.'),
      capacity_mL: sized('The capacity', volume, 0.5, 200),
      diameter_mm: sized('The width', length, inInches ? 4 : 10, inInches ? 47 : 120),
      boilOff_gPerMin: orElse(0, number('The water boiled off', 0, 500)),
    })),
    canners: rows((_canner: ReturnType<typeof newCanner>) => ({
      name: words('The name', 'It is chosen by it.'),
      holds: (holds: Holds) => {
        const there = Object.entries(holds).filter(([, text]) => text.trim() !== '' && text.trim() !== '0');
        const found = there.map(([size, text]) => ({
          size,
          read: number('The jars it holds', 1, 200, true)(text),
        }));
        const faults = found.flatMap(({ size, read: r }) => (r.ok ? [] : [{ ...r.fault, path: size }]));
        return faults.length > 0
          ? { ok: false as const, faults }
          : {
              ok: true as const,
              value: ofNames(found.flatMap(({ size, read: r }) => (r.ok ? [[size, r.value]] : []))),
            };
      },
    })),
    rates: rows((_rate: SettingsTexts['rates'][number]) => ({ hourlyRate: money('The hourly rate', 1000) })),
    burners: rows((b: ReturnType<typeof newBurner>) => ({
      name: words('The name', 'It is chosen by it.'),
      use: b.kind === 'electric' ? number('The power', 50, 20_000) : number('The gas in an hour', 10, 20_000),
    })),
    electricity: money('The price of a kilowatt-hour', 1000),
    perBatch: money('The overhead of a batch'),
    perJar: money('The overhead of a jar'),
    perMonth: money('The overhead of a month'),
    batchesPerMonth: number('The batches in a month', 1, 1000),
    fee: money('The fee of a market'),
    jars: number('The jars sold at a market', 1, 100_000),
    markup_pct: number('The markup', 0, 10_000),
    margin_pct: number('The margin', 0, 99.9),
    wholesale_pct: number('Wholesale', 0, 100),
    makerName: anyWords,
    makerAddress: anyWords,
    number: anyWords,
    jurisdiction: anyWords,
    source: anyWords,
    statement: anyWords,
  };
}

type Read = Omit<SettingsTexts, keyof ReturnType<typeof settingsShape>> &
  ValuesOf<ReturnType<typeof settingsShape>>;

/**
 * The locale with its clock and week. Another locale brings its own along, where nobody chose otherwise in the same go; one
 * that is none goes as it was typed, for the server to refuse beside its field.
 */
function localeOf(
  { locale, clock, weekStart }: Pick<Read, 'locale' | 'clock' | 'weekStart'>,
  before: string,
): string {
  try {
    const kept = clock === clockOf(before) && weekStart === weekStartOf(before);
    return kept && plainLocale(locale) !== plainLocale(before)
      ? plainLocale(locale)
      : withHabits(locale, { clock, weekStart });
  } catch {
    return locale;
  }
}

/** The settings that were read. What is not asked for stays as it was. */
export function settingsOf(v: Read, typed: SettingsTexts, before: Kitchen, now_ms: number): KitchenSettings {
  const wasOf = (id: string) => before.costs.burners.find(x => x.id === id);
  return {
    name: v.name,
    zone: v.zone,
    locale: localeOf(v, before.locale),
    paper: v.paper,
    currency: v.currency,
    temperature: v.temperature,
    altitude: v.altitude,
    measures: v.measures,
    altitude_m: v.altitude_m,
    thermometerError_C: v.thermometerError_C,
    phAct: v.phAct,
    thermometerIce_C: before.thermometerIce_C,
    // A figure that is typed anew was just read.
    thermometerCheckedOn:
      Math.abs(v.thermometerError_C - before.thermometerError_C) < 0.01
        ? before.thermometerCheckedOn
        : dayOf(now_ms, v.zone),
    hourlyRate: v.hourlyRate,
    makerName: v.makerName,
    makerAddress: v.makerAddress,
    pots: v.pots,
    canners: v.canners,
    costs: {
      method: v.method,
      rates: v.rates.filter((_, i) => typed.rates[i]?.hourlyRate.trim() !== ''),
      burners: v.burners.map(({ id, name, kind, use }): Burner => {
        const was = wasOf(id);
        return kind === 'electric'
          ? { id, name, kind, power_W: use }
          : { id, name, kind, use_gPerHour: use, itemId: was?.kind === 'gas' ? was.itemId : null };
      }),
      electricity: v.electricity,
      overhead: {
        perBatch: v.perBatch,
        perJar: v.perJar,
        perMonth: v.perMonth,
        batchesPerMonth: v.batchesPerMonth,
      },
      market: { fee: v.fee, jars: v.jars },
      pricing: { markup_pct: v.markup_pct, margin_pct: v.margin_pct, wholesale_pct: v.wholesale_pct },
    },
    jurisdiction: {
      ...before.jurisdiction,
      name: v.jurisdiction,
      number: v.number,
      statement: v.statement,
      source: v.source,
      confirmedOn: v.confirmed ? (before.jurisdiction.confirmedOn ?? dayOf(now_ms, v.zone)) : null,
    },
  };
}
