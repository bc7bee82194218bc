import pino from 'pino';

/** The server's log: JSON lines on standard error, warnings and worse unless LOG_LEVEL says otherwise. */
export const log = pino({ level: process.env.LOG_LEVEL ?? 'warn', base: null }, pino.destination(2));
