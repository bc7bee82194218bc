import { listRecipes, moveLot, readBatch, readKitchen, signIn } from '@cocotte/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CallError, addressOf, call, faultsOf } from '../src/shell/call.ts';
import { enterTabKitchen } from '../src/shell/tab-kitchen.ts';
import { standInStorage } from './browser.ts';

type Answer = { status: number; body?: unknown; headers?: Record<string, string> } | 'nobody';
let asked: { url: string; init: RequestInit }[] = [];
let answer: Answer = { status: 200, body: {} };

beforeEach(() => {
  standInStorage();
  enterTabKitchen('k1');
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
    expect(addressOf(readBatch, { batchId: 'a/b?c' })).toBe('/api/kitchens/k1/batches/a%2Fb%3Fc');
  });

  it('names the kitchen of this tab, or the one it is meant for', () => {
    expect(addressOf(readKitchen, {})).toBe('/api/kitchens/k1');
    expect(addressOf(readKitchen, {}, {}, 'k2')).toBe('/api/kitchens/k2');
    expect(addressOf(signIn, {})).toBe('/api/session');
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
      '/api/kitchens/k1/recipes?search=red+plum+%26+co&product=jam',
    );
    expect(addressOf(listRecipes, {}, {})).toBe('/api/kitchens/k1/recipes');
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

  it('that changes something is sent again by itself, the same under the same id, before anything is said', async () => {
    vi.useFakeTimers();
    const body = { id: 'i1', kind: 'loss', quantity: '1', reason: 'broken' } as never;
    const moved = (given: Answer[]) => {
      const left = [...given];
      vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
        asked.push({ url, init });
        const next = left.shift() ?? 'nobody';
        if (next === 'nobody') return Promise.reject(new TypeError('failed to fetch'));
        return Promise.resolve(new Response(JSON.stringify(next.body ?? {}), { status: next.status }));
      });
      const outcome = call(moveLot, { params: { lotId: 'l' }, body }).catch((e: unknown) => e);
      return vi.advanceTimersByTimeAsync(5000).then(() => outcome);
    };
    const busy = { status: 503, body: { code: 'busy', errors: [] } };
    expect(await moved([busy, 'nobody', { status: 200, body: { done: 1 } }])).toEqual({ done: 1 });
    expect(new Set(asked.map(a => `${a.url} ${a.init.body}`)).size).toBe(1);
    expect(asked).toHaveLength(3);
    asked = [];
    expect(await moved([])).toMatchObject({ away: true });
    expect(asked).toHaveLength(3);
    asked = [];
    expect(await moved([{ status: 422, body: { code: 'invalid', errors: [] } }])).toMatchObject({
      status: 422,
    });
    expect(asked).toHaveLength(1);
    vi.useRealTimers();
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
