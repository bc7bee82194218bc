import { randomUUID } from 'node:crypto';
import { type AnyEndpoint, inKitchen } from '@cocotte/contract';
import { openApi } from '@cocotte/contract/openapi';
import { ENDPOINTS } from '@cocotte/contract/table';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { pdfOf, picture } from '../../testing/papers.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { closeHeavy } from '../src/heavy/pool.ts';

/**
 * Every endpoint of the OpenAPI document, with bodies that are nearly right and wholly wrong, and odd queries and
 * parameters: whatever is sent, the fault is never ours. Small in the tests; `npm run fuzz` sends all of it.
 */
const FULL = process.env.COCOTTE_FUZZ === 'full';
const BODIES = FULL ? 40 : 6;
const QUERIES = FULL ? 2000 : 250;
const SEED = Number(process.env.COCOTTE_FUZZ_SEED ?? (FULL ? Date.now() % 2 ** 31 : 4600));

let server: TestServer;
let owner: Client;
let line: Line;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await (await (await Line.open(owner, plumJam, 'half-pint', 4)).start()).draw();
  console.log(`fuzzing with seed ${SEED}`);
});
afterAll(async () => {
  await server.close();
  await closeHeavy();
});

type Document = {
  type?: string;
  enum?: unknown[];
  oneOf?: Document[];
  properties?: Record<string, Document>;
  additionalProperties?: Document | boolean;
  items?: Document;
  maxItems?: number;
  minItems?: number;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  format?: string;
  pattern?: string;
  maxLength?: number;
};

const ID = '0190b5a4-0000-7000-8000-000000000000';
/** What is in nobody's plan. */
const odd = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    '',
    ' ',
    '\0',
    '\ud800',
    '__proto__',
    'constructor',
    "'; drop table events; --",
    '%',
    '\\',
    '?',
    ':at',
    '$1',
    '-0',
    '1e309',
    'NaN',
    0,
    -0,
    -1,
    1e308,
    2 ** 53,
    0.1,
    true,
    [],
    {},
    [null],
    [[]],
    { __proto__: null },
    ID,
    '9999-12-31',
    '0000-01-01',
    '-000001-01-01T00:00:00Z',
    '2026-02-30',
    '9999-12-31T23:59:59.999Z',
    '0001-01-01T00:00:00.000Z',
    '99999999999999999999',
    '1/0',
    '0/1',
    '999999999999999999/1',
    '1/999999999999999999',
    'x'.repeat(5000),
    '𝔘𝔫𝔦',
    'a\u202eb',
  ),
  fc.string({ maxLength: 30, unit: 'binary' }),
  fc.double(),
  fc.jsonValue({ maxDepth: 3 }),
);

/** Ids that are there, so that a body which is nearly right goes further than the first look. */
const known = () => [
  ID,
  line.batchId,
  line.recipeId,
  owner.personId,
  owner.session?.kitchenId ?? ID,
  ...Object.values(line.lots),
];

/** A value the document allows. */
function right(d: Document): fc.Arbitrary<unknown> {
  if (d.enum) return fc.constantFrom(...d.enum);
  if (d.oneOf) return fc.oneof(...d.oneOf.map(right));
  switch (d.type) {
    case 'object':
      return fc.record(
        Object.fromEntries(Object.entries(d.properties ?? {}).map(([k, v]) => [k, right(v)])),
      ) as fc.Arbitrary<unknown>;
    case 'array':
      return fc.array(right(d.items as Document), {
        minLength: d.minItems ?? 0,
        maxLength: Math.min(d.maxItems ?? 3, (d.minItems ?? 0) + 2),
      });
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'integer':
      return fc.integer({ min: Math.ceil(d.minimum ?? 0), max: Math.min(d.maximum ?? 2 ** 31, 2 ** 31 - 1) });
    case 'number':
      return fc.double({
        min: d.minimum ?? d.exclusiveMinimum ?? 0,
        max: d.maximum ?? 1e6,
        noNaN: true,
      });
    default:
      return text(d);
  }
}

function text(d: Document): fc.Arbitrary<string> {
  if (d.format === 'uuid') return fc.constantFrom(...known());
  if (d.format === 'date') return fc.constantFrom('2026-11-25', '2026-12-24', '2000-02-29', '9999-12-31');
  if (d.format === 'date-time')
    return fc.constantFrom('2026-11-25T10:00:00.000Z', '2099-01-01T00:00:00Z', '0001-01-01T00:00:00.000Z');
  if (d.format === 'decimal') return fc.constantFrom('0', '1', '12.50', '999999999999', '0.000000001', '-1');
  if (d.pattern?.startsWith('^\\d{1,18}'))
    return fc.constantFrom('1', '5/2', '1/999999999999999999', '999999999999999999');
  if (d.pattern?.includes('@')) return fc.constantFrom('ona@test.example', 'x@y.example');
  return fc.oneof(
    fc.string({ maxLength: Math.min(d.maxLength ?? 20, 20) }),
    fc.constantFrom(
      'plums',
      '__proto__',
      'x',
      ...plumJam.steps.map(s => s.id),
      ...plumJam.lines.map(l => l.id),
    ),
  );
}

/** A right value with something odd in one place; now and then nothing but odd, and now and then right. */
function wrong(d: Document): fc.Arbitrary<unknown> {
  const spoiled = fc
    .tuple(right(d), fc.array(fc.nat(50), { maxLength: 6 }), odd)
    .map(([value, path, by]) => spoil(value, path, by));
  return fc.oneof(
    { weight: 6, arbitrary: spoiled },
    { weight: 1, arbitrary: odd },
    { weight: 3, arbitrary: right(d) },
  );
}

function spoil(value: unknown, path: number[], by: unknown): unknown {
  const [first, ...rest] = path;
  if (first === undefined || value === null || typeof value !== 'object') return by;
  if (Array.isArray(value))
    return value.length === 0
      ? by
      : value.map((v, i) => (i === first % value.length ? spoil(v, rest, by) : v));
  const keys = Object.keys(value);
  if (keys.length === 0) return by;
  const key = keys[first % keys.length] as string;
  return { ...value, [key]: spoil((value as Record<string, unknown>)[key], rest, by) };
}

const document = openApi() as {
  paths: Record<
    string,
    Record<
      string,
      {
        operationId: string;
        parameters: { name: string; in: string; schema: Document }[];
        requestBody?: { content: { 'application/json': { schema: Document } } };
      }
    >
  >;
};
const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({
    path,
    method: method.toUpperCase(),
    ...operation,
  })),
);
const byName = new Map(ENDPOINTS.map(e => [e.name, e]));
/** What ends the session all the rest is asked in. */
const LEAVING = new Set([
  'session.signOut',
  'sessions.end',
  'people.remove',
  'people.change',
  'session.signIn',
  'invitations.accept',
]);

function address(path: string, filled: Record<string, unknown>, query: Record<string, unknown>): string {
  const place = path.replaceAll(/\{(\w+)\}/g, (_, name: string) =>
    encode(name === 'kitchenId' ? owner.session?.kitchenId : filled[name]),
  );
  const asked = Object.entries(query)
    .map(([k, v]) => `${encode(k)}=${encode(v)}`)
    .join('&');
  return asked ? `${place}?${asked}` : place;
}
/** As a client writes it that does not care: halves of characters become what `fetch` makes of them. */
function encode(value: unknown): string {
  const words = typeof value === 'string' ? value : (JSON.stringify(value) ?? 'undefined');
  return encodeURIComponent(words.replaceAll(/\p{Surrogate}/gu, '\ufffd')) || '%20';
}

async function send(method: string, path: string, body?: unknown): Promise<void> {
  const { cookie } = owner;
  const answer = await owner.raw(
    method,
    path,
    method === 'POST' || method === 'PUT'
      ? { body: JSON.stringify(body) ?? '', headers: { 'content-type': 'application/json' } }
      : {},
  );
  owner.cookie = owner.cookie || cookie;
  if (answer.status >= 500)
    throw new Error(
      `${method} ${path}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 300)}\n${JSON.stringify(body)?.slice(0, 3000)}`,
    );
}

const takesFile = (o: (typeof operations)[number]) => byName.get(o.operationId)?.upload ?? null;
const withBody = operations.filter(o => o.requestBody && !takesFile(o) && !LEAVING.has(o.operationId));
it.each(withBody.map(o => [o.operationId, o] as const))(
  '%s takes whatever it is sent',
  async (_name, o) => {
    const schema = (o.requestBody as NonNullable<typeof o.requestBody>).content['application/json'].schema;
    const params = fc.record(
      Object.fromEntries(o.parameters.filter(p => p.in === 'path').map(p => [p.name, right(p.schema)])),
    );
    await fc.assert(
      fc.asyncProperty(wrong(schema), params, (body, filled) =>
        send(o.method, address(o.path, filled as Record<string, unknown>, {}), body),
      ),
      { numRuns: BODIES, seed: SEED, endOnFailure: true },
    );
  },
  600_000,
);

it.each(operations.flatMap(o => (takesFile(o) ? [[o.operationId, o] as const] : [])))(
  '%s takes whatever file it is sent',
  async (_name, o) => {
    const whole = [picture().bytes, (await pdfOf(2)).bytes];
    // A sound file, cut off or with some of its bytes changed, or nothing but noise.
    const bytes = fc.oneof(
      fc.uint8Array({ maxLength: 400 }),
      fc
        .tuple(
          fc.constantFrom(...whole),
          fc.nat(),
          fc.array(fc.tuple(fc.nat(), fc.nat(255)), { maxLength: 6 }),
        )
        .map(([sound, cut, changed]) => {
          const copy = sound.slice(0, cut % 3 === 0 ? cut % sound.length : sound.length);
          for (const [at, to] of changed) if (copy.length > 0) copy[at % copy.length] = to;
          return copy;
        }),
    );
    await fc.assert(
      fc.asyncProperty(
        bytes,
        fc.constantFrom(...(takesFile(o)?.mediaTypes ?? []), 'text/html', ''),
        async (body, type) => {
          const path = address(o.path, { paperId: randomUUID() }, { subject: 'x', name: '__proto__' });
          const answer = await owner.raw('POST', path, {
            body: body as RequestInit['body'],
            headers: { 'content-type': type },
          });
          expect(answer.status).toBeLessThan(500);
        },
      ),
      { numRuns: BODIES, seed: SEED, endOnFailure: true },
    );
  },
  600_000,
);

it('odd queries and parameters are refused, never broken by', async () => {
  // A stream that is opened well has no end to wait for; how it refuses is in feed.test.ts.
  const endless = (o: (typeof operations)[number]) => byName.get(o.operationId)?.reply.kind === 'stream';
  const asked = operations.filter(o => !LEAVING.has(o.operationId) && !endless(o) && o.parameters.length > 0);
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...asked),
      fc.infiniteStream(odd),
      fc.nat(3),
      async (o, stream, turn) => {
        const part = (place: string) =>
          Object.fromEntries(
            o.parameters
              .filter(p => p.in === place && p.name !== 'kitchenId')
              .map(p => [
                p.name,
                turn === 0 || place === 'query'
                  ? stream.next().value
                  : fc.sample(right(p.schema), { numRuns: 1, seed: SEED })[0],
              ]),
          ) as Record<string, unknown>;
        const query = part('query');
        if (turn === 3) query[JSON.stringify(stream.next().value) ?? ''] = stream.next().value;
        const e = byName.get(o.operationId) as AnyEndpoint;
        expect(inKitchen(e) ? o.path.includes('{kitchenId}') : true).toBe(true);
        await send(o.method, address(o.path, part('path'), query), {});
      },
    ),
    { numRuns: QUERIES, seed: SEED, endOnFailure: true },
  );
}, 600_000);
