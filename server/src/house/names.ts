/**
 * Names and addresses under which this server is called: the machine's own, the one it listens on, and those of
 * `COCOTTE_NAMES`, apart by commas.
 *
 * @returns names in lower case, without ports
 */
export function namesFromEnvironment(env: NodeJS.ProcessEnv): string[] {
  const more = (env.COCOTTE_NAMES ?? '').split(',').map(name => name.trim().toLowerCase());
  const host = (env.HOST ?? '').toLowerCase();
  // "Every address of this machine" is no name anybody calls.
  const listening = ['', '0.0.0.0', '::'].includes(host) ? [] : [host, `[${host}]`];
  return [...new Set(['localhost', '127.0.0.1', ...listening, ...more.filter(Boolean)])];
}
