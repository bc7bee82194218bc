import { ALTITUDE_BANDS_FT } from '@cocotte/core/heat';
import { MM_PER_INCH, dayOf, fahrenheit, fieldText } from '@cocotte/core/measure';
import type { LineRole } from '@cocotte/core/ingredients';
import type { JarSizeId } from '@cocotte/core/jars';
import {
  type Attention,
  type Authority,
  type Line,
  type NetContents,
  type Outlet,
  type Place,
  type Recipe,
  type SetBy,
  type Step,
  type StepKind,
  type StepTarget,
  type TestedFormula,
  emptyRecipe,
} from '@cocotte/core/recipes';
import type { LetterProcess, Method, Product, TimeBasis } from '@cocotte/core/times';
import type { Kitchen } from '@cocotte/core/kitchen';

/** A recipe while it is typed: every figure still text, so that nothing is lost when one cannot be read. */
export interface DraftLine {
  id: string;
  ingredientId: string | null;
  name: string;
  preparation: string;
  role: LineRole;
  amount: string;
  /** The reading chosen where the amount can mean two things. */
  chosenUnit: string;
  basis: Line['basis'];
  where: Place;
  kept: string;
  ratioOf: '' | 'step' | 'line';
  ratioId: string;
  ratioPer: string;
  form: string;
  density: string;
  each: string;
  bushel: string;
  weightSource: string;
  trim: string;
  solids: string;
  addedSugar: string;
  freshFactor: string;
  group: '' | 'I' | 'II';
  labelName: string;
  subIngredients: string;
  allergens: string;
  strength: string;
  safelyAcid: boolean;
}
export interface DraftStep {
  id: string;
  kind: StepKind;
  text: string;
  caution: string;
  target: StepTarget['kind'];
  targetText: string;
  hold: string;
  from: string;
  to: string;
  attention: Attention['kind'];
  every: string;
  mayStop: string;
  adds: { lineId: string; share: string }[];
  part: string;
  separatesPart: string;
  separatesShare: string;
  expects: string;
}
export interface DraftJar {
  size: JarSizeId;
  net: string;
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
  size: JarSizeId;
  minutes: string[];
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
  headspace: string;
  tops: (number | null)[];
  letter: DraftMinutes[];
  seaLevel: DraftMinutes[];
  fillTemp: string;
  fillHold: string;
  closure: string;
  fillSizes: JarSizeId[];
  /** The formula its authority covers; null takes it over anew. */
  tested: TestedFormula | null;
  makesSize: JarSizeId;
  makesCount: string;
  jars: DraftJar[];
  outlets: DraftOutlet[];
  packed: boolean;
  perPint: string;
  pieceDensity: string;
  spare: string;
  shelfLife: string;
  readyAfter: string;
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

export const newLine = (id: string): DraftLine => ({
  id,
  ingredientId: null,
  name: '',
  preparation: '',
  role: 'fruit',
  amount: '',
  chosenUnit: '',
  basis: 'prepared',
  where: 'pot',
  kept: '100',
  ratioOf: '',
  ratioId: '',
  ratioPer: '',
  form: '',
  density: '',
  each: '',
  bushel: '',
  weightSource: '',
  trim: '100',
  solids: '0',
  addedSugar: '0',
  freshFactor: '1',
  group: '',
  labelName: '',
  subIngredients: '',
  allergens: '',
  strength: '',
  safelyAcid: false,
});

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
    kept: n(l.keptShare * 100),
    ratioOf: l.ratio?.of ?? '',
    ratioId: l.ratio?.id ?? '',
    ratioPer: l.ratio?.per.text ?? '',
    form: l.form,
    density: n(l.density_gPerMl),
    each: n(l.each_g),
    bushel: n(l.bushel_g, 1),
    weightSource: l.weightSource,
    trim: n(l.trimYield * 100),
    solids: n(l.solids_pct),
    addedSugar: n(l.addedSugar_pct),
    freshFactor: n(l.freshFactor),
    group: l.group ?? '',
    labelName: l.labelName,
    subIngredients: l.subIngredients,
    allergens: l.allergens.join(', '),
    strength: n(l.minStrength_pct),
    safelyAcid: l.safelyAcid,
  };
}

export const newStep = (id: string): DraftStep => ({
  id,
  kind: 'cook',
  text: '',
  caution: '',
  target: 'none',
  targetText: '',
  hold: '',
  from: '',
  to: '',
  attention: 'hands-on',
  every: '',
  mayStop: '',
  adds: [],
  part: '',
  separatesPart: '',
  separatesShare: '',
  expects: '',
});

type Habits = Pick<Kitchen, 'temperature' | 'altitude' | 'locale'>;

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
      return n(habits.altitude === 'ft' ? target.depth_mm / MM_PER_INCH : target.depth_mm);
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
    target: s.target.kind,
    targetText: targetText(s.target, habits),
    hold: s.target.kind === 'temperature' && s.target.hold_min > 0 ? n(s.target.hold_min) : '',
    from: s.window ? n(s.window.from_min / 60) : '',
    to: s.window ? n(s.window.to_min / 60) : '',
    attention: s.attention.kind,
    every: s.attention.kind === 'look in' ? n(s.attention.every_min) : '',
    mayStop: n(s.mayStop_h),
    adds: s.adds,
    part: s.part,
    separatesPart: s.separates?.part ?? '',
    separatesShare: s.separates ? n(s.separates.share * 100) : '',
    expects: s.expects?.text ?? '',
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
    maxPh: a.grade === 'letter' ? n(a.maxPh) : '4.6',
    limits: a.grade === 'letter' ? a.limits : '',
    process: letter?.kind ?? 'boiling water',
    pack,
    headspace: n(headspace_mm / MM_PER_INCH),
    tops: banded?.minutes[0]?.byAltitude.map(b => b.upTo_ft) ?? [...ALTITUDE_BANDS_FT.three],
    letter: banded
      ? banded.minutes.map(m => ({ size: m.jarSize, minutes: m.byAltitude.map(b => n(b.minutes)) }))
      : [{ size: recipe.makes.size, minutes: ['', '', ''] }],
    seaLevel: seaLevel
      ? seaLevel.minutes.map(m => ({ size: m.jarSize, minutes: [n(m.minutes)] }))
      : [{ size: recipe.makes.size, minutes: [''] }],
    fillTemp:
      letter?.kind === 'hot-fill-hold'
        ? n(kitchen.temperature === 'F' ? fahrenheit(letter.temp_C) : letter.temp_C)
        : '',
    fillHold: letter?.kind === 'hot-fill-hold' ? n(letter.hold_min) : '',
    closure: letter?.kind === 'hot-fill-hold' ? letter.closure : '',
    fillSizes: letter?.kind === 'hot-fill-hold' ? letter.jarSizes : [recipe.makes.size],
    tested: recipe.tested,
    makesSize: recipe.makes.size,
    makesCount: n(recipe.makes.count),
    jars: recipe.jars.map(j => ({
      size: j.size,
      kind: j.net.kind,
      net: n(j.net.kind === 'weight' ? j.net.oz : j.net.floz),
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
    perPint: n(recipe.packing?.perPint_g ?? null),
    pieceDensity: n(recipe.packing?.pieceDensity_gPerMl ?? 0.95),
    spare: n((recipe.packing?.spareShare ?? 0.1) * 100),
    shelfLife: n(recipe.shelfLife_months),
    readyAfter: n(recipe.readyAfter_days),
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
    product: 'jam',
    setBy: 'nothing added',
    makesCount: '8',
    jars: [{ size: 'half-pint', net: '', kind: 'weight' }],
    lines: [newLine('line-1')],
    steps: [newStep('step-1')],
  };
}
