import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, ensureBuild, ensureDebian, ensureModules } from './lib/install.mjs';
import { checkNode, say } from './lib/say.mjs';

/** `npm test`: all of it, after its own set-up. `npm test -- core|api|web` runs a part. */
checkNode();
const PARTS = ['static', 'core', 'api', 'web', 'bench'];
const wanted = process.argv.slice(2).filter(a => PARTS.includes(a));
const parts = wanted.length > 0 ? wanted : PARTS;

ensureDebian(['postgresql', 'chromium', 'poppler-utils', 'qpdf', 'units']);
ensureModules();
ensureBuild();

const results = join(ROOT, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const total = { passed: 0, failed: 0 };
const bin = name => join(ROOT, 'node_modules', name);

function run(args, env = {}) {
  return (
    spawnSync(process.execPath, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    }).status === 0
  );
}

/** A check that passes or fails as one. */
function one(name, args) {
  say(`\n== ${name}`);
  const ok = run(args);
  total[ok ? 'passed' : 'failed'] += 1;
  if (!ok) say(`${name} failed`);
}

/** A runner that writes its counts to a file; a runner that dies without one counts as failed. */
function counted(name, file, args, read) {
  say(`\n== ${name}`);
  const path = join(results, file);
  const ok = run(args);
  const counts = existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : { passed: 0, failed: 1 };
  total.passed += counts.passed;
  total.failed += counts.failed + (!ok && counts.failed === 0 ? 1 : 0);
}

function vitest(project) {
  const file = `${project}.json`;
  counted(
    `Unit and service tests: ${project}`,
    file,
    [
      bin('vitest/vitest.mjs'),
      'run',
      '--project',
      project,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${join(results, file)}`,
    ],
    r => ({
      passed: r.numPassedTests,
      failed: r.numFailedTests + (r.numFailedTestSuites > 0 && r.numFailedTests === 0 ? 1 : 0),
    }),
  );
}

if (parts.includes('static')) {
  one('Type check', ['scripts/typecheck.mjs']);
  one('Lint', [bin('oxlint/bin/oxlint'), '--deny-warnings']);
  one('Format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
  one('Arrows', ['scripts/arrows.mjs']);
}
if (parts.includes('core')) vitest('core');
if (parts.includes('api')) vitest('api');
if (parts.includes('web')) {
  vitest('web');
  counted(
    'In Chromium',
    'e2e.json',
    [bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts'],
    r => ({ passed: r.stats.expected, failed: r.stats.unexpected + r.stats.flaky }),
  );
}
if (parts.includes('bench')) one('Benchmark, tiny', ['scripts/bench.mjs', '--tiny']);

say(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed > 0 || total.passed === 0 ? 1 : 0);
