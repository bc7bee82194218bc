import { type ChildProcess, fork, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Page, expect } from '@playwright/test';
import pg from 'pg';

const ROOT = join(import.meta.dirname, '..');

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** The built server on a database of its own, with a test clock that survives a restart. */
export class House {
  private child: ChildProcess | null = null;
  private offset_ms = 0;
  private constructor(
    readonly url: string,
    private readonly databaseUrl: string,
    private readonly port: number,
    private readonly dir: string,
  ) {}

  static async open(kind: 'demo' | 'empty'): Promise<House> {
    const { base, appUrl, adminUrl } = JSON.parse(process.env.COCOTTE_E2E ?? '{}') as {
      base: string;
      appUrl: string;
      adminUrl: string;
    };
    const name = `${base}_${kind}_${randomUUID().slice(0, 8)}`;
    const at = (url: string, database: string) =>
      Object.assign(new URL(url), { pathname: `/${database}` }).href;
    const admin = new pg.Client({ connectionString: at(adminUrl, 'postgres') });
    await admin.connect();
    await admin.query(`create database ${name} template ${base}_${kind} owner cocotte_owner`);
    await admin.end();
    return House.on(at(appUrl, name));
  }

  /** On a database that is there. */
  static async on(databaseUrl: string): Promise<House> {
    const port = await freePort();
    const house = new House(
      `http://127.0.0.1:${port}`,
      databaseUrl,
      port,
      mkdtempSync(join(tmpdir(), 'cocotte-house-')),
    );
    house.writeClock();
    await house.start();
    return house;
  }

  private writeClock(): void {
    writeFileSync(join(this.dir, 'clock'), String(this.offset_ms));
  }

  /** Moves the kitchen's clock on. */
  move(minutes: number): void {
    this.offset_ms += minutes * 60_000;
    this.writeClock();
  }

  /** Ports of instruments beside it, with commas between. */
  instruments = '';

  /** Folder of the interface that is served; another one is another build. */
  web = join(ROOT, 'dist/web');

  /** Adds a kitchen as the keeper of the machine does, without saying where it stands. */
  async addKitchen(name: string, owner: string): Promise<void> {
    const run = spawnSync(process.execPath, [join(ROOT, 'dist/server/cli.mjs'), 'add-kitchen', name, owner], {
      env: { ...process.env, DATABASE_URL: this.databaseUrl },
      encoding: 'utf8',
    });
    expect(run.stderr).toBe('');
  }

  async start(): Promise<void> {
    this.child = fork(join(ROOT, 'dist/server/main.mjs'), [], {
      env: {
        ...process.env,
        DATABASE_URL: this.databaseUrl,
        PORT: String(this.port),
        COCOTTE_PRIVATE_CLUSTER: 'yes',
        COCOTTE_TEST_CLOCK_FILE: join(this.dir, 'clock'),
        COCOTTE_WEB_DIST: this.web,
        COCOTTE_INSTRUMENTS: this.instruments,
      },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    await new Promise<void>((resolve, reject) => {
      this.child?.once('message', () => resolve());
      this.child?.once('exit', code => reject(new Error(`the server ended with ${code}`)));
    });
  }

  /** Kills the server as a power cut does, and starts it again. */
  async kill(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (child && child.exitCode === null) {
      const ended = new Promise(resolve => child.once('exit', resolve));
      child.kill('SIGKILL');
      await ended;
    }
    await this.start();
  }

  async stop(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise(resolve => child.once('exit', resolve));
    child.kill('SIGTERM');
    await ended;
  }

  async close(): Promise<void> {
    await this.stop();
    rmSync(this.dir, { recursive: true, force: true });
  }
}

/** Notes every violation of the content security policy and every error a page reports. */
export function watch(page: Page): { faults: string[] } {
  const seen = { faults: [] as string[] };
  page.on('pageerror', e => seen.faults.push(`error: ${e.message}`));
  page.on('console', m => {
    if (/content security policy|refused to/i.test(m.text())) seen.faults.push(`policy: ${m.text()}`);
    else if (m.type() === 'error' && !/Failed to load resource|net::ERR/.test(m.text()))
      seen.faults.push(`console: ${m.text()}`);
  });
  return seen;
}

/** Requests of each page that have no answer yet. */
const open = new WeakMap<Page, Set<unknown>>();

/** Counts the requests of a page, so that a test can wait until none is on its way. */
export function countRequests(page: Page): Set<unknown> {
  const known = open.get(page);
  if (known) return known;
  const running = new Set<unknown>();
  open.set(page, running);
  // The stream that tells what moved has no end to wait for.
  page.on('request', r => !r.url().endsWith('/feed') && running.add(r));
  page.on('requestfinished', r => running.delete(r));
  page.on('requestfailed', r => running.delete(r));
  return running;
}

/** Waits until the page has asked for nothing for a while; the stream it listens to never ends. */
export async function quiet(page: Page): Promise<void> {
  const running = countRequests(page);
  let since = Date.now();
  await expect
    .poll(
      () => {
        if (running.size > 0) since = Date.now();
        return Date.now() - since >= 500;
      },
      { intervals: [50] },
    )
    .toBe(true);
}

/** Waits until every entry of this device has arrived at the kitchen's book. */
export async function delivered(page: Page): Promise<void> {
  await expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise<number>((resolve, reject) => {
            const asked = indexedDB.open('cocotte');
            asked.addEventListener('error', () => reject(asked.error));
            asked.addEventListener('success', () => {
              const db = asked.result;
              const counted = db.transaction('entries').objectStore('entries').count();
              counted.addEventListener('success', () => {
                db.close();
                resolve(counted.result);
              });
            });
          }),
      ),
    )
    .toBe(0);
}

export async function enterDemo(page: Page, house: House): Promise<void> {
  countRequests(page);
  await page.goto(house.url);
  await page.getByRole('button', { name: 'Enter the demo kitchen' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
}

/** The API's address of something in the kitchen a page is signed in to, such as `/batches`. */
export async function inKitchen(page: Page, path: string): Promise<string> {
  const session = (await (await page.request.get(new URL('/api/session', page.url()).href)).json()) as {
    kitchenId: string;
  };
  return `/api/kitchens/${session.kitchenId}${path}`;
}

/** Starts a batch of a recipe and draws what is proposed. */
export async function startAndDraw(
  page: Page,
  house: House,
  recipe: string,
  purpose = 'For sale',
): Promise<string> {
  await page.goto(`${house.url}/recipes`);
  await page.getByRole('link', { name: recipe, exact: true }).click();
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await page.getByRole('radio', { name: purpose }).check();
  await page.getByRole('button', { name: 'Start the batch' }).click();
  await page.getByRole('button', { name: 'Draw these lots' }).click();
  await expect(page.getByText('Nothing is drawn yet.')).toHaveCount(0);
  return page.url();
}

/** Fills, doses, loads and brings to the boil: all planned jars in one load. */
export async function fillAndBoil(page: Page, jars: string, doses: number, minutes: number): Promise<void> {
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: `${jars} filled` }).click();
  const count = Number.parseInt(jars, 10);
  for (let i = 0; i < doses; i++)
    await page
      .getByRole('button', { name: `Given to ${count} jars` })
      .first()
      .click();
  await page.getByRole('button', { name: `${count} jars in, load 1` }).click();
  await page.getByRole('button', { name: `Start the ${minutes} minutes` }).click();
  await expect(page.getByRole('main').getByRole('timer')).toContainText(/^\d\d:\d\d$/);
}

/**
 * Moves the page's clocks and the kitchen's together. The page is cut off meanwhile, so that it does not compare the
 * one that has moved with the one that has not.
 */
export async function passTime(page: Page, house: House, minutes: number): Promise<void> {
  const running = countRequests(page);
  await page.context().setOffline(true);
  await expect.poll(() => running.size).toBe(0);
  house.move(minutes);
  await page.clock.fastForward(minutes * 60_000);
  await page.context().setOffline(false);
}

/** After the clock was moved: a new page session learns it, turns the heat off and lifts. */
export async function heatOffAndLift(page: Page): Promise<void> {
  await page.reload();
  await page.getByRole('button', { name: 'Heat off' }).click();
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await expect(page.getByRole('button', { name: 'Jars lifted' })).toHaveCount(0);
  await delivered(page);
}

/** Makes a link as an owner does, and joins by it on a device of their own. */
export async function joinAs(
  house: House,
  page: Page,
  guest: Page,
  role: RegExp,
  name: string,
): Promise<void> {
  await page.goto(`${house.url}/kitchen/people`);
  await page.getByRole('combobox', { name: 'Role', exact: true }).click();
  await page.getByRole('option', { name: role }).click();
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.getByRole('textbox', { name: 'The link, shown this once' }).inputValue();
  await guest.goto(link);
  await guest.getByRole('textbox', { name: 'Your name' }).fill(name);
  await guest.getByRole('textbox', { name: 'Email' }).fill(`${name.toLowerCase()}@wrenfold.example`);
  await guest.getByLabel('Password').fill('a longer password');
  await guest.getByRole('button', { name: 'Join the kitchen' }).click();
  await expect(guest.getByRole('heading', { name: 'Today' })).toBeVisible();
}
