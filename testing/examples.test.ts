import { readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import * as demo from '@cocotte/demo/recipes';
import { describe, expect, it } from 'vitest';
import * as acid from '../core/acid/index.ts';
import * as balance from '../core/balance/index.ts';
import * as batches from '../core/batches/index.ts';
import * as checks from '../core/checks/index.ts';
import * as exchange from '../core/exchange/index.ts';
import * as forecast from '../core/forecast/index.ts';
import * as heat from '../core/heat/index.ts';
import * as ingredients from '../core/ingredients/index.ts';
import * as jars from '../core/jars/index.ts';
import * as kitchen from '../core/kitchen/index.ts';
import * as times from '../core/times/index.ts';
import * as labels from '@cocotte/core/labels';
import * as measure from '../core/measure/index.ts';
import * as recipes from '../core/recipes/index.ts';
import * as review from '../core/review/index.ts';
import * as stores from '../core/stores/index.ts';
import * as rules from '../contract/rules.ts';
import { PaperBatch } from './builders.ts';

/** What an example may name: everything a front door gives, the demo's recipes, and a batch on paper. */
const SCOPE: Record<string, unknown> = {
  ...acid,
  ...balance,
  ...batches,
  ...checks,
  ...exchange,
  ...forecast,
  ...heat,
  ...ingredients,
  ...jars,
  ...kitchen,
  ...times,
  ...labels,
  ...measure,
  ...recipes,
  ...review,
  ...stores,
  ...rules,
  ...demo,
  PaperBatch,
};
const root = dirname(dirname(fileURLToPath(import.meta.url)));

function* sources(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (name === 'node_modules') continue;
    if (statSync(path).isDirectory()) yield* sources(path);
    else if (name.endsWith('.ts') && !name.endsWith('.test.ts')) yield path;
  }
}

/** Every example of a doc comment: the name it is of, and its lines. */
function examplesIn(code: string): { name: string; lines: string[] }[] {
  return [...code.matchAll(/@example\s*\n?([\s\S]*?)\*\/\s*export (?:async )?function\*? (\w+)/g)].map(m => ({
    name: m[2] as string,
    lines: (m[1] as string)
      .split('\n')
      .map(line => line.replace(/^\s*\* ?/, ''))
      .filter(line => line.trim() !== ''),
  }));
}

/** Runs an example: where a line ends in `// value`, what stands before it must be that. */
function run(lines: string[]): { said: unknown; is: unknown }[] {
  const code = lines.map(line => {
    const m = /^(.*\S);? \/\/ (.+)$/.exec(line);
    return m ? `out.push({ is: (${(m[1] as string).replace(/;$/, '')}), said: (${m[2]}) });` : line;
  });
  const out: { said: unknown; is: unknown }[] = [];
  // oxlint-disable-next-line no-new-func -- the examples are ours, and this is what holds them to the truth
  new Function('out', ...Object.keys(SCOPE), code.join('\n'))(out, ...Object.values(SCOPE));
  return out;
}

const examples = ['core', 'contract'].flatMap(room =>
  [...sources(join(root, room))].flatMap(path =>
    examplesIn(readFileSync(path, 'utf8')).map(e => ({ ...e, path: relative(root, path) })),
  ),
);

describe('the examples of the documentation', () => {
  it('are at what a newcomer meets first', () => {
    const named = new Set(examples.map(e => e.name));
    for (const name of ['fold', 'gate', 'readAmount', 'costSheet', 'union', 'processFor', 'scaleRecipe'])
      expect(named).toContain(name);
    expect(named.size).toBeGreaterThanOrEqual(20);
  });
  it.each(examples)('$path: $name says what is so', ({ lines }) => {
    const found = run(lines);
    expect(found.length).toBeGreaterThan(0);
    for (const { said, is } of found) expect(is).toEqual(said);
  });
});
