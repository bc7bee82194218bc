import { type ChildProcess, fork, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { Device } from './device.ts';
import { Machine, ROOT, alive, freePort } from './machine.ts';

/** Short in the tests; `npm run soak` does it for longer and oftener. */
const LONG = process.env.COCOTTE_SOAK !== undefined;
const SECONDS = LONG ? 30 : 4;
const ROUNDS = LONG ? 5 : 2;
/** Entries that have to be acknowledged for the test to say something, however slow the machine. */
const ENOUGH = 20;

/** Somebody at the counter of the demo kitchen: enters facts, and remembers which were acknowledged. */
class Cook {
  readonly acknowledged: string[] = [];
  readonly statuses = new Map<number, number>();
  private constructor(
    readonly url: string,
    private readonly cookie: string,
    readonly kitchenId: string,
    private readonly device: Device,
    readonly batchId: string,
  ) {}

  static async enter(url: string): Promise<Cook> {
    const answer = await fetch(`${url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'wren@wrenfold.example', password: 'wrenfold-demo-kitchen' }),
    });
    const session = (await answer.json()) as { kitchenId: string; person: { id: string } };
    const cookie = answer.headers
      .getSetCookie()
      .map(set => set.split(';')[0] ?? '')
      .join('; ');
    const today = (await (
      await fetch(`${url}/api/kitchens/${session.kitchenId}/today`, { headers: { cookie } })
    ).json()) as { batches: { id: string }[] };
    return new Cook(
      url,
      cookie,
      session.kitchenId,
      new Device(session.person.id, Date.now()),
      today.batches[0]?.id ?? '',
    );
  }

  /** The same person at another server. */
  at(url: string): Cook {
    return new Cook(url, this.cookie, this.kitchenId, this.device, this.batchId);
  }

  async ask(path: string, body?: unknown): Promise<{ status: number; body: unknown }> {
    try {
      const answer = await fetch(`${this.url}/api/kitchens/${this.kitchenId}${path}`, {
        method: body === undefined ? 'GET' : 'POST',
        headers: {
          cookie: this.cookie,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
      this.statuses.set(answer.status, (this.statuses.get(answer.status) ?? 0) + 1);
      return { status: answer.status, body: await answer.json().catch(() => null) };
    } catch {
      return { status: 0, body: null };
    }
  }

  /** Enters a fact, and again under the same id until somebody says yes; gives up when told to. */
  async note(giveUp: () => boolean = () => false, words = 'x'): Promise<boolean> {
    const fact = this.device.fact(Date.now(), 'note.written', { text: words });
    while (!giveUp()) {
      const { status } = await this.ask(`/batches/${this.batchId}/events`, { events: [fact] });
      if (status === 200) {
        this.acknowledged.push(fact.id);
        return true;
      }
      if (status !== 503 && status !== 0) throw new Error(`a fact was answered ${status}`);
      await new Promise(resolve => setTimeout(resolve, 60));
    }
    return false;
  }

  /** Ids in the record, with their numbers. */
  async record(): Promise<Map<string, number>> {
    const { body } = await this.ask(`/batches/${this.batchId}`);
    const { events } = body as { events: { id: string; receipt: { seq: number } }[] };
    return new Map(events.map(e => [e.id, e.receipt.seq]));
  }
}

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms));
/** Waits until something is so. */
async function until(what: () => Promise<boolean> | boolean, ms = 60_000): Promise<void> {
  const end = Date.now() + ms;
  while (!(await what())) {
    if (Date.now() > end) throw new Error('it did not come to be in time');
    await pause(150);
  }
}

describe('a kitchen whose database is killed while it works', () => {
  let machine: Machine;
  beforeAll(async () => {
    machine = await Machine.open();
  });
  afterEach(() => machine.stopAll());
  afterAll(() => machine.close());

  it('loses nothing it acknowledged, writes nothing twice, and says nothing but that the book is away', async () => {
    const { child } = await machine.start();
    const cook = await Cook.enter(machine.url);
    const server = machine.serverPid(child);
    const end = Date.now() + SECONDS * 1000;
    const over = () => Date.now() > end;
    const cooks = Array.from({ length: 4 }, async () => {
      while (!over() || cook.acknowledged.length <= ENOUGH) await cook.note();
    });
    const readers = Array.from({ length: 4 }, async () => {
      while (!over()) await cook.ask('/today');
    });
    const kills = (async () => {
      for (let i = 0; i < ROUNDS; i++) {
        await pause((SECONDS * 1000) / (ROUNDS + 1));
        const pid = machine.postmaster();
        if (pid && alive(pid)) process.kill(pid, 'SIGKILL');
      }
    })();
    await Promise.all([...cooks, ...readers, kills]);
    await until(async () => (await cook.ask('/today')).status === 200);
    expect([...cook.statuses.keys()].filter(s => s !== 200 && s !== 503)).toEqual([]);
    expect(machine.serverPid(child)).toBe(server);
    const record = await cook.record();
    expect(cook.acknowledged.length).toBeGreaterThan(ENOUGH);
    expect(cook.acknowledged.filter(id => !record.has(id))).toEqual([]);
    expect(new Set(record.values()).size).toBe(record.size);
    expect(machine.script('admin.mjs', 'verify').stdout).toContain('whole');
  });
});

describe('two servers on one database', () => {
  let machine: Machine;
  let other: ChildProcess;
  beforeAll(async () => {
    machine = await Machine.open();
  });
  afterEach(async () => {
    if (other?.exitCode === null) other.kill('SIGKILL');
    await machine.stopAll();
  });
  afterAll(() => machine.close());

  it('write one record without a gap, and when one is killed the other goes on', async () => {
    const { child } = await machine.start();
    const first = await Cook.enter(machine.url);
    const port = await freePort();
    other = fork(join(ROOT, 'dist/server/main.mjs'), [], {
      env: { ...process.env, DATABASE_URL: machine.databaseUrl('app'), PORT: port },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    await new Promise<void>((resolve, reject) => {
      other.once('message', () => resolve());
      other.once('exit', code => reject(new Error(`ended with ${code}`)));
    });
    const second = first.at(`http://127.0.0.1:${port}`);
    const end = Date.now() + SECONDS * 500;
    const both = [first, second, first, second].map(async cook => {
      while (Date.now() < end) await cook.note();
    });
    await Promise.all(both);
    other.kill('SIGKILL');
    for (let i = 0; i < 5; i++) await first.note();
    const record = await first.record();
    const ids = [...first.acknowledged, ...second.acknowledged];
    expect(second.acknowledged.length).toBeGreaterThan(5);
    expect(ids.filter(id => !record.has(id))).toEqual([]);
    const verdict = machine.script('admin.mjs', 'verify');
    expect([verdict.status, verdict.stdout.includes('whole')]).toEqual([0, true]);
    expect(await machine.stop(child)).toBe(0);
  });
});

/** A small disk of its own, where one may be had. */
const disk = mkdtempSync(join(tmpdir(), 'cocotte-disk-'));
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=220m,mode=0755', 'tmpfs', disk]).status === 0;
afterAll(() => {
  if (mounted) spawnSync('umount', [disk]);
  rmSync(disk, { recursive: true, force: true });
});

describe('a disk that is full', () => {
  let machine: Machine;
  beforeAll(async () => {
    mkdirSync(join(disk, 'home'));
    machine = await Machine.open(join(disk, 'home'));
  });
  afterEach(() => machine.stopAll());
  afterAll(() => machine.close());

  // Only root may mount one; elsewhere there is nothing to fill but the machine's own.
  it.skipIf(!mounted)(
    'is said as a book that is away; with room again the kitchen goes on, and nothing is lost',
    async () => {
      const { child } = await machine.start();
      const server = machine.serverPid(child);
      const cook = await Cook.enter(machine.url);
      for (let i = 0; i < 20; i++) await cook.note();
      // Everything but a little is taken by something else.
      const filler = join(disk, 'filler');
      const free = () => {
        const { bavail, bsize } = statfsSync(disk);
        return bavail * bsize;
      };
      writeFileSync(filler, Buffer.alloc(Math.max(0, free() - 300_000)));
      const end = Date.now() + 60_000;
      // Long notes fill what is left.
      for (let i = 0; (cook.statuses.get(503) ?? 0) < 3 && Date.now() < end; i++)
        await cook.note(() => (cook.statuses.get(503) ?? 0) >= 3, 'y'.repeat(1900));
      expect(cook.statuses.get(503)).toBeGreaterThanOrEqual(3);
      expect([...cook.statuses.keys()].filter(s => s !== 200 && s !== 503)).toEqual([]);
      expect(machine.serverPid(child)).toBe(server);
      rmSync(filler);
      await until(async () => (await cook.ask('/today')).status === 200);
      for (let i = 0; i < 5; i++) await cook.note();
      const record = await cook.record();
      expect(cook.acknowledged.filter(id => !record.has(id))).toEqual([]);
      expect(machine.script('admin.mjs', 'verify').stdout).toContain('whole');
      expect(await machine.stop(child)).toBe(0);
    },
  );
});
