/**
 * Formats of a locale, each made once: making one takes a hundred times as long as using it. What they depend on is all
 * in their name, so that keeping them changes nothing.
 */
const numbers = new Map<string, Intl.NumberFormat>();
const times = new Map<string, Intl.DateTimeFormat>();
/** A kitchen uses a few dozen; a server of many kitchens forgets them all now and then. */
const MOST = 500;

function kept<T>(known: Map<string, T>, locale: string, options: object, make: () => T): T {
  const name = `${locale} ${JSON.stringify(options)}`;
  let format = known.get(name);
  if (format === undefined) {
    if (known.size >= MOST) known.clear();
    format = make();
    known.set(name, format);
  }
  return format;
}

/** @throws RangeError for a locale that is none */
export function numberFormat(locale: string, options: Intl.NumberFormatOptions = {}): Intl.NumberFormat {
  return kept(numbers, locale, options, () => new Intl.NumberFormat(locale, options));
}

/** @throws RangeError for a locale or zone that is none */
export function timeFormat(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  return kept(times, locale, options, () => new Intl.DateTimeFormat(locale, options));
}
