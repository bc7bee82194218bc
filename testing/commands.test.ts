import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { assess } from '@cocotte/core/checks';
import type { BatchEvent } from '@cocotte/core/batches';
import { canonicalJson } from '@cocotte/core/measure';
import { migrate } from '@cocotte/server/house/migrate';
import pg from 'pg';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { Machine, ROOT, alive } from './machine.ts';

/** Times in a row that the database is killed under `npm start`. */
const KILLS = 5;
let machine: Machine;
beforeAll(async () => {
  machine = await Machine.open();
});
afterEach(() => machine.stopAll());
afterAll(() => machine.close());

/** Ends what the server keeps open for the next call, as half a minute of quiet does. */
const endIdleConnections = () =>
  machine.asAdmin(
    client =>
      client.query(
        "select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'cocotte'",
      ),
    'postgres',
  );

/** Every row of every table, for comparing. */
const dump = () =>
  machine.asAdmin(async client => {
    const tables = (
      await client.query(
        "select tablename from pg_tables where schemaname = 'public' and tablename <> 'knex_migrations_lock' order by 1",
      )
    ).rows.map(r => r.tablename as string);
    const out: string[] = [];
    for (const table of tables) {
      const { rows } = await client.query(`select row_to_json(t)::text as row from ${table} t order by 1`);
      out.push(`${table} ${rows.length}`, ...rows.map(r => r.row as string));
    }
    return out.join('\n');
  });

describe('npm start', () => {
  it('makes the cluster, throwing a half-made one away, seeds, serves, and stops leaving no process', async () => {
    mkdirSync(join(machine.home, 'data.making'), { recursive: true });
    writeFileSync(join(machine.home, 'data.making/PG_VERSION'), 'half');
    const { child, words } = await machine.start();
    expect(words).toContain(`http://localhost:${machine.port}`);
    expect(words).toContain('wren@wrenfold.example');
    const session = (await (await fetch(`http://127.0.0.1:${machine.port}/api/session`)).json()) as {
      demo: object;
      empty: boolean;
    };
    expect([session.empty, session.demo !== null]).toEqual([false, true]);
    expect((await fetch(`http://127.0.0.1:${machine.port}/cook`)).headers.get('content-type')).toContain(
      'text/html',
    );
    const pid = machine.postmaster() as number;
    expect(alive(pid)).toBe(true);
    expect(await machine.stop(child)).toBe(0);
    expect(alive(pid)).toBe(false);
    expect(readdirSync(machine.home)).not.toContain('data.making');
  });

  it('says in one line that a port is in use, and ends with an error', async () => {
    const other = createServer();
    await new Promise<void>(resolve => other.listen(Number(machine.port), '127.0.0.1', resolve));
    const run = spawnSync(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
      env: { ...machine.env, PORT: machine.port },
      encoding: 'utf8',
    });
    expect(run.status).toBe(1);
    expect(run.stderr.trim().split('\n')).toEqual([
      `cocotte: Port ${machine.port} is in use; stop what uses it, or set PORT to another one.`,
    ]);
    await new Promise(resolve => other.close(resolve));
    const wrong = spawnSync(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
      env: { ...machine.env, PORT: 'ham' },
      encoding: 'utf8',
    });
    expect([wrong.status, wrong.stderr.includes('PORT is "ham"')]).toEqual([1, true]);
  });

  it('adopts a postmaster that outlived a kill -9 of everything else, and stops it in the end', async () => {
    const { child } = await machine.start();
    const pid = machine.postmaster() as number;
    await machine.stop(child, 'SIGKILL');
    expect(alive(pid)).toBe(true);
    await new Promise(resolve => setTimeout(resolve, 500));
    const again = await machine.start();
    expect(machine.postmaster()).toBe(pid);
    expect(await machine.stop(again.child)).toBe(0);
    expect(alive(pid)).toBe(false);
  });

  it('recovers from a postmaster that was itself killed with -9', async () => {
    const { child } = await machine.start();
    process.kill(machine.postmaster() as number, 'SIGKILL');
    await machine.stop(child);
    const again = await machine.start();
    expect((await fetch(`http://127.0.0.1:${machine.port}/api/session`)).status).toBe(200);
    expect(await machine.stop(again.child)).toBe(0);
  });

  it.each(Array.from({ length: KILLS }, (_, i) => i + 1))(
    'brings a postmaster that is killed with -9 back on its own port, under the server that runs: time %i',
    async () => {
      const { child } = await machine.start();
      const before = {
        pid: machine.postmaster() as number,
        at: machine.portOfCluster(),
        server: machine.serverPid(child),
      };
      process.kill(before.pid, 'SIGKILL');
      // Somebody asks all the while: nobody is told anything but that the book is away.
      const statuses = new Set<number>();
      const until = Date.now() + 90_000;
      for (let good = 0; good < 5 && Date.now() < until;) {
        const answer = await fetch(`http://127.0.0.1:${machine.port}/api/session`);
        statuses.add(answer.status);
        if (answer.status === 200 && machine.postmaster() !== before.pid) good += 1;
        await new Promise(resolve => setTimeout(resolve, 100));
      }
      expect([...statuses].filter(s => s !== 200 && s !== 503)).toEqual([]);
      expect(machine.postmaster()).not.toBe(before.pid);
      expect([machine.portOfCluster(), machine.serverPid(child)]).toEqual([before.at, before.server]);
      expect(await machine.stop(child)).toBe(0);
    },
  );

  it('names the password file when it is gone', () => {
    const file = join(machine.home, 'secrets.json');
    const kept = readFileSync(file);
    rmSync(file);
    const run = machine.script('admin.mjs', 'verify');
    writeFileSync(file, kept, { mode: 0o600 });
    expect([run.status, run.stderr.trim().split('\n').length, run.stderr.includes('secrets.json')]).toEqual([
      1,
      1,
      true,
    ]);
  });
});

describe('the keeper', () => {
  it('backs up, restores into a new database and finds every table the same; refuses while a server is connected', async () => {
    const { child } = await machine.start();
    const before = await dump();
    const file = join(machine.home, 'kitchen.dump');
    expect(machine.script('backup.mjs', file).status).toBe(0);
    expect(machine.script('backup.mjs', file).stderr).toContain('is there already');
    const refused = machine.script('restore.mjs', file);
    expect([refused.status, refused.stderr.trim()]).toEqual([
      1,
      'cocotte: A server is connected to the database; stop it, then restore.',
    ]);
    await fetch(`http://127.0.0.1:${machine.port}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'wren@wrenfold.example', password: 'wrenfold-demo-kitchen' }),
    });
    expect(await dump()).not.toBe(before);
    await machine.stop(child);
    expect(machine.script('restore.mjs', file).stdout).toContain('Restored from');
    const again = await machine.start();
    const after = await dump();
    const lines = new Set(before.split('\n'));
    expect(after.split('\n').filter(l => !lines.has(l))).toEqual([]);
    expect(after).toBe(before);
    expect((await fetch(`http://127.0.0.1:${machine.port}/api/session`)).status).toBe(200);
    await machine.stop(again.child);
    const bad = join(machine.home, 'bad.dump');
    writeFileSync(bad, 'not a dump');
    expect(machine.script('restore.mjs', bad).stderr).toContain('nothing was changed');
  });

  it('verifies, rebuilds, adds a kitchen and resets a password', () => {
    expect(machine.script('admin.mjs', 'verify').stdout).toMatch(/entries, whole, head [0-9a-f]{64}/);
    expect(machine.script('admin.mjs', 'rebuild').stdout).toContain('batches derived again');
    const placed = machine.script(
      'admin.mjs',
      'add-kitchen',
      'Second',
      'wren@wrenfold.example',
      '--altitude',
      '2,350 ft',
      '--zone',
      'America/Denver',
    );
    expect(placed.stdout).toMatch(/It stands at 716 m, in the zone America\/Denver/);
    expect(placed.stdout).toContain('Wren Hollis owns it');
    // Nobody is asked here: then the kitchen is not set up, and its owner is made by a link.
    const bare = machine.script('admin.mjs', 'add-kitchen', 'Third', 'nobody@x.example');
    expect(bare.stdout).toMatch(/It is not set up: no batch starts/);
    expect(bare.stdout).toMatch(/There is no account nobody@x\.example.*\/join\/[\w-]{43}/);
    for (const [flag, value, words] of [
      ['--altitude', '2350', 'no altitude'],
      ['--altitude', '12000 ft', 'outside the published tables'],
      ['--zone', 'Nowhere/Town', 'not a time zone'],
    ] as const)
      expect(
        machine.script('admin.mjs', 'add-kitchen', 'Fourth', 'wren@wrenfold.example', flag, value).stderr,
      ).toContain(words);
    expect(machine.script('admin.mjs', 'reset-password', 'tamsin@wrenfold.example').stdout).toMatch(
      /New password of Tamsin Rook: \S{16}/,
    );
    expect(machine.script('admin.mjs', 'bake').status).toBe(1);
    expect(machine.script('admin.mjs', '__proto__').stderr).toContain('no command');
  });

  it('uses the database beside an idle server, and neither stops nor moves it', async () => {
    const { child } = await machine.start();
    const pid = machine.postmaster();
    // A connection of its own each time: one that is kept may be closed by the server as it is used again.
    const well = async () =>
      (await fetch(`http://127.0.0.1:${machine.port}/api/session`, { headers: { Connection: 'close' } }))
        .status;
    expect(await well()).toBe(200);
    // Idle for longer than its connections live: nothing but its presence tells of the server.
    await endIdleConnections();
    const file = join(machine.home, 'beside.dump');
    for (const [name, ...args] of [
      ['admin.mjs', 'verify'],
      ['backup.mjs', file],
      ['admin.mjs', 'rebuild'],
      ['admin.mjs', 'add-kitchen', 'Beside', 'wren@wrenfold.example'],
      ['admin.mjs', 'reset-password', 'tamsin@wrenfold.example'],
    ] as const) {
      expect([args[0], machine.script(name, ...args).status]).toEqual([args[0], 0]);
      expect(machine.postmaster()).toBe(pid);
      expect(await well()).toBe(200);
      await endIdleConnections();
    }
    expect(statSync(file).mode & 0o777).toBe(0o600);
    const refused = machine.script('restore.mjs', file);
    expect([refused.status, refused.stderr.trim()]).toEqual([
      1,
      'cocotte: A server is connected to the database; stop it, then restore.',
    ]);
    expect(machine.postmaster()).toBe(pid);
    expect(await well()).toBe(200);
    await machine.stop(child);
  });

  it('shows no password to whoever lists the processes', async () => {
    const { child } = await machine.start();
    const secrets = Object.values(machine.secrets());
    const dumping = spawn(
      process.execPath,
      [join(ROOT, 'scripts/backup.mjs'), join(machine.home, 'listed.dump')],
      {
        env: machine.env,
        stdio: 'ignore',
      },
    );
    const seen: string[] = [];
    const ended = new Promise(resolve => dumping.once('exit', resolve));
    const watching = setInterval(() => {
      for (const name of readdirSync('/proc').filter(n => /^\d+$/.test(n)))
        try {
          seen.push(readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' '));
        } catch {
          // It has ended meanwhile.
        }
    }, 5);
    await ended;
    clearInterval(watching);
    expect(seen.some(line => line.includes('pg_dump'))).toBe(true);
    expect(seen.filter(line => secrets.some(word => line.includes(word)))).toEqual([]);
    await machine.stop(child);
  });
});

/** Each field of a thing by a few digits of its own hash: small enough to keep, and it names the field that changed. */
const digests = (of: object): Record<string, string> =>
  Object.fromEntries(
    Object.entries(of).map(([field, value]) => [
      field,
      createHash('sha256')
        .update(canonicalJson(value ?? null))
        .digest('hex')
        .slice(0, 16),
    ]),
  );

describe('what landed before', () => {
  const folder = join(ROOT, 'testing/fixtures');
  it.each(readdirSync(folder).filter(f => f.endsWith('.dump')))(
    '%s is read, migrated forward and folded',
    async name => {
      const { child } = await machine.start();
      const database = `old_${name.replaceAll(/\W/g, '_')}`;
      await machine.asAdmin(
        client => client.query(`create database ${database} owner cocotte_owner`),
        'postgres',
      );
      const url = machine.databaseUrl('owner', database);
      const bin = readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a))[0];
      const restored = spawnSync(
        `/usr/lib/postgresql/${bin}/bin/pg_restore`,
        ['--no-owner', '--exit-on-error', `--dbname=${url}`, join(folder, name)],
        { encoding: 'utf8' },
      );
      expect(restored.stderr).toBe('');
      await migrate(url, 'cocotte_app');
      const owner = new pg.Client({ connectionString: url });
      await owner.connect();
      const { rows } = await owner.query(
        `select batch_id, stage,
           (select json_agg(json_build_object('seq', seq, 'content', content) order by seq)
              from events e where e.batch_id = b.batch_id) as entries
         from batches b order by batch_id`,
      );
      expect(rows.length).toBeGreaterThan(0);
      const folded: Record<string, unknown> = {};
      for (const row of rows) {
        const { state, standing: now } = assess(
          (row.entries as { seq: number; content: string }[]).map(({ seq, content }) => {
            const { receivedAt, ...event } = JSON.parse(content) as BatchEvent & { receivedAt?: string };
            const known = { seq, at: receivedAt as string, sentAt: null, signs: null };
            return { ...event, receipt: event.receipt ?? known } as BatchEvent;
          }),
        );
        expect(now.stage).toBe(row.stage);
        folded[row.batch_id as string] = {
          lot: state.started?.lotCode,
          state: digests(state),
          recipe: digests(state.started?.recipe ?? {}),
          conditions: now.gate.conditions.map(c => `${c.met ? 'met' : 'open'} ${c.code}: ${c.evidence}`),
          releasable: now.gate.releasable,
          released: now.released,
        };
      }
      // Field by field as it was when it was written down: where one differs, its name says which.
      await expect(`${JSON.stringify(folded, null, 2)}\n`).toMatchFileSnapshot(
        join(folder, name.replace('.dump', '.folded.json')),
      );
      await owner.end();
      await machine.stop(child);
    },
  );
});
