import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
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
/** What failed, said once more at the end: a log that is cut short still names it. */
const failures = [];
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
  if (!ok) {
    say(`${name} failed`);
    failures.push(name);
  }
}

/** A runner that writes its counts to a file; a runner that dies without one counts as failed. */
function counted(name, file, args, read) {
  say(`\n== ${name}`);
  const path = join(results, file);
  const ok = run(args);
  const counts = existsSync(path)
    ? read(JSON.parse(readFileSync(path, 'utf8')))
    : { passed: 0, failed: 1, names: ['wrote no results'] };
  total.passed += counts.passed;
  total.failed += counts.failed + (!ok && counts.failed === 0 ? 1 : 0);
  failures.push(...counts.names.map(one => `${name}: ${one}`));
  if (!ok && counts.names.length === 0) failures.push(`${name}: ended badly with no test failed`);
}

/** The first line of what a test failed with. */
const firstLine = text => stripVTControlCharacters(String(text ?? '')).split('\n')[0];

/** Vitest's failed tests, and files that could not be run, by name. */
function failedUnits(results) {
  return results.flatMap(file => {
    const tests = file.assertionResults.filter(t => t.status === 'failed');
    const where = relative(ROOT, file.name);
    if (tests.length === 0 && file.status === 'failed') return [`${where}: ${firstLine(file.message)}`];
    return tests.map(t => `${where}: ${t.fullName}: ${firstLine(t.failureMessages[0])}`);
  });
}

/** Playwright's specs that failed or passed only at the second go, by name. */
function failedSpecs(suites) {
  return suites.flatMap(suite => [
    ...failedSpecs(suite.suites ?? []),
    ...suite.specs
      .filter(spec => !spec.ok || spec.tests.some(t => t.status === 'flaky'))
      .map(spec => `${spec.file}: ${spec.title}: ${firstLine(spec.tests[0]?.results[0]?.error?.message)}`),
  ]);
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
      names: failedUnits(r.testResults),
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
    r => ({
      passed: r.stats.expected,
      failed: r.stats.unexpected + r.stats.flaky,
      names: failedSpecs(r.suites),
    }),
  );
}
if (parts.includes('bench')) one('Benchmark, tiny', ['scripts/bench.mjs', '--tiny']);

for (const failure of failures) say(`failed: ${failure}`);
say(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed > 0 || total.passed === 0 ? 1 : 0);
