import { ALTITUDE_BANDS_FT } from '@cocotte/core/heat';
import { PH_LIMIT } from '@cocotte/core/acid';
import { MM_PER_INCH, dayOf, fahrenheit, fieldText } from '@cocotte/core/measure';
import type { LineRole } from '@cocotte/core/ingredients';
import type { JarSizeId } from '@cocotte/core/jars';
import {
  type Attention,
  type Authority,
  type Line,
  type LetterTerms,
  type NetContents,
  noTerms,
  type Outlet,
  type Place,
  type Recipe,
  type SetBy,
  type Step,
  type StepKind,
  type StepTarget,
  type TestedFormula,
  emptyRecipe,
  usualNet,
  usualOf,
} from '@cocotte/core/recipes';
import type { LetterProcess, Method, Product, TimeBasis } from '@cocotte/core/times';
import type { Kitchen } from '@cocotte/core/kitchen';
import type { FromEntry } from '@cocotte/core/review';

/**
 * A recipe while it is typed: every figure still text, so that nothing is lost when one cannot be read. Its fields are
 * named by the path at which a fault is told.
 */
export const newLine = (id: string) => ({
  id,
  ingredientId: null as string | null,
  name: '',
  preparation: '',
  role: 'fruit' as LineRole,
  amount: '',
  /** The reading chosen where the amount can mean two things. */
  chosenUnit: '',
  basis: 'prepared' as Line['basis'],
  where: 'pot' as Place,
  keptShare: '100',
  ratio: { of: '' as '' | 'step' | 'line', id: '', per: '' },
  form: '',
  density_gPerMl: '',
  each_g: '',
  bushel_g: '',
  weightSource: '',
  trimYield: '100',
  solids_pct: '0',
  addedSugar_pct: '0',
  freshFactor: '1',
  group: '' as '' | 'I' | 'II',
  labelName: '',
  subIngredients: '',
  allergens: '',
  minStrength_pct: '',
  safelyAcid: false,
});
export type DraftLine = ReturnType<typeof newLine>;

/** A step while nothing is typed in it. */
export const newStep = (id: string) => ({
  id,
  kind: 'cook' as StepKind,
  text: '',
  caution: '',
  target: { text: '', kind: 'none' as StepTarget['kind'], hold: '' },
  window: { from: '', to: '' },
  attention: { every: '', kind: 'hands-on' as Attention['kind'] },
  mayStop_h: '',
  adds: [] as { share: string; lineId: string }[],
  part: '',
  separates: { share: '', part: '' },
  expects: '',
});
export type DraftStep = ReturnType<typeof newStep>;

export interface DraftJar {
  net: string;
  size: JarSizeId;
  kind: NetContents['kind'];
}
export interface DraftOutlet {
  id: string;
  name: string;
  share: string;
  use: Outlet['use'];
  jarSize: JarSizeId | '';
  entryId: string;
}
/** Minutes of one jar size, by the tops of the letter's bands. */
export interface DraftMinutes {
  minutes: string[];
  size: JarSizeId;
}
export interface Draft {
  name: string;
  code: string;
  statementOfIdentity: string;
  product: Product;
  family: string;
  tags: string;
  variantOf: string;
  setBy: SetBy;
  method: Method;
  grade: Authority['grade'];
  kind: 'publication' | 'leaflet';
  title: string;
  edition: string;
  year: string;
  part: string;
  checkedOn: string;
  fromMemory: boolean;
  time: TimeBasis['kind'];
  entryId: string;
  authority: string;
  reference: string;
  issuedOn: string;
  maxPh: string;
  limits: string;
  process: LetterProcess['kind'];
  pack: 'hot' | 'raw';
  /** In inches, or millimetres where the kitchen measures so. */
  headspace_mm: string;
  tops: (number | null)[];
  letter: DraftMinutes[];
  seaLevel: DraftMinutes[];
  temp_C: string;
  hold_min: string;
  terms: {
    producer: string;
    site: string;
    /** In inches, or millimetres where the kitchen measures so. */
    pieceSize_mm: string;
    perPint_g: string;
    lines: { least_pct: string; most_pct: string; lineId: string }[];
    thickener: string;
    oil: string;
    closure: string;
    reviewOn: string;
  };
  fillSizes: JarSizeId[];
  /** The formula its authority covers; null takes it over anew. */
  tested: TestedFormula | null;
  makes: { count: string; size: JarSizeId };
  jars: DraftJar[];
  outlets: DraftOutlet[];
  packed: boolean;
  packing: { perPint_g: string; pieceDensity_gPerMl: string; spareShare: string };
  shelfLife_months: string;
  readyAfter_days: string;
  notes: string;
  sketch: boolean;
  lines: DraftLine[];
  steps: DraftStep[];
}

/** Figures as they stand in a field, by the kitchen's locale. */
const figures =
  (locale: string) =>
  (value: number | null, places = 4): string =>
    value === null ? '' : fieldText(value, locale, places);

/** A line as it is typed. */
export function draftLine(l: Line, locale: string): DraftLine {
  const n = figures(locale);
  return {
    id: l.id,
    ingredientId: l.ingredientId,
    name: l.name,
    preparation: l.preparation,
    role: l.role,
    amount: l.amount.text,
    chosenUnit: l.amount.unit,
    basis: l.basis,
    where: l.where,
    keptShare: n(l.keptShare * 100),
    ratio: { of: l.ratio?.of ?? '', id: l.ratio?.id ?? '', per: l.ratio?.per.text ?? '' },
    form: l.form,
    density_gPerMl: n(l.density_gPerMl),
    each_g: n(l.each_g),
    bushel_g: n(l.bushel_g, 1),
    weightSource: l.weightSource,
    trimYield: n(l.trimYield * 100),
    solids_pct: n(l.solids_pct),
    addedSugar_pct: n(l.addedSugar_pct),
    freshFactor: n(l.freshFactor),
    group: l.group ?? '',
    labelName: l.labelName,
    subIngredients: l.subIngredients,
    allergens: l.allergens.join(', '),
    minStrength_pct: n(l.minStrength_pct),
    safelyAcid: l.safelyAcid,
  };
}

type Habits = Pick<Kitchen, 'temperature' | 'measures' | 'locale'>;

function targetText(target: StepTarget, habits: Habits): string {
  const n = figures(habits.locale);
  switch (target.kind) {
    case 'temperature':
      return n(habits.temperature === 'F' ? fahrenheit(target.temp_C) : target.temp_C);
    case 'time':
      return n(target.minutes);
    case 'volume':
      return `${n(target.volume_mL / 1000)} L`;
    case 'depth':
      return n(habits.measures === 'US' ? target.depth_mm / MM_PER_INCH : target.depth_mm);
    case 'reduced':
      return n(Math.round(target.by * 1e4) / 100);
    case 'look':
      return target.text;
    case 'none':
    case 'gel point':
      return '';
  }
}

/** A step as it is typed. */
export function draftStep(s: Step, habits: Habits): DraftStep {
  const n = figures(habits.locale);
  return {
    id: s.id,
    kind: s.kind,
    text: s.text,
    caution: s.caution,
    target: {
      text: targetText(s.target, habits),
      kind: s.target.kind,
      hold: s.target.kind === 'temperature' && s.target.hold_min > 0 ? n(s.target.hold_min) : '',
    },
    window: { from: s.window ? n(s.window.from_min / 60) : '', to: s.window ? n(s.window.to_min / 60) : '' },
    attention: {
      every: s.attention.kind === 'look in' ? n(s.attention.every_min) : '',
      kind: s.attention.kind,
    },
    mayStop_h: n(s.mayStop_h),
    adds: s.adds.map(a => ({ share: a.share, lineId: a.lineId })),
    part: s.part,
    separates: { share: s.separates ? n(s.separates.share * 100) : '', part: s.separates?.part ?? '' },
    expects: s.expects?.text ?? '',
  };
}

/** What a letter names beside its heat step, as it is typed. */
function draftTerms(terms: LetterTerms, kitchen: Kitchen): Draft['terms'] {
  const n = figures(kitchen.locale);
  const { pieceSize_mm: size } = terms;
  return {
    producer: terms.producer,
    site: terms.site,
    pieceSize_mm: n(size !== null && kitchen.measures === 'US' ? size / MM_PER_INCH : size),
    perPint_g: n(terms.perPint_g),
    lines: terms.lines.map(l => ({
      least_pct: n(l.least_pct),
      most_pct: n(l.most_pct),
      lineId: l.lineId,
    })),
    thickener: terms.thickener,
    oil: terms.oil,
    closure: terms.closure,
    reviewOn: terms.reviewOn ?? '',
  };
}

/** The draft of a recipe that is there. */
export function draftOf(recipe: Recipe, kitchen: Kitchen, now_ms: number): Draft {
  const a = recipe.authority;
  const n = figures(kitchen.locale);
  const letter = a.grade === 'letter' ? a.process : null;
  const seaLevel =
    letter?.kind === 'sea level'
      ? letter
      : a.grade === 'tested publication' && a.time.kind === 'sea level'
        ? a.time
        : null;
  const headspace_mm = letter?.headspace_mm ?? seaLevel?.headspace_mm ?? MM_PER_INCH / 2;
  const banded = letter?.kind === 'boiling water' ? letter : null;
  const pack = letter && letter.kind !== 'hot-fill-hold' ? letter.pack : (seaLevel?.pack ?? 'hot');
  return {
    name: recipe.name,
    code: recipe.code,
    statementOfIdentity: recipe.statementOfIdentity,
    product: recipe.product,
    family: recipe.family,
    tags: recipe.tags.join(', '),
    variantOf: recipe.variantOf ?? '',
    setBy: recipe.setBy,
    method: recipe.method,
    grade: a.grade,
    kind: a.grade === 'tested publication' ? a.kind : 'publication',
    title: 'title' in a ? a.title : '',
    edition: a.grade === 'tested publication' ? a.edition : '',
    year: a.grade === 'tested publication' ? n(a.year) : '',
    part: a.grade === 'tested publication' ? a.part : '',
    checkedOn: a.grade === 'tested publication' ? a.checkedOn : dayOf(now_ms, kitchen.zone),
    fromMemory: a.grade === 'tested publication' && a.fromMemory,
    time: a.grade === 'tested publication' ? a.time.kind : 'entry',
    entryId:
      a.grade === 'own'
        ? (a.entryId ?? '')
        : a.grade === 'tested publication' && a.time.kind === 'entry'
          ? a.time.entryId
          : '',
    authority: a.grade === 'letter' ? a.authority : '',
    reference: a.grade === 'letter' ? a.reference : '',
    issuedOn: a.grade === 'letter' ? a.issuedOn : '',
    maxPh: a.grade === 'letter' ? n(a.maxPh) : n(PH_LIMIT),
    limits: a.grade === 'letter' ? a.limits : '',
    process: letter?.kind ?? 'boiling water',
    pack,
    headspace_mm: n(kitchen.measures === 'US' ? headspace_mm / MM_PER_INCH : headspace_mm),
    tops: banded?.minutes[0]?.byAltitude.map(b => b.upTo_ft) ?? [...ALTITUDE_BANDS_FT.three],
    letter: banded
      ? banded.minutes.map(m => ({ minutes: m.byAltitude.map(b => n(b.minutes)), size: m.jarSize }))
      : [{ minutes: ['', '', ''], size: recipe.makes.size }],
    seaLevel: seaLevel
      ? seaLevel.minutes.map(m => ({ minutes: [n(m.minutes)], size: m.jarSize }))
      : [{ minutes: [''], size: recipe.makes.size }],
    temp_C:
      letter?.kind === 'hot-fill-hold'
        ? n(kitchen.temperature === 'F' ? fahrenheit(letter.temp_C) : letter.temp_C)
        : '',
    hold_min: letter?.kind === 'hot-fill-hold' ? n(letter.hold_min) : '',
    terms: draftTerms(a.grade === 'letter' ? a.terms : noTerms(), kitchen),
    fillSizes: letter?.kind === 'hot-fill-hold' ? letter.jarSizes : [recipe.makes.size],
    tested: recipe.tested,
    makes: { count: n(recipe.makes.count), size: recipe.makes.size },
    jars: recipe.jars.map(j => ({
      net: n(j.net.kind === 'weight' ? j.net.oz : j.net.floz),
      size: j.size,
      kind: j.net.kind,
    })),
    outlets: recipe.outlets.map(o => ({
      id: o.id,
      name: o.name,
      share: n(o.share * 100),
      use: o.use,
      jarSize: o.jarSize ?? '',
      entryId: o.entryId ?? '',
    })),
    packed: recipe.packing !== null,
    packing: {
      perPint_g: n(recipe.packing?.perPint_g ?? null),
      pieceDensity_gPerMl: n(recipe.packing?.pieceDensity_gPerMl ?? 0.95),
      spareShare: n((recipe.packing?.spareShare ?? 0.1) * 100),
    },
    shelfLife_months: n(recipe.shelfLife_months),
    readyAfter_days: n(recipe.readyAfter_days),
    notes: recipe.notes,
    sketch: recipe.sketch,
    lines: recipe.lines.map(l => draftLine(l, kitchen.locale)),
    steps: recipe.steps.map(s => draftStep(s, kitchen)),
  };
}

/** A draft to begin with: nothing typed, one line and one step waiting. */
export function emptyDraft(kitchen: Kitchen, now_ms: number): Draft {
  return {
    ...draftOf(emptyRecipe(), kitchen, now_ms),
    lines: [newLine('line-1')],
    steps: [newStep('step-1')],
  };
}

/** A draft of a kind, with what such a recipe usually is where nothing else was typed. */
export function ofKind(draft: Draft, product: Product, locale: string): Draft {
  const usual = usualOf(product);
  const net = usualNet(usual.size, product);
  const n = figures(locale);
  return {
    ...draft,
    product,
    setBy: usual.setBy,
    method: usual.method,
    makes: { count: n(usual.size === 'half-pint' ? 8 : usual.size === 'quart' ? 7 : 8), size: usual.size },
    jars: [{ net: n(net.kind === 'weight' ? net.oz : net.floz), size: usual.size, kind: net.kind }],
    readyAfter_days: n(usual.readyAfter_days),
  };
}

/** Whether something that is to be read off a publication does not stand there yet. */
export const isOpen = (draft: Draft, { lineId }: FromEntry['open'][number]): boolean =>
  lineId === null
    ? draft.makes.count.trim() === ''
    : draft.lines.some(l => l.id === lineId && l.amount.trim() === '');

/** A draft in which nothing stands where the publication is to be read. */
export function withoutOpen(draft: Draft, open: FromEntry['open']): Draft {
  const ids = new Set(open.map(o => o.lineId));
  return {
    ...draft,
    makes: ids.has(null) ? { ...draft.makes, count: '' } : draft.makes,
    lines: draft.lines.map(l => (ids.has(l.id) ? { ...l, amount: '' } : l)),
  };
}
