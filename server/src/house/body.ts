import { type AnyEndpoint, type Endpoint, JSON_LIMIT, type Upload, check } from '@cocotte/contract';
import { documentOf } from '@cocotte/contract/rules';
import { byName } from '@cocotte/core/measure';
import express, { type Request, type Response } from 'express';
import { isBounded } from './json-bounds.ts';
import { HttpProblem, problem } from './problems.ts';

const bytesOf = express.raw({ type: () => true, limit: JSON_LIMIT });
const hasBody = (endpoint: AnyEndpoint) => endpoint.method === 'POST' || endpoint.method === 'PUT';

const mediaTypeOf = (req: Request): string =>
  (req.headers['content-type'] ?? '').split(';')[0]?.trim().toLowerCase() ?? '';

/** @throws HttpProblem 415 for a file of a kind that the endpoint does not take */
export function fileOf({ upload }: AnyEndpoint, req: Request, bytes: Buffer | null): Upload {
  const mediaType = mediaTypeOf(req);
  if (!upload?.mediaTypes.includes(mediaType))
    throw problem(415, {
      code: 'not-a-paper',
      what: 'This is neither a picture nor a PDF.',
      why: `Files of the kinds ${upload?.mediaTypes.join(', ')} are taken.`,
      next: 'Photograph or scan it, or save it as a PDF.',
    });
  return { mediaType, bytes: bytes ?? Buffer.alloc(0) };
}

/** The body as it came, up to the limit and not yet looked at; null where there is to be none. */
export async function bodyOf(endpoint: AnyEndpoint, req: Request, res: Response): Promise<Buffer | null> {
  if (!hasBody(endpoint)) return null;
  const { upload } = endpoint;
  if (upload) {
    await readBytes(
      express.raw({ type: () => true, limit: upload.limit_bytes }),
      req,
      res,
      upload.limit_bytes,
    );
    return Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
  }
  const charset = /charset=["']?([^"';\s]+)/i.exec(req.headers['content-type'] ?? '')?.[1];
  if (!req.is('json') || (charset && !/^utf-?8$/i.test(charset)))
    throw problem(415, {
      code: 'not-json',
      what: 'There is no JSON body.',
      why: 'This call needs one, in UTF-8.',
      next: 'Send application/json.',
    });
  await readBytes(bytesOf, req, res, JSON_LIMIT);
  return Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
}

/** @throws HttpProblem 413 for a body above the limit */
async function readBytes(
  reader: ReturnType<typeof express.raw>,
  req: Request,
  res: Response,
  limit_bytes: number,
): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    reader(req, res, (error?: unknown) => (error ? reject(error as Error) : resolve()));
  }).catch((error: unknown) => {
    if ((error as { type?: string }).type !== 'entity.too.large') throw error;
    throw problem(413, {
      code: 'too-large',
      what: `The request is larger than ${limit_bytes / 1e6} MB.`,
      why: 'What comes in has a limit, so that one caller does not fill the room of all.',
      next: 'Send it smaller, or in parts.',
    });
  });
}

const utf8 = new TextDecoder('utf-8', { fatal: true });

function parsed(bytes: Buffer): unknown {
  if (!isBounded(bytes))
    throw problem(422, {
      code: 'too-many',
      what: 'The body is built of more parts than any call has.',
      why: 'Reading it would hold up everybody else.',
      next: 'Send it in smaller parts.',
    });
  try {
    const value: unknown = JSON.parse(utf8.decode(bytes));
    if (value !== null && typeof value === 'object') return value;
  } catch {
    // Said below.
  }
  throw problem(400, {
    code: 'malformed-json',
    what: 'The body is not JSON.',
    why: 'It could not be read.',
    next: 'Send well-formed JSON.',
  });
}

/** Params, query and body of a call, each held against its rule; every fault is told at once. */
export function readInput<P, Q, B, R>(
  endpoint: Endpoint<P, Q, B, R>,
  givenParams: object,
  givenQuery: object,
  bytes: Buffer | null,
): { params: P; query: Q; body: B } {
  // A query key that is left out is the empty text.
  const left = Object.keys((documentOf(endpoint.query).properties ?? {}) as object).map(
    k => [k, ''] as const,
  );
  const params = check(endpoint.params, { ...givenParams });
  const query = check(endpoint.query, byName([...left, ...Object.entries(givenQuery)]));
  const body =
    bytes && !endpoint.upload ? check(endpoint.body, parsed(bytes)) : { ok: true as const, value: {} as B };
  const faults = [params, query, body].flatMap(c => (c.ok ? [] : c.faults));
  if (!params.ok || !query.ok || !body.ok) throw new HttpProblem(422, 'invalid', faults);
  return { params: params.value, query: query.value, body: body.value };
}
