import { MOST_FAULTS, type Problem } from '@cocotte/contract';
import { type Fault, Refusal } from '@cocotte/core/measure';
import type { NextFunction, Request, Response } from 'express';
import { OutcomeUnknown, DatabaseAway, isAway } from './database.ts';
import { log } from './log.ts';

/** An error with its status: thrown by services, told to the caller as a problem. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly faults: Fault[],
    readonly newer?: unknown,
  ) {
    super(`${code}: ${faults.map(f => f.what).join(' ')}`);
    this.name = 'HttpProblem';
  }
}

/** One fault on the whole request. */
export function problem(
  status: number,
  code: string,
  what: string,
  why: string,
  next: string,
  path = '',
): HttpProblem {
  return new HttpProblem(status, code, [{ path, code, what, why, next }]);
}

export const notFound = (what: string) =>
  problem(
    404,
    'not-found',
    `${what} is not in this kitchen.`,
    'It was never here, or the address is mistyped.',
    'Go back to the list.',
  );

const TITLES: Record<number, string> = {
  400: 'The request could not be read',
  401: 'Sign in first',
  403: 'Not allowed',
  404: 'Not found',
  409: 'It conflicts with what is there',
  413: 'Too large',
  415: 'Not JSON',
  422: 'It could not be done as asked',
  421: 'Not the name of this server',
  429: 'Too many tries',
  500: 'Something broke here',
  503: "The kitchen's book is away",
};

/** A 503 that says when to ask again. */
export function retryable(code: string, what: string, why: string, next: string): HttpProblem {
  return Object.assign(problem(503, code, what, why, next), { retry_s: 1 });
}

function classify(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof Refusal) return new HttpProblem(422, error.faults[0]?.code ?? 'refused', error.faults);
  if (error instanceof OutcomeUnknown)
    return retryable(
      'outcome-unknown',
      'Whether this was written is not known.',
      'The database took it, and its answer was lost.',
      'The same call sent again, under the same id, tells; it is not written twice.',
    );
  if (isAway(error))
    return error instanceof DatabaseAway && error.why === 'busy'
      ? retryable(
          'busy',
          'The kitchen has too much to do just now.',
          'Others were before you, or hold what this needs.',
          'Nothing was written. The same call sent again in a moment will do.',
        )
      : retryable(
          'database-away',
          "The kitchen's book cannot be reached just now.",
          'The database does not answer.',
          'Nothing was written. What you entered is kept on this device; it is sent when the book is back.',
        );
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return problem(
      413,
      'too-large',
      'The request is larger than 1 MB.',
      'JSON calls have a limit.',
      'Send it in parts.',
    );
  if (type === 'entity.parse.failed')
    return problem(
      400,
      'malformed-json',
      'The body is not JSON.',
      'It could not be read.',
      'Send well-formed JSON.',
    );
  if (status === 415 || type === 'charset.unsupported' || type === 'encoding.unsupported')
    return problem(
      415,
      'not-json',
      'The body is in a form we do not read.',
      'Only JSON in UTF-8 is read.',
      'Send application/json.',
    );
  if ((error as { code?: string }).code === '23505')
    return problem(
      409,
      'id-taken',
      'Something else is here under this id or name.',
      'An id names one thing.',
      'Reload and enter it again.',
    );
  // A value that passed our rules and that PostgreSQL cannot hold (class 22 of SQLSTATE).
  if (String((error as { code?: string }).code ?? '').startsWith('22'))
    return problem(
      422,
      'not-storable',
      'Something in this request cannot be kept.',
      'A figure or a text lies outside what the book can hold.',
      'Check what you entered and send it again.',
    );
  if (status === 404)
    return problem(
      404,
      'not-found',
      'There is nothing at this address.',
      'It is mistyped, or of an older version.',
      'Go back, or reload the page.',
    );
  if (status !== undefined && status >= 400 && status < 500)
    return problem(
      status,
      'bad-request',
      'The request could not be read.',
      'Its address or body is malformed.',
      'Check it and send it again.',
    );
  return problem(
    500,
    'broken',
    'Something broke on our side.',
    'It has been logged with the number of this request.',
    'Try again; if it stays, say the number.',
  );
}

/** The last of the middleware: every error leaves as `application/problem+json`. */
export function tellProblem(error: unknown, req: Request, res: Response, _next: NextFunction): void {
  const p = classify(error);
  if (p.status >= 500 || p.code === 'not-storable')
    log.error(
      {
        requestId: res.locals.requestId,
        method: req.method,
        path: req.path,
        error: error instanceof Error ? { message: error.message, stack: error.stack } : error,
      },
      p.code,
    );
  if (res.headersSent) {
    res.destroy();
    return;
  }
  const body: Problem = {
    type: `urn:cocotte:problem:${p.code}`,
    title: TITLES[p.status] ?? 'A problem',
    status: p.status,
    code: p.code,
    requestId: String(res.locals.requestId ?? ''),
    errors: p.faults.slice(0, MOST_FAULTS),
    ...(p.newer === undefined ? {} : { newer: p.newer }),
  };
  if (p.status === 429 || p.status === 503)
    res.setHeader('Retry-After', String((p as HttpProblem & { retry_s?: number }).retry_s ?? 1));
  res.status(p.status).type('application/problem+json').send(JSON.stringify(body));
}
