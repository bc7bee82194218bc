import { jarSize } from '../jars/index.ts';
import { type Amount, MM_PER_INCH, mixedText } from '../measure/index.ts';
import {
  emptyRecipe,
  type Line,
  proposeCode,
  type Recipe,
  type Step,
  stepFrom,
  usualNet,
} from '../recipes/index.ts';
import { boundSteps } from './paste-binding.ts';
import type { Pasted } from './paste.ts';

/** What a person settled of a pasted text: its lines, and what it says of the whole. */
export interface Settled {
  lines: readonly Line[];
  steps: readonly Step[];
  facts: {
    product: Recipe['product'];
    setBy: Recipe['setBy'];
    method: Recipe['method'];
    makes: Recipe['makes'];
  };
  /** How much is expected of what lines are so much for each of; null while nobody said. */
  expects: Amount | null;
}

/** What was read of a text, as nobody has settled anything yet. */
export const asRead = ({ lines, steps, facts }: Pasted): Settled => ({
  lines: lines.map(l => l.line),
  steps: steps.map(s => s.step),
  facts: {
    product: facts.product.value,
    setBy: facts.setBy.value,
    method: {
      peel: facts.peel.value,
      cut: facts.cut.value,
      strain: facts.strain.value,
      liquid: facts.liquid.value,
      pack: facts.pack.value,
    },
    makes: facts.makes.value,
  },
  expects: null,
});

/**
 * The recipe that a text gives, as it was settled: its own until an authority is chosen, since a text proves none. What it
 * says of minutes and headspace stays in the notes.
 *
 * @param newId  makes the id of a measuring step that the text does not have
 */
export function recipeFromText(read: Pasted, settled: Settled, newId: () => string): Recipe {
  const { facts } = settled;
  const name = read.title.slice(0, 80);
  const steps = boundSteps(settled.steps, settled.lines);
  const { lines, steps: measured } = withMeasures(read, settled, steps, newId);
  const sizes = [...new Set([facts.makes.size, ...read.facts.minutes.flatMap(m => m.size ?? [])])];
  return {
    ...emptyRecipe(),
    name,
    code: proposeCode(name),
    statementOfIdentity: name,
    product: facts.product,
    setBy: facts.setBy,
    method: facts.method,
    lines,
    steps: measured,
    makes: facts.makes,
    jars: sizes.map(size => ({ size, net: usualNet(size, facts.product) })),
    notes: notesOf(read),
  };
}

/** Lines that are so much of a measure, tied to the step that takes it; a text that has none gets one before the sugar. */
function withMeasures(
  read: Pasted,
  { lines, expects }: Pick<Settled, 'lines' | 'expects'>,
  steps: Step[],
  newId: () => string,
): { lines: Line[]; steps: Step[] } {
  const ratios = read.lines.filter(l => l.ratioOf !== '').map(l => l.line.id);
  if (!lines.some(l => l.ratio && ratios.includes(l.id))) return { lines: [...lines], steps };
  const measures = steps.filter(s => s.kind === 'measure');
  const out = [...steps];
  let step = measures[0];
  if (!step) {
    const what = read.lines.find(l => l.ratioOf !== '')?.ratioOf ?? 'juice';
    step = { ...stepFrom(newId(), 'measure', `Measure the ${what}`) };
    const strained = out.map(s => s.kind).lastIndexOf('strain');
    const takes = out.findIndex(s => s.adds.some(a => ratios.includes(a.lineId)));
    out.splice(strained >= 0 ? strained + 1 : Math.max(0, takes), 0, step);
  }
  const { id } = step;
  return {
    lines: lines.map(l => (l.ratio && ratios.includes(l.id) ? { ...l, ratio: { ...l.ratio, id } } : l)),
    steps: out.map(s => (s.id === id && expects ? { ...s, expects } : s)),
  };
}

/** What the text says and no field of a recipe holds. */
function notesOf(read: Pasted): string {
  const { headspace_mm, minutes } = read.facts;
  const heat = [
    ...minutes.map(m => `${m.size === null ? '' : `${jarSize(m.size).plural} `}${m.minutes} minutes`),
    headspace_mm.value === null
      ? ''
      : `headspace ${mixedText(Math.round((headspace_mm.value / MM_PER_INCH) * 16) / 16, true)} inch`,
  ].filter(Boolean);
  return [
    read.yieldText,
    heat.length > 0 ? `The text says: ${heat.join(', ')}. Its authority decides, not the text.` : '',
    ...read.unread.map(u => u.text),
  ]
    .filter(Boolean)
    .join('\n')
    .slice(0, 4000);
}
