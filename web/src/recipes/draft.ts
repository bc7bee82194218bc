import { type Fault, dayOf, MM_PER_INCH, readAmount, readNumber, type Reading } from '@cocotte/core/measure';
import {
  type Authority,
  type JarSizeId,
  type Line,
  type LineRole,
  type NetContents,
  type Recipe,
  type Step,
  type StepKind,
  processEntry,
  recipeFaults,
} from '@cocotte/core/recipes';

/** A recipe while it is typed: every figure still text, so that nothing is lost when one cannot be read. */
export interface DraftLine {
  id: string;
  name: string;
  preparation: string;
  role: LineRole;
  amount: string;
  where: Line['where'];
  density: string;
  each: string;
  weightSource: string;
  trim: string;
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
  target: 'none' | 'gel point' | 'temperature' | 'time' | 'look';
  targetText: string;
  from: string;
  to: string;
  lineIds: string[];
}
export interface DraftJar {
  size: JarSizeId;
  net: string;
  kind: NetContents['kind'];
}
export interface Draft {
  name: string;
  code: string;
  statementOfIdentity: string;
  foodClass: Recipe['foodClass'];
  grade: Authority['grade'];
  entryId: string;
  title: string;
  checkedOn: string;
  authority: string;
  reference: string;
  issuedOn: string;
  pack: 'hot' | 'raw';
  headspace: string;
  maxPh: string;
  /** Letter minutes: up to 1,000 ft, up to 6,000 ft, above. */
  letter: { size: JarSizeId; low: string; middle: string; high: string }[];
  makesSize: JarSizeId;
  makesCount: string;
  jars: DraftJar[];
  shelfLife: string;
  readyAfter: string;
  notes: string;
  lines: DraftLine[];
  steps: DraftStep[];
}

export const newLine = (id: string): DraftLine => ({
  id,
  name: '',
  preparation: '',
  role: 'fruit',
  amount: '',
  where: 'pot',
  density: '',
  each: '',
  weightSource: '',
  trim: '100',
  labelName: '',
  subIngredients: '',
  allergens: '',
  strength: '',
  safelyAcid: false,
});
export const newStep = (id: string): DraftStep => ({
  id,
  kind: 'cook',
  text: '',
  caution: '',
  target: 'none',
  targetText: '',
  from: '',
  to: '',
  lineIds: [],
});

export function emptyDraft(today_ms: number, zone: string): Draft {
  return {
    name: '',
    code: '',
    statementOfIdentity: '',
    foodClass: 'fruit spread',
    grade: 'own',
    entryId: '',
    title: '',
    checkedOn: dayOf(today_ms, zone),
    authority: '',
    reference: '',
    issuedOn: '',
    pack: 'hot',
    headspace: '1/2',
    maxPh: '4.6',
    letter: [{ size: 'pint', low: '', middle: '', high: '' }],
    makesSize: 'half-pint',
    makesCount: '8',
    jars: [{ size: 'half-pint', net: '', kind: 'weight' }],
    shelfLife: '12',
    readyAfter: '0',
    notes: '',
    lines: [newLine('line-1')],
    steps: [newStep('step-1')],
  };
}

/** The draft of a recipe that is there. */
export function draftOf(recipe: Recipe, base: Draft): Draft {
  const a = recipe.authority;
  const n = (v: number | null) => (v === null ? '' : String(v));
  return {
    ...base,
    name: recipe.name,
    code: recipe.code,
    statementOfIdentity: recipe.statementOfIdentity,
    foodClass: recipe.foodClass,
    grade: a.grade,
    entryId: 'entryId' in a ? (a.entryId ?? '') : '',
    title: 'title' in a ? a.title : '',
    checkedOn: a.grade === 'tested publication' ? a.checkedOn : base.checkedOn,
    ...(a.grade === 'letter'
      ? {
          authority: a.authority,
          reference: a.reference,
          issuedOn: a.issuedOn,
          pack: a.pack,
          headspace: n(a.headspace_mm / MM_PER_INCH),
          maxPh: n(a.maxPh),
          letter: a.minutes.map(m => ({
            size: m.jarSize,
            low: n(m.byAltitude[0]?.minutes ?? null),
            middle: n(m.byAltitude[1]?.minutes ?? null),
            high: n(m.byAltitude[2]?.minutes ?? null),
          })),
        }
      : {}),
    makesSize: recipe.makes.size,
    makesCount: n(recipe.makes.count),
    jars: recipe.jars.map(j => ({
      size: j.size,
      kind: j.net.kind,
      net: n(j.net.kind === 'weight' ? j.net.oz : j.net.floz),
    })),
    shelfLife: n(recipe.shelfLife_months),
    readyAfter: n(recipe.readyAfter_days),
    notes: recipe.notes,
    lines: recipe.lines.map(l => ({
      id: l.id,
      name: l.name,
      preparation: l.preparation,
      role: l.role,
      amount: l.amount.text,
      where: l.where,
      density: n(l.density_gPerMl),
      each: n(l.each_g),
      weightSource: l.weightSource,
      trim: n(Math.round(l.trimYield * 1000) / 10),
      labelName: l.labelName,
      subIngredients: l.subIngredients,
      allergens: l.allergens.join(', '),
      strength: n(l.minStrength_pct),
      safelyAcid: l.safelyAcid,
    })),
    steps: recipe.steps.map(s => ({
      id: s.id,
      kind: s.kind,
      text: s.text,
      caution: s.caution,
      target: s.target.kind,
      targetText:
        s.target.kind === 'time'
          ? n(s.target.minutes)
          : s.target.kind === 'temperature'
            ? n(s.target.temp_C)
            : s.target.kind === 'look'
              ? s.target.text
              : '',
      from: s.window ? n(s.window.from_min / 60) : '',
      to: s.window ? n(s.window.to_min / 60) : '',
      lineIds: s.lineIds,
    })),
  };
}

/**
 * Reads a draft into a recipe, or into every fault with its path.
 *
 * @param previous  the recipe being changed, to keep what the form does not show (a demo letter stays marked)
 */
export function readDraft(
  draft: Draft,
  locale: string,
  previous: Recipe | null,
): { recipe: Recipe | null; faults: Fault[] } {
  const faults: Fault[] = [];
  const take = <T>(path: string, reading: Reading<T>, fallback: T): T => {
    if (reading.ok) return reading.value;
    faults.push({ ...reading.fault, path });
    return fallback;
  };
  const must = (path: string, text: string, what: string): string => {
    if (text.trim() === '')
      faults.push({
        path,
        code: 'missing',
        what: `${what} is empty.`,
        why: 'It is needed to go on.',
        next: 'Fill it in.',
      });
    return text.trim();
  };
  const number = (path: string, text: string, name: string, min: number, max: number, whole = false) =>
    take(path, readNumber(text, locale, { name, min, max, whole }), min);
  const maybe = (path: string, text: string, name: string, min: number, max: number) =>
    text.trim() === '' ? null : number(path, text, name, min, max);
  const lines = draft.lines.map((l, i): Line => {
    const at = `lines[${i}]`;
    return {
      id: l.id,
      name: must(`${at}.name`, l.name, 'The ingredient'),
      preparation: l.preparation.trim(),
      role: l.role,
      where: l.where,
      amount: take(`${at}.amount`, readAmount(l.amount, locale), { text: '1', unit: 'each', value: '1' }),
      density_gPerMl: maybe(`${at}.density_gPerMl`, l.density, 'The density', 0.01, 3),
      each_g: maybe(`${at}.each_g`, l.each, 'The weight of one', 0.01, 20_000),
      weightSource: l.weightSource.trim(),
      trimYield: number(`${at}.trimYield`, l.trim, 'The trim yield', 1, 100) / 100,
      labelName: l.labelName.trim() || l.name.trim().toLowerCase(),
      subIngredients: l.subIngredients.trim(),
      allergens: l.allergens
        .split(',')
        .map(a => a.trim())
        .filter(Boolean),
      minStrength_pct: maybe(`${at}.minStrength_pct`, l.strength, 'The strength', 0, 30),
      safelyAcid: l.safelyAcid,
    };
  });
  const steps = draft.steps.map((s, i): Step => {
    const at = `steps[${i}]`;
    const window =
      s.from.trim() === '' && s.to.trim() === ''
        ? null
        : {
            from_min: number(`${at}.window`, s.from, 'The wait', 0, 1600) * 60,
            to_min: number(`${at}.window`, s.to || s.from, 'The wait', 0, 1600) * 60,
          };
    const target: Step['target'] =
      s.target === 'time'
        ? { kind: 'time', minutes: number(`${at}.target`, s.targetText, 'The minutes', 0.5, 2880) }
        : s.target === 'temperature'
          ? { kind: 'temperature', temp_C: number(`${at}.target`, s.targetText, 'The target in °C', 20, 130) }
          : s.target === 'look'
            ? { kind: 'look', text: must(`${at}.target`, s.targetText, 'What to look for') }
            : { kind: s.target };
    return {
      id: s.id,
      kind: s.kind,
      text: must(`${at}.text`, s.text, 'The step'),
      caution: s.caution.trim(),
      target,
      window,
      lineIds: s.lineIds.filter(id => draft.lines.some(l => l.id === id)),
    };
  });
  const before = previous?.authority;
  const authority: Authority =
    draft.grade === 'own'
      ? { grade: 'own', entryId: draft.entryId || null }
      : draft.grade === 'published, untested'
        ? { grade: 'published, untested', title: must('authority.title', draft.title, 'The title') }
        : draft.grade === 'letter'
          ? {
              grade: 'letter',
              authority: must('authority.authority', draft.authority, 'The process authority'),
              reference: must('authority.reference', draft.reference, 'The reference'),
              issuedOn: must('authority.issuedOn', draft.issuedOn, 'The date of the letter'),
              demo: before?.grade === 'letter' && before.demo && before.reference === draft.reference,
              pack: draft.pack,
              headspace_mm:
                take(
                  'authority.headspace_mm',
                  readNumber(draft.headspace, locale, {
                    name: 'The headspace in inches',
                    min: 0.125,
                    max: 1.5,
                  }),
                  0.5,
                ) * MM_PER_INCH,
              maxPh: number('authority.maxPh', draft.maxPh, 'The pH limit', 2, 4.6),
              minutes: draft.letter.map((m, i) => ({
                jarSize: m.size,
                byAltitude: [
                  {
                    upTo_ft: 1000,
                    minutes: number(`authority.minutes[${i}]`, m.low, 'The minutes', 1, 240, true),
                  },
                  {
                    upTo_ft: 6000,
                    minutes: number(`authority.minutes[${i}]`, m.middle, 'The minutes', 1, 240, true),
                  },
                  {
                    upTo_ft: null,
                    minutes: number(`authority.minutes[${i}]`, m.high, 'The minutes', 1, 240, true),
                  },
                ],
              })),
            }
          : publication(draft, must);
  const recipe: Recipe = {
    name: must('name', draft.name, 'The name'),
    code: draft.code.trim().toUpperCase(),
    statementOfIdentity: must(
      'statementOfIdentity',
      draft.statementOfIdentity || draft.name,
      'The statement of identity',
    ),
    foodClass: draft.foodClass,
    authority,
    lines,
    steps,
    makes: {
      size: draft.makesSize,
      count: number('makes.count', draft.makesCount, 'The jars it makes', 1, 500, true),
    },
    jars: draft.jars.map((j, i) => {
      const amount = number(`jars[${i}].net`, j.net, 'The net contents', 0.1, 200);
      return {
        size: j.size,
        net: j.kind === 'weight' ? { kind: 'weight', oz: amount } : { kind: 'volume', floz: amount },
      };
    }),
    shelfLife_months: number('shelfLife_months', draft.shelfLife, 'The shelf life', 1, 18, true),
    readyAfter_days: number('readyAfter_days', draft.readyAfter, 'The days until ready', 0, 365, true),
    notes: draft.notes,
  };
  const seen = new Set(faults.map(f => f.path));
  faults.push(...recipeFaults(recipe).filter(f => !seen.has(f.path)));
  return { recipe: faults.length === 0 ? recipe : null, faults };
}

function publication(draft: Draft, must: (path: string, text: string, what: string) => string): Authority {
  must('authority.entryId', draft.entryId, 'The published entry');
  return {
    grade: 'tested publication',
    title: draft.title || 'USDA Complete Guide to Home Canning',
    edition: '2015 revision',
    part: processEntry(draft.entryId)?.source.part ?? draft.entryId,
    checkedOn: must('authority.checkedOn', draft.checkedOn, 'The day you checked it'),
    fromMemory: true,
    entryId: draft.entryId,
  };
}
