import { byName, type Names, under } from '../measure/index.ts';
import type { Line, Recipe, Step } from '../recipes/index.ts';
import { upgraded } from './json-tree.ts';
import { type FileFault, fileFault, type FileReading } from './reading.ts';

import Papa from 'papaparse';

/** Columns of the CSV. Each row says what it is in `record`; the columns that do not belong to it stay empty. */
const RECIPE_COLUMNS = [
  'name',
  'code',
  'statementOfIdentity',
  'product',
  'family',
  'tags',
  'variantOf',
  'foodClass',
  'setBy',
  'method',
  'authority',
  'tested',
  'makes',
  'outlets',
  'packing',
  'shelfLife_months',
  'readyAfter_days',
  'notes',
  'sketch',
] as const satisfies (keyof Recipe)[];
const LINE_COLUMNS = [
  'id',
  'ingredientId',
  'name',
  'preparation',
  'role',
  'amount',
  'basis',
  'where',
  'keptShare',
  'ratio',
  'form',
  'density_gPerMl',
  'each_g',
  'bushel_g',
  'weightSource',
  'trimYield',
  'solids_pct',
  'addedSugar_pct',
  'freshFactor',
  'group',
  'labelName',
  'subIngredients',
  'allergens',
  'minStrength_pct',
  'safelyAcid',
] as const satisfies (keyof Line)[];
const STEP_COLUMNS = [
  'id',
  'kind',
  'text',
  'caution',
  'target',
  'window',
  'attention',
  'mayStop_h',
  'adds',
  'part',
  'separates',
  'expects',
] as const satisfies (keyof Step)[];
const JAR_COLUMNS = ['size', 'net'] as const satisfies (keyof Recipe['jars'][number])[];
const COLUMNS: string[] = [
  'record',
  ...new Set<string>([...RECIPE_COLUMNS, ...LINE_COLUMNS, ...STEP_COLUMNS, ...JAR_COLUMNS]),
];
const BY_RECORD = byName<readonly string[]>({
  recipe: RECIPE_COLUMNS,
  line: LINE_COLUMNS,
  step: STEP_COLUMNS,
  jar: JAR_COLUMNS,
});
/** Plain words stand as they are; everything else stands as JSON in its cell. */
const TEXT_COLUMNS = new Set<string>([
  'name',
  'code',
  'statementOfIdentity',
  'product',
  'family',
  'foodClass',
  'setBy',
  'notes',
  'id',
  'preparation',
  'role',
  'basis',
  'where',
  'form',
  'weightSource',
  'labelName',
  'subIngredients',
  'kind',
  'text',
  'caution',
  'part',
  'size',
]);

/**
 * Writes recipes as CSV (RFC 4180): a row for each recipe, followed by a row for each of its lines, steps and jars. A cell that holds
 * more than words or a number holds JSON. A cell that a spreadsheet would take for a formula begins with an apostrophe.
 */
export function toCsv(recipes: readonly Recipe[]): string {
  const rows: Names<string>[] = [];
  const put = (record: string, thing: object) => {
    const row = byName([['record', record]]);
    for (const column of BY_RECORD[record] as readonly string[]) {
      const value = under(thing as { [column: string]: unknown }, column);
      row[column] = TEXT_COLUMNS.has(column)
        ? guarded(value as string)
        : value === null
          ? ''
          : JSON.stringify(value);
    }
    rows.push(row);
  };
  for (const recipe of recipes) {
    put('recipe', recipe);
    for (const line of recipe.lines) put('line', line);
    for (const step of recipe.steps) put('step', step);
    for (const jar of recipe.jars) put('jar', jar);
  }
  return `${Papa.unparse(rows, { columns: COLUMNS, newline: '\r\n' })}\r\n`;
}

/** The columns say nothing of their shape: a letter without terms is from before it named any. */
const shapeOf = ({ authority }: Names<unknown>): 2 | 3 =>
  authority !== null && typeof authority === 'object' && 'process' in authority && !('terms' in authority)
    ? 2
    : 3;

const guarded = (text: string) => (/^['=+\-@\t\r]/.test(text) ? `'${text}` : text);
const unguarded = (text: string) => (/^'['=+\-@\t\r]/.test(text) ? text.slice(1) : text);

/** Reads what {@link toCsv} writes. A quoted cell may hold line breaks; commas and semicolons are told apart. */
export function fromCsv(text: string): FileReading {
  const clean = text.replace(/^\uFEFF/, '');
  const { rows, faults } = csvRows(clean);
  const head = rows[0];
  const missing = head ? ['record', 'name'].filter(c => !head.cells.includes(c)) : ['record'];
  if (!head || missing.length > 0)
    faults.push(
      fileFault(
        1,
        missing.join(', '),
        'no-columns',
        `The first line does not name the column ${missing.join(' and ')}.`,
        'Columns are found by their names.',
        'Export one recipe to see the columns, or choose the format it is in.',
      ),
    );
  if (!head || faults.length > 0) return { ok: false, faults };
  const columns = head.cells;
  const recipes: { value: Record<string, unknown>; lines: Map<string, number>; first: number }[] = [];
  for (const { cells, line } of rows.slice(1)) {
    if (cells.every(c => c === '')) continue;
    const cell = (name: string) => cells[columns.indexOf(name)] ?? '';
    const record = cell('record');
    const wanted = BY_RECORD[record];
    if (!wanted) {
      faults.push(
        fileFault(
          line,
          'record',
          'unknown-record',
          `"${record}" is no kind of row.`,
          'A row is a recipe, line, step or jar.',
          'Correct the first column.',
        ),
      );
      continue;
    }
    const thing: Names<unknown> = byName();
    for (const column of wanted) {
      const value = cell(column);
      if (TEXT_COLUMNS.has(column)) thing[column] = unguarded(value);
      else if (value === '') thing[column] = null;
      else
        try {
          thing[column] = JSON.parse(value);
        } catch {
          faults.push(
            fileFault(
              line,
              column,
              'bad-cell',
              `"${value.slice(0, 40)}" cannot be read in ${column}.`,
              'A cell that is more than words holds JSON.',
              'Correct the cell, or leave it empty.',
            ),
          );
        }
    }
    if (record === 'recipe') {
      recipes.push({
        value: { ...thing, format: shapeOf(thing), lines: [], steps: [], jars: [] },
        lines: new Map(),
        first: line,
      });
      continue;
    }
    const current = recipes.at(-1);
    if (!current) {
      faults.push(
        fileFault(
          line,
          'record',
          'no-recipe',
          `A ${record} stands before any recipe.`,
          'It belongs to the recipe above it.',
          'Begin with a row of kind recipe.',
        ),
      );
      continue;
    }
    const list = current.value[`${record}s`] as unknown[];
    current.lines.set(`${record}s[${list.length}]`, line);
    list.push(thing);
  }
  if (faults.length > 0) return { ok: false, faults };
  return {
    ok: true,
    notes: [],
    recipes: recipes.map(r => ({
      value: upgraded(r.value),
      lineOf: path => r.lines.get(/^\w+\[\d+\]/.exec(path)?.[0] ?? '') ?? r.first,
    })),
  };
}

/** Rows with the line of the file each begins on. */
function csvRows(text: string): { rows: { cells: string[]; line: number }[]; faults: FileFault[] } {
  const rows: { cells: string[]; line: number }[] = [];
  const faults: FileFault[] = [];
  let line = 1;
  let from = 0;
  const delimiter = (text.split('\n', 1)[0] ?? '').includes(';') ? ';' : ',';
  Papa.parse<string[]>(text, {
    delimiter,
    step: ({ data, errors, meta }) => {
      const first = errors[0];
      if (first)
        faults.push(
          fileFault(
            line,
            '',
            'bad-row',
            `The row cannot be read: ${first.message.toLowerCase()}.`,
            'Where a cell begins and ends is unclear.',
            'Mend the quotes of this row.',
          ),
        );
      rows.push({ cells: data, line });
      for (let at = text.indexOf('\n', from); at >= 0 && at < meta.cursor; at = text.indexOf('\n', at + 1))
        line++;
      from = meta.cursor;
    },
  });
  return { rows: rows.filter(r => r.cells.length > 1 || r.cells[0] !== ''), faults };
}
