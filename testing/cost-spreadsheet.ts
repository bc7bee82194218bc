import { type CostContext, aloneContext } from '@cocotte/core/stores';
import { balance, netOfJars_g } from '@cocotte/core/balance';
import { type BatchState, fold, observed } from '@cocotte/core/batches';
import { plainCosts } from '@cocotte/core/kitchen';
import { Decimal } from '@cocotte/core/measure';
import { plumJam } from '@cocotte/demo/recipes';
import { HyperFormula } from 'hyperformula';
import { PaperBatch } from './builders.ts';

/** A batch as a producer would type it into a spreadsheet, and what other batches say of its day. */
export interface CostCase {
  state: BatchState;
  context: CostContext;
}

/** Numbers that come the same every time. */
function seeded(seed: number): () => number {
  let s = seed;
  return () => {
    s = (s * 1_664_525 + 1_013_904_223) % 2 ** 32;
    return s / 2 ** 32;
  };
}

/** Batches with draws, returns, work alone and shared, energy, overhead, market and lost jars, the same every time. */
export function costCases(count: number): CostCase[] {
  const random = seeded(20_261_125);
  const int = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const anyMoney = (places: number, most: number) =>
    new Decimal(int(0, most * 10 ** places)).div(10 ** places).toFixed();
  return Array.from({ length: count }, (_, index): CostCase => {
    // Every tenth is of round prices and nothing else, so that some sums lie exactly between two cents.
    const round = index % 10 === 0;
    const money = (places: number, most: number) => (round ? '0' : anyMoney(places, most));
    const small = int(2, 12);
    const large = int(0, 8);
    const batch = new PaperBatch(
      { ...plumJam, jars: [...plumJam.jars, { size: 'pint', net: { kind: 'weight', oz: 20 } }] },
      [{ size: 'half-pint', count: small + large }],
      {
        kitchen: {
          name: 'K',
          altitude_m: 0,
          zone: 'UTC',
          locale: 'en-US',
          currency: 'USD',
          hourlyRate: money(2, 30),
          thermometerError_C: 0,
          costs: {
            ...plainCosts,
            burners: [{ id: 'hob', name: 'Hob', kind: 'electric', power_W: int(5, 30) * 100 }],
            electricity: money(3, 1),
            overhead: {
              perBatch: money(2, 3),
              perJar: money(2, 1),
              perMonth: money(2, 90),
              batchesPerMonth: 4,
            },
            market: { fee: money(2, 40), jars: int(10, 80) },
          },
        },
      },
    );
    batch.drawAll(money(3, 1));
    const drawn = batch.events.find(e => e.type === 'lot.drawn');
    if (drawn?.type === 'lot.drawn')
      for (const l of drawn.body.lots) {
        l.quantity =
          l.kind !== 'ingredient'
            ? String(small + large)
            : round
              ? String(int(1, 99))
              : new Decimal(int(1, 90_000)).div(10).toFixed();
        l.unitCost = round ? new Decimal(int(1, 99)).times('0.005').toFixed() : money(4, 1);
      }
    batch.fill(
      Array.from({ length: small }, (_, i) => i + 1),
      'half-pint',
    );
    if (large > 0)
      batch.fill(
        Array.from({ length: large }, (_, i) => small + i + 1),
        'pint',
      );
    if (int(0, 1) === 1)
      batch.add('lots.returned', {
        lots: [{ lotId: batch.jarLotId, quantity: '1', unitCost: '0' }],
        reason: 'spare',
      });
    batch.fact('minutes.worked', { minutes: int(20, 240) });
    if (int(0, 2) === 0)
      batch.fact('minutes.shared', { minutes: int(5, 90), with: ['x', 'y'].slice(0, int(1, 2)) });
    batch.fact('kitchen.worked', { minutes: int(5, 60) });
    batch.fact('energy.used', { burnerId: 'hob', minutes: int(10, 200) });
    const lost = int(0, Math.max(0, small - 1));
    if (lost > 0)
      batch.fact('jars.set_aside', { jars: Array.from({ length: lost }, (_, i) => i + 1), why: 'broken' });
    const state = fold(batch.events);
    return {
      state,
      context: { ...aloneContext, dayBatches: int(1, 3), monthBatches: int(1, 12), kitchenWork: [] },
    };
  });
}

let engine: HyperFormula | null = null;
/** One engine for all: a new one for each batch would only measure its start. */
const spreadsheet = (): HyperFormula =>
  (engine ??= HyperFormula.buildFromArray([[0]], { licenseKey: 'gpl-v3' }));

export interface SpreadsheetCost {
  total: number;
  /** By jar size: exact cost of one that can be sold, and rounded by the spreadsheet. */
  perJar: Record<string, { exact: number; cents: number }>;
  cents: number;
}

/** The same batch in a spreadsheet: what was written down goes into cells, everything else is formulas. */
export function spreadsheetCost({ state, context }: CostCase): SpreadsheetCost {
  const { started } = state;
  if (!started) throw new RangeError('spreadsheetCost: the batch has not been started');
  const { costs, hourlyRate } = started.kitchen;
  const rows: (string | number)[][] = [];
  const put = (...cells: (string | number)[]) => rows.push(cells);
  const back = new Map(state.returns.flatMap(r => r.lots.map(l => [l.lotId, Number(l.quantity)] as const)));
  // Lots: quantity, came back, unit cost, and the size that bears it (empty: the pot).
  for (const l of state.draws.flatMap(d => d.lots)) {
    const r = rows.length + 1;
    put(
      Number(l.quantity),
      back.get(l.lotId) ?? 0,
      Number(l.unitCost),
      l.kind === 'jar' ? (l.jarSize ?? '') : '',
      `=(A${r}-B${r})*C${r}`,
      // What each jar that is filled takes of is shared by jar; the pot by net mass.
      l.kind === 'lid' ? 'jar' : '',
    );
  }
  for (const m of state.minutes) {
    const r = rows.length + 1;
    const over = m.kind === 'kitchen' ? context.dayBatches : 1 + m.with.length;
    put(m.minutes, over, Number(hourlyRate), '', `=A${r}/60/B${r}*C${r}`);
  }
  for (const e of state.energy) {
    const r = rows.length + 1;
    const burner = costs.burners[0];
    put(
      burner?.kind === 'electric' ? burner.power_W : 0,
      e.minutes,
      Number(costs.electricity),
      '',
      `=A${r}/1000*B${r}/60*C${r}`,
    );
  }
  const filled = state.jars.length;
  const kept = state.jars.filter(j => !j.setAside);
  let r = rows.length + 1;
  put(Number(costs.overhead.perBatch), 1, 1, '', `=A${r}`, 'jar');
  r = rows.length + 1;
  put(Number(costs.overhead.perJar), filled, 1, '', `=A${r}*B${r}`, 'jar');
  r = rows.length + 1;
  put(Number(costs.overhead.perMonth), context.monthBatches, 1, '', `=A${r}/B${r}`, 'jar');
  r = rows.length + 1;
  put(Number(costs.market.fee), kept.length, costs.market.jars, '', `=A${r}*B${r}/C${r}`, 'sold');
  const last = rows.length;
  const sizes = [...new Set(state.jars.map(j => j.size))];
  const first = last + 1;
  const end = last + sizes.length;
  // What a jar weighs is read off the balance, as it would be off the scale.
  const nets = netOfJars_g(balance(observed(state)));
  const pot = `(SUM(E$1:E$${last})-SUM(E$${first}:E$${end})-SUMIF(F$1:F$${last},"jar",E$1:E$${last})-SUMIF(F$1:F$${last},"sold",E$1:E$${last}))`;
  const by = (word: string) => `SUMIF(F$1:F$${last},"${word}",E$1:E$${last})`;
  // Jars: filled, can be sold, net weight, size, own cost; then its share of the rest, cost of one, its cents, what it hands on.
  for (const size of sizes) {
    const at = rows.length + 1;
    put(
      state.jars.filter(j => j.size === size).length,
      kept.filter(j => j.size === size).length,
      nets.get(size) ?? 1,
      size,
      `=SUMIF(D$1:D$${last},D${at},E$1:E$${last})`,
      `=${pot}*A${at}*C${at}/SUMPRODUCT(A$${first}:A$${end},C$${first}:C$${end})+${by('jar')}*A${at}/SUM(A$${first}:A$${end})+IF(SUM(B$${first}:B$${end})=0,0,${by('sold')}*B${at}/SUM(B$${first}:B$${end}))`,
      `=IF(B${at}=0,0,(E${at}+F${at}+H$${end + 1}*B${at}*C${at}/SUMPRODUCT(B$${first}:B$${end},C$${first}:C$${end}))/B${at})`,
      `=ROUND(G${at},2)`,
      `=IF(B${at}=0,E${at}+F${at},0)`,
    );
  }
  put(`=SUM(E1:E${last})`, `=ROUND(A${end + 1},2)`, '', '', '', '', '', `=SUM(I${first}:I${end})`);
  const sheet = spreadsheet();
  sheet.setSheetContent(0, rows);
  const cell = (row: number, col: number) => {
    const value = sheet.getCellValue({ sheet: 0, row: row - 1, col });
    if (typeof value !== 'number') throw new RangeError(`cell ${row},${col}: ${JSON.stringify(value)}`);
    return value;
  };
  const out: SpreadsheetCost = {
    total: cell(end + 1, 0),
    cents: cell(end + 1, 1),
    perJar: Object.fromEntries(
      sizes.flatMap((size, i) =>
        kept.some(j => j.size === size)
          ? [[size, { exact: cell(first + i, 6), cents: cell(first + i, 7) }]]
          : [],
      ),
    ),
  };
  return out;
}
