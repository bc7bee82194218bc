import { createHash, randomBytes } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';

/** Name of the cookie a session is known by. */
export const SESSION_COOKIE = 'cocotte_session';
/** Tells a device on which somebody signed in before. It opens nothing. */
export const DEVICE_COOKIE = 'cocotte_device';
/** How long each is kept, in days. */
const DAYS: Record<typeof SESSION_COOKIE | typeof DEVICE_COOKIE, number> = {
  [SESSION_COOKIE]: 30,
  [DEVICE_COOKIE]: 400,
};

/** A secret for a cookie or a link: 32 random bytes. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is stored of a secret. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** The stored form of one of the caller's cookies, or null without it. */
export function cookieHash(req: Request, name: string): string | null {
  const { cookie } = req.headers;
  if (!cookie?.includes(name)) return null;
  const token = parse(cookie)[name];
  return token ? hashToken(token) : null;
}

/** Sets a cookie that no script reads; null clears it. */
export function setCookie(res: Response, name: string, token: string | null, secure: boolean): void {
  const days = DAYS[name as keyof typeof DAYS];
  const attributes = `HttpOnly; SameSite=Lax; Path=/${secure ? '; Secure' : ''}`;
  res.appendHeader(
    'Set-Cookie',
    token === null
      ? `${name}=; Max-Age=0; ${attributes}`
      : `${name}=${token}; Max-Age=${days * 86_400}; ${attributes}`,
  );
}
