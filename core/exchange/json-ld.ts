import type { NameIndex } from '../ingredients/index.ts';
import { jarCountText } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import { lineFrom, type Recipe, stepFrom, stepText } from '../recipes/index.ts';
import { nearest, pathOf, readTree, upgraded, valueOf } from './json-tree.ts';
import { asRead, recipeFromText } from './paste-recipe.ts';
import { readPasted } from './paste.ts';
import { type FileFault, fileFault, type FileReading, type ReadRecipe } from './reading.ts';

import { type Node, findNodeAtLocation } from 'jsonc-parser';

const CONTEXT = ['https://schema.org', { cocotte: 'urn:cocotte:' }];

/** Writes recipes as schema.org Recipe in JSON-LD; the whole recipe goes along under `cocotte:recipe`, so that nothing is lost. */
export function toJsonLd(recipes: readonly Recipe[]): string {
  const graph = recipes.map(recipe => ({
    '@type': 'Recipe',
    name: recipe.name,
    recipeCategory: recipe.product,
    keywords: [recipe.family, ...recipe.tags].filter(Boolean).join(', '),
    recipeYield: jarCountText(recipe.makes.count, recipe.makes.size),
    recipeIngredient: recipe.lines.map(l =>
      [`${l.amount.text} ${l.name}`, l.preparation].filter(Boolean).join(', '),
    ),
    recipeInstructions: recipe.steps.map(s => ({
      '@type': 'HowToStep',
      text: stepText(recipe, s, AS_WRITTEN),
    })),
    ...(recipe.notes ? { description: recipe.notes } : {}),
    'cocotte:recipe': recipe,
  }));
  return `${JSON.stringify({ '@context': CONTEXT, '@graph': graph }, null, 1)}\n`;
}

/**
 * Reads schema.org Recipes: one, a list, or a graph. A recipe of ours comes back whole; another's ingredients and
 * steps are read as pasted text, and what could not be read is named in the notes.
 */
export function fromJsonLd(text: string, locale: string, index: NameIndex, newId: () => string): FileReading {
  const tree = readTree(text);
  if (!tree.ok) return tree;
  const { root, lineAt } = tree;
  const nodes = recipeNodes(root);
  if (nodes.length === 0)
    return {
      ok: false,
      faults: [
        fileFault(
          1,
          '@type',
          'no-recipe',
          'No schema.org Recipe stands in this file.',
          'Recipes are found by "@type": "Recipe".',
          'Choose the format it is in.',
        ),
      ],
    };
  const notes: string[] = [];
  const faults: FileFault[] = [];
  const recipes = nodes.flatMap((node): ReadRecipe[] => {
    const own = findNodeAtLocation(node, ['cocotte:recipe']);
    if (own)
      return [{ value: upgraded(valueOf(own)), lineOf: path => lineAt(nearest(own, pathOf(path)).offset) }];
    const thing = valueOf(node) as Record<string, unknown>;
    const name = textOf(thing.name);
    if (name === '') {
      faults.push(
        fileFault(
          lineAt(node.offset),
          'name',
          'no-name',
          'A recipe has no name.',
          'It could not be found again.',
          'Give it a "name".',
        ),
      );
      return [];
    }
    const recipe = fromWords(name, thing, locale, index, newId, notes);
    return [{ value: recipe, lineOf: () => lineAt(node.offset) }];
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, recipes, notes };
}

function recipeNodes(node: Node): Node[] {
  if (node.type === 'array') return (node.children ?? []).flatMap(recipeNodes);
  if (node.type !== 'object') return [];
  const type = findNodeAtLocation(node, ['@type']);
  const types = type ? [valueOf(type)].flat() : [];
  if (types.includes('Recipe')) return [node];
  const graph = findNodeAtLocation(node, ['@graph']);
  return graph ? recipeNodes(graph) : [];
}

/** Steps as they are read at the scale of the recipe as written. */
const AS_WRITTEN = { factor: new Fraction(1), minutes: '', headspace: '' };

const textOf = (value: unknown): string => (typeof value === 'string' ? value.trim() : '');
const textsOf = (value: unknown): string[] =>
  [value]
    .flat()
    .flatMap(v => {
      if (typeof v === 'string') return v.split(/\r?\n/).map(t => t.trim());
      if (v === null || typeof v !== 'object') return [];
      const step = v as { text?: unknown; itemListElement?: unknown; name?: unknown };
      return step.itemListElement === undefined
        ? [textOf(step.text) || textOf(step.name)]
        : textsOf(step.itemListElement);
    })
    .filter(Boolean);

function fromWords(
  name: string,
  thing: Record<string, unknown>,
  locale: string,
  index: NameIndex,
  newId: () => string,
  notes: string[],
): Recipe {
  const [makes = ''] = textsOf(thing.recipeYield);
  const text = [
    name,
    makes === '' ? '' : `Yield: ${makes}`,
    'Ingredients',
    ...textsOf(thing.recipeIngredient),
    'Method',
    ...textsOf(thing.recipeInstructions),
  ];
  const read = readPasted(text.join('\n'), locale, index, newId);
  for (const l of read.lines) {
    for (const fault of l.faults) notes.push(`${name}, "${l.text}": ${fault.what}`);
    if (l.which.length > 0)
      notes.push(`${name}, "${l.text}": this could be ${l.which.map(i => i.name).join(', or ')}; say which.`);
  }
  const recipe = recipeFromText(read, asRead(read), newId);
  // What gave no amount still comes along, as a line to be finished.
  const more = read.unread.map(u => {
    notes.push(`${name}, "${u.text}": no amount could be read.`);
    return lineFrom(
      newId(),
      { text: '1', unit: 'each', value: '1', upTo: null, toTaste: false },
      u.text.slice(0, 80),
      null,
    );
  });
  return {
    ...recipe,
    name: name.slice(0, 80),
    statementOfIdentity: name.slice(0, 80),
    tags: textOf(thing.keywords)
      .split(',')
      .map(t => t.trim().slice(0, 30))
      .filter(Boolean)
      .slice(0, 20),
    lines: [...recipe.lines, ...more],
    steps: recipe.steps.length > 0 ? recipe.steps : [stepFrom(newId(), 'prepare', 'To be written')],
    notes: textOf(thing.description).slice(0, 4000),
  };
}
