import type { Role } from '@cocotte/core/kitchen';
import { type JsonSchema, type Rule, nothing } from './rules.ts';

/** Who may call: anyone, anyone signed in, or the least role in the kitchen. */
export type Caller = 'anyone' | 'signed in' | Role;

/** What an endpoint answers: JSON by its rule, a file, or a stream of messages (server-sent events), each JSON by its rule. */
export type Reply<T> =
  | { kind: 'json'; rule: Rule<T> }
  | { kind: 'file'; mediaTypes: readonly string[] }
  | { kind: 'stream'; rule: Rule<T> };

/** A file that is handed in as the whole body, in place of JSON. */
export interface Upload {
  mediaType: string;
  bytes: Uint8Array;
}
/** Which files an endpoint takes. */
export interface UploadLimits {
  mediaTypes: readonly string[];
  limit_bytes: number;
}
/** A file that is given out, where an endpoint has several kinds of it. */
export interface FileReply {
  mediaType: string;
  bytes: Uint8Array;
}

/** One endpoint, written once: the server mounts it, the browser calls it, OpenAPI is printed from it. */
export interface Endpoint<P, Q, B, R> {
  name: string;
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /**
   * Express path under the origin. What is done in a kitchen names it, `/api/kitchens/:kitchenId/batches/:batchId`: the
   * kitchen is no parameter of the endpoint's own, for membership in it is settled before anything else is read.
   */
  path: string;
  who: Caller;
  /** It also takes the right to release and sign. */
  signs?: boolean;
  /** On a device that several people use it asks for the PIN of whoever acts, as what signs does. */
  asksPin?: boolean;
  summary: string;
  params: Rule<P>;
  query: Rule<Q>;
  body: Rule<B>;
  /** It takes a file as its body; null for JSON by the rule of `body`. */
  upload: UploadLimits | null;
  reply: Reply<R>;
}

/** An endpoint of whatever params, query, body and reply. */
// oxlint-disable-next-line typescript/no-explicit-any -- the table holds endpoints of every shape
export type AnyEndpoint = Endpoint<any, any, any, any>;

type None = Record<never, never>;

/** Whether an endpoint acts in a kitchen, which its path then names. */
export const inKitchen = (e: AnyEndpoint): boolean => e.who !== 'anyone' && e.who !== 'signed in';

/** Declares an endpoint that replies in JSON. Params, query and body are empty unless given. */
export function endpoint<P = None, Q = None, B = None, R = None>(e: {
  name: string;
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  path: string;
  who: Caller;
  signs?: boolean;
  asksPin?: boolean;
  summary: string;
  params?: Rule<P>;
  query?: Rule<Q>;
  body?: Rule<B>;
  reply: Rule<R>;
}): Endpoint<P, Q, B, R> {
  return { ...e, ...filled(e), reply: { kind: 'json', rule: e.reply } };
}

/** Declares an endpoint whose body is a file: what describes it stands in path and query. */
export function uploadEndpoint<P = None, Q = None, R = None>(e: {
  name: string;
  path: string;
  who: Caller;
  summary: string;
  params?: Rule<P>;
  query?: Rule<Q>;
  upload: UploadLimits;
  reply: Rule<R>;
}): Endpoint<P, Q, Upload, R> {
  return {
    ...e,
    method: 'POST',
    ...filled<P, Q, Upload>(e),
    upload: e.upload,
    reply: { kind: 'json', rule: e.reply },
  };
}

/** Declares an endpoint that replies with a file. */
export function fileEndpoint<P = None, Q = None>(
  e: FileAsked<P, Q> & { mediaType: string },
): Endpoint<P, Q, None, Uint8Array> {
  const { mediaType, ...rest } = e;
  return {
    ...rest,
    method: 'GET',
    ...filled<P, Q, None>(e),
    reply: { kind: 'file', mediaTypes: [mediaType] },
  };
}

/** Declares an endpoint that replies with a file of one of several kinds, and says of which. */
export function anyFileEndpoint<P = None, Q = None>(
  e: FileAsked<P, Q> & { mediaTypes: readonly string[] },
): Endpoint<P, Q, None, FileReply> {
  const { mediaTypes, ...rest } = e;
  return { ...rest, method: 'GET', ...filled<P, Q, None>(e), reply: { kind: 'file', mediaTypes } };
}

interface FileAsked<P, Q> {
  name: string;
  path: string;
  who: Caller;
  summary: string;
  params?: Rule<P>;
  query?: Rule<Q>;
}

/** Declares an endpoint that goes on telling: a stream of messages for as long as the caller listens. */
export function streamEndpoint<P = None, Q = None, M = None>(e: {
  name: string;
  path: string;
  who: Caller;
  summary: string;
  params?: Rule<P>;
  query?: Rule<Q>;
  message: Rule<M>;
}): Endpoint<P, Q, None, M> {
  const { message, ...rest } = e;
  return { ...rest, method: 'GET', ...filled<P, Q, None>(e), reply: { kind: 'stream', rule: message } };
}

function filled<P, Q, B>(e: { params?: Rule<P>; query?: Rule<Q>; body?: Rule<B> }) {
  return {
    params: e.params ?? (nothing as Rule<P>),
    query: e.query ?? (nothing as Rule<Q>),
    body: e.body ?? (nothing as Rule<B>),
    upload: null,
  };
}

/** Type of the params of an endpoint. */
export type ParamsOf<E> = E extends Endpoint<infer P, infer _Q, infer _B, infer _R> ? P : never;
/** Type of its query. */
export type QueryOf<E> = E extends Endpoint<infer _P, infer Q, infer _B, infer _R> ? Q : never;
/** Type of its body. */
export type BodyOf<E> = E extends Endpoint<infer _P, infer _Q, infer B, infer _R> ? B : never;
/** Type of its reply. */
export type ReplyOf<E> = E extends Endpoint<infer _P, infer _Q, infer _B, infer R> ? R : never;

export type { JsonSchema };
