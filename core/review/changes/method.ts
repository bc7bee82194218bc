import { jarSize } from '../../jars/index.ts';
import type { Method } from '../../times/index.ts';
import { type Formula, type FormulaChange, lost, sentence } from './change.ts';

/** What is said of each choice of a method: code, name, why it matters. */
export const METHOD_WORDS: { [K in keyof Method]: [code: string, name: string, why: string] } = {
  peel: ['peel', 'Peel', 'Skins carry most of the microbes, and acid enters peeled pieces faster.'],
  cut: [
    'cut',
    'Cut',
    'Heat and acid reach the middle of smaller and larger pieces at other times, and a purée holds less acid at its surface.',
  ],
  strain: ['strain', 'Strain', 'What is strained off carries acid and solids with it.'],
  liquid: ['liquid', 'Packing liquid', 'Pieces heat at another pace in another liquid.'],
  pack: ['pack', 'Pack', 'A raw pack goes into the canner colder than a hot one.'],
};

/** What a recipe did to the method of a tested formula: how it is made, packed and set, and what it is. */
export function methodChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const out: FormulaChange[] = [];
  for (const key of Object.keys(METHOD_WORDS) as (keyof Method)[]) {
    const then = tested.method[key];
    const now = recipe.method[key];
    if (then === now || then === 'either') continue;
    const [code, name, why] = METHOD_WORDS[key];
    out.push(
      lost(
        now === 'puréed' ? 'pureed' : code,
        `${name}: ${now}, tested ${then}.`,
        why,
        `Go back to ${then}.`,
      ),
    );
  }
  if (tested.product !== recipe.product)
    out.push(
      lost(
        'product',
        `It is now a ${recipe.product}; a ${tested.product} was tested.`,
        'Another product has another process.',
        `Call it ${tested.product} again, or give it its own authority.`,
      ),
    );
  if (tested.setBy !== recipe.setBy)
    out.push(
      lost(
        'thickening',
        `Set by ${recipe.setBy}, tested with ${tested.setBy}.`,
        'Another set changes how heat moves through the jar.',
        `Go back to ${tested.setBy}.`,
      ),
    );
  return out;
}

/** Jars larger than the largest that was tested. Smaller ones are covered by the time of the next size up. */
export function jarChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const largest = tested.jarSizes.map(jarSize).sort((a, b) => b.pints.compare(a.pints))[0];
  if (!largest) return [];
  return recipe.jarSizes
    .map(jarSize)
    .filter(s => s.pints.compare(largest.pints) > 0)
    .map(s =>
      lost(
        'larger-jar',
        `${sentence(s.plural)}; the largest jar tested is the ${largest.name}.`,
        'Heat takes longer to reach the middle of a larger jar.',
        `Use ${largest.plural} or smaller.`,
      ),
    );
}
