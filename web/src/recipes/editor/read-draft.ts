import { type Fault, MM_PER_INCH, UNITS, amountMiddle, readRational } from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Line, type Recipe, type Step, type StepTarget, recipeFaults } from '@cocotte/core/recipes';
import { classOf } from '@cocotte/core/review';
import { fieldPath } from '../../kit/readers.ts';
import type { Draft, DraftLine, DraftStep } from './draft.ts';
import { readAuthority } from './read-authority.ts';
import { type HintOf, Reader, inCelsius, namesIn } from './reader.ts';
import { misread } from '../../words/views.ts';

/**
 * Reads a draft into a recipe, or into every fault with its path. The recipe is given even with faults, from what could
 * be read, so that the review beside the form keeps up.
 *
 * @param hintOf  what the library knows of an ingredient, by its id
 * @param previous  the recipe being changed, to keep what the form does not show (a demo letter stays marked)
 */
export function readDraft(
  draft: Draft,
  kitchen: Kitchen,
  previous: Recipe | null,
  hintOf: HintOf,
): { recipe: Recipe; faults: Fault[] } {
  const reader = new Reader(kitchen, hintOf);
  const known = new Set(draft.lines.map(l => l.id));
  const written: Recipe = {
    format: 3,
    name: reader.must('name', draft.name, 'The name'),
    code: draft.code.trim().toUpperCase(),
    statementOfIdentity: draft.statementOfIdentity.trim() || draft.name.trim(),
    product: draft.product,
    family: draft.family.trim(),
    tags: namesIn(draft.tags),
    variantOf: draft.variantOf || null,
    foodClass: 'acid food',
    setBy: draft.setBy,
    method: draft.method,
    authority: readAuthority(draft, reader, previous),
    tested: draft.tested,
    lines: draft.lines.map((l, i) => readLine(l, `lines[${i}]`, reader)),
    steps: draft.steps.map((s, i) => readStep(s, `steps[${i}]`, known, reader)),
    makes: {
      size: draft.makes.size,
      count: reader.number('makes.count', draft.makes.count, 'The jars it makes', 1, 500, { whole: true }),
    },
    jars: draft.jars.map((j, i) => {
      const amount = reader.number(`jars[${i}].net`, j.net, 'The net contents', 0.1, 200);
      return {
        size: j.size,
        net: j.kind === 'weight' ? { kind: 'weight', oz: amount } : { kind: 'volume', floz: amount },
      };
    }),
    outlets: draft.outlets.map((o, i) => ({
      id: o.id,
      name: reader.must(`outlets[${i}].name`, o.name, 'The outlet'),
      share: reader.share(`outlets[${i}].share`, o.share, 'The share of the pot', 0.1, 99),
      use: o.use,
      jarSize: o.use === 'jars' ? o.jarSize || null : null,
      entryId: o.use === 'jars' ? o.entryId || null : null,
    })),
    packing: draft.packed
      ? {
          perPint_g: reader.number(
            'packing.perPint_g',
            draft.packing.perPint_g,
            'The pieces in a pint',
            1,
            600,
            {
              unit: ' g',
            },
          ),
          pieceDensity_gPerMl: reader.number(
            'packing.pieceDensity_gPerMl',
            draft.packing.pieceDensity_gPerMl,
            'The density of the pieces',
            0.3,
            1.6,
          ),
          spareShare: reader.share('packing.spareShare', draft.packing.spareShare, 'The spare liquid'),
        }
      : null,
    shelfLife_months: reader.number('shelfLife_months', draft.shelfLife_months, 'The shelf life', 1, 18, {
      whole: true,
    }),
    readyAfter_days: reader.number('readyAfter_days', draft.readyAfter_days, 'The days until ready', 0, 365, {
      whole: true,
    }),
    notes: draft.notes,
    sketch: draft.sketch,
  };
  const recipe = { ...written, foodClass: classOf(written) };
  const minutes = draft.grade === 'letter' && draft.process === 'boiling water' ? 'letter' : 'seaLevel';
  const others = recipeFaults(recipe).map(f => ({
    ...f,
    path: f.path.replace(/^authority\.(process|time)\.minutes/, minutes),
  }));
  // What could not be read stands for something else meanwhile: what is wrong with that is no fault of anybody.
  const seen = reader.faults.map(f => `${fieldPath(f.path)}.`);
  const isNew = (f: Fault) => !seen.some(path => path.startsWith(`${fieldPath(f.path)}.`));
  return { recipe, faults: [...reader.faults, ...others.filter(isNew)] };
}

/** One line of a draft, read; faults go to the reader. */
export function readLine(l: DraftLine, at: string, reader: Reader): Line {
  return {
    id: l.id,
    ingredientId: l.ingredientId,
    name: l.name.trim(),
    preparation: l.preparation.trim(),
    role: l.role,
    amount: reader.amount(`${at}.amount`, l.amount, l.chosenUnit, reader.hintOf(l.ingredientId)),
    basis: l.basis,
    where: l.where,
    keptShare: reader.share(`${at}.keptShare`, l.keptShare, 'The share that stays'),
    ratio:
      l.ratio.of === ''
        ? null
        : {
            of: l.ratio.of,
            id: reader.must(`${at}.ratio.id`, l.ratio.id, 'What it is a ratio of'),
            per: reader.amount(`${at}.ratio.per`, l.ratio.per),
          },
    form: l.form,
    density_gPerMl: reader.maybe(`${at}.density_gPerMl`, l.density_gPerMl, 'The density', 0.01, 3),
    each_g: reader.maybe(`${at}.each_g`, l.each_g, 'The weight of one', 0.01, 20_000),
    bushel_g: reader.maybe(`${at}.bushel_g`, l.bushel_g, 'The weight of a bushel', 100, 100_000),
    weightSource: l.weightSource.trim(),
    trimYield: reader.share(`${at}.trimYield`, l.trimYield, 'The trim yield', 1),
    solids_pct: reader.number(`${at}.solids_pct`, l.solids_pct, 'The soluble solids', 0, 100),
    addedSugar_pct: reader.number(`${at}.addedSugar_pct`, l.addedSugar_pct, 'The added sugar', 0, 100),
    freshFactor: reader.number(`${at}.freshFactor`, l.freshFactor, 'The fresh weight it stands for', 1, 30),
    group: l.group || null,
    labelName: l.labelName.trim() || l.name.trim().toLowerCase(),
    subIngredients: l.subIngredients.trim(),
    allergens: namesIn(l.allergens),
    minStrength_pct: reader.maybe(`${at}.minStrength_pct`, l.minStrength_pct, 'The strength', 0, 30),
    safelyAcid: l.safelyAcid,
  };
}

/** Reads one line alone, to show what its amount means while it is typed. */
export function readLineAlone(l: DraftLine, kitchen: Kitchen): { line: Line; faults: Fault[] } {
  const reader = new Reader(kitchen);
  return { line: readLine(l, '', reader), faults: reader.faults };
}

function readTarget(s: DraftStep, path: string, reader: Reader): StepTarget {
  const { kitchen } = reader;
  const fahrenheitHere = kitchen.temperature === 'F';
  const { text } = s.target;
  switch (s.target.kind) {
    case 'none':
    case 'gel point':
      return { kind: s.target.kind };
    case 'time':
      return { kind: 'time', minutes: reader.number(path, text, 'The minutes', 0.5, 2880) };
    case 'temperature': {
      const degrees = reader.number(
        path,
        text,
        'The temperature',
        fahrenheitHere ? 68 : 20,
        fahrenheitHere ? 266 : 130,
        {
          unit: ` °${kitchen.temperature}`,
        },
      );
      return {
        kind: 'temperature',
        temp_C: fahrenheitHere ? inCelsius(degrees) : degrees,
        hold_min: reader.maybe(path.replace(/text$/, 'hold'), s.target.hold, 'The minutes held', 0, 600) ?? 0,
      };
    }
    case 'volume': {
      const amount = reader.amount(path, text);
      const unit = UNITS[amount.unit];
      if (unit.dimension !== 'volume')
        reader.faults.push({ ...misread('not-a-volume', { text, sample: 3.5 }).fault, path });
      return { kind: 'volume', volume_mL: amountMiddle(amount).mul(unit.factor).valueOf() };
    }
    case 'depth': {
      const inches = kitchen.measures === 'US';
      const depth = reader.number(path, text, 'The depth', inches ? 0.1 : 2, inches ? 39 : 1000, {
        unit: inches ? ' in' : ' mm',
      });
      return { kind: 'depth', depth_mm: inches ? depth * MM_PER_INCH : depth };
    }
    case 'reduced': {
      const percent = reader.number(path, text, 'The share that boils away', 2, 95, { unit: ' %' });
      // 33 % is said for a third, and means it.
      const plain = [1 / 3, 2 / 3].find(share => Math.abs(percent - share * 100) < 0.5);
      return { kind: 'reduced', by: plain ?? percent / 100 };
    }
    case 'look':
      return { kind: 'look', text: reader.must(path, text, 'What to look for') };
  }
}

function readStep(s: DraftStep, at: string, known: ReadonlySet<string>, reader: Reader): Step {
  const { from, to } = s.window;
  const waits = from.trim() !== '' || to.trim() !== '';
  return {
    id: s.id,
    kind: s.kind,
    text: reader.must(`${at}.text`, s.text, 'The step'),
    caution: s.caution.trim(),
    target: readTarget(s, `${at}.target.text`, reader),
    window: waits
      ? {
          from_min: reader.number(`${at}.window.from`, from || to, 'The wait', 0, 3000, { unit: ' h' }) * 60,
          to_min: reader.number(`${at}.window.to`, to || from, 'The wait', 0, 3000, { unit: ' h' }) * 60,
        }
      : null,
    attention:
      s.attention.kind === 'look in'
        ? {
            kind: 'look in',
            every_min: reader.number(
              `${at}.attention.every`,
              s.attention.every,
              'The minutes between looks',
              1,
              10_080,
            ),
          }
        : { kind: s.attention.kind },
    mayStop_h: reader.maybe(`${at}.mayStop_h`, s.mayStop_h, 'The hours one may stop', 0.1, 2000),
    adds: s.adds
      .filter(a => known.has(a.lineId))
      .map((a, k) => ({
        lineId: a.lineId,
        share: reader
          .take(`${at}.adds.${k}.share`, readRational(a.share, reader.kitchen.locale), ONE)
          .toFraction(),
      })),
    part: s.part.trim(),
    separates:
      s.separates.part.trim() === ''
        ? null
        : {
            part: s.separates.part.trim(),
            share: reader.share(`${at}.separates.share`, s.separates.share, 'The share set aside', 0.1, 99.9),
          },
    expects: s.expects.trim() === '' ? null : reader.amount(`${at}.expects`, s.expects),
  };
}

const ONE = (() => {
  const one = readRational('1', 'en-US');
  if (!one.ok) throw new Error('1 is a number');
  return one.value;
})();
