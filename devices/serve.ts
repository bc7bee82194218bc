import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import type { Instrument } from './instruments.ts';

/**
 * The text protocol, version 1, over a local socket; one instrument a port, lines of ASCII that end in a line feed.
 *
 * From the instrument, on connecting: `HELLO 1 <id> <kind, underscores for spaces> <unit> <name>` and, where it was checked,
 * `CAL <ISO instant> <off>`, of a printer `HEAD <dots per mm> <dots across>`. Then, as often as it reads: `READ <number> <value>
 * <steady|moving>`. To it: `SPEED <times>`, `EVERY <ms>`, `SCENE <name> [<figure>]`, and to a printer `LINE <text>`, or
 * `PAGE <across> <tall>` with `ROWS <first> <last> <base64 of their dots>`, and `PRINT <copies>`, each answered by `OK` or
 * `NO <why>`.
 */
export const PROTOCOL = 1;
/** Longest line that is listened to. */
const LONGEST = 200;

/** What is wrong with the line, for as long as a scene says. */
type Trouble = 'none' | 'rubbish' | 'silent';

/** Serves one instrument on loopback until it is closed. */
export async function serve(
  instrument: Instrument,
  {
    port = 0,
    every_ms = 500,
    tick = instrument.tick,
  }: { port?: number; every_ms?: number; tick?: (s: number) => void } = {},
): Promise<{ port: number; close: () => Promise<void> }> {
  const sockets = new Set<Socket>();
  let number = 0;
  let speed = 1;
  let trouble: Trouble = 'none';
  const hello = [
    `HELLO ${PROTOCOL} ${instrument.id} ${instrument.kind.replaceAll(' ', '_')} ${instrument.unit} ${instrument.name}`,
    ...(instrument.calibrated ? [`CAL ${instrument.calibrated.at} ${instrument.calibrated.off}`] : []),
    ...(instrument.head ? [`HEAD ${instrument.head.dots_per_mm} ${instrument.head.across}`] : []),
  ];
  const say = (line: string) => {
    for (const socket of sockets) socket.write(`${line}\n`);
  };
  const beat = () => {
    tick((every_ms / 1000) * speed);
    if (trouble === 'silent') return;
    if (trouble === 'rubbish') return say('\u0000\u0001READ READ %s 99e999 $$$');
    const { value, steady } = instrument.show();
    number += 1;
    return say(`READ ${number} ${value.toFixed(3)} ${steady ? 'steady' : 'moving'}`);
  };
  let timer = setInterval(beat, every_ms);
  const obey = (line: string): string => {
    const own = instrument.obey?.(line) ?? null;
    if (own !== null) return own;
    const [word, name = '', figure = ''] = line.trim().split(/\s+/);
    const value = Number(figure || name);
    if (word === 'SPEED' && value >= 1 && value <= 60) speed = value;
    else if (word === 'EVERY' && value >= 100 && value <= 60_000) {
      every_ms = value;
      clearInterval(timer);
      timer = setInterval(beat, every_ms);
    } else if (word === 'SCENE' && (name === 'rubbish' || name === 'silent' || name === 'none'))
      trouble = name;
    else if (word === 'SCENE' && instrument.scene(name, Number(figure) || 0)) return 'OK';
    else if (word === 'SCENE') return 'NO such scene';
    else if (word !== 'SPEED' && word !== 'EVERY') return 'NO such word';
    else if (speed !== value && every_ms !== value) return 'NO out of range';
    return 'OK';
  };
  const server: Server = createServer(socket => {
    sockets.add(socket);
    let rest = '';
    socket.setEncoding('utf8');
    for (const line of hello) socket.write(`${line}\n`);
    socket.on('data', (text: string) => {
      rest = (rest + text).slice(-LONGEST * 4);
      const lines = rest.split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) socket.write(`${obey(line.slice(0, LONGEST))}\n`);
    });
    const gone = () => sockets.delete(socket);
    socket.on('close', gone);
    socket.on('error', gone);
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: () =>
      new Promise(resolve => {
        clearInterval(timer);
        for (const socket of sockets) socket.destroy();
        server.close(() => resolve());
      }),
  };
}
