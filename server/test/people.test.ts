import { randomUUID } from 'node:crypto';
import {
  acceptInvitation,
  changeKitchen,
  invite,
  listPeople,
  makeFirstAccount,
  readInvitation,
  readKitchen,
  readSession,
  receiveLot,
  removePerson,
  signOut,
  switchKitchen,
} from '@cocotte/contract';
import { plainFacts } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addMembership, insertAccount, setPassword } from '../src/kitchen/outside.ts';
import { DEMO_SIGN_IN } from '../src/kitchen/demo-sign-in.ts';
import { addKitchen, newKitchenSettings } from '../src/kitchen/service.ts';
import { hashPassword } from '../src/kitchen/sessions.ts';
import { Client, TestServer, problemOf, PLAIN_HABITS } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  expect((await new Client(server).ok(readSession)).empty).toBe(true);
  owner = await server.firstOwner();
});
afterAll(() => server.close());

describe('accounts', () => {
  it('the first account owns its kitchen, and there is no second first one', async () => {
    expect(owner.session).toMatchObject({
      empty: false,
      kitchens: [{ name: 'Test Kitchen', role: 'owner', maySign: true }],
    });
    expect(
      (
        await new Client(server).refused(makeFirstAccount, {
          body: {
            name: 'B',
            email: 'b@test.example',
            password: 'a long password',
            kitchen: 'K',
            zone: 'UTC',
            altitude_m: 0,
            habits: PLAIN_HABITS,
          },
        })
      ).status,
    ).toBe(409);
  });

  it('two first accounts at the same moment make one', async () => {
    const fresh = await TestServer.open();
    const body = (email: string) => ({
      name: 'B',
      email,
      password: 'a long password',
      kitchen: 'K',
      zone: 'UTC',
      altitude_m: 0,
      habits: PLAIN_HABITS,
    });
    const answers = await Promise.all(
      [1, 2, 3].map(i => new Client(fresh).try(makeFirstAccount, { body: body(`p${i}@test.example`) })),
    );
    expect(answers.map(a => a.status).sort()).toEqual([200, 409, 409]);
    await fresh.close();
  });

  it('keeps the password as argon2id and the session as a hash, in a cookie no script reads', async () => {
    const { rows } = await server.database.outside(trx =>
      trx.raw('select password_hash, (select token_hash from sessions limit 1) from accounts limit 1'),
    );
    expect(rows[0].password_hash).toMatch(/^\$argon2id\$/);
    expect(owner.cookie).not.toContain(rows[0].token_hash);
    const answer = await new Client(server).raw('POST', '/api/session', {
      body: JSON.stringify({ email: 'ona@test.example', password: 'a long password' }),
      headers: { 'content-type': 'application/json' },
    });
    expect(answer.headers.get('set-cookie')).toMatch(/HttpOnly; SameSite=Lax/);
  });

  it('ends a session at sign-out, after a month, and when the password is reset', async () => {
    const client = await server.signIn('ona@test.example');
    await client.ok(signOut);
    expect((await client.refused(readKitchen)).status).toBe(401);
    const other = await server.signIn('ona@test.example');
    const { cookie } = other;
    server.now_ms += 31 * 86_400_000;
    other.cookie = cookie;
    expect((await other.refused(readKitchen)).status).toBe(401);
    owner = await server.signIn('ona@test.example');
    const third = await server.signIn('ona@test.example');
    await server.database.outside(async trx =>
      setPassword(trx, third.personId, await hashPassword('another password')),
    );
    expect((await third.refused(readKitchen)).status).toBe(401);
    owner = await server.signIn('ona@test.example', 'another password');
    await server.database.outside(async trx =>
      setPassword(trx, owner.personId, await hashPassword('a long password')),
    );
    owner = await server.signIn('ona@test.example');
  });

  it('takes the demo sign-in on this machine only', async () => {
    await server.database.outside(async trx =>
      insertAccount(
        trx,
        {
          id: randomUUID(),
          email: DEMO_SIGN_IN.email,
          name: 'Demo',
          password_hash: await hashPassword(DEMO_SIGN_IN.password),
          demo: true,
        },
        server.now_ms,
      ),
    );
    expect((await new Client(server).ok(readSession)).demo).toEqual(DEMO_SIGN_IN);
    const enter = (headers: Record<string, string>) =>
      new Client(server).raw('POST', '/api/session', {
        body: JSON.stringify(DEMO_SIGN_IN),
        headers: { 'content-type': 'application/json', ...headers },
      });
    const shown = async (headers: Record<string, string>) =>
      ((await new Client(server).raw('GET', '/api/session', { headers })).body as { demo: unknown }).demo;
    // Whoever comes through something that passes calls on is not on this machine, though the socket says so.
    for (const headers of [
      { 'x-forwarded-for': '203.0.113.9' },
      { forwarded: 'for=203.0.113.9' },
      { via: '1.1 door' },
      { 'x-real-ip': '203.0.113.9' },
    ]) {
      expect(await shown(headers as never)).toBeNull();
      expect(problemOf(await enter(headers as never)).code).toBe('demo-elsewhere');
    }
    expect((await enter({})).status).toBe(200);
  });
});

describe('people', () => {
  it('join by a link once, within 48 hours', async () => {
    const made = await owner.ok(invite, { body: { id: randomUUID(), role: 'cook', maySign: false } });
    const guest = new Client(server);
    expect(await guest.ok(readInvitation, { params: { token: made.token } })).toMatchObject({
      kitchen: 'Test Kitchen',
      role: 'cook',
    });
    const body = { name: 'Cy', email: 'cy@test.example', password: 'a long password' };
    expect(
      (
        await guest.refused(acceptInvitation, {
          params: { token: made.token },
          body: { ...body, password: 'short' },
        })
      ).errors[0],
    ).toMatchObject({ path: 'password', code: 'weak-password' });
    expect(await guest.ok(acceptInvitation, { params: { token: made.token }, body })).toMatchObject({
      kitchens: [{ role: 'cook', maySign: false }],
    });
    // The same joining sent twice signs in: its answer may have been lost.
    expect(
      (await new Client(server).ok(acceptInvitation, { params: { token: made.token }, body })).person?.name,
    ).toBe('Cy');
    expect(
      (
        await new Client(server).refused(acceptInvitation, {
          params: { token: made.token },
          body: { ...body, email: 'x@test.example' },
        })
      ).code,
    ).toBe('link-over');
    const late = await owner.ok(invite, { body: { id: randomUUID(), role: 'viewer', maySign: false } });
    server.now_ms += 48 * 3_600_000 + 1;
    expect((await guest.refused(readInvitation, { params: { token: late.token } })).code).toBe('link-over');
  });

  it('may do what their role may, and no more', async () => {
    const viewer = await server.join(owner, 'viewer', 'vi@test.example');
    const cook = await server.join(owner, 'cook', 'co@test.example');
    expect(
      (
        await viewer.refused(receiveLot, {
          body: {
            id: randomUUID(),
            itemId: randomUUID(),
            label: 'x',
            supplier: '',
            receivedOn: '2026-01-01',
            bestBy: null,
            unitCost: '1',
            strength_pct: null,
            facts: plainFacts(),
            quantity: '1',
          },
        })
      ).code,
    ).toBe('role');
    expect((await cook.refused(listPeople)).code).toBe('role');
    expect(
      (await cook.refused(invite, { body: { id: randomUUID(), role: 'owner', maySign: true } })).status,
    ).toBe(403);
    await viewer.ok(readKitchen);
  });

  it('belong to several kitchens; each call names its own, and a member of one is nobody in another', async () => {
    const second = await server.database.outside(async trx => {
      const id = await addKitchen(
        trx,
        newKitchenSettings('Second', { zone: 'UTC', altitude_m: 0 }),
        server.now_ms,
      );
      await addMembership(trx, owner.personId, id, 'owner', true);
      return id;
    });
    const first = owner.session?.kitchenId ?? '';
    // Two tabs of one browser: what one does is not done in the other's kitchen.
    const tab = new Client(server);
    tab.cookie = owner.cookie;
    tab.kitchenId = first;
    const view = await owner.ok(switchKitchen, { body: { kitchenId: second } });
    expect(view.kitchens.map(k => k.name).sort()).toEqual(['Second', 'Test Kitchen']);
    expect([(await owner.ok(readKitchen)).name, (await tab.ok(readKitchen)).name]).toEqual([
      'Second',
      'Test Kitchen',
    ]);
    const cook = await server.signIn('co@test.example');
    expect((await cook.refused(switchKitchen, { body: { kitchenId: second } })).code).toBe('not-a-member');
    cook.kitchenId = second;
    expect((await cook.refused(readKitchen)).code).toBe('no-kitchen');
    for (const name of ['__proto__', '1', `${second}'; drop table sessions; --`, second.toUpperCase()]) {
      cook.kitchenId = name;
      expect((await cook.refused(readKitchen)).code).toBe('no-kitchen');
    }
    await owner.ok(switchKitchen, { body: { kitchenId: first } });
  });

  it('an account that is there joins with its own password', async () => {
    const { token } = await owner.ok(invite, { body: { id: randomUUID(), role: 'viewer', maySign: false } });
    const body = { name: 'Cy', email: 'cy@test.example', password: 'another long one' };
    expect(
      (await new Client(server).refused(acceptInvitation, { params: { token }, body })).errors[0]?.path,
    ).toBe('password');
    await new Client(server).ok(acceptInvitation, {
      params: { token },
      body: { ...body, password: 'a long password' },
    });
  });

  it('can be taken out, but not the last owner', async () => {
    const { people } = await owner.ok(listPeople);
    const cook = people.find(p => p.email === 'co@test.example');
    await owner.ok(removePerson, { params: { personId: cook?.personId ?? '' } });
    expect((await (await server.signIn('co@test.example')).refused(readKitchen)).code).toBe('no-kitchen');
    expect((await owner.refused(removePerson, { params: { personId: owner.personId } })).code).toBe(
      'last-owner',
    );
  });
});

describe('settings', () => {
  it('a stale change is refused with the newer row', async () => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, { body: { ...settings, name: 'First' } });
    // The same change sent twice is no clash: its answer may have been lost.
    expect((await owner.ok(changeKitchen, { body: { ...settings, name: 'First' } })).name).toBe('First');
    const problem = await owner.refused(changeKitchen, { body: { ...settings, name: 'Second' } });
    expect([problem.status, (problem.newer as { name: string }).name]).toEqual([409, 'First']);
  });
  it.each([
    ['zone', 'Nowhere/Town'],
    ['locale', '?!'],
  ])('a %s that is none is refused beside its field', async (field, value) => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    expect(
      (await owner.refused(changeKitchen, { body: { ...settings, [field]: value } })).errors[0]?.path,
    ).toBe(field);
  });
});
