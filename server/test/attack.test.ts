import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { performance } from 'node:perf_hooks';
import {
  type AnyEndpoint,
  MOST_FAULTS,
  addItem,
  addRecipe,
  appendFacts,
  importPart,
  inKitchen,
  listBatches,
  listReceipts,
  listRecipes,
  listStock,
  readBatch,
  readCost,
  receiptImportPart,
  recordSheet,
} from '@cocotte/contract';
import { ENDPOINTS } from '@cocotte/contract/table';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { Schema } from 'yup';
import { plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { newItem } from '../../testing/stock.ts';
import { type Answer, Client, TestServer, problemOf } from '../../testing/test-server.ts';
import { openFeed } from '../src/house/feed.ts';
import { makeApp } from '../src/house/app.ts';
import { closeHeavy } from '../src/heavy/pool.ts';
import { guessesIn } from '../src/kitchen/guesses.ts';

let server: TestServer;
let owner: Client;
let line: Line;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await (await (await Line.open(owner, plumJam, 'half-pint', 4)).start()).draw();
});
afterAll(async () => {
  await server.close();
  await closeHeavy();
});

const JSON_TYPE = { 'content-type': 'application/json' };
const post = (client: Client, e: AnyEndpoint, body: string, headers = JSON_TYPE): Promise<Answer> => {
  const path = e.path
    .replace('/api/kitchens/:kitchenId', owner.at(''))
    .replaceAll(/:\w+/g, '0190b5a4-0000-7000-8000-000000000000');
  return client.raw(e.method, path, { body, headers });
};

/** The longest the event loop was held, ms, while something was done. */
async function held(work: () => Promise<unknown>): Promise<number> {
  let last = performance.now();
  let most = 0;
  const beat = setInterval(() => {
    const now = performance.now();
    most = Math.max(most, now - last);
    last = now;
  }, 1);
  await work();
  clearInterval(beat);
  return most;
}

describe('a megabyte of nonsense', () => {
  /** Bodies that are wrong in every part, as near to the limit as they come. */
  const fill = (one: string, wrap: (many: string) => string) =>
    wrap(Array.from({ length: Math.floor(900_000 / (one.length + 1)) }, () => one).join(','));
  const bodies: [name: string, body: string][] = [
    ['wrong rows', fill('{"a":1,"id":"x"}', m => `{"events":[${m}],"from":0,"receipts":[${m.slice(0, 0)}]}`)],
    ['rows of nothing', fill('null', m => `{"events":[${m}]}`)],
    ['receipts of wrong lines', fill('{"x":1}', m => `{"from":0,"receipts":[{"lines":[${m}]}]}`)],
    [
      'recipes of wrong lines',
      fill('{"id":7}', m => `{"from":0,"variantOf":[],"recipes":[{"lines":[${m}]}]}`),
    ],
    ['names nobody knows', `{${Array.from({ length: 60_000 }, (_, i) => `"k${i}":${i}`).join(',')}}`],
    ['a deep hole', `{"events":${'['.repeat(400_000)}${']'.repeat(400_000)}}`],
    [
      'a list of objects, each with a name of its own',
      `{"events":[${Array.from({ length: 19_000 }, (_, i) => `{"k${i}":1}`).join(',')}]}`,
    ],
    ['one long text', `{"events":"${'x'.repeat(900_000)}","email":"${'y'.repeat(50_000)}"}`],
    ['one long name', `{"${'n'.repeat(900_000)}":1}`],
  ];
  const targets = [appendFacts, importPart, receiptImportPart, addRecipe, addItem] as AnyEndpoint[];

  it.each(bodies)('%s: is refused, in few words, and holds nobody up', async (_name, body) => {
    expect(body.length).toBeLessThan(1_000_000);
    for (const client of [owner, new Client(server)])
      for (const e of targets) {
        const answer = await post(client, e, body);
        const problem = problemOf(answer);
        expect(answer.status).toBe(client === owner ? 422 : 401);
        expect(problem.errors.length).toBeLessThanOrEqual(MOST_FAULTS);
        expect(JSON.stringify(problem).length).toBeLessThan(12_000);
      }
    // The door is asked by strangers.
    expect((await new Client(server).raw('POST', '/api/session', { body, headers: JSON_TYPE })).status).toBe(
      422,
    );
  });

  it('is asked of Yup until enough is found, and no further', async () => {
    const rows = (n: number) =>
      `{"from":0,"variantOf":[],"recipes":[${Array.from({ length: n }, () => '{"a":1}').join(',')}]}`;
    const asked = vi.spyOn(Schema.prototype, 'validateSync');
    const refuse = async (n: number) => {
      asked.mockClear();
      expect((await post(owner, importPart, rows(n))).status).toBe(422);
      return asked.mock.calls.length;
    };
    const few = await refuse(200);
    expect(few).toBeGreaterThan(0);
    const longest = await held(async () => {
      expect(await refuse(19_000)).toBe(few);
    });
    asked.mockRestore();
    console.log(`the loop was held ${longest.toFixed(0)} ms at most by 19,000 wrong rows`);
  });
});

describe('who, then what', () => {
  it('whoever may not is told so, whatever they send', async () => {
    const viewer = await server.join(owner, 'viewer', 'vi@test.example');
    for (const e of ENDPOINTS.filter(x => x.method !== 'GET' && inKitchen(x))) {
      const nonsense = e.method === 'DELETE' ? '' : '{"__proto__":{"role":"owner"},';
      expect([e.name, (await post(new Client(server), e, nonsense)).status]).toEqual([e.name, 401]);
      const answer = await post(viewer, e, nonsense);
      expect([e.name, answer.status, problemOf(answer).code]).toEqual([e.name, 403, 'role']);
    }
  });
  it('a cookie that is nobody’s costs a question, and no reading of the body', async () => {
    const stranger = new Client(server);
    stranger.cookie = 'cocotte_session=nobody';
    expect((await post(stranger, appendFacts, '{"x":')).status).toBe(401);
  });
});

describe('what is no text, no name, no key', () => {
  const odd = ['a\0b', 'a\\ud800b', '\\udfff'];
  it.each(odd)('%j is refused wherever text is taken', async text => {
    const sent = text.replaceAll('\0', '\\u0000');
    const item = JSON.stringify({ ...(await newItem(owner)), id: randomUUID(), version: 1 });
    const body = item.replace(/"name":"[^"]*"/, `"name":"${sent}"`);
    const answer = await post(owner, addItem, body);
    expect([answer.status, problemOf(answer).errors.map(e => [e.path, e.code])]).toEqual([
      422,
      [['name', 'not-text']],
    ]);
    const note = { ...line.fact('note.written', { text: 'NOTE' }) };
    const fact = await owner.raw('POST', owner.at(`/batches/${line.batchId}/events`), {
      body: JSON.stringify({ events: [note] }).replace('"NOTE"', `"${sent}"`),
      headers: JSON_TYPE,
    });
    expect([fact.status, problemOf(fact).errors[0]?.path]).toEqual([422, 'events[0].body.text']);
  });

  it('in a query too', async () => {
    for (const path of ['/recipes?search=%00', '/lots?search=a%00b', '/find?words=%00', '/stock?search=%00'])
      expect([path, (await owner.raw('GET', owner.at(path))).status]).toEqual([path, 422]);
  });

  it.each([':at', '?', ':at::date', '\\?', '%_\\', '??', ':', "'", '"', '$1', ';--'])(
    'a search for %j finds what bears it',
    async words => {
      const item = await newItem(owner, { name: `Jar ${words} lid` });
      for (const at of ['', new Date(server.now_ms).toISOString()]) {
        const { rows } = await owner.ok(listStock, { query: { search: words, at } });
        expect(rows.map(r => r.item.id)).toContain(item.id);
      }
      await owner.ok(listRecipes, { query: { search: words } });
      await owner.ok(listBatches, { query: { search: words } });
      await owner.ok(listReceipts, { query: { search: words } });
    },
  );

  it.each([
    'x',
    '[]',
    '["a"]',
    '["2026-11-25","x"]',
    '["x","0190b5a4-0000-7000-8000-000000000000"]',
    '[1,2]',
  ])('the page key %s is none', async text => {
    const after = Buffer.from(text).toString('base64url');
    for (const e of [listBatches, listReceipts] as AnyEndpoint[])
      expect((await owner.refused(e, { query: { after } })).code).toBe('bad-page-key');
  });

  it.each(['', ' ', 'null', 'x', 'http://', 'https://%', 'file:///etc/passwd', '//', 'http://[::1'])(
    'the origin %j is another site, and no fault of ours',
    async origin => {
      const answer = await owner.raw('POST', '/api/session', {
        body: '{"email":"ona@test.example","password":"a long password"}',
        headers: { ...JSON_TYPE, origin },
      });
      expect([answer.status, problemOf(answer).code]).toEqual([403, 'other-origin']);
    },
  );
});

describe('a fact that names what its batch does not have', () => {
  it.each(['__proto__', 'constructor', 'toString', 'no such step'])(
    '"%s" is stored, opens a deviation or a note, and every view goes on',
    async name => {
      const batch = { params: { batchId: line.batchId } };
      await owner.ok(appendFacts, {
        ...batch,
        body: {
          events: [
            line.fact('step.started', { stepId: name }),
            line.fact('step.done', { stepId: name }),
            line.fact('line.weighed', { lineId: name, mass_g: 5 }),
            line.fact('dose.given', { lineId: name, jars: [1] }),
            line.fact('energy.used', { burnerId: name, minutes: 3 }),
          ],
        },
      });
      line.view = await owner.ok(readBatch, batch);
      const named = (of: { what: string }) => of.what.includes(`"${name}"`);
      expect(line.state.deviations.filter(named).map(d => d.code)).toEqual(['unknown_line', 'unknown_line']);
      // A step or a burner is a matter of the books, and holds nothing.
      expect(line.state.books.filter(named).map(b => b.key.split(':')[0])).toEqual([
        'unknown_step',
        'unknown_step',
        'unknown_burner',
      ]);
      await owner.ok(listBatches, { query: {} });
      await owner.ok(readCost, batch);
      expect((await owner.try(recordSheet, batch)).status).toBe(200);
      expect(Object.keys(Object.prototype)).toEqual([]);
    },
  );
});

describe('names of the server', () => {
  /** The status of a call under a name; `fetch` sends its own. */
  const calledAs = (host: string, path: string): Promise<number> =>
    new Promise((resolve, reject) => {
      const { hostname, port } = new URL(server.origin);
      const req = request({ hostname, port, path, headers: { host }, agent: false }, res => {
        res.resume();
        resolve(res.statusCode ?? 0);
      });
      req.once('error', reject);
      req.end();
    });

  it('others than it was told are not answered: a name of somebody else’s may point anywhere', async () => {
    for (const host of [
      'evil.example',
      '127.0.0.1.evil.example',
      'localhost.evil.example',
      '[::1]',
      '0.0.0.0',
    ]) {
      for (const path of ['/api/session', '/api/health', '/']) {
        expect([host, path, await calledAs(host, path)]).toEqual([host, path, 421]);
      }
    }
    for (const host of ['localhost', 'LOCALHOST:4600', '127.0.0.1:1'])
      expect(await calledAs(host, '/api/health')).toBe(200);
  });
});

describe('framing', () => {
  it('is forbidden by one header only, and the API is packed where that pays', async () => {
    const { headers } = await owner.raw('GET', '/api/session');
    expect(headers.get('x-frame-options')).toBeNull();
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    const packed = async (path: string) =>
      (
        await fetch(server.origin + path, { headers: { cookie: owner.cookie, 'accept-encoding': 'gzip' } })
      ).headers.get('content-encoding');
    expect(await packed(owner.at(`/batches/${line.batchId}`))).toBe('gzip');
    expect(await packed('/api/health')).toBeNull();
  });
  it('an asset that is not there is not there', async () => {
    const app = makeApp(
      {
        database: server.database,
        clock: { now_ms: () => 0 },
        secure: false,
        guesses: guessesIn(server.database),
        held_ms: () => 0,
        feed: openFeed(server.database, null),
        names: ['127.0.0.1'],
      },
      `${import.meta.dirname}/../../dist/web`,
    );
    const listening = app.listen(0, '127.0.0.1');
    await new Promise(resolve => listening.once('listening', resolve));
    const { port } = listening.address() as { port: number };
    const get = async (path: string) => (await fetch(`http://127.0.0.1:${port}${path}`)).status;
    expect(
      await Promise.all(
        ['/assets/none.js', '/assets/%00', '/assets/..%2f..%2fpackage.json', '/%E0%A4%A'].map(get),
      ),
    ).toEqual([404, 400, 403, 400]);
    listening.close();
  });
});
