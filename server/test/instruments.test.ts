import { connect, createServer, type Socket } from 'node:net';
import { printLidMarks, readInstruments } from '@cocotte/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { scale, Stove, thermometer } from '../../devices/instruments.ts';
import { labelPrinter } from '../../devices/printer.ts';
import { serve } from '../../devices/serve.ts';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer, problemOf } from '../../testing/test-server.ts';
import { connectInstruments } from '../src/kitchen/instruments.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(async () => {
  connectInstruments([]);
  await server.close();
});

const shown = async () => (await owner.ok(readInstruments)).instruments;
/** Looks again until it is so: instruments speak when they like. */
async function until(is: (all: Awaited<ReturnType<typeof shown>>) => boolean) {
  for (;;) {
    const all = await shown();
    if (is(all)) return all;
    await new Promise(resolve => setTimeout(resolve, 50));
  }
}
/** Sends one command to an instrument, and gives its answer. */
const command = (port: number, line: string) =>
  new Promise<string>(resolve => {
    const socket = connect(port, '127.0.0.1');
    let all = '';
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => {
      all += text;
      const answer = all.split('\n').find(l => l === 'OK' || l.startsWith('NO '));
      if (answer) {
        socket.destroy();
        resolve(answer);
      }
    });
    socket.write(`${line}\n`);
  });

describe('instruments on a line', () => {
  it('none are there until they are connected', async () => {
    expect(await shown()).toEqual([]);
  });

  it('are read as they stand, with how they were checked; nobody elsewhere is connected to', async () => {
    const stove = new Stove(97.6);
    const probe = await serve(thermometer(stove), { every_ms: 100 });
    const weigh = await serve(scale(), { every_ms: 100 });
    connectInstruments([probe.port, weigh.port, 0, -1, 99_999, Number.NaN]);
    const all = await until(list => list.length === 2 && list.every(i => i.state === 'reading'));
    expect(all.map(i => [i.id, i.kind])).toEqual([
      ['probe-1', 'thermometer'],
      ['scale-1', 'scale'],
    ]);
    expect(all[0]?.calibrated).toEqual({ at: '2026-11-01T09:00:00.000Z', off: 0.4 });
    expect(all[1]?.calibrated).toBeNull();
    expect(all[0]?.value).toBeCloseTo(21, 0);
    expect(await command(weigh.port, 'SCENE load 742')).toBe('OK');
    await until(list => list[1]?.value === 742 && list[1].steady);
    expect(await command(weigh.port, 'SCENE __proto__ 1')).toBe('NO such scene');
    expect(await command(weigh.port, 'SPEED 9000')).toMatch(/^NO /);
    expect(await command(weigh.port, 'rm -rf')).toBe('NO such word');

    // Rubbish on the line is said; what was read before is not what it shows.
    expect(await command(probe.port, 'SCENE rubbish')).toBe('OK');
    const [troubled] = await until(list => list[0]?.state === 'rubbish');
    expect(troubled?.value).toBeNull();
    expect(await command(probe.port, 'SCENE none')).toBe('OK');
    await until(list => list[0]?.state === 'reading');
    expect(await command(probe.port, 'SCENE silent')).toBe('OK');
    const [silent] = await until(list => list[0]?.state === 'silent');
    expect(silent).toMatchObject({ value: null, steady: false });

    // One that goes away and comes back is found again.
    const { port } = weigh;
    await weigh.close();
    await until(list => list[1]?.state === 'silent');
    const back = await serve(scale(), { port, every_ms: 100 });
    await until(list => list[1]?.state === 'reading');
    await Promise.all([probe.close(), back.close()]);
  });

  it('a line that never ends, or that floods, holds nobody up', async () => {
    const sockets: Socket[] = [];
    const flood = createServer(socket => {
      sockets.push(socket);
      socket.on('error', () => undefined);
      socket.write('HELLO 1 flood scale g Flood\n');
      for (let i = 0; i < 5000; i++) socket.write(`READ ${i} ${i % 900}.5 steady\n`);
      socket.write('x'.repeat(200_000));
    });
    await new Promise<void>(resolve => flood.listen(0, '127.0.0.1', resolve));
    const { port } = flood.address() as { port: number };
    connectInstruments([port]);
    const [one] = await until(list => list[0]?.state === 'rubbish');
    expect(one?.name).toBe('Flood');
    connectInstruments([]);
    for (const socket of sockets) socket.destroy();
    flood.close();
    expect(await shown()).toEqual([]);
  });

  it('a printer prints what it is told, whole and in order, and says why where it does not', async () => {
    const line = await Line.open(owner, crushedTomatoes, 'pint', 9);
    await line.start('home');
    await line.cook(45);
    const roll = labelPrinter(20);
    const served = await serve(roll, { every_ms: 100 });
    connectInstruments([served.port]);
    await until(list => list[0]?.value === 20);
    const loadId = line.state.loads[0]?.id ?? '';
    const print = (printerId = 'printer-1') =>
      owner.try(printLidMarks, { params: { batchId: line.batchId, loadId }, body: { printerId } });
    expect((await print()).body).toEqual({ printed: 9 });
    expect(roll.printed).toEqual([
      { lines: [line.state.started?.lotCode, 'load 1'], picture: null, copies: 9 },
    ]);
    // Two at once: the words of two labels never mingle, and there is one roll.
    const both = await Promise.all([print(), print()]);
    expect(both.map(a => a.status).toSorted((a, b) => a - b)).toEqual([200, 422]);
    expect(problemOf(both.find(a => a.status === 422) as never).errors[0]?.what).toMatch(
      /only 2 labels are left/,
    );
    expect(roll.printed).toHaveLength(2);
    expect(problemOf(await print('__proto__')).errors[0]?.what).toMatch(/it is not there/);
    await served.close();
    await until(list => list[0]?.state === 'silent');
    expect(problemOf(await print()).errors[0]).toMatchObject({ code: 'not-printed', path: 'printerId' });
  });

  it('a thermometer that reads all day is held for six hours, one reading a second, however often it speaks', async () => {
    const sockets: Socket[] = [];
    const day = createServer(socket => {
      sockets.push(socket);
      socket.on('error', () => undefined);
      socket.write('HELLO 1 day thermometer C Day\n');
      for (let i = 1; i <= 100_000; i++) socket.write(`READ ${i} 9${i % 8}.${i % 10} steady\n`);
    });
    await new Promise<void>(resolve => day.listen(0, '127.0.0.1', resolve));
    const { port } = day.address() as { port: number };
    // Two readings a second: each look at the clock is half a second later.
    let now_ms = 0;
    const lines = connectInstruments([port], () => (now_ms += 250));
    await expect.poll(() => now_ms, { timeout: 60_000 }).toBeGreaterThanOrEqual(100_000 * 500);
    const held = lines.heldSince('day', Infinity);
    expect(held.length).toBeGreaterThan(6 * 3600 - 10);
    expect(held.length).toBeLessThan(6 * 3600 + 1000);
    const ago = held.map(h => h.ago_ms);
    expect(ago.every((a, i) => i === 0 || (ago[i - 1] as number) - a >= 500)).toBe(true);
    expect(lines.heldSince('day', 60_000).length).toBeLessThanOrEqual(61);
    expect(lines.heldSince('__proto__', Infinity)).toEqual([]);
    connectInstruments([]);
    for (const socket of sockets) socket.destroy();
    day.close();
  });
});
