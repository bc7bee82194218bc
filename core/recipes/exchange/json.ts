import { findNodeAtLocation } from 'jsonc-parser';
import type { Recipe } from '../recipe.ts';
import { nearest, pathOf, readTree, upgraded, valueOf } from './json-tree.ts';
import { type FileReading, fileFault } from './reading.ts';

const FORMAT = 'cocotte-recipes';

/** Writes recipes as JSON: `{ "format": "cocotte-recipes", "version": 2, "recipes": [...] }`. */
export function toJson(recipes: readonly Recipe[]): string {
  return `${JSON.stringify({ format: FORMAT, version: 2, recipes }, null, 1)}\n`;
}

/** Reads what {@link toJson} writes. */
export function fromJson(text: string): FileReading {
  const tree = readTree(text);
  if (!tree.ok) return tree;
  const { root, lineAt } = tree;
  const format = findNodeAtLocation(root, ['format'])?.value;
  const list = findNodeAtLocation(root, ['recipes']);
  if (format !== FORMAT || list?.type !== 'array')
    return {
      ok: false,
      faults: [
        fileFault(
          lineAt(list?.offset ?? 0),
          format === FORMAT ? 'recipes' : 'format',
          'other-format',
          'This JSON is not a recipe file of Cocotte.',
          `It needs "format": "${FORMAT}" and a list "recipes".`,
          'Export it from the recipe book, or choose the format it is in.',
        ),
      ],
    };
  return {
    ok: true,
    notes: [],
    recipes: (list.children ?? []).map(node => ({
      value: upgraded(valueOf(node)),
      lineOf: path => lineAt(nearest(node, pathOf(path)).offset),
    })),
  };
}
