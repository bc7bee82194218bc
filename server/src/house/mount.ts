import { type AnyEndpoint, type Endpoint, SERVER_TIME_HEADER, check } from '@cocotte/contract';
import { documentOf } from '@cocotte/contract/rules';
import { type Role, mayAct } from '@cocotte/core/kitchen';
import type { Request, Response, Router } from 'express';
import { type Visitor, readVisitor } from '../kitchen/outside.ts';
import type { Clock } from './clock.ts';
import { AWAY_AFTER_MS, type Database, DatabaseAway, type Trx } from './database.ts';
import { HttpProblem, problem } from './problems.ts';
import { sessionTokenHash } from './session-cookie.ts';

/** What a handler in a kitchen gets. It never sees the request. */
export interface Call<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  person: { id: string; name: string };
  role: Role;
  kitchenId: string;
  trx: Trx;
  clock: Clock;
}

/** What a handler at the door gets: perhaps nobody is signed in, and no kitchen is entered. */
export interface DoorCall<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  visitor: Visitor | null;
  trx: Trx;
  clock: Clock;
  /** The caller's address, to slow down guessing. */
  address: string;
  loopback: boolean;
  secure: boolean;
  /** Sets or clears the session cookie. */
  setSession: (token: string | null) => void;
  tokenHash: string | null;
}

type Handler = (req: Request, res: Response) => Promise<void>;
export interface Mounted {
  endpoint: AnyEndpoint;
  handler: (house: House) => Handler;
}

export interface House {
  database: Database;
  clock: Clock;
  secure: boolean;
}

/** A reply that is JSON text already: a long record is passed on without being read and written again. */
export class JsonText<T> {
  /** The type the text stands for; never set. */
  declare readonly value: T;
  constructor(readonly text: string) {}
}

/** Longest a call takes before it is answered that the database is away. */
const PATIENCE_MS = AWAY_AFTER_MS + 300;

/**
 * Mounts an endpoint that acts inside a kitchen, for those whose role may.
 *
 * @param patience_ms  longest it may take; more than usual for work of many queries, each of which is short
 */
export function room<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  work: (call: Call<P, Q, B>) => Promise<R | JsonText<R>>,
  patience_ms = PATIENCE_MS,
): Mounted {
  return {
    endpoint,
    handler: house => async (req, res) => {
      const input = readInput(endpoint, req);
      const tokenHash = sessionTokenHash(req);
      if (!tokenHash) throw signInFirst();
      const reply = await inTime(
        house.database.outside(async trx => {
          const visitor = await readVisitor(trx, tokenHash, house.clock.now_ms());
          if (!visitor) throw signInFirst();
          if (!visitor.kitchenId || !visitor.role)
            throw problem(
              403,
              'no-kitchen',
              'You are in no kitchen.',
              'Nobody has added you to one, or you were taken out.',
              'Ask its owner for a link.',
            );
          if (!mayAct(visitor.role, endpoint.who as Role)) {
            throw problem(
              403,
              'role',
              `A ${visitor.role} may not do this.`,
              `It takes the role of ${endpoint.who}.`,
              'Ask an owner of the kitchen.',
            );
          }
          return work({
            ...input,
            person: visitor.person,
            role: visitor.role,
            kitchenId: visitor.kitchenId,
            trx,
            clock: house.clock,
          });
        }),
        patience_ms,
      );
      send(endpoint, res, reply);
    },
  };
}

/** Mounts an endpoint for those outside: signing in, the first account, links. */
export function door<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  work: (call: DoorCall<P, Q, B>) => Promise<R>,
): Mounted {
  return {
    endpoint,
    handler: house => async (req, res) => {
      const input = readInput(endpoint, req);
      const tokenHash = sessionTokenHash(req);
      let session: string | null | undefined;
      // A refusal must not undo what was counted: the error is carried out of the transaction and thrown after it.
      const outcome = await inTime(
        house.database.outside(async trx => {
          const visitor = tokenHash ? await readVisitor(trx, tokenHash, house.clock.now_ms()) : null;
          if (endpoint.who === 'signed in' && !visitor) throw signInFirst();
          const address = req.socket.remoteAddress ?? '';
          try {
            return {
              reply: await work({
                ...input,
                visitor,
                trx,
                clock: house.clock,
                address,
                loopback: /^(::1|127\.|::ffff:127\.)/.test(address),
                secure: house.secure,
                tokenHash,
                setSession: token => {
                  session = token;
                },
              }),
            };
          } catch (error) {
            if (error instanceof HttpProblem && (error.status === 401 || error.status === 429))
              return { error };
            throw error;
          }
        }),
      );
      if ('error' in outcome) throw outcome.error;
      if (session !== undefined) {
        const attributes = `HttpOnly; SameSite=Lax; Path=/${house.secure ? '; Secure' : ''}`;
        res.setHeader(
          'Set-Cookie',
          session === null
            ? `cocotte_session=; Max-Age=0; ${attributes}`
            : `cocotte_session=${session}; Max-Age=${30 * 86_400}; ${attributes}`,
        );
      }
      send(endpoint, res, outcome.reply);
    },
  };
}

function signInFirst() {
  return problem(
    401,
    'sign-in',
    'You are not signed in.',
    'The record says who did what.',
    'Sign in and try again.',
  );
}

function readInput<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  req: Request,
): { params: P; query: Q; body: B } {
  const hasBody = endpoint.method === 'POST' || endpoint.method === 'PUT';
  if (hasBody && req.body === undefined)
    throw problem(
      415,
      'not-json',
      'There is no JSON body.',
      'This call needs one.',
      'Send application/json.',
    );
  // A query key that is left out is the empty text.
  const query = {
    ...Object.fromEntries(
      Object.keys((documentOf(endpoint.query).properties ?? {}) as object).map(k => [k, '']),
    ),
    ...req.query,
  };
  const params = check(endpoint.params, { ...req.params });
  const checkedQuery = check(endpoint.query, query);
  const body = hasBody ? check(endpoint.body, req.body) : { ok: true as const, value: {} as B };
  const faults = [params, checkedQuery, body].flatMap(c => (c.ok ? [] : c.faults));
  if (!params.ok || !checkedQuery.ok || !body.ok) throw new HttpProblem(422, 'invalid', faults);
  return { params: params.value, query: checkedQuery.value, body: body.value };
}

/** Gives up on the database in time for the caller to hear of it within 3 s. */
async function inTime<T>(work: Promise<T>, patience_ms = PATIENCE_MS): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new DatabaseAway('no answer in time')), patience_ms);
  });
  work.catch(() => undefined);
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

function send(endpoint: AnyEndpoint, res: Response, reply: unknown): void {
  if (endpoint.reply.kind === 'file') {
    res.type(endpoint.reply.mediaType).setHeader('Content-Disposition', 'inline');
    res.send(Buffer.from(reply as Uint8Array));
    return;
  }
  if (reply instanceof JsonText) {
    res.type('application/json').send(reply.text);
    return;
  }
  res.json(reply);
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
