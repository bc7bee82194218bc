import { clockFromEnvironment } from '@cocotte/server/house/clock';
import { openDatabase } from '@cocotte/server/house/database';
import { closeHeavy } from '@cocotte/server/heavy/pool';
import { seedDemo } from './seed.ts';

/** Seeds the demo kitchen when the database has no account. */
async function main(): Promise<void> {
  const { DATABASE_URL } = process.env;
  if (!DATABASE_URL) throw new Error('DATABASE_URL is not set.');
  const database = openDatabase(DATABASE_URL, 2, 60_000);
  try {
    if (await seedDemo(database, clockFromEnvironment(process.env).now_ms()))
      console.log('Seeded the demo kitchen.');
  } finally {
    await database.close();
    await closeHeavy();
  }
}

main().catch((error: Error) => {
  console.error(`cocotte: the demo could not be seeded: ${error.message}`);
  process.exit(1);
});
