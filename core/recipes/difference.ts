import { jarSize } from '../jars/index.ts';
import { type Figures, type Habits, byName, fieldText, under } from '../measure/index.ts';
import type { LetterProcess } from '../times/index.ts';
import type { LetterLine, LetterTerms, Line, Recipe, Step } from './recipe.ts';
import { targetWords, windowText } from './step-words.ts';

/** How the kitchen that reads the difference writes figures. */
type Reader = Pick<Habits, 'locale' | 'temperature' | 'measures'>;

/** A figure to all of its places: two that differ may not read alike. */
const figure = (value: number, { locale }: Figures) => fieldText(value, locale, 9);
const percent = (share: number, reader: Reader) => `${figure(Math.round(share * 1000) / 10, reader)} %`;

/** One readable difference between two versions. */
export interface Difference {
  /** What part of the recipe it is in. */
  part: 'recipe' | 'authority' | 'lines' | 'steps' | 'jars';
  kind: 'added' | 'taken out' | 'changed' | 'moved';
  /** What it is about, "Sugar" or "Step 4". */
  about: string;
  before: string;
  after: string;
}

const WORDS: [key: keyof Recipe, about: string][] = [
  ['name', 'Name'],
  ['code', 'Code'],
  ['statementOfIdentity', 'Statement of identity'],
  ['product', 'Kind of product'],
  ['family', 'Family'],
  ['foodClass', 'Class'],
  ['setBy', 'Set by'],
  ['shelfLife_months', 'Shelf life, months'],
  ['readyAfter_days', 'Ready after, days'],
  ['notes', 'Notes'],
];

/**
 * Everything that differs between two versions of a recipe, in words, in the order of the sheet.
 *
 * @param reader  the kitchen that reads it: its figures, degrees and measures
 * @returns empty for none
 */
export function differences(before: Recipe, after: Recipe, reader: Reader): Difference[] {
  const out: Difference[] = [];
  const put = (part: Difference['part'], about: string, a: string, b: string) => {
    if (a !== b)
      out.push({
        part,
        kind: a === '' ? 'added' : b === '' ? 'taken out' : 'changed',
        about,
        before: a,
        after: b,
      });
  };
  for (const [key, about] of WORDS) put('recipe', about, String(before[key]), String(after[key]));
  put('recipe', 'Tags', before.tags.join(', '), after.tags.join(', '));
  put('recipe', 'Method', methodText(before), methodText(after));
  put('recipe', 'Packing', packingText(before, reader), packingText(after, reader));
  put('authority', 'Authority', authorityText(before), authorityText(after));
  put('authority', 'Its process', processText(before, reader), processText(after, reader));
  put(
    'recipe',
    'A variant',
    before.variantOf ? 'of another recipe' : '',
    after.variantOf ? 'of another recipe' : '',
  );
  out.push(
    ...listed(
      'lines',
      before.lines,
      after.lines,
      l => l.name,
      l => lineText(l, reader),
      reader,
    ),
  );
  out.push(
    ...listed(
      'steps',
      before.steps,
      after.steps,
      (_, i) => `Step ${i + 1}`,
      s => stepText(s, nameIn(before, after), reader),
      reader,
    ),
  );
  put('jars', 'Makes', makesText(before), makesText(after));
  put('jars', 'Jars', jarsText(before, reader), jarsText(after, reader));
  put('jars', 'Other outlets', outletsText(before, reader), outletsText(after, reader));
  return out;
}

function listed<T extends { id: string }>(
  part: Difference['part'],
  before: readonly T[],
  after: readonly T[],
  about: (item: T, index: number) => string,
  text: (item: T) => string,
  reader: Reader,
): Difference[] {
  const out: Difference[] = [];
  const was = new Map(before.map((item, i) => [item.id, { item, i }]));
  const now = new Set(after.map(item => item.id));
  before.forEach((item, i) => {
    if (!now.has(item.id))
      out.push({ part, kind: 'taken out', about: about(item, i), before: text(item), after: '' });
  });
  const kept = after.filter(item => was.has(item.id));
  const order = before.filter(item => now.has(item.id)).map(item => item.id);
  after.forEach((item, i) => {
    const old = was.get(item.id);
    if (!old) out.push({ part, kind: 'added', about: about(item, i), before: '', after: text(item) });
    else if (text(old.item) !== text(item))
      out.push({ part, kind: 'changed', about: about(item, i), before: text(old.item), after: text(item) });
    else if (json(old.item) !== json(item))
      out.push({
        part,
        kind: 'changed',
        about: about(item, i),
        before: changedFields(old.item, item, reader),
        after: changedFields(item, old.item, reader),
      });
    const place = kept.indexOf(item);
    if (old && order[place] !== item.id)
      out.push({
        part,
        kind: 'moved',
        about: about(item, i),
        before: `place ${old.i + 1}`,
        after: `place ${i + 1}`,
      });
  });
  return out;
}

const json = (value: unknown) => JSON.stringify(value);

/** What the fields of a line or a step are called on screen. */
const FIELD_WORDS = byName<string>({
  ingredientId: 'entry of the library',
  amount: 'amount',
  ratio: 'ratio',
  form: 'cut or packed',
  density_gPerMl: 'grams in a mL',
  each_g: 'grams of one',
  bushel_g: 'grams of a bushel',
  weightSource: 'where the weights come from',
  trimYield: 'share left of what is bought',
  solids_pct: 'soluble solids, %',
  addedSugar_pct: 'sugar added to it, %',
  freshFactor: 'stands for, times fresh',
  group: 'standard-of-identity group',
  labelName: 'name on the label',
  subIngredients: 'its own ingredients',
  allergens: 'allergens',
  safelyAcid: 'safely acid by itself',
  role: 'role',
  keptShare: 'share that stays in the food',
  attention: 'how much of you it takes',
  mayStop_h: 'one may stop after it, hours',
  part: 'acts on the part',
  separates: 'sets aside',
  expects: 'expected',
});

/** "grams in a mL 0.8" for each field of one that the other has otherwise. */
function changedFields(one: object, other: object, reader: Reader): string {
  return Object.entries(one)
    .filter(([key, value]) => json(value) !== json(under(other as { [key: string]: unknown }, key)))
    .map(([key, value]) => `${FIELD_WORDS[key] ?? key} ${valueText(value, reader)}`)
    .join('; ');
}

function valueText(value: unknown, reader: Reader): string {
  if (value === null || value === '' || (Array.isArray(value) && value.length === 0)) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return figure(value, reader);
  if (Array.isArray(value)) return value.map(v => valueText(v, reader)).join(', ');
  if (typeof value !== 'object') return String(value);
  if ('text' in value) return String(value.text);
  return Object.values(value)
    .map(v => valueText(v, reader))
    .join(' ');
}

/** A line as one reads it. */
function lineText(line: Line, reader: Reader): string {
  return [
    `${line.amount.text} ${line.name}`.trim(),
    line.preparation,
    line.basis === 'as bought' ? 'as bought' : '',
    line.where === 'pot' ? '' : line.where,
    line.keptShare === 1 ? '' : `${percent(line.keptShare, reader)} kept`,
    line.ratio ? `for each ${line.ratio.per.text}` : '',
    line.minStrength_pct === null ? '' : `at least ${figure(line.minStrength_pct, reader)} %`,
  ]
    .filter(Boolean)
    .join(', ');
}

const nameIn = (before: Recipe, after: Recipe) => (lineId: string) =>
  [...after.lines, ...before.lines].find(l => l.id === lineId)?.name ?? lineId;

function stepText(step: Step, nameOf: (lineId: string) => string, reader: Reader): string {
  return [
    `${step.kind}: ${step.text}`,
    targetWords(step.target, reader),
    step.window ? `wait ${windowText(step.window, reader)}` : '',
    step.adds.length > 0
      ? `with ${step.adds.map(a => (a.share === '1' ? nameOf(a.lineId) : `${a.share} of ${nameOf(a.lineId)}`)).join(', ')}`
      : '',
    step.caution,
  ]
    .filter(Boolean)
    .join('; ');
}

const methodText = ({ method }: Recipe) =>
  `${method.peel}, ${method.cut}, ${method.strain}, ${method.liquid === 'none' ? 'no packing liquid' : method.liquid}, ${method.pack} pack`;

function authorityText({ authority }: Recipe): string {
  switch (authority.grade) {
    case 'tested publication':
      return `${authority.kind}: ${authority.title}, ${authority.edition}, ${authority.part}`;
    case 'letter':
      return `letter ${authority.reference} of ${authority.authority}, ${authority.issuedOn}`;
    case 'published, untested':
      return `published, untested: ${authority.title}`;
    case 'own':
      return 'own recipe';
  }
}

/** The heat step of an authority and its limits, as far as the recipe itself holds them. */
function processText(recipe: Recipe, reader: Reader): string {
  const { authority } = recipe;
  switch (authority.grade) {
    case 'tested publication':
      return [
        `of ${authority.year}, checked on ${authority.checkedOn}`,
        authority.fromMemory ? 'from memory' : '',
        authority.time.kind === 'entry'
          ? `entry ${authority.time.entryId}`
          : heatText(authority.time, reader),
      ]
        .filter(Boolean)
        .join('; ');
    case 'letter':
      return [
        `pH ${figure(authority.maxPh, reader)} at most`,
        heatText(authority.process, reader),
        authority.limits,
        termsText(authority.terms, recipe, reader),
        authority.demo ? 'demo' : '',
      ]
        .filter(Boolean)
        .join('; ');
    case 'own':
      return authority.entryId === null ? '' : `entry ${authority.entryId}`;
    case 'published, untested':
      return '';
  }
}

/** What a letter names beside its heat step, in one line. */
function termsText(terms: LetterTerms, { lines }: Recipe, reader: Reader): string {
  const limit = ({ lineId, least_pct, most_pct }: LetterLine) =>
    [
      lines.find(l => l.id === lineId)?.name ?? lineId,
      least_pct === null ? '' : `${figure(least_pct, reader)} % at least`,
      most_pct === null ? '' : `${figure(most_pct, reader)} % at most`,
    ]
      .filter(Boolean)
      .join(' ');
  return [
    terms.producer && `for ${terms.producer}`,
    terms.site && `at ${terms.site}`,
    terms.pieceSize_mm !== null && `pieces to ${figure(terms.pieceSize_mm, reader)} mm`,
    terms.perPint_g !== null && `${figure(terms.perPint_g, reader)} g in a pint at most`,
    ...terms.lines.map(limit),
    terms.thickener && `thickener ${terms.thickener}`,
    terms.oil && `oil ${terms.oil}`,
    terms.closure && `closure ${terms.closure}`,
    terms.reviewOn && `to be looked at again by ${terms.reviewOn}`,
  ]
    .filter(Boolean)
    .join('; ');
}

function heatText(process: LetterProcess, reader: Reader): string {
  const headspace = `headspace ${figure(process.headspace_mm, reader)} mm`;
  switch (process.kind) {
    case 'hot-fill-hold':
      return `filled at ${figure(process.temp_C, reader)} °C, held ${figure(process.hold_min, reader)} min, ${process.jarSizes.join(', ')}, ${headspace}`;
    case 'sea level':
      return `${process.pack} pack, ${process.minutes.map(m => `${m.jarSize} ${m.minutes} min at sea level`).join(', ')}, ${headspace}`;
    case 'boiling water':
      return `${process.pack} pack, ${process.minutes
        .map(
          m =>
            `${m.jarSize} ${m.byAltitude.map(b => `${b.minutes} min ${b.upTo_ft === null ? 'above' : `to ${figure(b.upTo_ft, reader)} ft`}`).join(', ')}`,
        )
        .join('; ')}, ${headspace}`;
  }
}

const packingText = ({ packing }: Recipe, reader: Reader) =>
  packing === null
    ? ''
    : `${figure(packing.perPint_g, reader)} g in a pint, ${figure(packing.pieceDensity_gPerMl, reader)} g in a mL of pieces, ${percent(packing.spareShare, reader)} of liquid to spare`;
const makesText = ({ makes }: Recipe) =>
  `${makes.count} ${makes.count === 1 ? jarSize(makes.size).name : jarSize(makes.size).plural}`;
const jarsText = ({ jars }: Recipe, reader: Reader) =>
  jars
    .map(
      j =>
        `${jarSize(j.size).name} ${j.net.kind === 'weight' ? `${figure(j.net.oz, reader)} oz` : `${figure(j.net.floz, reader)} fl oz`}`,
    )
    .join(', ');
const outletsText = ({ outlets }: Recipe, reader: Reader) =>
  outlets
    .map(o =>
      [
        `${o.name} ${percent(o.share, reader)} to ${o.use}`,
        o.jarSize ? `in ${jarSize(o.jarSize).plural}` : '',
        o.entryId ? `by ${o.entryId}` : '',
      ]
        .filter(Boolean)
        .join(' '),
    )
    .join(', ');
