import { randomUUID } from 'node:crypto';
import {
  appendFacts,
  changePassword,
  changeKitchen,
  changePerson,
  endSession,
  invite,
  leaveCounter,
  listPeople,
  listSessions,
  readBatch,
  readKitchen,
  readSession,
  releaseJars,
  removePerson,
  setPin,
  signIn,
  signOut,
  startBatch,
} from '@cocotte/contract';
import { fold } from '@cocotte/core/batches';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { Client, TestServer } from '../../testing/test-server.ts';
import { GRANT_MS } from '../src/kitchen/grants.ts';

const PASSWORD = 'a long password';
let server: TestServer;
let owner: Client;
/** The tablet at the counter: Ona, who owns the kitchen, signed in on it, then Cy, a cook. */
let tablet: Client;
let ona = '';
let cy = '';
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  ona = owner.personId;
  cy = (await server.join(owner, 'cook', 'cy@test.example')).personId;
});
afterAll(() => server.close());
beforeEach(async () => {
  tablet = await server.signIn('ona@test.example');
  await tablet.ok(signIn, { body: { email: 'cy@test.example', password: PASSWORD } });
});

const codeOf = async (work: Promise<{ errors: { code: string }[] }>) => (await work).errors[0]?.code;
const link = () => ({ body: { id: randomUUID(), role: 'viewer' as const, maySign: false } });
const pinFor = (personId: string, pin = '4711', password = PASSWORD) => ({
  params: { personId },
  body: { password, pin },
});
/** The same device without a session, as after it ran out. */
function bare(of: Client): Client {
  const device = new Client(server);
  Object.assign(device, { device: of.device, kitchenId: of.named });
  return device;
}

describe('a tap on a name', () => {
  it('lets whoever signed in on the device act there, as a cook at the most', async () => {
    const { counter } = await tablet.ok(readSession);
    expect(counter.map(c => [c.name, c.role, c.left])).toEqual([
      ['Ona', 'cook', false],
      ['cy', 'cook', false],
    ]);
    tablet.acting = ona;
    const kitchen = await tablet.ok(readKitchen);
    const { id: _id, placed: _placed, demo: _demo, ...settings } = kitchen;
    expect(await tablet.refused(changeKitchen, { body: settings })).toMatchObject({
      code: 'role',
      errors: [{ next: expect.stringContaining('Sign in here') }],
    });
    expect(await codeOf(tablet.refused(listPeople))).toBe('role');
    const line = await Line.open(owner, { ...crushedTomatoes, code: 'TAP' }, 'pint', 2);
    // A decision carries who made it, and that is who acts.
    const stamp = { ...line.stamp(), personId: ona };
    const view = await tablet.ok(startBatch, { body: { ...line.startBody(), stamp } });
    expect(view.events[0]?.personId).toBe(ona);
    tablet.acting = '';
    expect(
      await codeOf(
        tablet.refused(startBatch, {
          body: { ...line.startBody(), batchId: randomUUID(), stamp: { ...line.stamp(), personId: ona } },
        }),
      ),
    ).toBe('other-person');
  });

  it('is no way in for anybody else: never signed in here, left, taken out, or no person at all', async () => {
    const eve = await server.join(owner, 'cook', `eve${randomUUID()}@test.example`);
    for (const acting of [eve.personId, randomUUID(), '__proto__', "' or 1=1", 'null']) {
      tablet.acting = acting;
      expect(await codeOf(tablet.refused(readKitchen)), acting).toBe('not-here');
    }
    // Somebody with no session at all is nobody, whatever name they give.
    const nobody = new Client(server);
    Object.assign(nobody, { kitchenId: tablet.named, acting: ona });
    expect(await codeOf(nobody.refused(readKitchen))).toBe('sign-in');
    // Whoever left stands there no longer.
    tablet.acting = '';
    const { counter } = await tablet.ok(leaveCounter, { params: { personId: ona } });
    expect(counter.map(c => [c.id, c.left])).toEqual([
      [ona, true],
      [cy, false],
    ]);
    tablet.acting = ona;
    expect(await codeOf(tablet.refused(readKitchen))).toBe('not-here');
    tablet.acting = '';
    expect(await codeOf(tablet.refused(leaveCounter, { params: { personId: cy } }))).toBe('signed-in');
    // Of a device whose own person was taken out of the kitchen nobody acts in it.
    await eve.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    const shared = await server.join(owner, 'cook', `fay${randomUUID()}@test.example`);
    await shared.ok(signIn, { body: { email: 'cy@test.example', password: PASSWORD } });
    const fay = (await shared.ok(readSession)).counter.find(c => c.id !== cy)?.id ?? '';
    shared.acting = fay;
    await shared.ok(readKitchen);
    await owner.ok(removePerson, { params: { personId: fay } });
    expect(await codeOf(shared.refused(readKitchen))).toBe('not-here');
  });
});

describe('the PIN', () => {
  it('is asked for whatever signs or gives rights, where several use the device', async () => {
    await tablet.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    expect(await tablet.refused(invite, link())).toMatchObject({ status: 403, code: 'no-pin' });
    expect(await codeOf(tablet.refused(setPin, pinFor(ona, '4711', 'not the password')))).toBe(
      'wrong-password',
    );
    for (const weak of ['123', '1111', '123456789', 'abcd', '', '12 34'])
      expect(await codeOf(tablet.refused(setPin, pinFor(ona, weak))), weak).toMatch(/weak-pin/);
    expect(await codeOf(tablet.refused(setPin, pinFor(randomUUID())))).toBe('not-here');
    const { counter } = await tablet.ok(setPin, pinFor(ona));
    expect(counter.map(c => c.hasPin)).toEqual([true, false]);
    expect(await tablet.refused(invite, link())).toMatchObject({ code: 'pin' });
    for (const [endpoint, input] of [
      [changePerson, { params: { personId: cy }, body: { role: 'cook', maySign: true } }],
      [removePerson, { params: { personId: cy } }],
      [
        releaseJars,
        {
          params: { batchId: randomUUID() },
          body: { jars: [1], stamp: new Line(tablet, crushedTomatoes, 'pint', 1).stamp() },
        },
      ],
    ] as const)
      expect(
        await codeOf(tablet.refused(endpoint as typeof removePerson, input as never)),
        endpoint.name,
      ).toBe('pin');
    tablet.pin = '4711';
    await tablet.ok(invite, link());
    // It counts on this device alone: the same person has none elsewhere.
    const elsewhere = await server.signIn('ona@test.example');
    await elsewhere.ok(signIn, { body: { email: 'cy@test.example', password: PASSWORD } });
    await elsewhere.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    elsewhere.pin = '4711';
    expect(await codeOf(elsewhere.refused(invite, link()))).toBe('no-pin');
    // Who alone uses a device is not asked.
    await owner.ok(invite, link());
  });

  it('stays asked for when one of them took back what their device may, by a new password', async () => {
    const gus = await server.join(owner, 'cook', `gus${randomUUID()}@test.example`);
    const shared = new Client(server);
    const email = gus.session?.person?.email ?? '';
    await shared.ok(signIn, { body: { email, password: PASSWORD } });
    await shared.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    await gus.ok(changePassword, { body: { present: PASSWORD, next: 'another password' } });
    const { counter, kitchens } = await shared.ok(readSession);
    expect([counter.map(c => c.name), kitchens.map(k => k.shared)]).toEqual([['Ona'], [true]]);
    expect(await codeOf(shared.refused(invite, link()))).toBe('no-pin');
  });

  it('stays asked for when a name was made to leave', async () => {
    await tablet.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    await tablet.ok(leaveCounter, { params: { personId: cy } });
    expect(await codeOf(tablet.refused(invite, link()))).toBe('no-pin');
  });

  it('is locked after five wrong ones, also at once, until the password is entered', async () => {
    await tablet.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    await tablet.ok(setPin, pinFor(ona));
    tablet.pin = '0815';
    const first = await tablet.refused(invite, link());
    expect(first).toMatchObject({ code: 'pin', errors: [{ next: 'Try again: 4 more tries.' }] });
    // A right one takes the wrong ones back.
    tablet.pin = '4711';
    await tablet.ok(invite, link());
    tablet.pin = '0815';
    const answers = await Promise.all(Array.from({ length: 9 }, () => tablet.try(invite, link())));
    const said = answers.map(a => (a.body as { errors: { what: string }[] }).errors[0]?.what);
    expect(said.filter(w => w === 'That is not your PIN.')).toHaveLength(5);
    expect(said.filter(w => w?.includes('locked'))).toHaveLength(4);
    tablet.pin = '4711';
    expect(await codeOf(tablet.refused(invite, link()))).toBe('pin-locked');
    // What has nothing of a PIN is no try.
    tablet.pin = 'x';
    expect(await codeOf(tablet.refused(invite, link()))).toBe('pin-locked');
    tablet.pin = null;
    await tablet.ok(setPin, pinFor(ona, '90210'));
    tablet.pin = '4711';
    expect(await codeOf(tablet.refused(invite, link()))).toBe('pin');
    tablet.pin = '90210';
    await tablet.ok(invite, link());
  });

  it('signs corrections and settlements; without it they are kept unsigned', async () => {
    await tablet.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    await tablet.ok(setPin, pinFor(ona));
    const line = await Line.open(tablet, { ...crushedTomatoes, code: 'SGN' }, 'pint', 2);
    await line.start();
    const signs = () => line.view?.events.at(-1)?.receipt.signs;
    await line.note('note.written', { text: 'by whoever stood there' });
    expect(signs()).toBe(false);
    // Asked for a PIN rather than delivered unsigned, where that is wanted.
    tablet.pin = '';
    const body = line.delivery([line.fact('note.written', { text: 'to be signed' })]);
    const send = { params: { batchId: line.batchId }, body };
    expect(await codeOf(tablet.refused(appendFacts, send))).toBe('pin');
    tablet.pin = '4711';
    await tablet.ok(appendFacts, send);
    line.view = await tablet.ok(readBatch, { params: { batchId: line.batchId } });
    expect(signs()).toBe(true);
    expect(line.state.notes.map(n => n.text)).toEqual(['by whoever stood there', 'to be signed']);
  });
});

describe('a grant', () => {
  const open = async (code: string) => {
    const line = await Line.open(owner, { ...crushedTomatoes, code }, 'pint', 2);
    await line.start();
    line.device = new (line.device.constructor as new (p: string, at: number) => typeof line.device)(
      cy,
      server.now_ms,
    );
    const device = bare(tablet);
    device.acting = cy;
    const deliver = (text: string) => ({
      params: { batchId: line.batchId },
      body: line.delivery([line.fact('note.written', { text })]),
    });
    const notes = async () =>
      fold((await owner.ok(readBatch, { params: { batchId: line.batchId } })).events).notes.map(n => n.text);
    return { line, device, deliver, notes };
  };

  it('delivers facts without a session, unsigned, and does nothing else', async () => {
    const { line, device, deliver, notes } = await open('GRA');
    await device.ok(appendFacts, deliver('boil lost'));
    expect(await notes()).toEqual(['boil lost']);
    const view = await owner.ok(readBatch, { params: { batchId: line.batchId } });
    expect(view.events.at(-1)).toMatchObject({ personId: cy, receipt: { signs: false } });
    expect(await codeOf(device.refused(readBatch, { params: { batchId: line.batchId } }))).toBe('sign-in');
    expect(
      await codeOf(device.refused(startBatch, { body: { ...line.startBody(), batchId: randomUUID() } })),
    ).toBe('sign-in');
    // Only in the name it is given for: a delivery that names another is refused, as is one without a name.
    device.acting = ona;
    expect(await codeOf(device.refused(appendFacts, deliver('as Ona')))).toBe('other-person');
    device.acting = '';
    expect(await codeOf(device.refused(appendFacts, deliver('as nobody')))).toBe('sign-in');
    // A device that nobody signed in on delivers nothing.
    const stranger = bare(tablet);
    Object.assign(stranger, { device: 'x'.repeat(43), acting: cy });
    expect(await codeOf(stranger.refused(appendFacts, deliver('from elsewhere')))).toBe('sign-in');
    expect(await notes()).toEqual(['boil lost']);
  });

  it('outlives signing out, and what one left is delivered while another is signed in', async () => {
    const { deliver, notes } = await open('OUT');
    const waiting = deliver('entered before signing out');
    await tablet.ok(signOut);
    await tablet.ok(signIn, { body: { email: 'ona@test.example', password: PASSWORD } });
    tablet.acting = cy;
    expect(await codeOf(tablet.refused(readKitchen))).toBe('not-here');
    await tablet.ok(appendFacts, waiting);
    await tablet.ok(appendFacts, waiting);
    expect(await notes()).toEqual(['entered before signing out']);
  });

  it('ends with the session ended elsewhere, the password, the membership, and by itself', async () => {
    const { device, deliver, notes } = await open('END');
    const refused = () => codeOf(device.refused(appendFacts, deliver('too late')));
    const laptop = await server.signIn('cy@test.example');
    const again = () => tablet.ok(signIn, { body: { email: 'cy@test.example', password: PASSWORD } });
    await device.ok(appendFacts, deliver('1'));
    const { sessions } = await laptop.ok(listSessions);
    for (const s of sessions) if (!s.present) await laptop.ok(endSession, { params: { sessionId: s.id } });
    expect(await refused()).toBe('sign-in');
    await again();
    await device.ok(appendFacts, deliver('2'));
    await laptop.ok(changePassword, { body: { present: PASSWORD, next: 'another password' } });
    expect(await refused()).toBe('sign-in');
    await laptop.ok(changePassword, { body: { present: 'another password', next: PASSWORD } });
    await again();
    await device.ok(appendFacts, deliver('3'));
    server.now_ms += GRANT_MS + 1;
    expect(await refused()).toBe('sign-in');
    server.now_ms -= GRANT_MS + 1;
    await device.ok(appendFacts, deliver('4'));
    await owner.ok(removePerson, { params: { personId: cy } });
    expect(await refused()).toBe('sign-in');
    expect(await notes()).toEqual(['1', '2', '3', '4']);
  });
});
