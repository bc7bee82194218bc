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

/** What a refusal says: its code, what is wrong, why, what to do next, and the field it stands beside. */
export interface Told {
  code: string;
  what: string;
  why: string;
  next: string;
  /** Path of the field in what was sent; left out where it is none. */
  path?: string;
}

/** One fault on the whole request. */
export function problem(status: number, { path = '', ...of }: Told): HttpProblem {
  return new HttpProblem(status, of.code, [{ path, ...of }]);
}

/**
 * The problem of an id that names something else already.
 *
 * @param what  it names, "lot"
 * @param path  of the field that has it
 */
export function idTaken(what: string, path?: string): HttpProblem {
  return problem(409, {
    code: 'id-taken',
    what: `Another ${what} has this id.`,
    why: 'An id names one thing.',
    next: 'Reload and enter it again.',
    ...(path === undefined ? {} : { path }),
  });
}

/** The problem of something that is not in this kitchen, or nowhere: the two are not told apart. */
export const notFound = (what: string) =>
  problem(404, {
    code: 'not-found',
    what: `${what} is not in this kitchen.`,
    why: 'It was never here, or the address is mistyped.',
    next: 'Go back to the list.',
  });

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
export function retryable(of: Told): HttpProblem {
  return Object.assign(problem(503, of), { retry_s: 1 });
}

function classify(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof Refusal) return new HttpProblem(422, error.faults[0]?.code ?? 'refused', error.faults);
  if (error instanceof OutcomeUnknown)
    return retryable({
      code: 'outcome-unknown',
      what: 'Whether this was written is not known.',
      why: 'The database took it, and its answer was lost.',
      next: 'The same call sent again, under the same id, tells; it is not written twice.',
    });
  if (isAway(error))
    return error instanceof DatabaseAway && error.why === 'busy'
      ? retryable({
          code: 'busy',
          what: 'The kitchen has too much to do just now.',
          why: 'Others were before you, or hold what this needs.',
          next: 'Nothing was written. The same call sent again in a moment will do.',
        })
      : retryable({
          code: 'database-away',
          what: "The kitchen's book cannot be reached just now.",
          why: 'The database does not answer.',
          next: 'Nothing was written. What you entered is kept on this device; it is sent when the book is back.',
        });
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.parse.failed')
    return problem(400, {
      code: 'malformed-json',
      what: 'The body is not JSON.',
      why: 'It could not be read.',
      next: 'Send well-formed JSON.',
    });
  if (status === 415 || type === 'charset.unsupported' || type === 'encoding.unsupported')
    return problem(415, {
      code: 'not-json',
      what: 'The body is in a form we do not read.',
      why: 'Only JSON in UTF-8 is read.',
      next: 'Send application/json.',
    });
  if ((error as { code?: string }).code === '23505')
    return problem(409, {
      code: 'id-taken',
      what: 'Something else is here under this id or name.',
      why: 'An id names one thing.',
      next: 'Reload and enter it again.',
    });
  // A value that passed our rules and that PostgreSQL cannot hold (class 22 of SQLSTATE).
  if (String((error as { code?: string }).code ?? '').startsWith('22'))
    return problem(422, {
      code: 'not-storable',
      what: 'Something in this request cannot be kept.',
      why: 'A figure or a text lies outside what the book can hold.',
      next: 'Check what you entered and send it again.',
    });
  if (status === 404)
    return problem(404, {
      code: 'not-found',
      what: 'There is nothing at this address.',
      why: 'It is mistyped, or of an older version.',
      next: 'Go back, or reload the page.',
    });
  if (status !== undefined && status >= 400 && status < 500)
    return problem(status, {
      code: 'bad-request',
      what: 'The request could not be read.',
      why: 'Its address or body is malformed.',
      next: 'Check it and send it again.',
    });
  return problem(500, {
    code: 'broken',
    what: 'Something broke on our side.',
    why: 'It has been logged with the number of this request.',
    next: 'Try again; if it stays, say the number.',
  });
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
