import { readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Fails when an import runs against the arrows: core ← contract ← server, web; the rest may import all. */
const root = dirname(dirname(fileURLToPath(import.meta.url)));
const MAY = {
  core: [],
  contract: ['core'],
  server: ['core', 'contract'],
  web: ['core', 'contract'],
  demo: null,
  testing: null,
  e2e: null,
  bench: null,
};
/** Inside core, what several share lies at the ground and imports only what lies below it. */
const GROUND = { measure: [], heat: ['measure'], acid: ['measure'] };
const faults = [];

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
  for (const [, from] of readFileSync(path, 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)) {
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
      !(isTest && (room === 'testing' || room === 'demo'))
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

for (const room of Object.keys(MAY)) walk(join(root, room));
for (const fault of faults) console.error(fault);
if (faults.length > 0) process.exit(1);
console.log('Every arrow runs one way.');
