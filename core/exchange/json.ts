import type { Recipe } from '../recipes/index.ts';
import { nearest, pathOf, readTree, upgraded } from './json-tree.ts';
import { fileFault, type FileReading } from './reading.ts';

const FORMAT = 'cocotte-recipes';

/** Writes recipes as JSON: `{ "format": "cocotte-recipes", "version": 2, "recipes": [...] }`. */
export function toJson(recipes: readonly Recipe[]): string {
  return `${JSON.stringify({ format: FORMAT, version: 2, recipes }, null, 1)}\n`;
}

/** Reads what {@link toJson} writes. Where a field stands is looked up only when a fault asks for it. */
export function fromJson(text: string): FileReading {
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch {
    const tree = readTree(text);
    if (!tree.ok) return tree;
    // What one reader lets pass and the other does not is still no sound JSON.
    return {
      ok: false,
      faults: [
        fileFault(
          1,
          '',
          'not-json',
          'The file is not sound JSON.',
          'Nothing can be taken from a file that is broken half-way.',
          'Export it again.',
        ),
      ],
    };
  }
  const { format, recipes } = (file ?? {}) as { format?: unknown; recipes?: unknown };
  let parsed: ReturnType<typeof readTree> | undefined;
  const lineOf = (path: (string | number)[]): number => {
    parsed ??= readTree(text);
    return parsed.ok ? parsed.lineAt(nearest(parsed.root, path).offset) : 1;
  };
  if (format !== FORMAT || !Array.isArray(recipes))
    return {
      ok: false,
      faults: [
        fileFault(
          lineOf(format === FORMAT ? ['recipes'] : ['format']),
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
    recipes: recipes.map((value: unknown, i) => ({
      value: upgraded(value),
      lineOf: path => lineOf(['recipes', i, ...pathOf(path)]),
    })),
  };
}
