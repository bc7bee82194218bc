import { randomUUID } from 'node:crypto';
import {
  type ConfirmPage,
  type KitchenSettings,
  type Problem,
  addRecipe,
  changeKitchen,
  confirmPage,
  listConfirmations,
  listLettersDue,
  readKitchen,
  startBatch,
} from '@cocotte/contract';
import { type Purpose, fold } from '@cocotte/core/batches';
import {
  type Jurisdiction,
  editedPlace,
  JURISDICTIONS,
  type JurisdictionProfile,
  noPlace,
  pointsOf,
} from '@cocotte/core/kitchen';
import { addDays, dayOf } from '@cocotte/core/measure';
import { factorForJars, type JarsWanted, type Recipe } from '@cocotte/core/recipes';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { Device } from '../../testing/device.ts';
import { attachLetter, readPage } from '../../testing/open-page.ts';
import { samplePlace } from '../../testing/place.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
let cook: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  await settle({});
  cook = await server.join(owner, 'cook', 'cy@test.example', true);
});
afterAll(() => server.close());

/** Changes settings of the kitchen; it sells under the sample unless a test says otherwise. */
async function settle(over: Partial<KitchenSettings>): Promise<void> {
  const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
  await owner.ok(changeKitchen, { body: { ...settings, jurisdiction: samplePlace(), ...over } });
}

const ALTITUDE_M = 716.28;
let codes = 0;
/** A recipe in the book that nobody has opened a page for. */
const keep = async (recipe: Recipe): Promise<{ recipeId: string; recipe: Recipe }> => {
  const recipeId = randomUUID();
  codes += 1;
  const code = `Q${String.fromCharCode(64 + Math.ceil(codes / 26))}${String.fromCharCode(64 + (codes % 26) + 1)}`;
  const kept = { ...recipe, code };
  await owner.ok(addRecipe, { body: { id: recipeId, recipe: kept } });
  return { recipeId, recipe: kept };
};
const startOf = (
  { recipeId, recipe }: { recipeId: string; recipe: Recipe },
  purpose: Purpose = 'sale',
  jars: JarsWanted[] = [{ size: recipe.makes.size, count: recipe.makes.count }],
  by: Client = owner,
) => ({
  batchId: randomUUID(),
  recipeId,
  recipeVersion: 1,
  purpose,
  factor: factorForJars(recipe, jars).toFraction(),
  jars,
  heat: 'boiling water' as const,
  potId: null,
  doublePectin: false,
  stamp: new Device(by.personId, server.now_ms).stamp(server.now_ms),
});
const page = (recipe: Recipe, altitude_m = ALTITUDE_M): ConfirmPage =>
  readPage(recipe, altitude_m) as ConfirmPage;
const typed = (body: ConfirmPage, key: RegExp, value: number): ConfirmPage => ({
  ...body,
  figures: body.figures.map(f => (key.test(f.key) ? { ...f, value } : f)),
});
/** As if each test were the first: what was confirmed for one recipe stands for all on the same page. */
const unlikeOthers = (part: string): Recipe => ({
  ...waxBeans,
  authority: {
    ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
    demo: false,
    reference: part,
  },
});

describe('before the first sale', () => {
  it('an owner reads the page; a batch for home or a trial needs none', async () => {
    const kept = await keep(crushedTomatoes);
    const refused = await cook.refused(startBatch, { body: startOf(kept, 'sale', undefined, cook) });
    expect(refused).toMatchObject({ code: 'page-unconfirmed' });
    expect(refused.errors[0]).toMatchObject({
      path: 'purpose',
      what: 'Nobody has confirmed USDA Complete Guide to Home Canning, guide 3, crushed tomatoes from the open page.',
    });
    await cook.ok(startBatch, { body: startOf(kept, 'home', undefined, cook) });
    await cook.ok(startBatch, { body: startOf(kept, 'trial', undefined, cook) });
    const body = page(kept.recipe);
    expect(body.figures).toEqual([
      { key: 'minutes:tomatoes-crushed/pint', value: 40 },
      { key: 'minutes:tomatoes-crushed/quart', value: 50 },
      { key: 'headspace', value: 0.5 },
      { key: 'acid:each pint', value: 1 },
    ]);
    expect((await cook.try(confirmPage, { params: kept, body })).status).toBe(403);
    await owner.ok(confirmPage, { params: kept, body });
    const { confirmations } = await cook.ok(listConfirmations);
    expect(confirmations).toMatchObject([
      {
        subject: 'entry:tomatoes-crushed',
        page: body.page,
        demo: false,
        person: 'Ona',
        figures: body.figures,
      },
    ]);
    await cook.ok(startBatch, { body: startOf(kept, 'sale', undefined, cook) });
    await cook.ok(startBatch, { body: startOf(kept, 'sale', [{ size: 'quart', count: 2 }], cook) });
    // The page stands for every recipe that follows it.
    await cook.ok(startBatch, { body: startOf(await keep(crushedTomatoes), 'sale', undefined, cook) });
  });

  it('a figure that differs stops it, with both; so does one that nobody read, one twice, and one that is on no page', async () => {
    const kept = await keep(unlikeOthers('differs'));
    const body = page(kept.recipe);
    for (const [key, value, what] of [
      [/^minutes/, 10, 'The page says 10 minutes, here stands 15.'],
      [/^headspace/, 0.25, 'The page says 0.25 inches, here stands 0.5.'],
      [/^acid:pH/, 4.6, 'The page says 4.6, here stands 4.4.'],
    ] as const) {
      const refused = await owner.refused(confirmPage, { params: kept, body: typed(body, key, value) });
      const i = body.figures.findIndex(f => key.test(f.key));
      expect(refused.errors).toMatchObject([{ path: `figures[${i}].value`, code: 'page-differs', what }]);
    }
    const refusal = async (figures: ConfirmPage['figures']) =>
      (await owner.refused(confirmPage, { params: kept, body: { ...body, figures } })).errors.map(
        e => e.code,
      );
    expect(await refusal(body.figures.slice(1))).toEqual(['not-read']);
    expect(await refusal([...body.figures, ...body.figures.slice(0, 1)])).toEqual(['not-on-page']);
    expect(await refusal([...body.figures, { key: '__proto__', value: 1 }])).toEqual(['not-on-page']);
    expect(await refusal([])).toContain('not-read');
    for (const gone of ['edition', 'page'] as const)
      expect((await owner.try(confirmPage, { params: kept, body: { ...body, [gone]: '' } })).status).toBe(
        422,
      );
    expect((await owner.refused(startBatch, { body: startOf(kept) })).code).toBe('page-unconfirmed');
  });

  it('is acknowledged again when it comes twice; another under its id is refused', async () => {
    const kept = await keep(unlikeOthers('twice'));
    const body = page(kept.recipe);
    await attachLetter(owner, kept.recipe, ALTITUDE_M);
    await owner.ok(confirmPage, { params: kept, body });
    await owner.ok(confirmPage, { params: kept, body });
    const refused = await owner.refused(confirmPage, { params: kept, body: { ...body, page: '7' } });
    expect(refused).toMatchObject({ status: 409, code: 'id-taken' });
    const { confirmations } = await owner.ok(listConfirmations);
    expect(confirmations.filter(c => c.id === body.id)).toHaveLength(1);
    expect(
      (
        await owner.try(confirmPage, {
          params: { recipeId: randomUUID() },
          body: { ...body, id: randomUUID() },
        })
      ).status,
    ).toBe(404);
  });

  it('another altitude has other minutes: the page is opened once more', async () => {
    const kept = await keep(plumJam);
    await owner.ok(confirmPage, { params: kept, body: page(kept.recipe) });
    await owner.ok(startBatch, { body: startOf(kept) });
    const move = async (altitude_m: number) => {
      server.now_ms += 1000;
      await settle({ altitude_m });
    };
    await move(2000);
    const refused = await owner.refused(startBatch, { body: startOf(kept) });
    expect(refused.errors[0]?.what).toMatch(
      /was confirmed without half-pints, above 6,000 ft \(20 minutes\)\.$/,
    );
    expect((await owner.refused(confirmPage, { params: kept, body: page(kept.recipe) })).code).toBe(
      'page-differs',
    );
    await owner.ok(confirmPage, { params: kept, body: page(kept.recipe, 2000) });
    await owner.ok(startBatch, { body: startOf(kept) });
    await move(ALTITUDE_M);
    // The newest reading of each figure counts: what was read for the old place is read again.
    expect((await owner.refused(startBatch, { body: startOf(kept) })).code).toBe('page-unconfirmed');
  });

  it('a letter made up for the demo opens sale in no other kitchen, whoever confirms it', async () => {
    const kept = await keep(waxBeans);
    await owner.ok(confirmPage, { params: kept, body: page(kept.recipe) });
    const refused = await owner.refused(startBatch, { body: startOf(kept) });
    expect(refused.errors[0]?.what).toBe('Letter DEMO-WK-02 is a demo letter.');
    await owner.ok(startBatch, { body: startOf(kept, 'trial') });
    // Nobody makes a kitchen the demo by saying so.
    const { id: _id, placed: _placed, ...settings } = await owner.ok(readKitchen);
    expect((await owner.try(changeKitchen, { body: { ...settings, demo: true } as never })).status).toBe(422);
  });

  it('a letter or a leaflet that a cook wrote opens nothing until its owner read it back', async () => {
    const kept = await keep(unlikeOthers('written by a cook'));
    expect((await cook.refused(startBatch, { body: startOf(kept, 'sale', undefined, cook) })).code).toBe(
      'page-unconfirmed',
    );
    // What somebody typed of a letter is not the letter.
    expect((await owner.refused(confirmPage, { params: kept, body: page(kept.recipe) })).code).toBe(
      'no-paper',
    );
    await attachLetter(owner, kept.recipe, ALTITUDE_M);
    await owner.ok(confirmPage, { params: kept, body: page(kept.recipe) });
    await cook.ok(startBatch, { body: startOf(kept, 'sale', undefined, cook) });
  });

  it('a letter that is to be looked at again soon, or was, is told of, the first to end first', async () => {
    const today = dayOf(server.now_ms, (await owner.ok(readKitchen)).zone);
    const due = async (client: Client) =>
      (await client.ok(listLettersDue)).letters.map(l => [l.reference, l.reviewOn]);
    const before = await due(cook);
    const letter = (reference: string, reviewOn: string | null): Recipe => {
      const recipe = unlikeOthers(reference);
      const authority = recipe.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
      return { ...recipe, authority: { ...authority, terms: { ...authority.terms, reviewOn } } };
    };
    await keep(letter('in a month', addDays(today, 30)));
    await keep(letter('later', addDays(today, 31)));
    await keep(letter('over', addDays(today, -1)));
    await keep(letter('for good', null));
    await keep(plumJam);
    expect([before, await due(cook)]).toEqual([
      [],
      [
        ['over', addDays(today, -1)],
        ['in a month', addDays(today, 30)],
      ],
    ]);
  });

  it('the rules of a place are those that ship under its name, and no point is ticked ahead of its day', async () => {
    const ohio = JURISDICTIONS.find(j => j.id === 'us-oh') as Jurisdiction;
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    const refused = async (jurisdiction: JurisdictionProfile) =>
      (await owner.refused(changeKitchen, { body: { ...settings, jurisdiction } })).errors[0];
    const eased = {
      ...ohio,
      foods: { ...ohio.foods, 'acidified food': { rule: 'allowed' as const, why: 'Said so.' } },
    };
    expect(await refused(samplePlace({ rules: eased }))).toMatchObject({
      code: 'not-its-rules',
      path: 'jurisdiction.rules',
    });
    expect((await refused(samplePlace({ rules: { ...ohio, id: 'nowhere' } })))?.code).toBe('not-its-rules');
    const ahead = samplePlace({
      points: [{ point: 'foods', tickedOn: '2026-11-26', renewsOn: null }],
    });
    expect(await refused(ahead)).toMatchObject({
      code: 'ticked-ahead',
      path: 'jurisdiction.points[0].tickedOn',
    });
    // What the kitchen took over is kept as it is, also when another version ships.
    await settle({});
  });

  it('an owner changes the rules by what the authority says: the next version, its changed points ticked that day', async () => {
    const ohio = JURISDICTIONS.find(j => j.id === 'us-oh') as Jurisdiction;
    const today = dayOf(server.now_ms, (await owner.ok(readKitchen)).zone);
    const ticks = (tickedOn: string) => pointsOf(ohio).map(point => ({ point, tickedOn, renewsOn: null }));
    await settle({ jurisdiction: samplePlace({ rules: ohio, points: ticks('2026-03-01') }) });
    const own = editedPlace(ohio, {
      foods: { ...ohio.foods, 'acidified food': { rule: 'allowed', why: 'By their letter of today.' } },
    });
    const tried = async (rules: Jurisdiction, points: ReturnType<typeof ticks>) => {
      const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
      const answer = await owner.try(changeKitchen, {
        body: { ...settings, jurisdiction: samplePlace({ rules, points }) },
      });
      return answer.status === 200 ? 'kept' : (answer.body as Problem).errors[0]?.code;
    };
    // A version that is not the next, one that hides that it was changed, and a point ticked for what was said before.
    expect(await tried({ ...own, version: ohio.version }, ticks('2026-03-01'))).toBe('not-its-rules');
    expect(await tried({ ...own, version: 99 }, ticks(today))).toBe('not-its-rules');
    expect(await tried({ ...own, edited: false }, ticks(today))).toBe('not-its-rules');
    expect(await tried({ ...own, id: 'constructor' }, ticks(today))).toBe('not-its-rules');
    expect(await tried(own, ticks('2026-03-01'))).toBe('tick-anew');
    expect(await tried({ ...own, phLimit: 5 }, ticks(today))).not.toBe('kept');
    const some = ticks('2026-03-01').map(t => (t.point === 'foods' ? { ...t, tickedOn: today } : t));
    expect(await tried(own, some)).toBe('kept');
    const kept = (await owner.ok(readKitchen)).jurisdiction.rules;
    expect(kept).toMatchObject({ version: ohio.version + 1, edited: true });
    // From there the next one; and what ships can be taken over again.
    expect(await tried(editedPlace(own, { outlets: ['home'] }), ticks(today))).toBe('kept');
    expect(await tried(ohio, ticks('2026-03-01'))).toBe('kept');
    await settle({});
  });

  it('the place is the second key: not chosen, not ticked, run out, not allowed, asking for an approval', async () => {
    const jam = await keep(plumJam);
    const tomatoes = await keep(crushedTomatoes);
    for (const kept of [jam, tomatoes])
      await owner.ok(confirmPage, { params: kept, body: page(kept.recipe) });
    const said = async (kept: typeof jam) => {
      const answer = await owner.try(startBatch, { body: startOf(kept) });
      return answer.status === 200 ? 'started' : (answer.body as Problem).errors[0]?.what;
    };
    await settle({ jurisdiction: noPlace() });
    expect(await said(jam)).toBe('Nobody has said under whose rules this kitchen sells.');
    await owner.ok(startBatch, { body: startOf(jam, 'home') });
    await settle({ jurisdiction: samplePlace({ points: [] }) });
    expect(await said(jam)).toMatch(
      /not ticked yet are which kinds of food it allows, where it may be sold, /,
    );
    const rulesOf = (id: string) => JURISDICTIONS.find(j => j.id === id) ?? null;
    const under = (id: string, renewsOn: string | null = null) => {
      const rules = rulesOf(id);
      const points = rules ? pointsOf(rules).map(point => ({ point, tickedOn: '2026-03-01', renewsOn })) : [];
      return settle({ jurisdiction: samplePlace({ rules, points }) });
    };
    await under('us-oh');
    expect([await said(jam), await said(tomatoes)]).toEqual([
      'started',
      'Ohio, cottage food production operation does not allow acidified food.',
    ]);
    await under('us-ky');
    expect(await said(tomatoes)).toMatch(/asks for an approved process for acidified food\.$/);
    await under('sample', '2026-11-23');
    expect(await said(jam)).toMatch(/ran out on Nov 23, 2026\.$/);
    await under('sample', '2026-11-24');
    const view = await owner.ok(startBatch, { body: startOf(jam) });
    // What it was started on stands in the record, whatever the settings say later.
    await settle({ jurisdiction: noPlace() });
    expect(fold(view.events).started?.keys).toMatchObject({
      page: { subject: 'entry:jam-no-pectin-10', page: 'p. 12', demo: false, personId: owner.personId },
      place: { id: 'sample', version: 2, rule: 'allowed' },
    });
    await settle({});
  });
});
