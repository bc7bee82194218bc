import { libraryOf, nameIndex } from '../ingredients/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { fromCsv, toCsv } from './csv.ts';
import { fromJsonLd, toJsonLd } from './json-ld.ts';
import { fromJson, toJson } from './json.ts';
import type { FileReading } from './reading.ts';

import { describe, expect, it } from 'vitest';
import * as demo from '../../demo/recipes.ts';

const RECIPES = (Object.values(demo) as Recipe[])
  .map(r => ({
    ...r,
    notes: `${r.notes}\nA second line, with "quotes"; =a formula and a comma,`,
    preparation: undefined,
  }))
  .map(({ preparation: _gone, ...r }) => r as Recipe);
const INDEX = nameIndex(libraryOf([]));
const values = (reading: FileReading) => {
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults));
  return reading.recipes.map(r => r.value);
};
const faults = (reading: FileReading) => {
  if (reading.ok) throw new Error('read without a fault');
  return reading.faults.map(f => [f.line, f.path, f.code]);
};
const ld = (text: string) => fromJsonLd(text, 'en-US', INDEX, () => 'id');

describe('recipes out and in again', () => {
  it('lose nothing as JSON, CSV and JSON-LD', () => {
    expect(values(fromJson(toJson(RECIPES)))).toEqual(RECIPES);
    expect(values(fromCsv(toCsv(RECIPES)))).toEqual(RECIPES);
    expect(values(ld(toJsonLd(RECIPES)))).toEqual(RECIPES);
  });

  it('CSV is read with semicolons too, and a formula never stands bare in a cell', () => {
    const csv = toCsv([{ ...(RECIPES[0] as Recipe), name: '=HYPERLINK("x")' }]);
    expect(csv).toContain(`'=HYPERLINK`);
    expect(values(fromCsv(csv))[0]).toMatchObject({ name: '=HYPERLINK("x")' });
  });

  it('JSON-LD of others is read as text, with what could not be read in the notes', () => {
    const text = JSON.stringify({
      '@context': 'https://schema.org',
      '@type': ['Recipe'],
      name: 'Pear butter',
      keywords: 'pears, autumn',
      recipeIngredient: ['6 lb pears', '2 c sugar', '3 c frobnicated gribble'],
      recipeInstructions: [
        { '@type': 'HowToStep', text: 'Cook soft.' },
        { '@type': 'HowToSection', itemListElement: [{ text: 'Fill jars.' }] },
      ],
    });
    const reading = ld(text);
    expect(values(reading)[0]).toMatchObject({
      name: 'Pear butter',
      tags: ['pears', 'autumn'],
      lines: [{ ingredientId: 'pear' }, { ingredientId: 'sugar' }, { name: 'frobnicated gribble' }],
      steps: [{ text: 'Cook soft.' }, { text: 'Fill jars.' }],
    });
    expect(reading.ok && reading.notes[0]).toMatch(/gribble/);
  });
});

describe('a bad file names the line and the field', () => {
  it('JSON that breaks off, or is of another kind', () => {
    expect(
      faults(fromJson('{\n"format": "cocotte-recipes",\n"recipes": [\n'))[0]?.[0],
    ).toBeGreaterThanOrEqual(3);
    expect(faults(fromJson('{"recipes": []}'))).toEqual([[1, 'format', 'other-format']]);
    expect(faults(fromJson(''))).toEqual([[1, '', 'not-json']]);
  });

  it('a field of a JSON file, by its path', () => {
    const text = toJson([RECIPES[0] as Recipe]);
    const reading = fromJson(text);
    if (!reading.ok) throw new Error('not read');
    const at = reading.recipes[0]?.lineOf('lines[1].amount.value') ?? 0;
    expect(text.split('\n')[at - 1]).toContain('"value": "7"');
  });

  it('CSV rows of no kind, before any recipe, with a broken cell', () => {
    expect(faults(fromCsv('name,code\nx,y\n'))).toEqual([[1, 'record', 'no-columns']]);
    expect(faults(fromCsv('record,name\nthing,x\n'))).toEqual([[2, 'record', 'unknown-record']]);
    expect(faults(fromCsv('record,name\nline,x\n'))).toEqual([[2, 'record', 'no-recipe']]);
    expect(faults(fromCsv('record,name,tags\nrecipe,"two\nlines",nonsense\n'))).toEqual([
      [2, 'tags', 'bad-cell'],
    ]);
    const later = `record,name,tags\nrecipe,"two\nlines",[]\nrecipe,b,oops\n`;
    expect(faults(fromCsv(later))).toEqual([[4, 'tags', 'bad-cell']]);
  });

  it('JSON-LD without a recipe, or without a name', () => {
    expect(faults(ld('{"@type": "Person"}'))).toEqual([[1, '@type', 'no-recipe']]);
    expect(faults(ld('{"@graph": [\n{"@type": "Recipe"}]}'))).toEqual([[2, 'name', 'no-name']]);
  });
});
