import {
  type Endpoint,
  PERSON_HEADER,
  PIN_HEADER,
  type Problem,
  SERVER_TIME_HEADER,
  type Upload,
} from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { actingId } from './acting.ts';
import { deviceTime, learnOffset } from './clock.ts';
import { tabKitchen } from './tab-kitchen.ts';
import { misread } from '../words/index.ts';

/** A call that did not succeed: the server's problem, or no answer at all. */
export class CallError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly faults: Fault[],
    readonly newer?: unknown,
  ) {
    super(faults.map(f => [f.what, f.why, f.next].filter(Boolean).join(' ')).join(' '));
    this.name = 'CallError';
  }

  /** Nobody answered, or the book is away: the same call may succeed later. */
  get away(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
  }
}

const away = (): Fault => misread('no-answer').fault;

/**
 * The address of an endpoint with its params in place.
 *
 * @param kitchenId  the kitchen it is meant for; this tab's unless given
 */
export function addressOf<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  params: P,
  query?: Partial<Q>,
  kitchenId: string | null = tabKitchen(),
): string {
  const path = endpoint.path.replaceAll(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String(name === 'kitchenId' ? kitchenId : (params as Record<string, unknown>)[name])),
  );
  const given = Object.entries((query ?? {}) as Record<string, string>).filter(
    ([, v]) => v !== '' && v !== undefined,
  );
  return given.length === 0 ? path : `${path}?${new URLSearchParams(given).toString()}`;
}

/** Pauses before the same call is sent again, when nobody answered or the book was busy. */
const AGAIN_AFTER_MS = [400, 1200];

interface Input<P, Q, B> {
  params?: P;
  query?: Partial<Q>;
  body?: B;
  /** The kitchen it is meant for; this tab's unless given. */
  kitchenId?: string;
  /** Sent once only: whoever calls sends it again by itself. */
  once?: boolean;
  /** Who acts; whoever was tapped last at this device unless given. */
  personId?: string;
  /** The PIN of who acts; empty to be asked for it. */
  pin?: string;
}

/** Asks whoever acts for their PIN; null where they would rather not. */
export type PinAsker = (fault: Fault) => Promise<string | null>;
let askPin: PinAsker | null = null;
/** Says who asks for PINs. */
export function askPinsBy(by: PinAsker | null): void {
  askPin = by;
}
/** Answers of a server that wants a PIN, or another one. */
const PIN_CODES = new Set(['pin', 'no-pin', 'pin-locked']);

/** Keeps replies on the device, for when the kitchen cannot be reached. */
export interface ReplyKeeper {
  /** Whether replies of an endpoint are kept. */
  keeps(name: string): boolean;
  put(address: string, reply: unknown): void;
  /** The reply last seen, or undefined. */
  get(address: string): Promise<unknown>;
}
let keeper: ReplyKeeper | null = null;
/** Says where replies are kept. */
export function keepRepliesBy(by: ReplyKeeper): void {
  keeper = by;
}

/** Asks, and where nobody answers, gives what was answered last. */
async function ask<P, Q, B, R>(endpoint: Endpoint<P, Q, B, R>, input: Input<P, Q, B>): Promise<R> {
  if (!keeper?.keeps(endpoint.name)) return callOnce(endpoint, input);
  const address = addressOf(endpoint, (input.params ?? {}) as P, input.query, input.kitchenId);
  try {
    const reply = await callOnce(endpoint, input);
    keeper.put(address, reply);
    return reply;
  } catch (error) {
    const kept = error instanceof CallError && error.away ? await keeper.get(address) : undefined;
    if (kept === undefined) throw error;
    return kept as R;
  }
}

/**
 * Calls an endpoint. What found nobody, or was turned away for a moment, is sent again as it is, under the same ids,
 * before anything is said: the server does nothing twice.
 *
 * What takes a PIN on a device that several people use is asked for it here.
 *
 * @returns its reply
 * @throws CallError with the faults to show beside their fields
 */
export async function call<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  input: Input<P, Q, B> = {},
): Promise<R> {
  try {
    return await callAgain(endpoint, input);
  } catch (error) {
    const [fault] = error instanceof CallError && PIN_CODES.has(error.code) ? error.faults : [];
    const pin = fault && askPin ? await askPin(fault) : null;
    if (pin === null) throw error;
    return call(endpoint, { ...input, pin });
  }
}

async function callAgain<P, Q, B, R>(endpoint: Endpoint<P, Q, B, R>, input: Input<P, Q, B>): Promise<R> {
  // A question that is asked again by its view needs no second asking here.
  if (endpoint.method === 'GET') return ask(endpoint, input);
  const pauses = input.once ? [] : AGAIN_AFTER_MS;
  for (const pause_ms of pauses) {
    try {
      return await callOnce(endpoint, input);
    } catch (error) {
      if (!(error instanceof CallError) || !error.away) throw error;
      await new Promise(resolve => setTimeout(resolve, pause_ms));
    }
  }
  return callOnce(endpoint, input);
}

async function callOnce<P, Q, B, R>(endpoint: Endpoint<P, Q, B, R>, input: Input<P, Q, B>): Promise<R> {
  const sent = deviceTime();
  let response: Response;
  const hasBody = endpoint.method === 'POST' || endpoint.method === 'PUT';
  const file = endpoint.upload ? (input.body as unknown as Upload) : null;
  const acting = endpoint.path.startsWith('/api/kitchens/') ? (input.personId ?? actingId()) : null;
  try {
    response = await fetch(addressOf(endpoint, (input.params ?? {}) as P, input.query, input.kitchenId), {
      method: endpoint.method,
      credentials: 'same-origin',
      headers: {
        ...(hasBody ? { 'Content-Type': file ? file.mediaType : 'application/json' } : {}),
        ...(acting ? { [PERSON_HEADER]: acting } : {}),
        ...(input.pin === undefined ? {} : { [PIN_HEADER]: input.pin }),
      },
      ...(hasBody
        ? { body: file ? new Blob([file.bytes as BlobPart]) : JSON.stringify(input.body ?? {}) }
        : {}),
    });
  } catch {
    throw new CallError(0, 'no-answer', [away()]);
  }
  const server_ms = Number(response.headers.get(SERVER_TIME_HEADER));
  if (server_ms > 0) learnOffset(server_ms, sent);
  if (response.ok) return (await response.json()) as R;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if (!problem?.errors) throw new CallError(response.status, 'no-answer', [away()]);
  throw new CallError(response.status, problem.code, problem.errors, problem.newer);
}

/** Asks the server for nothing but its clock. */
export async function askTime(): Promise<void> {
  const sent = deviceTime();
  try {
    const response = await fetch('/api/health', { credentials: 'omit', cache: 'no-store' });
    const server_ms = Number(response.headers.get(SERVER_TIME_HEADER));
    if (server_ms > 0) learnOffset(server_ms, sent);
    await response.text();
  } catch {
    // Nobody answers: it is asked again.
  }
}

/** The faults of anything that was thrown. */
export function faultsOf(error: unknown): Fault[] {
  return error instanceof CallError
    ? error.faults
    : [misread('broken', { error: error instanceof Error ? error.message : '' }).fault];
}
