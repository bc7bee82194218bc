import { listRecipes, readBatch, readKitchen, signIn } from '@cocotte/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CallError, addressOf, call, faultsOf } from '../src/shell/call.ts';

type Answer = { status: number; body?: unknown; headers?: Record<string, string> } | 'nobody';
let asked: { url: string; init: RequestInit }[] = [];
let answer: Answer = { status: 200, body: {} };

beforeEach(() => {
  asked = [];
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    asked.push({ url, init });
    if (answer === 'nobody') return Promise.reject(new TypeError('failed to fetch'));
    const text = answer.body === undefined ? '<html>' : JSON.stringify(answer.body);
    return Promise.resolve(new Response(text, { status: answer.status, headers: answer.headers ?? {} }));
  });
});
afterEach(() => vi.unstubAllGlobals());

const failed = async (given: Answer): Promise<CallError> => {
  answer = given;
  const error = await call(readKitchen).then(
    () => null,
    (e: unknown) => e,
  );
  if (!(error instanceof CallError)) throw new Error('the call should have failed as a CallError');
  return error;
};

describe('an address', () => {
  it('has its params in place, written so that nothing in them is taken for a path', () => {
    expect(addressOf(readBatch, { batchId: 'a/b?c' })).toBe('/api/batches/a%2Fb%3Fc');
  });

  it('has the query that is given and no empty part of it', () => {
    const query = {
      after: '',
      search: 'red plum & co',
      family: '',
      tag: '',
      product: 'jam',
      variantOf: '',
    } as const;
    expect(addressOf(listRecipes, {}, query as never)).toBe(
      '/api/recipes?search=red+plum+%26+co&product=jam',
    );
    expect(addressOf(listRecipes, {}, {})).toBe('/api/recipes');
  });
});

describe('a call', () => {
  it('sends JSON where there is something to send, and the cookie of this site only', async () => {
    answer = { status: 200, body: { ok: 1 } };
    await call(signIn, { body: { email: 'a@b.example', password: 'x' } });
    expect(asked[0]?.init).toMatchObject({
      method: 'POST',
      credentials: 'same-origin',
      body: '{"email":"a@b.example","password":"x"}',
    });
    await call(readKitchen);
    expect(asked[1]?.init.body).toBeUndefined();
  });

  it('that nobody answers may be tried again, and says that nothing is lost', async () => {
    const error = await failed('nobody');
    expect(error).toMatchObject({ status: 0, code: 'no-answer', away: true });
    expect(error.message).toMatch(/What you entered stays here/);
  });

  it.each([502, 503, 504])('a %i without a problem is the same', async status => {
    expect(await failed({ status })).toMatchObject({ status, away: true, code: 'no-answer' });
  });

  it('a problem is handed on: its code, its faults, the newer row', async () => {
    const errors = [{ path: 'name', code: 'missing', what: 'A.', why: 'B.', next: 'C.' }];
    const error = await failed({ status: 409, body: { code: 'stale', errors, newer: { version: 2 } } });
    expect(error).toMatchObject({
      status: 409,
      code: 'stale',
      faults: errors,
      newer: { version: 2 },
      away: false,
    });
    expect(error.message).toBe('A. B. C.');
    expect(faultsOf(error)).toEqual(errors);
  });

  it('a 503 with a problem is still somebody being away', async () =>
    expect((await failed({ status: 503, body: { code: 'away', errors: [] } })).away).toBe(true));

  it('anything else that breaks says so in the same words', () =>
    expect(faultsOf(new Error('boom'))[0]).toMatchObject({ code: 'broken', why: 'boom' }));
});
