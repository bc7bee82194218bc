import { randomUUID } from 'node:crypto';
import {
  acceptInvitation,
  changeKitchen,
  changePassword,
  changePerson,
  endSession,
  invite,
  listInvitations,
  listPeople,
  listSessions,
  readInvitation,
  readKitchen,
  releaseJars,
  removePerson,
  signIn,
  startBatch,
  withdrawInvitation,
} from '@cocotte/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Device } from '../../testing/device.ts';
import { confirmAs } from '../../testing/open-page.ts';
import { samplePlace } from '../../testing/place.ts';
import { Line } from '../../testing/line.ts';
import { Client, TestServer } from '../../testing/test-server.ts';
import { addMembership, removeMembership } from '../src/kitchen/outside.ts';
import { makeLink } from '../src/kitchen/people.ts';
import { addKitchen, newKitchenSettings } from '../src/kitchen/service.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

const linkFor = (client: Client, role: 'owner' | 'cook' | 'viewer', maySign = false) =>
  client.ok(invite, { body: { id: randomUUID(), role, maySign } });
const join = (token: string, email: string) =>
  new Client(server).try(acceptInvitation, {
    params: { token },
    body: { name: email.split('@')[0] ?? 'x', email, password: 'a long password' },
  });
const roleOf = async (email: string) =>
  (await owner.ok(listPeople)).people.find(p => p.email === email) ?? null;

describe("a person's own sessions", () => {
  it('are seen and ended one by one', async () => {
    const laptop = await server.signIn('ona@test.example');
    const tablet = await server.signIn('ona@test.example');
    const { sessions } = await laptop.ok(listSessions);
    expect(sessions.length).toBeGreaterThanOrEqual(3);
    expect(sessions.filter(s => s.present)).toHaveLength(1);
    expect(sessions.every(s => s.address === '127.0.0.1' && s.browser !== '')).toBe(true);
    const theirs = (await tablet.ok(listSessions)).sessions.find(s => s.present);
    await laptop.ok(endSession, { params: { sessionId: theirs?.id ?? '' } });
    expect((await tablet.refused(readKitchen)).code).toBe('sign-in');
    // Over is over, and nobody ends another's.
    await laptop.ok(endSession, { params: { sessionId: theirs?.id ?? '' } });
    const cook = await server.join(owner, 'cook', 'ending@test.example');
    const mine = (await laptop.ok(listSessions)).sessions.find(s => s.present);
    await cook.ok(endSession, { params: { sessionId: mine?.id ?? '' } });
    await laptop.ok(readKitchen);
    await laptop.ok(endSession, { params: { sessionId: mine?.id ?? '' } });
    expect(laptop.cookie).toBe('');
  });

  it('end with a new password, but for the one that set it; the present one is asked for', async () => {
    const here = await server.join(owner, 'cook', 'pass@test.example');
    const there = await server.signIn('pass@test.example');
    const change = (present: string, next: string) => here.try(changePassword, { body: { present, next } });
    expect(
      (await here.refused(changePassword, { body: { present: 'not it', next: 'another long one' } }))
        .errors[0],
    ).toMatchObject({ path: 'present', code: 'wrong-password' });
    expect(
      (await here.refused(changePassword, { body: { present: 'a long password', next: 'short' } })).errors[0],
    ).toMatchObject({ path: 'next', code: 'weak-password' });
    await there.ok(readKitchen);
    expect((await change('a long password', 'another long one')).status).toBe(200);
    expect((await there.refused(readKitchen)).code).toBe('sign-in');
    await here.ok(readKitchen);
    const stranger = new Client(server);
    expect(
      (await stranger.refused(signIn, { body: { email: 'pass@test.example', password: 'a long password' } }))
        .status,
    ).toBe(401);
    await server.signIn('pass@test.example', 'another long one');
  });
});

describe('links', () => {
  it('are listed and can be withdrawn', async () => {
    const made = await linkFor(owner, 'cook', true);
    const { invitations } = await owner.ok(listInvitations);
    expect(invitations).toHaveLength(1);
    expect(invitations[0]).toMatchObject({ role: 'cook', maySign: true, madeBy: 'Ona' });
    await owner.ok(withdrawInvitation, { params: { invitationId: invitations[0]?.id ?? '' } });
    expect((await join(made.token, 'w@test.example')).status).toBe(404);
    expect((await owner.ok(listInvitations)).invitations).toEqual([]);
  });

  it('die with the membership, or the ownership, of whoever made them', async () => {
    const second = await server.join(owner, 'owner', 'second@test.example');
    const first = await linkFor(second, 'owner');
    const later = await linkFor(second, 'cook');
    await owner.ok(changePerson, {
      params: { personId: second.personId },
      body: { role: 'cook', maySign: true },
    });
    expect((await join(first.token, 'x1@test.example')).status).toBe(404);
    expect((await new Client(server).refused(readInvitation, { params: { token: first.token } })).code).toBe(
      'link-over',
    );
    await owner.ok(removePerson, { params: { personId: second.personId } });
    expect((await join(later.token, 'x2@test.example')).status).toBe(404);
    // Nor do they come back with them.
    await server.database.outside(trx =>
      addMembership(trx, second.personId, owner.session?.kitchenId ?? '', 'owner', true),
    );
    expect((await join(later.token, 'x3@test.example')).status).toBe(404);
    await owner.ok(removePerson, { params: { personId: second.personId } });
  });

  it('the same link asked for twice is one link, with the secret that arrived', async () => {
    const body = { id: randomUUID(), role: 'viewer' as const, maySign: false };
    const lost = await owner.ok(invite, { body });
    const got = await owner.ok(invite, { body });
    expect((await owner.ok(listInvitations)).invitations.filter(i => i.id === body.id)).toHaveLength(1);
    expect((await join(lost.token, 'lost@test.example')).status).toBe(404);
    expect((await join(got.token, 'got@test.example')).status).toBe(200);
    expect((await owner.refused(invite, { body })).code).toBe('link-made');
    expect((await owner.refused(invite, { body: { ...body, role: 'owner' } })).code).toBe('link-made');
  });

  it('open once, also for two who open them at the same moment', async () => {
    const { token } = await linkFor(owner, 'viewer');
    const answers = await Promise.all([1, 2, 3, 4].map(i => join(token, `race${i}@test.example`)));
    expect(answers.map(a => a.status).sort()).toEqual([200, 404, 404, 404]);
  });

  it('never lower what somebody has', async () => {
    const { token } = await linkFor(owner, 'viewer');
    const answer = await new Client(server).try(acceptInvitation, {
      params: { token },
      body: { name: 'Ona', email: 'ona@test.example', password: 'a long password' },
    });
    expect(answer.status).toBe(200);
    expect(await roleOf('ona@test.example')).toMatchObject({ role: 'owner', maySign: true });
    const cook = await server.join(owner, 'cook', 'keeps@test.example', true);
    expect((await join((await linkFor(owner, 'viewer')).token, 'keeps@test.example')).status).toBe(200);
    expect(await roleOf('keeps@test.example')).toMatchObject({ role: 'cook', maySign: true });
    expect((await join((await linkFor(owner, 'owner')).token, 'keeps@test.example')).status).toBe(200);
    expect(await roleOf('keeps@test.example')).toMatchObject({ role: 'owner', maySign: true });
    await owner.ok(removePerson, { params: { personId: cook.personId } });
  });
});

describe('a kitchen always keeps an owner', () => {
  it('whoever takes whom out, or steps down, at the same moment', async () => {
    for (let round = 0; round < 6; round++) {
      const ana = await server.join(owner, 'owner', `ana${round}@test.example`);
      const bo = await server.join(ana, 'owner', `bo${round}@test.example`);
      await ana.ok(removePerson, { params: { personId: owner.personId } });
      const down = { role: 'cook' as const, maySign: false };
      const answers = await Promise.all([
        round % 2 === 0
          ? ana.try(removePerson, { params: { personId: bo.personId } })
          : ana.try(changePerson, { params: { personId: ana.personId }, body: down }),
        round % 3 === 0
          ? bo.try(removePerson, { params: { personId: ana.personId } })
          : bo.try(changePerson, { params: { personId: bo.personId }, body: down }),
      ]);
      const members = await server.database.outside(trx =>
        trx('memberships').where({ kitchen_id: ana.session?.kitchenId, role: 'owner' }).select('account_id'),
      );
      expect(members.length).toBeGreaterThanOrEqual(1);
      expect(answers.every(a => [200, 403, 404, 422].includes(a.status))).toBe(true);
      await server.database.outside(async trx => {
        const kitchenId = ana.session?.kitchenId ?? '';
        await addMembership(trx, owner.personId, kitchenId, 'owner', true);
        for (const one of [ana, bo]) await removeMembership(trx, one.personId, kitchenId);
      });
    }
    expect((await owner.refused(removePerson, { params: { personId: owner.personId } })).code).toBe(
      'last-owner',
    );
    expect(
      (
        await owner.refused(changePerson, {
          params: { personId: owner.personId },
          body: { role: 'cook', maySign: true },
        })
      ).code,
    ).toBe('last-owner');
  });
});

describe('the right to release and sign', () => {
  it('stands beside the role: owners have it and give it, and without it nothing is released', async () => {
    const cook = await server.join(owner, 'cook', 'signs@test.example');
    const line = await (await (await Line.open(owner, plumJam, 'half-pint', 4)).start()).draw();
    await line.cook(15);
    const device = new Device(cook.personId, server.now_ms);
    const release = () => ({
      params: { batchId: line.batchId },
      body: { jars: [1, 2, 3, 4], stamp: device.stamp(server.now_ms) },
    });
    expect((await cook.refused(releaseJars, release())).code).toBe('may-not-sign');
    // It is settled before the body is looked at, and a viewer cannot be given it.
    expect((await cook.refused(releaseJars, { params: { batchId: line.batchId }, body: {} })).code).toBe(
      'may-not-sign',
    );
    const give = (role: 'cook' | 'viewer', maySign: boolean) =>
      owner.try(changePerson, { params: { personId: cook.personId }, body: { role, maySign } });
    expect((await give('viewer', true)).status).toBe(422);
    expect((await give('cook', true)).status).toBe(200);
    await cook.ok(releaseJars, release());
    expect((await give('cook', false)).status).toBe(200);
    expect((await cook.refused(releaseJars, release())).code).toBe('may-not-sign');
  });
});

describe('a kitchen that is not set up', () => {
  it('starts no batch until somebody has entered where it stands, sea level too', async () => {
    const kitchenId = await server.database.outside(async trx => {
      const id = await addKitchen(trx, newKitchenSettings('Bare', null), server.now_ms);
      await addMembership(trx, owner.personId, id, 'owner', true);
      return id;
    });
    owner.kitchenId = kitchenId;
    const { id: _id, placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    expect([placed, settings.altitude_m]).toEqual([false, 0]);
    const line = new Line(owner, plumJam, 'half-pint', 4);
    const stamp = line.stamp();
    const begin = async () => {
      const opened = await Line.open(owner, { ...plumJam, code: 'BAR' }, 'half-pint', 4);
      return opened;
    };
    // The line enters its settings as a person would: so it is looked at before that.
    const { recipeId, ...start } = { ...line.startBody(), stamp };
    const unknown = await owner.try(startBatch, { body: { ...start, recipeId } });
    expect(unknown.status).toBe(404);
    const opened = await begin();
    await server.database.inKitchen(kitchenId, trx =>
      trx('kitchens')
        .where({ kitchen_id: kitchenId })
        .update({ settings: JSON.stringify(newKitchenSettings('Bare', null)), version: 1 }),
    );
    expect((await owner.refused(startBatch, { body: opened.startBody() })).code).toBe('kitchen-not-set-up');
    await owner.ok(changeKitchen, {
      body: {
        ...settings,
        zone: 'America/Denver',
        altitude_m: 0,
        version: 1,
        jurisdiction: samplePlace(),
      },
    });
    expect((await owner.ok(readKitchen)).placed).toBe(true);
    await confirmAs(owner, opened.recipeId, opened.recipe);
    await opened.start();
    owner.kitchenId = '';
  });

  it('is made with an owner by link, who makes their account by it', async () => {
    const { token, kitchenId } = await server.database.outside(async trx => {
      const id = await addKitchen(trx, newKitchenSettings('By link', null), server.now_ms);
      const link = await makeLink(
        trx,
        { id: randomUUID(), kitchenId: id, role: 'owner', maySign: true, madeBy: null },
        server.now_ms,
      );
      return { token: link?.token ?? '', kitchenId: id };
    });
    expect(await new Client(server).ok(readInvitation, { params: { token } })).toMatchObject({
      kitchen: 'By link',
      role: 'owner',
    });
    const answer = await join(token, 'new-owner@test.example');
    expect((answer.body as { kitchens: unknown[] }).kitchens).toEqual([
      { id: kitchenId, name: 'By link', role: 'owner', maySign: true, shared: false },
    ]);
  });
});
