import type { Fault } from '@cocotte/core/measure';

/** An error body, RFC 9457 (`application/problem+json`). */
export interface Problem {
  type: string;
  title: string;
  status: number;
  /** Stable, for programs. */
  code: string;
  requestId: string;
  errors: Fault[];
  /** For a stale update: the newer row. */
  newer?: unknown;
}

/** Body limit of JSON calls, bytes. */
export const JSON_LIMIT = 1_000_000;

/** Reply header with the server's clock in milliseconds, from which a device learns its offset. */
export const SERVER_TIME_HEADER = 'server-time-ms';
/** Names who acts at a device on which several people are signed in; whoever signed in last where it is left out. */
export const PERSON_HEADER = 'cocotte-person';
/** Carries the PIN of whoever acts, where it is asked for. */
export const PIN_HEADER = 'cocotte-pin';
