import { fork, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { databaseEnv, openDatabase } from './lib/cluster.mjs';
import { ROOT, ensureBuild, ensureDebian, ensureModules } from './lib/install.mjs';
import { checkNode, fail, say } from './lib/say.mjs';

/** Everything from a fresh clone to a running kitchen; a second start skips what is done. */
checkNode();
const empty = process.argv.includes('--empty');
const withDevices = process.argv.includes('--devices');
const port = process.env.PORT ?? '4600';
const host = process.env.HOST ?? '127.0.0.1';
if (!/^\d{1,5}$/.test(port) || Number(port) > 65_535)
  fail(`PORT is "${port}"; it must be a number up to 65535.`);

await new Promise(resolve => {
  const probe = createServer();
  probe.once('error', error =>
    fail(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is in use; stop what uses it, or set PORT to another one.`
        : `Port ${port} cannot be opened: ${error.message}`,
    ),
  );
  probe.listen(Number(port), host, () => probe.close(resolve));
});

if (!process.env.DATABASE_URL) ensureDebian(['postgresql']);
ensureModules();
ensureBuild();

const database = await openDatabase();
const env = {
  ...databaseEnv(database),
  PORT: port,
  HOST: host,
  COCOTTE_WEB_DIST: join(ROOT, 'dist/web'),
  NODE_ENV: 'production',
};
const dist = name => join(ROOT, 'dist/server', `${name}.mjs`);
const step = args => {
  const run = spawnSync(process.execPath, args, { env, stdio: ['ignore', 'inherit', 'inherit'] });
  if (run.status !== 0) {
    database.stopIfUnused();
    process.exit(run.status ?? 1);
  }
};
if (database.ownerUrl) step([dist('cli'), 'migrate']);
if (!empty) step([dist('seed')]);

// Simulated instruments, each on a port of its own that only this machine reaches.
let devices = null;
if (withDevices) {
  devices = fork(dist('devices'), [], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  const { ports } = await new Promise(resolve => devices.once('message', resolve));
  env.COCOTTE_INSTRUMENTS = ports.join(',');
}

const server = fork(dist('main'), [], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
let stopping = false;
const stop = () => {
  if (stopping) return;
  stopping = true;
  if (server.exitCode === null && server.signalCode === null) server.kill('SIGTERM');
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
server.on('message', () => {
  const address = `${process.env.TLS_CERT ? 'https' : 'http'}://${host === '127.0.0.1' ? 'localhost' : host}:${port}`;
  say(`\nCocotte is ready: ${address}`);
  if (!empty) say('Demo sign-in: wren@wrenfold.example, password wrenfold-demo-kitchen (this machine only)');
  if (['0.0.0.0', '::'].includes(host) && !process.env.COCOTTE_NAMES)
    say(
      "Other devices reach it only under names it is told: set COCOTTE_NAMES to this machine's name or address in the kitchen.",
    );
  if (devices) say(`Simulated instruments on the ports ${env.COCOTTE_INSTRUMENTS}.`);
  say('Stop with Ctrl-C.');
});

// The database of our own is watched: when it dies it is brought back where it was, and the server finds it there.
const WATCH_MS = 300;
const watch = async () => {
  if (stopping) return;
  if (!database.alive()) {
    say('The database died; bringing it back.');
    if (await database.revive()) say('The database is back.');
  }
  setTimeout(watch, WATCH_MS).unref();
};
if (database.own) setTimeout(watch, WATCH_MS).unref();

server.on('exit', code => {
  const wanted = stopping;
  stopping = true;
  if (devices?.exitCode === null) devices.kill('SIGTERM');
  database.stopIfUnused();
  process.exit(wanted ? 0 : (code ?? 1) || 1);
});
