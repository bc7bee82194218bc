import { readFileSync } from 'node:fs';
import { createServer as createHttp } from 'node:http';
import { createServer as createHttps } from 'node:https';
import { makeApp } from './house/app.ts';
import { clockFromEnvironment } from './house/clock.ts';
import { assertSafeRole, openDatabase } from './house/database.ts';
import { watchLoop } from './house/loop.ts';
import { pendingMigrations } from './house/migrate.ts';
import { openFeed } from './house/feed.ts';
import { holdStanding } from './house/standing.ts';
import { namesFromEnvironment } from './house/names.ts';
import { closeHeavy, warmHeavy } from './heavy/pool.ts';
import { guessesIn } from './kitchen/guesses.ts';
import { connectInstruments } from './kitchen/instruments.ts';

/** Serves interface and API on one port until told to stop. Says `ready` to the process that started it. */
async function main(): Promise<void> {
  const {
    DATABASE_URL,
    PORT = '4600',
    HOST = '127.0.0.1',
    TLS_CERT,
    TLS_KEY,
    COCOTTE_WEB_DIST,
    COCOTTE_INSTRUMENTS = '',
  } = process.env;
  if (!DATABASE_URL) throw new Error('DATABASE_URL is not set.');
  const missing = await pendingMigrations(DATABASE_URL);
  if (missing.length > 0)
    throw new Error(
      `The database lacks ${missing.join(', ')}; run the migrations with MIGRATION_DATABASE_URL set to its owner.`,
    );
  const database = openDatabase(DATABASE_URL);
  await assertSafeRole(database);
  const standing = holdStanding(DATABASE_URL);
  const secure = Boolean(TLS_CERT && TLS_KEY);
  const app = makeApp(
    {
      database,
      clock: clockFromEnvironment(process.env),
      secure,
      guesses: guessesIn(database),
      held_ms: watchLoop(),
      feed: openFeed(database, standing),
      names: namesFromEnvironment(process.env),
    },
    COCOTTE_WEB_DIST ?? null,
  );
  const server = secure
    ? createHttps({ cert: readFileSync(TLS_CERT as string), key: readFileSync(TLS_KEY as string) }, app)
    : createHttp(app);
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE' ? `Port ${PORT} is in use; set PORT to another one.` : error.message,
    );
    process.exit(1);
  });
  server.listen(Number(PORT), HOST, () => {
    process.send?.('ready');
    warmHeavy();
  });
  // Instruments on lines of this machine, by their ports.
  if (COCOTTE_INSTRUMENTS) connectInstruments(COCOTTE_INSTRUMENTS.split(',').map(Number));
  const stop = () => {
    server.close(
      () => void Promise.all([database.close(), standing.leave(), closeHeavy()]).then(() => process.exit(0)),
    );
    server.closeAllConnections();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  process.once('disconnect', stop);
}

main().catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
