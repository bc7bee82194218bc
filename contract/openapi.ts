import { byName } from '@cocotte/core/measure';
import { type AnyEndpoint, inKitchen } from './endpoint.ts';
import { PERSON_HEADER, PIN_HEADER } from './problem.ts';
import { documentOf, uuid } from './rules.ts';
import { ENDPOINTS } from './table.ts';

const PROBLEM = {
  type: 'object',
  required: ['type', 'title', 'status', 'code', 'requestId', 'errors'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    code: { type: 'string' },
    requestId: { type: 'string' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['path', 'code', 'what', 'why', 'next'],
        properties: byName(['path', 'code', 'what', 'why', 'next'].map(k => [k, { type: 'string' }])),
      },
    },
  },
};

/** The OpenAPI 3.1 document, printed from the endpoint table. */
export function openApi(): Record<string, unknown> {
  const paths = byName<Record<string, unknown>>();
  for (const e of ENDPOINTS) {
    const path = e.path.replaceAll(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[e.method.toLowerCase()] = operation(e);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Cocotte',
      version: '1',
      description:
        'Every call the interface makes. Sign in first; the session is a cookie. What is done in a kitchen names it in its path. Errors are RFC 9457 problems; a 503 with Retry-After may be sent again as it is, under the same ids.',
    },
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'cocotte_session' } },
      schemas: { Problem: PROBLEM },
    },
  };
}

const BINARY = { schema: { type: 'string', format: 'binary' } };

function goodReply(reply: AnyEndpoint['reply']): Record<string, unknown> {
  if (reply.kind === 'json')
    return { description: 'Done', content: { 'application/json': { schema: documentOf(reply.rule) } } };
  if (reply.kind === 'file')
    return {
      description: 'A file',
      content: byName(reply.mediaTypes.map(type => [type, BINARY] as const)),
    };
  return {
    description: 'Messages for as long as one listens: server-sent events whose data is JSON',
    content: { 'text/event-stream': { schema: documentOf(reply.rule) } },
  };
}

function operation(e: AnyEndpoint): Record<string, unknown> {
  const problem = {
    description: 'A problem',
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  };
  const good = goodReply(e.reply);
  const hasBody = e.method === 'POST' || e.method === 'PUT';
  return {
    operationId: e.name,
    summary: e.summary,
    'x-who': e.who,
    ...(e.who === 'anyone' ? {} : { security: [{ session: [] }] }),
    ...(e.signs ? { 'x-signs': true } : {}),
    ...(e.signs || e.asksPin ? { 'x-asks-pin': true } : {}),
    parameters: [
      ...(inKitchen(e) ? parameters({ properties: { kitchenId: documentOf(uuid) } }, 'path') : []),
      ...parameters(documentOf(e.params), 'path'),
      ...parameters(documentOf(e.query), 'query'),
      ...(inKitchen(e)
        ? [
            header(
              PERSON_HEADER,
              'Who acts, where several people are signed in on the device',
              documentOf(uuid),
            ),
          ]
        : []),
      ...(e.signs || e.asksPin
        ? [header(PIN_HEADER, 'The PIN of who acts, where several people use the device', { type: 'string' })]
        : []),
    ],
    ...(hasBody
      ? {
          requestBody: {
            required: true,
            content: e.upload
              ? byName(e.upload.mediaTypes.map(type => [type, BINARY] as const))
              : { 'application/json': { schema: documentOf(e.body) } },
          },
        }
      : {}),
    responses: { 200: good, default: problem },
  };
}

function header(name: string, description: string, schema: unknown) {
  return { name, in: 'header', required: false, description, schema };
}

function parameters(document: Record<string, unknown>, place: 'path' | 'query'): unknown[] {
  return Object.entries((document.properties ?? {}) as Record<string, unknown>).map(([name, schema]) => ({
    name,
    in: place,
    required: place === 'path',
    schema,
  }));
}
