import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { fail, say } from './say.mjs';

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** The folder of PostgreSQL's programs, newest first, or null. */
export function postgresBin() {
  const base = '/usr/lib/postgresql';
  if (existsSync(base)) {
    const versions = readdirSync(base)
      .filter(v => existsSync(join(base, v, 'bin/initdb')))
      .sort((a, b) => Number(b) - Number(a));
    if (versions.length > 0) return join(base, versions[0], 'bin');
  }
  const onPath = (process.env.PATH ?? '')
    .split(':')
    .find(p => existsSync(join(p, 'initdb')) && existsSync(join(p, 'pg_ctl')));
  return onPath ?? null;
}

const DEBIAN = {
  postgresql: () => postgresBin() !== null,
  chromium: () => existsSync('/usr/bin/chromium'),
  'poppler-utils': () => existsSync('/usr/bin/pdftoppm'),
  qpdf: () => existsSync('/usr/bin/qpdf'),
  units: () => existsSync('/usr/bin/units'),
};

/** Installs the Debian packages that are missing, after naming them; explains itself where it may not. */
export function ensureDebian(names) {
  const missing = names.filter(n => !DEBIAN[n]());
  if (missing.length === 0) return;
  const line = `apt-get install -y ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get'))
    fail(
      `${missing.join(', ')} missing and there is no apt-get here; install ${missing.join(' and ')} and start again.`,
    );
  if (process.getuid() !== 0) fail(`${missing.join(', ')} missing; run as root: ${line}`);
  say(`Installing from Debian: ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const run = args =>
    spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
  if (!run(['update', '-qq']))
    say('The package lists could not be refreshed; trying with those that are here.');
  if (!run(['install', '-y', '-qq', ...missing]) || names.some(n => !DEBIAN[n]()))
    fail(`${missing.join(', ')} could not be installed; run: ${line}`);
}

/** Installs the npm packages when the lock file is not the one they were installed from. */
export function ensureModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const mark = join(ROOT, 'node_modules/.cocotte-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  say('Installing npm packages');
  if (
    spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
    }).status !== 0
  )
    fail('npm ci did not succeed; see above.');
  writeFileSync(mark, lock);
}

const SOURCES = [
  'core',
  'contract',
  'server/src',
  'web/src',
  'web/index.html',
  'web/public',
  'web/vite.config.ts',
  'demo',
  'devices',
  'bench',
  'testing',
  'package-lock.json',
  'vite.server.config.ts',
];

function stampOf(path, out) {
  const full = join(ROOT, path);
  if (!existsSync(full)) return;
  const stat = statSync(full);
  if (!stat.isDirectory()) {
    out.push(`${path} ${stat.size} ${createHash('sha256').update(readFileSync(full)).digest('hex')}`);
    return;
  }
  for (const name of readdirSync(full).sort())
    if (name !== 'node_modules' && name !== 'dist') stampOf(join(path, name), out);
}

/** Builds when a source changed since the last build. */
export function ensureBuild() {
  const lines = [];
  for (const source of SOURCES) stampOf(source, lines);
  const stamp = createHash('sha256').update(lines.join('\n')).digest('hex');
  const mark = join(ROOT, 'dist/.sources');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === stamp) return;
  say('Building');
  const vite = join(ROOT, 'node_modules/vite/bin/vite.js');
  for (const args of [
    ['build', '--config', 'vite.server.config.ts'],
    ['build', '--config', 'web/vite.config.ts'],
  ]) {
    const run = spawnSync(process.execPath, [vite, ...args, '--logLevel', 'warn'], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      // Whoever builds, a test too, builds what is served.
      env: { ...process.env, NODE_ENV: 'production' },
    });
    if (run.status !== 0) fail('The build did not succeed; see above.');
  }
  mkdirSync(join(ROOT, 'dist'), { recursive: true });
  writeFileSync(mark, stamp);
}
