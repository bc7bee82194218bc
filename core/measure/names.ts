declare const BARE: unique symbol;

/**
 * Things by their names, where a name may be anything a person, a file or a device says: `__proto__` and `constructor`
 * are names like any other. It has no prototype, so that nothing is found in it but what was put there.
 */
export type Names<T> = { [name: string]: T } & { readonly [BARE]: true };

/**
 * Makes such a table.
 *
 * @param given  pairs of name and thing, or a table written down; of two things of one name the later counts
 * @example
 * const grams = byName([['constructor', 200]]);
 * grams['constructor']; // 200
 * byName()['constructor']; // undefined
 */
export function byName<T>(pairs?: Iterable<readonly [string, T]>): Names<T>;
export function byName<T>(table: Readonly<Record<string, T>>): Names<T>;
export function byName<T>(
  given: Iterable<readonly [string, T]> | Readonly<Record<string, T>> = [],
): Names<T> {
  const table = Object.create(null) as Names<T>;
  const pairs = Symbol.iterator in given ? (given as Iterable<readonly [string, T]>) : Object.entries(given);
  for (const [name, thing] of pairs) Object.defineProperty(table, name, { value: thing, ...OPEN });
  return table;
}

/**
 * The same for a table whose names are known beforehand, such as jar sizes.
 *
 * @example
 * ofNames(JAR_SIZES.map(s => [s.id, s.plural])).pint; // 'pints'
 */
export function ofNames<K extends string, T>(pairs: Iterable<readonly [K, T]>): Partial<Record<K, T>> {
  return byName(pairs) as unknown as Partial<Record<K, T>>;
}

/** A property like any that is written by `=`, made without asking what `=` means for its name. */
const OPEN = { writable: true, enumerable: true, configurable: true } as const;

/**
 * What stands in a table under a name, and nothing that it merely inherits: for tables that were read from JSON.
 *
 * @returns undefined where nothing was put under it
 */
export function under<T>(
  table: { readonly [name: string]: T } | undefined | null,
  name: string,
): T | undefined {
  return table && Object.hasOwn(table, name) ? table[name] : undefined;
}
