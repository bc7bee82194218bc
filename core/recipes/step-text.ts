import { Fraction, scanAmount, UNITS, under } from '../measure/index.ts';
import { type Measures, NOTHING_MEASURED, timesOf } from './masses.ts';
import type { Line, Recipe, Step } from './recipe.ts';
import { measureText } from './scale.ts';

/**
 * Words of a step are bound to the figures of the recipe: `{sugar}` stands for what goes in of that line at this step, and
 * grows with the batch; `{minutes}` and `{headspace}` for what its process says in this kitchen.
 */
const BOUND = /\{([^{}]{1,80})\}/g;
const OF_PROCESS = { minutes: 'the minutes of its process', headspace: 'the headspace of its process' };

/** What the words of a step are bound to. */
export interface StepFigures {
  factor: Fraction;
  /** What was measured so far, which settles ratios. */
  measured?: Measures;
  /** As they are said; empty where it has no process. */
  minutes: string;
  headspace: string;
}

type Lines = Pick<Recipe, 'lines' | 'steps'>;

/** The line that a name in a step means: that of its own lines first, by its whole name, then by a part that is plain. */
function lineNamed(recipe: Pick<Recipe, 'lines'>, step: Pick<Step, 'adds'>, name: string): Line | null {
  const asked = name.trim().toLowerCase();
  const own = recipe.lines.filter(l => step.adds.some(a => a.lineId === l.id));
  for (const among of [own, recipe.lines]) {
    const same = among.filter(l => l.name.toLowerCase() === asked);
    const part = among.filter(l => ` ${l.name.toLowerCase()} `.includes(` ${asked} `));
    const [only] = same.length > 0 ? same : part;
    if (only && (same.length === 1 || (same.length === 0 && part.length === 1))) return only;
  }
  return null;
}

/** @returns names in the words of a step that are no line of its recipe, or could be several */
export const unboundNames = (recipe: Pick<Recipe, 'lines'>, step: Pick<Step, 'text' | 'adds'>): string[] =>
  [...step.text.matchAll(BOUND)].flatMap(([, name = '']) =>
    under<string | undefined>(OF_PROCESS, name) !== undefined || lineNamed(recipe, step, name) ? [] : [name],
  );

/**
 * The words of a step with the figures they are bound to.
 *
 * @example
 * const twice = { factor: new Fraction(2), minutes: '', headspace: '' };
 * stepText(plumJam, { text: 'Stir in {sugar}', adds: [] }, twice); // 'Stir in 14 c sugar'
 */
export function stepText(recipe: Lines, step: Pick<Step, 'text' | 'adds'>, figures: StepFigures): string {
  return step.text.replaceAll(BOUND, (whole, name: string) => {
    const said = under<string | undefined>(OF_PROCESS, name);
    if (said !== undefined) return (name === 'minutes' ? figures.minutes : figures.headspace) || said;
    const line = lineNamed(recipe, step, name);
    return line ? `${amountAt(recipe, step, line, figures)} ${name}` : whole;
  });
}

/** How much of a line goes in at a step, in the measures of a kitchen. */
function amountAt(recipe: Lines, step: Pick<Step, 'adds'>, line: Line, figures: StepFigures): string {
  if (line.where === 'each jar') return `${measureText(line, new Fraction(1)).text} (in a pint)`;
  if (
    line.ratio &&
    (!figures.measured || under<object | undefined>(figures.measured, line.ratio.id) === undefined)
  )
    return `${line.amount.text} for each ${line.ratio.per.text} of`;
  const share = new Fraction(step.adds.find(a => a.lineId === line.id)?.share ?? '1');
  const times = timesOf(recipe, line, figures.factor, figures.measured ?? NOTHING_MEASURED);
  return measureText(line, times.mul(share)).text;
}

/** An amount in the words of a step that belongs to a line, and is bound to it by nothing. */
export interface LooseAmount {
  lineId: string;
  /** As it stands there, "1/2 cup of the sugar". */
  words: string;
  /** The share of the line it is, `n/d`. */
  share: string;
  /** The step's words with it bound. */
  text: string;
}

/** The name by which people speak of a line in its steps: its last words. */
const NOUN_PAIR =
  /^(?:juice|seeds?|powder|starch|sticks?|paste|extract|peppers?|flakes|concentrate|leaves)$/i;

/** Ways to name a line: whole, and by its noun; "white vinegar" is the vinegar, "bottled lemon juice" the lemon juice. */
export function namesOfLine(line: Pick<Line, 'name'>): string[] {
  const words = line.name
    .toLowerCase()
    .replace(/\([^)]*\)/g, ' ')
    .split(/[\s,]+/)
    .filter(Boolean);
  const last = words.at(-1) ?? '';
  const noun = NOUN_PAIR.test(last) ? words.slice(-2).join(' ') : last;
  return [...new Set([words.join(' '), noun, noun.replace(/(?:es|s)$/, '')])].filter(n => n.length > 2);
}

/** A name with its plural, as whole words. */
export const asWords = (name: string): string =>
  `\\b${name.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/y$/, '(?:y|ies)')}(?:es|s)?\\b`;

/**
 * Amounts in the words of a step that say of a line what its figure says, or a part of it: at another scale they would be
 * wrong. One that is more than the whole line says something else and is left alone.
 */
export function looseAmounts(recipe: Lines, step: Pick<Step, 'text'>): LooseAmount[] {
  const out: LooseAmount[] = [];
  for (const start of step.text.matchAll(/(?<![\d/.])\d/g)) {
    const tail = step.text.slice(start.index);
    const scanned = scanAmount(tail, 'en-US');
    if (!scanned || 'fault' in scanned || scanned.value.unit === 'each') continue;
    const { value, rest } = scanned;
    const after = /^(?:of\s+)?(?:the\s+)?(.*)$/is.exec(rest)?.[1] ?? '';
    const found = recipe.lines.flatMap(line =>
      namesOfLine(line).flatMap(name => {
        const m = new RegExp(`^(?:[a-z-]+ ){0,2}?${asWords(name)}`, 'i').exec(after);
        return m ? [{ line, said: m[0] }] : [];
      }),
    );
    const [best] = found.sort((a, b) => b.said.length - a.said.length);
    if (!best || best.line.ratio || best.line.where === 'each jar') continue;
    const same = UNITS[best.line.amount.unit].dimension === UNITS[value.unit].dimension;
    if (!same || value.upTo !== null || best.line.amount.upTo !== null) continue;
    const whole = new Fraction(best.line.amount.value).mul(UNITS[best.line.amount.unit].factor);
    const share = new Fraction(value.value).mul(UNITS[value.unit].factor).div(whole);
    if (share.compare(1) > 0) continue;
    const words = tail.slice(0, tail.length - after.length + best.said.length);
    out.push({
      lineId: best.line.id,
      words,
      share: share.toFraction(),
      text: `${step.text.slice(0, start.index)}{${best.line.name}}${step.text.slice(start.index + words.length)}`,
    });
  }
  return out;
}
