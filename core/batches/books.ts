import { massText, numberText } from '../measure/index.ts';
import { jarSize } from '../jars/index.ts';
import { deviation } from './counted.ts';
import type { BatchState, Deviation, JarState, Note } from './state.ts';

/**
 * What was used for a line of the recipe and could not be drawn for it when it arrived: the lot is none of the kitchen's, or may
 * not serve the line. What is in the jars is then not what the process covers.
 */
export function unfitUse(used: BatchState['used'], started: BatchState['started']): Deviation[] {
  return used
    .filter(u => u.lineId !== null && !u.drawn && u.by.known !== 'waiting')
    .map(u =>
      deviation({
        key: `used_unfit:${u.by.eventId}`,
        code: 'used_unfit',
        jars: null,
        what: `A lot was used for ${started?.recipe.lines.find(l => l.id === u.lineId)?.name ?? 'a line'} that may not serve it, or is not in the books.`,
        next: 'If it was another lot, correct the entry in the record. If it was this one, the batch is not for the shelf.',
      }),
    );
}

/** What scales, spillage and trimming may differ by before the books ask. */
const WEIGHT_TOLERANCE = 0.1;
const LEAST_G = 5;

type Books = Pick<BatchState, 'draws' | 'weighed' | 'used'> & {
  started: NonNullable<BatchState['started']>;
  jars: readonly JarState[];
};

/**
 * Where the books differ from what was done: more weighed than drawn, jars and lids that came from nowhere, lots used
 * while the book was away. None of it hurts anybody, so that it holds no jar; each is settled by drawing or by a word.
 */
export function bookNotes(of: Books): Note[] {
  const { started, jars } = of;
  const { kitchen, recipe } = started;
  const lots = of.draws.flatMap(d => d.lots);
  const out: Note[] = [];
  for (const line of recipe.lines) {
    const weighed = of.weighed[line.id];
    const own = lots.filter(l => l.lineId === line.id && l.mass_g !== null);
    if (!weighed || own.length === 0) continue;
    const drawn_g = own.reduce((sum, l) => sum + (l.mass_g as number) * (l.trimYield ?? line.trimYield), 0);
    const more_g = weighed.mass_g - drawn_g;
    if (Math.abs(more_g) <= Math.max(LEAST_G, drawn_g * WEIGHT_TOLERANCE)) continue;
    out.push({
      key: `books:line:${line.id}`,
      what: `${line.name}: ${massText(weighed.mass_g, kitchen)} weighed, ${massText(drawn_g, kitchen)} drawn from lots.`,
      draw:
        more_g > 0
          ? { lineId: line.id, kind: 'ingredient', quantity: more_g / line.trimYield, unit: 'g' }
          : null,
      lot: null,
      settled: null,
    });
  }
  for (const kind of ['jar', 'lid'] as const) {
    const drawn = lots.filter(l => l.kind === kind).reduce((sum, l) => sum + Number(l.quantity), 0);
    const more = jars.length - drawn;
    // What was drawn and not filled yet may still be.
    if (drawn === 0 || more <= 0) continue;
    const things = kind === 'lid' ? 'lids' : jars[0] ? jarSize(jars[0].size).plural : 'jars';
    out.push({
      key: `books:${kind}`,
      what: `${jars.length} jars are filled, ${drawn} ${things} drawn.`,
      draw: { lineId: null, kind, quantity: more, unit: 'each' },
      lot: null,
      settled: null,
    });
  }
  for (const used of of.used)
    if (used.lineId === null && !used.drawn && used.by.known !== 'waiting')
      out.push({
        key: `books:used:${used.by.eventId}`,
        what: 'A lot was used that is not in the books.',
        draw: null,
        lot: null,
        settled: null,
      });
  for (const { used, lots: drawn } of of.draws) {
    const lot = drawn[0];
    if (!used || !lot || Number(used.short) <= 0) continue;
    const short = `${numberText(Number(used.short), kitchen)}${lot.unit === 'each' ? '' : ` ${lot.unit}`}`;
    out.push({
      key: `books:short:${used.entryId}`,
      what: `${lot.name}, lot ${lot.lotLabel}: ${short} more was used than the books had.`,
      draw: null,
      lot: { lotId: lot.lotId, label: lot.lotLabel },
      settled: null,
    });
  }
  return out;
}
