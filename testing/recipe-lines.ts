import { type Amount, readAmount } from '@cocotte/core/measure';
import { libraryOf } from '@cocotte/core/ingredients';
import { type Line, type Recipe, lineFrom } from '@cocotte/core/recipes';

const LIBRARY = libraryOf([]);

/** An amount as somebody writes it. */
export function amountOf(text: string): Amount {
  const read = readAmount(text, 'en-US');
  if (!read.ok) throw new Error(`${text}: ${read.fault.what}`);
  return read.value;
}

/** A prepared line with the library's facts where the library has the name or the id, else with none. */
export function lineOf(name: string, text: string, id = name, over: Partial<Line> = {}): Line {
  const ingredient = LIBRARY.find(i => i.id === name || i.name.toLowerCase() === name.toLowerCase()) ?? null;
  return {
    ...lineFrom(id, amountOf(text), ingredient?.name ?? name, ingredient),
    basis: 'prepared',
    ...over,
  };
}

/** The recipe with more lines at its end. */
export function withLines(recipe: Recipe, ...lines: Line[]): Recipe {
  return { ...recipe, lines: [...recipe.lines, ...lines] };
}

/** The recipe with one of its lines changed. */
export function withLine(recipe: Recipe, id: string, over: Partial<Line>): Recipe {
  if (!recipe.lines.some(l => l.id === id)) throw new Error(`no line ${id}`);
  return { ...recipe, lines: recipe.lines.map(l => (l.id === id ? { ...l, ...over } : l)) };
}

/** The recipe with the amount of one of its lines changed. */
export function withAmount(recipe: Recipe, id: string, text: string): Recipe {
  return withLine(recipe, id, { amount: amountOf(text) });
}

/** The recipe without one of its lines. */
export function withoutLine(recipe: Recipe, id: string): Recipe {
  return { ...recipe, lines: recipe.lines.filter(l => l.id !== id) };
}
