import { readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Fails when an import runs against the arrows (core ← contract ← server, web; the rest may import all) or in a circle. */
const root = dirname(dirname(fileURLToPath(import.meta.url)));
const MAY = {
  core: [],
  contract: ['core'],
  server: ['core', 'contract'],
  web: ['core', 'contract', 'devices'],
  devices: [],
  demo: null,
  testing: null,
  e2e: null,
  bench: null,
};
/** Inside core, what several share lies at the ground and imports only what lies below it. */
const GROUND = {
  measure: [],
  jars: ['measure'],
  heat: ['measure'],
  acid: ['measure'],
  kitchen: ['measure', 'jars', 'heat', 'acid'],
  ingredients: ['measure'],
  typeset: ['measure'],
  times: ['measure', 'jars', 'heat'],
};
const faults = [];
/** Every file, with what it imports. */
const files = new Map();

function walk(folder) {
  for (const name of readdirSync(folder)) {
    if (name === 'node_modules' || name === 'dist') continue;
    const path = join(folder, name);
    if (statSync(path).isDirectory()) walk(path);
    else if (/\.(ts|tsx)$/.test(name)) inspect(path);
  }
}

function inspect(path) {
  const here = relative(root, path).split('/');
  const isTest = /\.test\.tsx?$/.test(path) || here[1] === 'test';
  const imports = [...readFileSync(path, 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].map(
    m => m[1],
  );
  files.set(path, imports);
  for (const from of imports) {
    const inside = from.startsWith('.')
      ? relative(root, resolve(dirname(path), from)).split('/')
      : from.startsWith('@cocotte/')
        ? from.slice('@cocotte/'.length).split('/')
        : null;
    if (!inside) {
      if (here[0] === 'core' && !isTest && from.startsWith('node:'))
        faults.push(`${here.join('/')} imports ${from}: core does no I/O`);
      continue;
    }
    const [room] = inside;
    const allowed = MAY[here[0]];
    if (
      room !== here[0] &&
      allowed &&
      !allowed.includes(room) &&
      !(isTest && ['testing', 'demo', 'devices'].includes(room))
    )
      faults.push(`${here.join('/')} imports ${room}`);
    if (
      here[0] === 'core' &&
      room === 'core' &&
      GROUND[here[1]] &&
      inside[1] !== here[1] &&
      !GROUND[here[1]].includes(inside[1]) &&
      !isTest
    )
      faults.push(`${here.join('/')} imports ${inside.join('/')}: ${here[1]} lies at the ground`);
  }
}

/** Where each room's sources lie, as its package exports them. */
const SOURCES = { server: 'server/src' };

/** The file an import means, or null for a package of somebody else's. */
function fileOf(path, from) {
  const inside = from.startsWith('@cocotte/') ? from.slice('@cocotte/'.length).split('/') : null;
  if (!inside && !from.startsWith('.')) return null;
  const base = inside
    ? join(root, SOURCES[inside[0]] ?? inside[0], ...inside.slice(1))
    : resolve(dirname(path), from);
  return [base, `${base}.ts`, `${base}.tsx`, join(base, 'index.ts')].find(p => files.has(p)) ?? null;
}

/** Files that import each other in a circle, by types or at run time (Tarjan's strongly connected components). */
function circles() {
  const number = new Map();
  const low = new Map();
  const stack = [];
  const found = [];
  const visit = file => {
    number.set(file, number.size);
    low.set(file, number.get(file));
    stack.push(file);
    for (const next of files.get(file)) {
      if (!number.has(next)) {
        visit(next);
        low.set(file, Math.min(low.get(file), low.get(next)));
      } else if (stack.includes(next)) low.set(file, Math.min(low.get(file), number.get(next)));
    }
    if (low.get(file) !== number.get(file)) return;
    const circle = stack.splice(stack.indexOf(file));
    if (circle.length > 1) found.push(circle);
  };
  for (const file of files.keys()) if (!number.has(file)) visit(file);
  return found;
}

/** Views of the interface: whatever App.tsx loads when it is opened. */
const APP = join(root, 'web/src/App.tsx');
const pages = new Set(
  [...readFileSync(APP, 'utf8').matchAll(/import\('([^']+)'\)/g)].map(m => resolve(dirname(APP), m[1])),
);
/** Rooms of the interface that no capability owns: what all of them stand on. */
const FRAME = ['kit', 'shell', 'words', 'outbox', 'device'];
const roomOf = path => relative(join(root, 'web/src'), path).split('/')[0];

/** A view is opened by its address, never imported by another capability; the frame knows of none of them. */
function viewsApart(path, imports) {
  if (!path.startsWith(join(root, 'web/src/')) || path === APP) return;
  for (const other of imports) {
    if (!other.startsWith(join(root, 'web/src/')) || roomOf(other) === roomOf(path)) continue;
    const words = `${relative(root, path)} imports ${relative(root, other)}`;
    if (pages.has(other)) faults.push(`${words}: a view of another capability`);
    else if (FRAME.includes(roomOf(path)) && !FRAME.includes(roomOf(other)))
      faults.push(`${words}: the frame knows of no capability`);
  }
}

for (const room of Object.keys(MAY)) walk(join(root, room));
for (const [path, imports] of files)
  files.set(
    path,
    imports.flatMap(from => fileOf(path, from) ?? []),
  );
for (const [path, imports] of files) viewsApart(path, imports);
for (const circle of circles())
  faults.push(`a circle: ${circle.map(path => relative(root, path)).join(' → ')}`);
for (const fault of faults) console.error(fault);
if (faults.length > 0) process.exit(1);
console.log('Every arrow runs one way.');
