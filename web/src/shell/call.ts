import { type Endpoint, type Problem, SERVER_TIME_HEADER } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { learnOffset } from './clock.ts';

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

const AWAY: Fault = {
  path: '',
  code: 'no-answer',
  what: "The kitchen's book cannot be reached just now.",
  why: 'There is no answer from the server.',
  next: 'What you entered stays here; it is tried again.',
};

/** The address of an endpoint with its params in place. */
export function addressOf<P, Q, B, R>(endpoint: Endpoint<P, Q, B, R>, params: P, query?: Partial<Q>): string {
  const path = endpoint.path.replaceAll(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[name])),
  );
  const given = Object.entries((query ?? {}) as Record<string, string>).filter(
    ([, v]) => v !== '' && v !== undefined,
  );
  return given.length === 0 ? path : `${path}?${new URLSearchParams(given).toString()}`;
}

/**
 * Calls an endpoint.
 *
 * @returns its reply
 * @throws CallError with the faults to show beside their fields
 */
export async function call<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  input: { params?: P; query?: Partial<Q>; body?: B } = {},
): Promise<R> {
  const sent_ms = Date.now();
  let response: Response;
  const hasBody = endpoint.method === 'POST' || endpoint.method === 'PUT';
  try {
    response = await fetch(addressOf(endpoint, (input.params ?? {}) as P, input.query), {
      method: endpoint.method,
      credentials: 'same-origin',
      ...(hasBody
        ? { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(input.body ?? {}) }
        : {}),
    });
  } catch {
    throw new CallError(0, 'no-answer', [AWAY]);
  }
  const server_ms = Number(response.headers.get(SERVER_TIME_HEADER));
  if (server_ms > 0) learnOffset(server_ms, sent_ms, Date.now());
  if (response.ok) return (await response.json()) as R;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if (!problem?.errors) throw new CallError(response.status, 'no-answer', [AWAY]);
  throw new CallError(response.status, problem.code, problem.errors, problem.newer);
}

/** The faults of anything that was thrown. */
export function faultsOf(error: unknown): Fault[] {
  return error instanceof CallError
    ? error.faults
    : [
        {
          path: '',
          code: 'broken',
          what: 'Something broke here.',
          why: error instanceof Error ? error.message : '',
          next: 'Try again.',
        },
      ];
}
