import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AnyEndpoint } from './endpoint.ts';
import { openApi } from './openapi.ts';
import { type JsonSchema, type Rule, check, documentOf } from './rules.ts';
import { ENDPOINTS } from './table.ts';

/**
 * The document that others program against, held against the rules that the server really applies, by a validator of
 * JSON Schema written by others.
 */
const ajv = new Ajv2020({ strict: false, allErrors: false, discriminator: false });
addFormats.default(ajv);
ajv.addFormat('decimal', true);

const SAMPLES: Record<string, string> = {
  uuid: '0190b5a4-0000-7000-8000-000000000000',
  date: '2026-11-25',
  'date-time': '2026-11-25T10:00:00.000Z',
};

/** A value that a document allows: the least there is of everything. */
function sampleOf(document: JsonSchema): unknown {
  const d = document as {
    type?: string;
    enum?: unknown[];
    oneOf?: JsonSchema[];
    anyOf?: JsonSchema[];
    properties?: Record<string, JsonSchema>;
    items?: JsonSchema;
    minItems?: number;
    minLength?: number;
    minimum?: number;
    exclusiveMinimum?: number;
    maximum?: number;
    format?: string;
    pattern?: string;
  };
  if (d.enum) return d.enum[0];
  if (d.anyOf) return sampleOf(d.anyOf[0] as JsonSchema);
  if (d.oneOf) return sampleOf(d.oneOf[0] as JsonSchema);
  switch (d.type) {
    case 'object':
      return Object.fromEntries(Object.entries(d.properties ?? {}).map(([k, v]) => [k, sampleOf(v)]));
    case 'array':
      return Array.from({ length: d.minItems ?? 0 }, () => sampleOf(d.items as JsonSchema));
    case 'boolean':
      return false;
    case 'null':
      return null;
    case 'integer':
      return Math.max(d.minimum ?? 0, (d.exclusiveMinimum ?? -1) + 1, 0) || (d.minimum ?? 0);
    case 'number':
      return d.exclusiveMinimum === undefined
        ? Math.max(d.minimum ?? 0, Math.min(0, d.maximum ?? 0))
        : (d.exclusiveMinimum + (d.maximum ?? d.exclusiveMinimum + 1)) / 2;
    case 'string':
      if (d.format === 'decimal') return '1';
      if (d.format && SAMPLES[d.format]) return SAMPLES[d.format];
      if (d.pattern?.endsWith('\\d{4,8}$')) return '4711';
      if (d.pattern?.startsWith('^#')) return '#336699';
      if (d.pattern?.includes('@')) return 'wren@wrenfold.example';
      return d.pattern?.startsWith('^\\d{1,18}') ? '1/2' : 'x'.repeat(Math.max(1, d.minLength ?? 1));
    default:
      throw new Error(`no sample for ${JSON.stringify(document).slice(0, 80)}`);
  }
}

interface Held {
  name: string;
  rule: Rule<unknown>;
  document: JsonSchema;
  byAjv: ValidateFunction;
  good: unknown;
}
const held = (name: string, rule: Rule<unknown>): Held => {
  const document = documentOf(rule);
  return { name, rule, document, byAjv: ajv.compile(document), good: sampleOf(document) };
};
const bodies = ENDPOINTS.filter(e => e.method === 'POST' || e.method === 'PUT').map(e =>
  held(e.name, e.body as Rule<unknown>),
);
const replies = ENDPOINTS.flatMap(e =>
  e.reply.kind === 'json' ? [held(e.name, e.reply.rule as Rule<unknown>)] : [],
);
const isObject = (v: unknown): v is Record<string, unknown> =>
  v !== null && typeof v === 'object' && !Array.isArray(v);

describe('what a body must be', () => {
  it.each(bodies)('$name: the least that the document allows is taken', ({ rule, byAjv, good }) => {
    expect(byAjv(good), JSON.stringify(byAjv.errors)).toBe(true);
    expect(check(rule, good)).toMatchObject({ ok: true });
  });

  it.each(bodies)('$name: an unknown key, a missing one and a wrong type are named where they are', held => {
    const { rule, byAjv, good, document } = held;
    if (!isObject(good)) return;
    const required = (document as { required?: string[] }).required ?? [];
    const extra = check(rule, { ...good, colour: 'red' });
    expect(extra.ok ? [] : extra.faults.map(f => f.code)).toEqual(['unknown-key']);
    expect(byAjv({ ...good, colour: 'red' })).toBe(false);
    for (const key of Object.keys(good)) {
      const { [key]: _, ...rest } = good;
      const without = check(rule, rest);
      // What may be left out may; anything else is named.
      const named = without.ok ? [] : without.faults.map(f => f.path.split(/[.[]/)[0]);
      expect(named).toEqual(required.includes(key) ? expect.arrayContaining([key]) : []);
      expect(byAjv(rest)).toBe(!required.includes(key));
      const wrong = check(rule, { ...good, [key]: Symbol('nothing crosses the wire like this') });
      expect(wrong.ok ? [] : wrong.faults.map(f => f.path.split(/[.[]/)[0])).toContain(key);
    }
    for (const value of [null, [], 'x', 7, true]) expect(check(rule, value).ok).toBe(false);
  });

  it('every fault says what, why and what next', () => {
    for (const { rule, good } of bodies) {
      if (!isObject(good)) continue;
      for (const key of Object.keys(good)) {
        const found = check(rule, { ...good, [key]: { odd: ['value'] } });
        if (found.ok) continue;
        for (const fault of found.faults)
          expect([fault.code, fault.what, fault.why, fault.next].every(w => w !== '')).toBe(true);
      }
    }
  });

  /** One place somewhere inside a value, changed for something else. */
  const spoil = (value: unknown, path: number[], by: unknown): unknown => {
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
  };
  const odd = fc.oneof(
    fc.constantFrom<unknown>(
      '',
      'x',
      '7',
      '1/2',
      'pint',
      '2026-13-01',
      null,
      0,
      -1,
      1,
      0.5,
      1e12,
      true,
      [],
      {},
      [1],
    ),
    fc.string({ maxLength: 12 }),
    fc.integer(),
  );

  it('what the server takes the document allows: nobody is refused by following it', () => {
    fc.assert(
      fc.property(
        fc.nat(bodies.length - 1),
        fc.array(fc.nat(40), { maxLength: 4 }),
        odd,
        (which, path, by) => {
          const { rule, byAjv, good } = bodies[which] as Held;
          const value = spoil(good, path, by);
          if (check(rule, value).ok) expect(byAjv(value), JSON.stringify([value, byAjv.errors])).toBe(true);
        },
      ),
      { numRuns: 3000 },
    );
  });

  it('what the document forbids the server refuses, and the other way but for what only words can say', () => {
    // Calendar days, trimmed texts and limits of decimals are said in formats that a validator does not know.
    const onlyWords = /not-a-day|not-an-instant|missing|out-of-range|not-an-email/;
    fc.assert(
      fc.property(
        fc.nat(bodies.length - 1),
        fc.array(fc.nat(40), { maxLength: 4 }),
        odd,
        (which, path, by) => {
          const { rule, byAjv, good } = bodies[which] as Held;
          const value = spoil(good, path, by);
          const found = check(rule, value);
          if (found.ok || !byAjv(value)) return;
          for (const fault of found.faults) expect(fault.code).toMatch(onlyWords);
        },
      ),
      { numRuns: 3000 },
    );
  });
});

describe('what a reply is', () => {
  it.each(replies)('$name: can be written down by its document', ({ byAjv, good, rule }) => {
    expect(byAjv(good), JSON.stringify(byAjv.errors)).toBe(true);
    expect(check(rule, good).ok).toBe(true);
  });
});

describe('the document', () => {
  const document = openApi() as {
    openapi: string;
    paths: Record<
      string,
      Record<
        string,
        {
          operationId: string;
          parameters: { name: string; in: string; required: boolean }[];
          security?: unknown;
          responses: Record<string, unknown>;
          requestBody?: unknown;
          summary: string;
        }
      >
    >;
    components: { schemas: Record<string, JsonSchema> };
  };
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );

  it('is OpenAPI 3.1 and holds every endpoint once', () => {
    expect(document.openapi).toBe('3.1.0');
    expect(operations.map(o => o.operation.operationId).sort()).toEqual(ENDPOINTS.map(e => e.name).sort());
    expect(new Set(ENDPOINTS.map(e => e.name)).size).toBe(ENDPOINTS.length);
    expect(new Set(ENDPOINTS.map(e => `${e.method} ${e.path}`)).size).toBe(ENDPOINTS.length);
  });

  it.each(operations)(
    '$method $path names its parameters, its errors and who may call',
    ({ path, method, operation }) => {
      const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(m => m[1]);
      expect(operation.parameters.filter(p => p.in === 'path').map(p => p.name)).toEqual(inPath);
      expect(operation.parameters.filter(p => p.in === 'path').every(p => p.required)).toBe(true);
      expect(operation.summary.length).toBeGreaterThan(7);
      expect(Object.keys(operation.responses)).toEqual(['200', 'default']);
      expect(operation.requestBody !== undefined).toBe(method === 'post' || method === 'put');
      const endpoint = ENDPOINTS.find(e => e.name === operation.operationId) as AnyEndpoint;
      expect(operation.security === undefined).toBe(endpoint.who === 'anyone');
    },
  );

  it('is plain JSON, and its schemas compile', () => {
    expect(JSON.parse(JSON.stringify(document))).toEqual(document);
    for (const schema of Object.values(document.components.schemas))
      expect(() => ajv.compile(schema)).not.toThrow();
  });

  it('no change is made by a GET, and nobody but those signed in changes a kitchen', () => {
    const open = ENDPOINTS.filter(e => e.who === 'anyone').map(e => e.name);
    expect(open.sort()).toEqual(
      [
        'account.first',
        'invitations.accept',
        'invitations.read',
        // What stands on a jar, for whoever holds it; off unless an owner opens it.
        'labels.lot-page',
        'session.read',
        'session.signIn',
      ].sort(),
    );
    for (const e of ENDPOINTS.filter(x => x.method !== 'GET' && x.who !== 'anyone'))
      expect([e.name, e.who]).not.toEqual([e.name, 'viewer']);
  });
});
