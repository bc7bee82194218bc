import { connect, type Socket } from 'node:net';
import type { ReplyOf, readInstruments } from '@cocotte/contract';
import {
  type Instrument,
  type InstrumentKind,
  type PrintHead,
  readInstrumentLine,
} from '@cocotte/core/kitchen';

/** Longest line that is listened to; what is longer is rubbish. */
const LONGEST = 200;
/** An instrument that says nothing for so long is silent: what it showed last is not what it shows. */
const SILENT_MS = 5000;
const AGAIN_MS = 2000;
/** Rubbish on the line is told for so long after the last of it. */
const RUBBISH_MS = 5000;

/** Readings of a thermometer are held for so long; one a second, so that a day takes no more room than an afternoon. */
const HELD_MS = 6 * 3_600_000;

/** A reading as it was held: when, by this process's own steady clock. */
interface Held {
  at_ms: number;
  value: number;
}

interface Line {
  port: number;
  socket: Socket | null;
  hello: { id: string; kind: InstrumentKind; name: string } | null;
  calibrated: Instrument['calibrated'];
  /** Of a printer that prints dot by dot. */
  head: PrintHead | null;
  last: { value: number; steady: boolean; at_ms: number } | null;
  rubbish_ms: number;
  /** What a thermometer showed, the last of each second. */
  held: Held[];
  /** Who waits for what it says to what it was told. */
  told: ((why: string) => void)[];
  /** What is printed just now: the words of two labels never mingle. */
  printing: Promise<unknown>;
}

/**
 * Instruments on lines of this machine: nothing but loopback is ever connected to. What comes is read word by word and never
 * trusted; of what comes often the last counts; a line that breaks is tried again.
 */
export class Instruments {
  private readonly lines: Line[];
  private readonly timers = new Set<NodeJS.Timeout>();
  private closed = false;

  constructor(
    ports: readonly number[],
    private readonly now_ms: () => number = () => performance.now(),
  ) {
    this.lines = ports
      .filter(p => Number.isInteger(p) && p > 0 && p < 65_536)
      .slice(0, 20)
      .map(port => ({
        port,
        socket: null,
        hello: null,
        calibrated: null,
        head: null,
        last: null,
        rubbish_ms: -Infinity,
        held: [],
        told: [],
        printing: Promise.resolve(),
      }));
    for (const line of this.lines) this.open(line);
  }

  private open(line: Line): void {
    if (this.closed) return;
    const socket = connect({ port: line.port, host: '127.0.0.1' });
    line.socket = socket;
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => {
      rest += text;
      const words = rest.split('\n');
      rest = words.pop() ?? '';
      // A line without an end fills no memory.
      if (rest.length > LONGEST) {
        rest = '';
        line.rubbish_ms = this.now_ms();
      }
      for (const word of words) this.take(line, word);
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      line.last = null;
      for (const answer of line.told.splice(0)) answer('it went away');
      if (this.closed) return;
      const timer = setTimeout(() => {
        this.timers.delete(timer);
        this.open(line);
      }, AGAIN_MS);
      timer.unref();
      this.timers.add(timer);
    });
  }

  private take(line: Line, text: string): void {
    const said = text.length > LONGEST ? null : readInstrumentLine(text, line.hello?.kind ?? null);
    if (said === null) {
      line.rubbish_ms = this.now_ms();
      return;
    }
    if (said.word === 'hello') line.hello = { id: said.id, kind: said.kind, name: said.name };
    else if (said.word === 'answer') line.told.shift()?.(said.why);
    else if (said.word === 'head') line.head = said.head;
    else if (said.word === 'cal') line.calibrated = { at: said.at, off: said.off };
    else {
      line.last = { value: said.value, steady: said.steady, at_ms: this.now_ms() };
      if (line.hello?.kind === 'thermometer') hold(line.held, said.value, this.now_ms());
    }
  }

  /** Every instrument that has said what it is, with what it shows just now. */
  shown(): Instrument[] {
    const now = this.now_ms();
    return this.lines.flatMap(({ hello, calibrated, last, rubbish_ms }) => {
      if (!hello) return [];
      const fresh = last !== null && now - last.at_ms < SILENT_MS;
      const troubled = now - rubbish_ms < RUBBISH_MS;
      return [
        {
          ...hello,
          state: troubled ? ('rubbish' as const) : fresh ? ('reading' as const) : ('silent' as const),
          value: fresh && !troubled ? last.value : null,
          steady: fresh && !troubled && last.steady,
          calibrated,
        },
      ];
    });
  }

  /** What a thermometer showed after a moment, by how long ago it was; nothing of one that is not connected. */
  heldSince(id: string, ago_ms: number): { ago_ms: number; value: number }[] {
    const now = this.now_ms();
    const line = this.lines.find(l => l.hello?.id === id);
    return (line?.held ?? []).flatMap(h =>
      now - h.at_ms < ago_ms ? [{ ago_ms: now - h.at_ms, value: h.value }] : [],
    );
  }

  /** The head of a printer that prints dot by dot; null where it is not there, or prints words alone. */
  headOf(id: string): PrintHead | null {
    return this.lines.find(l => l.hello?.id === id && l.hello.kind === 'label printer')?.head ?? null;
  }

  /**
   * Tells a printer what to print, one word after the other.
   *
   * @returns why it did not, in its own words; empty where it did
   */
  async print(id: string, words: readonly string[]): Promise<string> {
    const line = this.lines.find(l => l.hello?.id === id && l.hello.kind === 'label printer');
    if (!line) return 'it is not there';
    const printed = line.printing.then(() => this.tell(line, words));
    line.printing = printed;
    return printed;
  }

  private async tell(line: Line, words: readonly string[]): Promise<string> {
    if (!line.socket || line.socket.destroyed) return 'it is not there';
    for (const word of words) {
      // oxlint-disable-next-line no-await-in-loop -- each word is answered before the next
      const why = await new Promise<string>(resolve => {
        const timer = setTimeout(() => {
          resolve('it does not answer');
          // What it says later answers nothing: the line is begun anew.
          line.socket?.destroy();
        }, SILENT_MS);
        line.told.push(answer => {
          clearTimeout(timer);
          resolve(answer);
        });
        line.socket?.write(`${word}\n`);
      });
      if (why !== '') return why;
    }
    return '';
  }

  close(): void {
    this.closed = true;
    for (const timer of this.timers) clearTimeout(timer);
    for (const line of this.lines) line.socket?.destroy();
  }
}

/** Holds a reading: two in one second are one, the later. */
function hold(held: Held[], value: number, at_ms: number): void {
  const last = held.at(-1);
  if (last && Math.floor(last.at_ms / 1000) === Math.floor(at_ms / 1000)) held.pop();
  held.push({ at_ms, value });
  const old = held.findIndex(h => h.at_ms > at_ms - HELD_MS);
  // Now and then, not with each: what is thrown away is moved over.
  if (old > 600) held.splice(0, old);
}

let connected: Instruments | null = null;

/** Connects this process to the instruments on these ports, in the place of those before; none for no port. */
export function connectInstruments(ports: readonly number[], now_ms?: () => number): Instruments {
  connected?.close();
  connected = new Instruments(ports, now_ms);
  return connected;
}

/** A thermometer that is connected, by its id. */
export const thermometerOf = (id: string): Instrument | null =>
  connected?.shown().find(i => i.id === id && i.kind === 'thermometer') ?? null;

/** Tells a printer that is connected what to print; why it did not, or nothing. */
export const print = (id: string, words: readonly string[]): Promise<string> =>
  connected?.print(id, words) ?? Promise.resolve('it is not there');

/** The head of a printer that is connected; null where it is not there, or prints words alone. */
export const printHead = (id: string): PrintHead | null => connected?.headOf(id) ?? null;

/** What a thermometer showed in the last so many milliseconds. */
export const heldSince = (id: string, ago_ms: number): { ago_ms: number; value: number }[] =>
  connected?.heldSince(id, ago_ms) ?? [];

/** What they show, for whoever asks. */
export async function read(): Promise<ReplyOf<typeof readInstruments>> {
  return { instruments: connected?.shown() ?? [] };
}
