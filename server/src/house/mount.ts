import {
  type AnyEndpoint,
  type Endpoint,
  type FileReply,
  type Moved,
  type Upload,
  PERSON_HEADER,
  PIN_HEADER,
  SERVER_TIME_HEADER,
  check,
  inKitchen,
  uuid,
} from '@cocotte/contract';
import { type Role, mayAct } from '@cocotte/core/kitchen';
import type { Request, Response, Router } from 'express';
import { granteeRows } from '../kitchen/grants.ts';
import { pinAsked, weighPin } from '../kitchen/pin.ts';
import { type Visitor, hasSession, visitorFrom, visitorStatement } from '../kitchen/outside.ts';
import { bodyOf, fileOf, readInput } from './body.ts';
import type { Clock } from './clock.ts';
import { type Counted, type Feed, countMoves, readMoved } from './feed.ts';
import { type Database, DatabaseAway, PLAN_IS_STALE, type Trx } from './database.ts';
import type { Guesses } from '../kitchen/guesses.ts';
import { inTurn } from '../heavy/pool.ts';
import { inLine } from './line.ts';
import { HttpProblem, problem } from './problems.ts';
import { DEVICE_COOKIE, SESSION_COOKIE, cookieHash, setCookie } from './session-cookie.ts';

/** What a handler in a kitchen gets. It never sees the request. */
export interface Call<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  person: { id: string; name: string };
  role: Role;
  /** Has the right to release and sign, and was asked for a PIN where others use the device. */
  maySign: boolean;
  kitchenId: string;
  trx: Trx;
  clock: Clock;
}

/** What every handler at the door gets: perhaps nobody is signed in, and no kitchen is entered. */
interface AtTheDoor<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  visitor: Visitor | null;
  clock: Clock;
  /** The caller's address, to slow down guessing. */
  address: string;
  /** What the caller's browser calls itself. */
  browser: string;
  /** The caller is a browser on this machine, without anybody in between. */
  thisMachine: boolean;
  secure: boolean;
  /** Sets or clears the session cookie. */
  setSession: (token: string | null) => void;
  tokenHash: string | null;
  /** Sets the cookie by which a device is known on which somebody signed in before. */
  setDevice: (token: string) => void;
  deviceHash: string | null;
}
/** One transaction, from beginning to end. */
export interface DoorCall<P, Q, B> extends AtTheDoor<P, Q, B> {
  trx: Trx;
}
/** Opens its transactions itself: nothing is held while a password is weighed. */
export interface PorchCall<P, Q, B> extends AtTheDoor<P, Q, B> {
  database: Database;
  guesses: Guesses;
}

type Handler = (req: Request, res: Response) => Promise<void>;
/** An endpoint with what answers it. */
export interface Mounted {
  endpoint: AnyEndpoint;
  /** Devices that follow the kitchen are told when it was called. */
  tells?: boolean;
  handler: (house: House) => Handler;
}

/** What endpoints are mounted on and with: the application, the database, the clock. */
export interface House {
  database: Database;
  clock: Clock;
  secure: boolean;
  guesses: Guesses;
  /** The longest that anything held the event loop since it was last asked, ms. */
  held_ms: () => number;
  /** Tells devices that something moved. */
  feed: Feed;
  /** How often streams show that they live, where it is not as usual. */
  beat_ms?: number;
  /** Names and addresses under which this server is called, in lower case and without a port. */
  names: readonly string[];
}

/** A reply that is JSON text already: a long record is passed on without being read and written again. */
export class JsonText<T> {
  /** The type the text stands for; never set. */
  declare readonly value: T;
  constructor(readonly text: string) {}
}

/** A reply that is made once the transaction is over, from what was read in it: drawing holds no connection. */
export class Afterwards<T> {
  constructor(readonly make: () => Promise<T>) {}
}

/** How an endpoint inside a kitchen is answered. */
export interface RoomOpts {
  /** Longest it may take; more than usual for work of many queries, each of which is short. */
  patience_ms?: number;
  /** It writes to the kitchen's record, one call after the other. */
  writesRecord?: boolean;
  /** What else of the kitchen it changes, so that devices that hold it ask anew. */
  moves?: readonly Counted[];
  /** A grant of the device does, where nobody is signed in, or the one who acts is not. */
  byGrant?: boolean;
}

/**
 * Mounts an endpoint that acts inside a kitchen, for those whose role may. Who calls, in which kitchen and whether they
 * may is settled before a body is looked at; it is one journey to the database, together with the transaction's beginning.
 *
 */
export function room<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  work: (call: Call<P, Q, B>) => Promise<R | JsonText<R> | Afterwards<R>>,
  opts: RoomOpts = {},
): Mounted {
  return mountRoom(endpoint, null, work, opts);
}

/**
 * Mounts an endpoint that takes a file. It is made ready, looked at and made smaller, one file after the other, once it is
 * known that the caller may, and before the transaction that keeps it: that takes no longer than another.
 *
 * @param ready  what is kept of the file, from the file as it came; throws where it is not what it claims to be
 */
export function intake<P, Q, M, R>(
  endpoint: Endpoint<P, Q, Upload, R>,
  ready: (upload: Upload) => Promise<M>,
  work: (call: Call<P, Q, M>) => Promise<R>,
  opts: RoomOpts = {},
): Mounted {
  return mountRoom(endpoint, ready, work, opts);
}

function mountRoom<P, Q, U, B, R>(
  endpoint: Endpoint<P, Q, U, R>,
  ready: ((upload: Upload) => Promise<B>) | null,
  work: (call: Call<P, Q, B>) => Promise<R | JsonText<R> | Afterwards<R>>,
  opts: RoomOpts,
): Mounted {
  const { moves = [], writesRecord = false } = opts;
  const tells = moves.length > 0 || writesRecord;
  return {
    endpoint,
    tells,
    handler: house => async (req, res) => {
      const { kitchenId, ...params } = req.params;
      if (!check(uuid, kitchenId).ok) throw noSuchKitchen();
      const caller = callerOf(req, kitchenId as string, house, opts.byGrant === true);
      const bytes = await bodyOf(endpoint, req, res);
      const proven = await caller.provesPin();
      const admitted = async (trx: Trx, rows: Record<string, unknown>[]) => {
        const visitor = await caller.from(trx, rows);
        settle(endpoint, visitor);
        return visitor;
      };
      const made = ready && {
        body: await house.database
          .beginningWith(caller.statement(), admitted, { reads: true })
          .then(() => inTurn(() => ready(fileOf(endpoint, req, bytes)))),
      };
      const act = () =>
        house.database.beginningWith(
          caller.statement(),
          async (trx, rows) => {
            const visitor = await admitted(trx, rows);
            const signs = visitor.maySign && (!visitor.shared || proven);
            if ((endpoint.signs || endpoint.asksPin || caller.asksPin) && visitor.shared && !proven)
              throw await pinAsked(trx, caller.place());
            const input = readInput(endpoint, params, req.query, bytes);
            const reply = await work({
              ...input,
              body: made ? made.body : (input.body as unknown as B),
              person: visitor.person,
              role: visitor.role as Role,
              maySign: signs,
              kitchenId: kitchenId as string,
              trx,
              clock: house.clock,
            });
            if (moves.length > 0) await countMoves(trx, kitchenId as string, moves);
            return reply;
          },
          {
            reads: endpoint.method === 'GET',
            ...(opts.patience_ms === undefined ? {} : { patience_ms: opts.patience_ms }),
          },
        );
      // Two who wrote the same thing at once, or waited for each other in a ring: the one that was rolled back is done
      // again, and finds what the other did.
      const again = () =>
        act().catch((error: unknown) => {
          if (!wasBeaten(error)) throw error;
          return act();
        });
      if (endpoint.reply.kind === 'file') {
        await inTurn(async () => {
          const paper = await again();
          send(endpoint, res, paper instanceof Afterwards ? await paper.make() : paper);
        });
        return;
      }
      const reply = await (writesRecord ? inLine(kitchenId as string, again) : again());
      if (tells) house.feed.tell(kitchenId as string);
      send(endpoint, res, reply instanceof Afterwards ? await reply.make() : reply);
    },
  };
}

/**
 * SQLSTATE of a row that somebody else wrote first, of transactions that cannot stand side by side, of a ring of locks,
 * of a plan that a migration made stale.
 */
const BEATEN = new Set(['23505', '40001', '40P01', PLAN_IS_STALE]);
function wasBeaten(error: unknown): boolean {
  const cause = error instanceof DatabaseAway ? error.cause : error;
  return BEATEN.has(String((cause as { code?: string } | undefined)?.code ?? ''));
}

/** Who calls in a kitchen: by a session, for whoever acts at its device; or by a grant of the device. */
function callerOf(req: Request, kitchenId: string, house: House, byGrant: boolean) {
  const tokenHash = cookieHash(req, SESSION_COOKIE);
  const deviceHash = byGrant ? cookieHash(req, DEVICE_COOKIE) : null;
  const named = req.get(PERSON_HEADER);
  const acting = named === undefined ? null : named;
  if (acting !== null && !check(uuid, acting).ok) throw notHere();
  if (!tokenHash && !(deviceHash && acting)) throw signInFirst();
  const pin = req.get(PIN_HEADER);
  const now_ms = () => house.clock.now_ms();
  const place = () => ({ tokenHash: tokenHash ?? '', acting, now_ms: now_ms() });
  return {
    place,
    /** Would rather be asked for a PIN than deliver unsigned. */
    asksPin: pin !== undefined,
    statement: () => visitorStatement(tokenHash ?? '', kitchenId, now_ms(), acting),
    /** @throws HttpProblem where nobody of the kitchen calls */
    async from(trx: Trx, rows: Record<string, unknown>[]): Promise<Visitor> {
      const visitor = visitorFrom(rows);
      if (visitor?.role) return visitor;
      const granted =
        deviceHash && acting
          ? visitorFrom(await granteeRows(trx, deviceHash, kitchenId, acting, now_ms()))
          : null;
      if (granted) return granted;
      const there = visitor ?? (acting && (await hasSession(trx, tokenHash ?? '', now_ms())));
      if (!there) throw signInFirst();
      throw visitor && !visitor.byTap ? noSuchKitchen() : notHere();
    },
    /** @throws HttpProblem where a PIN is given and is wrong */
    async provesPin(): Promise<boolean> {
      if (!pin || !tokenHash) return false;
      await weighPin(house.database, place(), pin);
      return true;
    },
  };
}

/** Refuses whoever is not in the kitchen, or may not do this there. */
function settle(endpoint: AnyEndpoint, visitor: Visitor): void {
  if (!visitor.role) throw noSuchKitchen();
  if (!mayAct(visitor.role, endpoint.who as Role))
    throw problem(403, {
      code: 'role',
      what: `A ${visitor.role} may not do this.`,
      why: `It takes the role of ${endpoint.who}.`,
      next: visitor.byTap
        ? 'Sign in here with your password: a tap on a name makes nobody more than a cook.'
        : 'Ask an owner of the kitchen.',
    });
  if (endpoint.signs && !visitor.maySign)
    throw problem(403, {
      code: 'may-not-sign',
      what: 'You may not release and sign.',
      why: 'Whoever releases jars answers for what people eat; an owner gives that right by name.',
      next: 'Ask somebody who may, or an owner to give you the right.',
    });
}

/** How often a stream shows that it lives, so that neither end, nor a proxy in between, takes it for dead. */
const BEAT_MS = 20_000;
/** Every so many beats it is looked whether the listener still may, and whether a word was lost. */
const LOOK_AGAIN_BEATS = 3;
/** A listener who does not read is let go once this much waits for it. */
const MOST_UNREAD_BYTES = 65_536;

/**
 * Mounts the stream that tells a device how far its kitchen has come. It holds no connection to the database: each word
 * is read once for everybody who listens.
 */
export function following(endpoint: Endpoint<object, object, object, Moved>): Mounted {
  return {
    endpoint,
    handler: house => async (req, res) => {
      const tokenHash = cookieHash(req, SESSION_COOKIE);
      if (!tokenHash) throw signInFirst();
      const kitchenId = req.params.kitchenId as string;
      if (!check(uuid, kitchenId).ok) throw noSuchKitchen();
      const look = () =>
        house.database.beginningWith(
          visitorStatement(tokenHash, kitchenId, house.clock.now_ms()),
          async (trx, rows) => {
            const visitor = visitorFrom(rows);
            if (!visitor) throw signInFirst();
            settle(endpoint, visitor);
            return readMoved(trx, kitchenId);
          },
          { reads: true },
        );
      let last = -1;
      const tell = (moved: Moved) => {
        // Each count only grows, and so does their sum: nothing older is told after what is newer.
        const far = moved.seq + moved.recipes + moved.stock + moved.settings;
        if (far <= last) return;
        last = far;
        write(`data: ${JSON.stringify(moved)}\n\n`);
      };
      const write = (text: string) => {
        res.write(text);
        if (res.writableLength > MOST_UNREAD_BYTES) res.destroy();
      };
      await look();
      // A stream is neither kept nor packed on its way.
      res.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-store, no-transform',
        'X-Accel-Buffering': 'no',
      });
      res.once('close', house.feed.listen(kitchenId, tell));
      const lookAgain = () =>
        look().then(tell, (error: unknown) => {
          // Whoever may no longer listen is let go, and told why when they ask again; a database that is away is no reason.
          if (error instanceof HttpProblem) res.end();
        });
      let beats = 0;
      const beat = setInterval(() => {
        write(':\n\n');
        if (++beats % LOOK_AGAIN_BEATS === 0) void lookAgain();
      }, house.beat_ms ?? BEAT_MS);
      res.once('close', () => clearInterval(beat));
      // What moved before it listened is seen by looking afterwards.
      await lookAgain();
    },
  };
}

/** Mounts an endpoint for those outside: links, a person's own sessions. */
export function door<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  work: (call: DoorCall<P, Q, B>) => Promise<R>,
): Mounted {
  return atTheDoor(endpoint, (house, tokenHash, begin) =>
    tokenHash
      ? house.database.beginningWith(visitorStatement(tokenHash, null, house.clock.now_ms()), (trx, rows) =>
          work({ ...begin(visitorFrom(rows)), trx }),
        )
      : house.database.outside(trx => work({ ...begin(null), trx })),
  );
}

/** Mounts an endpoint for those outside that weighs a password. */
export function porch<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  work: (call: PorchCall<P, Q, B>) => Promise<R>,
): Mounted {
  return atTheDoor(endpoint, async (house, tokenHash, begin) => {
    const visitor = tokenHash
      ? await house.database.beginningWith(
          visitorStatement(tokenHash, null, house.clock.now_ms()),
          async (_trx, rows) => visitorFrom(rows),
        )
      : null;
    return work({ ...begin(visitor), database: house.database, guesses: house.guesses });
  });
}

function atTheDoor<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  run: (
    house: House,
    tokenHash: string | null,
    begin: (visitor: Visitor | null) => AtTheDoor<P, Q, B>,
  ) => Promise<R>,
): Mounted {
  return {
    endpoint,
    handler: house => async (req, res) => {
      const tokenHash = cookieHash(req, SESSION_COOKIE);
      if (endpoint.who === 'signed in' && !tokenHash) throw signInFirst();
      const bytes = await bodyOf(endpoint, req, res);
      const cookies: [name: string, token: string | null][] = [];
      const reply = await run(house, tokenHash, visitor => {
        if (endpoint.who === 'signed in' && !visitor) throw signInFirst();
        return {
          ...readInput(endpoint, req.params, req.query, bytes),
          visitor,
          clock: house.clock,
          address: req.socket.remoteAddress ?? '',
          browser: (req.headers['user-agent'] ?? '').replaceAll(/[^\x20-\x7e]/g, '?').slice(0, 300),
          thisMachine: isThisMachine(req),
          secure: house.secure,
          tokenHash,
          deviceHash: cookieHash(req, DEVICE_COOKIE),
          setSession: token => void cookies.push([SESSION_COOKIE, token]),
          setDevice: token => void cookies.push([DEVICE_COOKIE, token]),
        };
      });
      for (const [name, token] of cookies) setCookie(res, name, token, house.secure);
      send(endpoint, res, reply);
    },
  };
}

/** A browser on this machine: called by a name of the machine itself, and by nobody who passes calls on. */
export function isThisMachine(req: Request): boolean {
  const passedOn = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip', 'via'].some(
    name => req.headers[name] !== undefined,
  );
  const name = hostName(req.headers.host);
  return (
    !passedOn &&
    /^(::1|127\.|::ffff:127\.)/.test(req.socket.remoteAddress ?? '') &&
    (name === 'localhost' || name === '127.0.0.1')
  );
}

/** The name in a Host header, in lower case and without its port; null when it is none. */
export function hostName(host: string | undefined): string | null {
  if (!host || !/^(\[[0-9a-f:.]+\]|[a-z0-9._-]+)(:\d{1,5})?$/i.test(host)) return null;
  return host.replace(/:\d+$/, '').toLowerCase();
}

function signInFirst() {
  return problem(401, {
    code: 'sign-in',
    what: 'You are not signed in.',
    why: 'The record says who did what.',
    next: 'Sign in and try again.',
  });
}

function notHere() {
  return problem(403, {
    code: 'not-here',
    what: 'They are not signed in on this device.',
    why: 'Only who signed in on a device acts there by a tap.',
    next: 'Sign in here with their password.',
  });
}

function noSuchKitchen() {
  return problem(403, {
    code: 'no-kitchen',
    what: 'You are not in that kitchen.',
    why: 'Nobody has added you to it, or you were taken out.',
    next: 'Ask its owner for a link.',
  });
}

function send(endpoint: AnyEndpoint, res: Response, reply: unknown): void {
  if (endpoint.reply.kind === 'file') {
    const [first = ''] = endpoint.reply.mediaTypes;
    const file = reply instanceof Uint8Array ? { mediaType: first, bytes: reply } : (reply as FileReply);
    res.setHeader('Content-Type', file.mediaType);
    res.setHeader('Content-Disposition', 'inline');
    res.end(Buffer.from(file.bytes));
    return;
  }
  const text = Buffer.from(reply instanceof JsonText ? reply.text : JSON.stringify(reply));
  res.setHeader('Content-Type', 'application/json; charset=utf-8');
  res.setHeader('Content-Length', text.length);
  res.end(text);
}

/** Puts every endpoint of the table on the router; one without a handler, or a handler twice, is an error at start. */
export function mountAll(
  router: Router,
  mounted: Mounted[],
  endpoints: readonly AnyEndpoint[],
  house: House,
): void {
  const byName = new Map(mounted.map(m => [m.endpoint.name, m]));
  if (byName.size !== mounted.length) throw new Error('An endpoint is mounted twice.');
  for (const endpoint of endpoints) {
    const found = byName.get(endpoint.name);
    if (!found) throw new Error(`Endpoint ${endpoint.name} has no handler.`);
    if (inKitchen(endpoint) !== endpoint.path.startsWith('/api/kitchens/:kitchenId'))
      throw new Error(
        `Endpoint ${endpoint.name} does not name its kitchen, or names one without acting in it.`,
      );
    const handler = found.handler(house);
    const method = endpoint.method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
    router[method](endpoint.path, (req, res, next) => {
      handler(req, res).catch(next);
    });
  }
}

/** Stamps each reply with the server's clock and the number of the request. */
export function serverTime(clock: Clock) {
  return (_req: Request, res: Response, next: () => void): void => {
    res.setHeader(SERVER_TIME_HEADER, String(clock.now_ms()));
    next();
  };
}
