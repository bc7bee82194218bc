// oxlint-disable-next-line typescript/triple-slash-reference -- an ambient declaration has nothing to import
/// <reference path="./provided.d.ts" />
import { randomUUID } from 'node:crypto';
import { type Server, createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import {
  PERSON_HEADER,
  PIN_HEADER,
  type Endpoint,
  type Problem,
  type Upload,
  type SessionView,
  check,
  makeFirstAccount,
  invite,
  acceptInvitation,
  signIn,
} from '@cocotte/contract';
import { makeApp } from '@cocotte/server/house/app';
import { type Database, openDatabase } from '@cocotte/server/house/database';
import { openFeed } from '@cocotte/server/house/feed';
import { type Standing, holdStanding } from '@cocotte/server/house/standing';
import { guessesIn } from '@cocotte/server/kitchen/guesses';
import pg from 'pg';
import { inject } from 'vitest';

const DAY_MS = 86_400_000;
/** Named by somebody who is in none. */
const NO_KITCHEN = '00000000-0000-7000-8000-000000000000';

/** A database of this file's own, cloned from the migrated template. */
export async function cloneDatabase(): Promise<{ appUrl: string; ownerUrl: string; name: string }> {
  const name = `${inject('template')}_${randomUUID().slice(0, 8)}`;
  const admin = new pg.Client({
    connectionString: Object.assign(new URL(inject('adminUrl')), { pathname: '/postgres' }).href,
  });
  await admin.connect();
  await admin.query(`create database ${name} template ${inject('template')} owner cocotte_owner`);
  await admin.end();
  const at = (url: string) => Object.assign(new URL(url), { pathname: `/${name}` }).href;
  return { appUrl: at(inject('appUrl')), ownerUrl: at(inject('ownerUrl')), name };
}

/** How a kitchen of the tests reads figures. */
export const PLAIN_HABITS = {
  locale: 'en-US',
  currency: 'USD',
  temperature: 'F',
  altitude: 'ft',
  measures: 'US',
  paper: 'letter',
} as const;

/** The real server on a database of its own, with a clock the test moves. */
export class TestServer {
  now_ms = Date.parse('2026-11-24T16:00:00Z');
  private constructor(
    readonly database: Database,
    readonly urls: { appUrl: string; ownerUrl: string },
    private readonly standing: Standing,
    readonly http: Server,
    readonly origin: string,
  ) {}

  /**
   * @param over  how its database is reached, where a test stands in between
   */
  static async open(
    over: (url: string) => Promise<Database> | Database = url => openDatabase(url, 8),
  ): Promise<TestServer> {
    return TestServer.on(await cloneDatabase(), over);
  }

  /** Another server process on the same database. */
  beside(): Promise<TestServer> {
    return TestServer.on(this.urls, url => openDatabase(url, 4));
  }

  private static async on(
    urls: { appUrl: string; ownerUrl: string },
    over: (url: string) => Promise<Database> | Database,
  ): Promise<TestServer> {
    const database = await over(urls.appUrl);
    const standing = holdStanding(urls.appUrl);
    let self: TestServer | undefined;
    const app = makeApp(
      {
        database,
        clock: { now_ms: () => self?.now_ms ?? Date.now() },
        secure: false,
        guesses: guessesIn(database),
        held_ms: () => 0,
        feed: openFeed(database, standing),
        beat_ms: 200,
        names: ['localhost', '127.0.0.1'],
      },
      null,
    );
    const http = createServer(app);
    await new Promise<void>(resolve => http.listen(0, '127.0.0.1', resolve));
    self = new TestServer(
      database,
      urls,
      standing,
      http,
      `http://127.0.0.1:${(http.address() as AddressInfo).port}`,
    );
    return self;
  }

  days(n: number): void {
    this.now_ms += n * DAY_MS;
  }

  async close(): Promise<void> {
    this.http.closeAllConnections();
    await new Promise(resolve => this.http.close(resolve));
    await this.database.close();
    await this.standing.leave();
  }

  /** The first account with its kitchen. */
  async firstOwner(kitchen = 'Test Kitchen'): Promise<Client> {
    const client = new Client(this);
    await client.ok(makeFirstAccount, {
      body: {
        name: 'Ona',
        email: 'ona@test.example',
        password: 'a long password',
        kitchen,
        zone: 'America/Denver',
        altitude_m: 716.28,
        habits: PLAIN_HABITS,
      },
    });
    return client;
  }

  /** Somebody who joined by a link from an owner. */
  async join(
    owner: Client,
    role: 'owner' | 'cook' | 'viewer',
    email: string,
    maySign = false,
  ): Promise<Client> {
    const { token } = await owner.ok(invite, { body: { id: randomUUID(), role, maySign } });
    const client = new Client(this);
    await client.ok(acceptInvitation, {
      params: { token },
      body: { name: email.split('@')[0] ?? 'x', email, password: 'a long password' },
    });
    return client;
  }

  async signIn(email: string, password = 'a long password'): Promise<Client> {
    const client = new Client(this);
    await client.ok(signIn, { body: { email, password } });
    return client;
  }
}

export interface Answer {
  status: number;
  body: unknown;
  headers: Headers;
}

/** A caller with a cookie of its own. Every good reply is held against the contract. */
export class Client {
  cookie = '';
  /** By which a server knows the device again. */
  device = '';
  session: SessionView | null = null;
  /** Who acts at its device by a tap; whoever is signed in where it is empty. */
  acting = '';
  /** The PIN it sends along; none where it is null. */
  pin: string | null = null;
  constructor(readonly server: TestServer) {}

  get personId(): string {
    return this.session?.person?.id ?? '';
  }

  /** The kitchen its calls name: the one the session says, unless a test goes to another. */
  kitchenId = '';
  get named(): string {
    return this.kitchenId || (this.session?.kitchenId ?? NO_KITCHEN);
  }

  /** An address in its kitchen, such as `/recipes`. */
  at(path: string): string {
    return `/api/kitchens/${this.named}${path}`;
  }

  private cookies(): string {
    return [this.cookie, this.device ? `cocotte_device=${this.device}` : ''].filter(Boolean).join('; ');
  }

  async raw(
    method: string,
    path: string,
    init: { body?: RequestInit['body']; headers?: Record<string, string> } = {},
  ): Promise<Answer> {
    const response = await fetch(this.server.origin + path, {
      method,
      headers: {
        cookie: this.cookies(),
        ...(this.acting ? { [PERSON_HEADER]: this.acting } : {}),
        ...(this.pin === null ? {} : { [PIN_HEADER]: this.pin }),
        ...init.headers,
      },
      body: init.body,
    });
    for (const set of response.headers.getSetCookie()) {
      const [name = '', value = ''] = (set.split(';')[0] ?? '').split('=');
      if (name === 'cocotte_device') this.device = value;
      else this.cookie = value ? `${name}=${value}` : '';
    }
    const type = response.headers.get('content-type') ?? '';
    return {
      status: response.status,
      headers: response.headers,
      body: type.includes('json') ? await response.json() : new Uint8Array(await response.arrayBuffer()),
    };
  }

  async try<P, Q, B, R>(
    endpoint: Endpoint<P, Q, B, R>,
    input: { params?: P; query?: Partial<Q>; body?: B } = {},
  ): Promise<Answer> {
    const path = endpoint.path.replaceAll(/:(\w+)/g, (_, k: string) =>
      encodeURIComponent(
        k === 'kitchenId' ? this.named : String((input.params as Record<string, unknown>)[k]),
      ),
    );
    const query = new URLSearchParams((input.query ?? {}) as Record<string, string>).toString();
    const hasBody = endpoint.method === 'POST' || endpoint.method === 'PUT';
    if (endpoint.upload) {
      const file = input.body as unknown as Upload;
      return this.raw('POST', `${path}?${query}`, {
        body: file.bytes as RequestInit['body'],
        headers: { 'content-type': file.mediaType },
      });
    }
    return this.raw(
      endpoint.method,
      query ? `${path}?${query}` : path,
      hasBody
        ? { body: JSON.stringify(input.body ?? {}), headers: { 'content-type': 'application/json' } }
        : {},
    );
  }

  /** The reply, which must be good and what the contract says. */
  async ok<P, Q, B, R>(
    endpoint: Endpoint<P, Q, B, R>,
    input: { params?: P; query?: Partial<Q>; body?: B } = {},
  ): Promise<R> {
    const answer = await this.try(endpoint, input);
    if (answer.status !== 200)
      throw new Error(`${endpoint.name}: ${answer.status} ${JSON.stringify(answer.body)}`);
    if (endpoint.reply.kind === 'json') {
      const checked = check(endpoint.reply.rule, answer.body);
      if (!checked.ok)
        throw new Error(
          `${endpoint.name}: the reply is not what the contract says: ${JSON.stringify(checked.faults)}`,
        );
      if (/^(session|account|invitations\.accept)/.test(endpoint.name) && 'person' in (answer.body as object))
        this.session = answer.body as SessionView;
    }
    return answer.body as R;
  }

  /** The problem, which must be one: its status, and its faults in what, why and what next. */
  async refused<P, Q, B, R>(
    endpoint: Endpoint<P, Q, B, R>,
    input: { params?: P; query?: Partial<Q>; body?: unknown } = {},
  ): Promise<Problem> {
    const answer = await this.try(endpoint, input as { params?: P; query?: Partial<Q>; body?: B });
    if (answer.status < 400) throw new Error(`${endpoint.name} was not refused`);
    return problemOf(answer);
  }
}

/** The body as a problem; every fault says what, why and what next. */
export function problemOf(answer: Answer): Problem {
  const problem = answer.body as Problem;
  if (!answer.headers.get('content-type')?.includes('application/problem+json'))
    throw new Error(`not a problem body: ${answer.status}`);
  if (problem.status !== answer.status || !problem.requestId || problem.errors.length === 0)
    throw new Error(`not a whole problem: ${JSON.stringify(problem)}`);
  for (const e of problem.errors)
    if (!e.what || !e.why || !e.next || !e.code)
      throw new Error(`a fault that does not say what, why and what next: ${JSON.stringify(e)}`);
  return problem;
}
