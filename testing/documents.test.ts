import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const ROOMS = /^(core|contract|server|web|demo|testing|e2e|bench|scripts|docs)\//;

/** Paths that a document names in code signs, from the root of the tree. */
function pathsIn(text: string): string[] {
  return [...text.matchAll(/`([^`\s]+)`/g)]
    .map(m => m[1] as string)
    .filter(path => ROOMS.test(path) && !/[*{<…]/.test(path));
}

it('what the documents call by its path is there', () => {
  const documents = ['README.md', ...readdirSync(join(root, 'docs')).map(name => `docs/${name}`)].filter(
    name => name.endsWith('.md'),
  );
  const named = documents.flatMap(name =>
    pathsIn(readFileSync(join(root, name), 'utf8')).map(path => ({ name, path })),
  );
  expect(named.length).toBeGreaterThan(60);
  expect(named.filter(({ path }) => !existsSync(join(root, path)))).toEqual([]);
});
