import { createHash, randomBytes } from 'node:crypto';
import { parse } from 'cookie';
import type { Request } from 'express';

/** A secret for a cookie or a link: 32 random bytes. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is stored of a secret. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** The stored form of the caller's session cookie, or null without one. */
export function sessionTokenHash(req: Request): string | null {
  const token = parse(req.headers.cookie ?? '').cocotte_session;
  return token ? hashToken(token) : null;
}
