import { type Balance, brixOf, type CookFault, massOf, type Range, volume_mL } from '../balance/index.ts';
import { jarCountText, jarSize } from '../jars/index.ts';
import { type Figures, massText, numberText } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';

/** Where the figures of a recipe do not agree, in words, both of them named. */
export interface ForecastFault {
  stepId: string | null;
  what: string;
  why: string;
  next: string;
}

/** What a target is called where it cannot be met. */
const TARGET: Partial<Record<CookFault['target'], string>> = {
  'gel point': 'The gel point',
  temperature: 'This temperature',
  volume: 'This volume',
  depth: 'This depth',
  reduced: 'This reduction',
};

/** Cook steps that cannot end as they say. */
export function cookFaults(made: Balance, figures: Figures): ForecastFault[] {
  return made.faults.map(f => ({ stepId: f.stepId, ...cookFault(f, figures) }));
}

function cookFault(fault: CookFault, figures: Figures): Omit<ForecastFault, 'stepId'> {
  const n = (value: number, places: number) => numberText(value, figures, places);
  const words = TARGET[fault.target] ?? 'The measure after it';
  switch (fault.code) {
    case 'nothing dissolved':
      return {
        what: `${words} is never reached.`,
        why: 'There is nothing dissolved in it: water boils at the same temperature to the last drop.',
        next: 'Add the sugar or the fruit before this step, or set another target.',
      };
    case 'past target':
      return {
        what: `${words} asks for ${n(fault.asked, 0)} % soluble solids, and ${n(fault.there, 0)} % go in.`,
        why: 'It is past its target before it is cooked: more solids than that went in.',
        next: 'Add water or fruit, or set a higher target.',
      };
    case 'more than there is':
      return {
        what: `${words} is more than there is: ${n(fault.asked / 1000, 2)} L.`,
        why: `About ${n(fault.there / 1000, 2)} L go in; cooking only takes away.`,
        next: 'Set a smaller volume.',
      };
    case 'less than is dissolved':
      return {
        what: `${words} is less than what is dissolved in it: ${n(fault.asked / 1000, 2)} L.`,
        why: `${n(fault.there / 1000, 2)} L stay behind whatever boils off.`,
        next: 'Set a larger volume.',
      };
  }
}

/** So far may what is ready and the jars a recipe says be apart before they contradict each other. Our bound, from no source. */
const APART = { above: 1.25, below: 0.8 };
/** A pot that is cooked by eye and loses more than this share of its volume is told of. Our bound, from no source. */
const MUCH_BY_EYE = 0.25;

/**
 * What is ready against the jars the recipe says it makes: "3.5 L" beside "7 quarts", or minutes that drive nothing off.
 *
 * @param pints  foreseen, with its range
 * @param written  pints that the recipe says, at this scale
 */
export function jarFaults(
  recipe: Recipe,
  made: Balance,
  pints: Range,
  written: number,
  figures: Figures,
): ForecastFault[] {
  const n = (value: number, places: number) => numberText(value, figures, places);
  const last = made.cooks.findLast(c => c.part === '');
  const size = recipe.makes.size;
  const each = jarSize(size).pints.valueOf();
  const jars = (value: number) => `${n(value / each, 1)} ${jarSize(size).plural}`;
  const count = written / each;
  const says =
    Math.abs(count - Math.round(count)) < 0.05 ? jarCountText(Math.round(count), size) : jars(written);
  if (massOf(made.ready) === 0 || written === 0) return [];
  if (last?.judged && !recipe.packing) {
    const [from, to] = [volume_mL(last.start), volume_mL(last.end)];
    if (to >= from * (1 - MUCH_BY_EYE)) return [];
    return [
      {
        stepId: last.stepId,
        what: `${n(from / 1000, 1)} L go into this step, and ${says} hold ${n(to / 1000, 1)} L.`,
        why: `${massText(last.start.water_g - last.end.water_g, figures)} of water has to boil off, and nothing but the eye says when.`,
        next: 'Give it a volume, a depth, or the share it is reduced by; then the forecast can say how long it takes.',
      },
    ];
  }
  const ratio = pints.mid / written;
  const off = (ratio > APART.above && pints.low > written) || (ratio < APART.below && pints.high < written);
  if (!off) return [];
  const still = last && last.water_g === null;
  const litres = `${n(volume_mL(made.ready) / 1000, 1)} L at ${n(brixOf(made.ready), 0)} °Brix`;
  return [
    {
      stepId: last?.stepId ?? null,
      what: recipe.packing
        ? `${massText(massOf(made.ready), figures)} of pieces fill ${jars(pints.mid)}, and the recipe says ${says}.`
        : `${litres} fill ${jars(pints.mid)}, and the recipe says ${says}.`,
      why: still
        ? 'By its cook steps nothing boils off in between: no pot is chosen whose rate is known.'
        : 'Both cannot be: the amounts, the target of cooking and the jars have to fit together.',
      next:
        ratio > 1
          ? 'Check the amounts and whether they are as bought, cook it further, or say that it makes more.'
          : 'Check the amounts, cook it less far, or say that it makes fewer.',
    },
  ];
}
