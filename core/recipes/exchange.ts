import { type Node, findNodeAtLocation, parseTree, printParseErrorCode, type ParseError } from 'jsonc-parser';
import Papa from 'papaparse';
import type { Fault } from '../measure/index.ts';
import { emptyRecipe, lineFrom, stepFrom } from './compose.ts';
import { jarCountText } from './jars.ts';
import type { NameIndex } from './ingredients.ts';
import { readPasted } from './paste.ts';
import type { Line, Recipe, Step } from './recipe.ts';
import { upgradeRecipe } from './upgrade.ts';

/** The open formats recipes go out and come in by; docs/exchange.md describes each. */
export const EXCHANGE_FORMATS = ['json', 'csv', 'jsonld'] as const;
export type ExchangeFormat = (typeof EXCHANGE_FORMATS)[number];

/** What is wrong in a file, by its line. */
export interface FileFault extends Fault {
  /** Line of the file, from 1. */
  line: number;
}

/** A recipe read from a file, not yet checked against the rules of a recipe, and where its fields stand. */
export interface ReadRecipe {
  value: unknown;
  /** Line of the file on which a field stands; the recipe's first line for a path that is not there. */
  lineOf: (path: string) => number;
}

export type FileReading =
  { ok: true; recipes: ReadRecipe[]; notes: string[] } | { ok: false; faults: FileFault[] };

const FORMAT = 'cocotte-recipes';

/** Writes recipes as JSON: `{ "format": "cocotte-recipes", "version": 2, "recipes": [...] }`. */
export function toJson(recipes: readonly Recipe[]): string {
  return `${JSON.stringify({ format: FORMAT, version: 2, recipes }, null, 1)}\n`;
}

const fileFault = (
  line: number,
  path: string,
  code: string,
  what: string,
  why: string,
  next: string,
): FileFault => ({
  line,
  path,
  code,
  what,
  why,
  next,
});

/** Line numbers of offsets, counted once. */
function lineCounter(text: string): (offset: number) => number {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return offset => {
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >> 1;
      if ((starts[mid] as number) <= offset) low = mid;
      else high = mid - 1;
    }
    return low + 1;
  };
}

function readTree(
  text: string,
): { ok: true; root: Node; lineAt: (offset: number) => number } | { ok: false; faults: FileFault[] } {
  const lineAt = lineCounter(text);
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { disallowComments: true });
  const first = errors[0];
  if (first || !root)
    return {
      ok: false,
      faults: [
        fileFault(
          lineAt(first?.offset ?? 0),
          '',
          'not-json',
          `The file is not sound JSON: ${words(first ? printParseErrorCode(first.error) : 'it is empty')}.`,
          'Nothing can be taken from a file that is broken half-way.',
          'Export it again, or mend it at this line.',
        ),
      ],
    };
  return { ok: true, root, lineAt };
}

const words = (code: string) => code.replaceAll(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
const pathOf = (path: string) =>
  path
    .replaceAll(/\[(\d+)\]/g, '.$1')
    .split('.')
    .filter(Boolean)
    .map(p => (/^\d+$/.test(p) ? Number(p) : p));

/** Value of a node; built from the tree, so that a file is parsed once. */
function valueOf(node: Node): unknown {
  if (node.type === 'array') return (node.children ?? []).map(valueOf);
  if (node.type === 'object')
    return Object.fromEntries(
      (node.children ?? []).flatMap(p =>
        p.children?.[1] ? [[String(p.children[0]?.value), valueOf(p.children[1])]] : [],
      ),
    );
  return node.value;
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

/** An older shape is brought up to date; whatever is no recipe at all is left for the rules to refuse. */
function upgraded(value: unknown): unknown {
  try {
    return value !== null && typeof value === 'object' && 'lines' in value ? upgradeRecipe(value) : value;
  } catch {
    return value;
  }
}

function nearest(node: Node, path: (string | number)[]): Node {
  for (let length = path.length; length > 0; length--) {
    const found = findNodeAtLocation(node, path.slice(0, length));
    if (found) return found;
  }
  return node;
}

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
const BY_RECORD: Record<string, readonly string[]> = {
  recipe: RECIPE_COLUMNS,
  line: LINE_COLUMNS,
  step: STEP_COLUMNS,
  jar: JAR_COLUMNS,
};
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
  const rows: Record<string, string>[] = [];
  const put = (record: string, thing: object) => {
    const row: Record<string, string> = { record };
    for (const column of BY_RECORD[record] as readonly string[]) {
      const value = (thing as Record<string, unknown>)[column];
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
    const thing: Record<string, unknown> = {};
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
        value: { format: 2, ...thing, lines: [], steps: [], jars: [] },
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
      value: r.value,
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
    recipeInstructions: recipe.steps.map(s => ({ '@type': 'HowToStep', text: s.text })),
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
  const ingredients = textsOf(thing.recipeIngredient);
  const read = readPasted(['Ingredients', ...ingredients].join('\n'), locale, index, newId);
  for (const l of read.lines) for (const fault of l.faults) notes.push(`${name}, "${l.text}": ${fault.what}`);
  // What gave no amount still comes along, as a line to be finished.
  const lines = [
    ...read.lines.map(l => l.line),
    ...read.unread.map(u => {
      notes.push(`${name}, "${u.text}": no amount could be read.`);
      return lineFrom(
        newId(),
        { text: '1', unit: 'each', value: '1', upTo: null, toTaste: false },
        u.text.slice(0, 80),
        null,
      );
    }),
  ];
  const steps = readPasted(
    ['Method', ...textsOf(thing.recipeInstructions)].join('\n'),
    locale,
    index,
    newId,
  ).steps.map(s => s.step);
  return {
    ...emptyRecipe(),
    name: name.slice(0, 80),
    statementOfIdentity: name.slice(0, 80),
    tags: textOf(thing.keywords)
      .split(',')
      .map(t => t.trim().slice(0, 30))
      .filter(Boolean)
      .slice(0, 20),
    lines,
    steps: steps.length > 0 ? steps : [stepFrom(newId(), 'prepare', 'To be written')],
    notes: textOf(thing.description).slice(0, 4000),
  };
}

/** Writes recipes in a format. */
export function writeRecipes(format: ExchangeFormat, recipes: readonly Recipe[]): string {
  return format === 'json' ? toJson(recipes) : format === 'csv' ? toCsv(recipes) : toJsonLd(recipes);
}
