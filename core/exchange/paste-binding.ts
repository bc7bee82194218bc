import { Fraction } from '../measure/index.ts';
import { asWords, type Line, looseAmounts, namesOfLine, type Step, unboundNames } from '../recipes/index.ts';

/** Words that mean several lines at once. */
const ALL =
  /\b(?:everything|all (?:the )?(?:remaining )?ingredients|(?:mix|combine|chop|boil|put|cook) (?:it )?all\b|remaining ingredients|all of it)\b/i;
const BUT = /\b(?:but|except(?: for)?)\b\s+([^.;]*)/i;
const GROUPS: readonly [RegExp, (line: Line) => boolean][] = [
  [/\b(?:fruit|berries)\b/i, l => l.role === 'fruit'],
  [/\bvegetables\b/i, l => l.role === 'low-acid produce'],
  [/\b(?:spices|seasonings|herbs)\b/i, l => l.role === 'spice'],
];
const PART: readonly [RegExp, string][] = [
  [/\bhalf (?:of )?(?:the )?$/i, '1/2'],
  [/\b(?:one|a|1)[ -]third (?:of )?(?:the )?$/i, '1/3'],
  [/\b(?:two|2)[ -]thirds (?:of )?(?:the )?$/i, '2/3'],
  [/\b(?:one|a|1)[ -]quarter (?:of )?(?:the )?$/i, '1/4'],
];

/**
 * What goes in at which step, by the words of the steps: a line goes in where it is first named, a part of it where the
 * words say how much, the rest where they say so or where it is named again. Amounts that belong to a line are bound to
 * it, minutes and headspace of the heat step to its process, so that the words never contradict the figures.
 *
 * @returns the steps; a line whose parts do not make a whole goes in at none
 */
export function boundSteps(steps: readonly Step[], lines: readonly Line[]): Step[] {
  const left = new Map(lines.map(l => [l.id, new Fraction(1)]));
  const out = steps.map((step): Step => {
    const adds = new Map<string, Fraction>();
    const put = (line: Line, share: Fraction) => {
      const rest = left.get(line.id) ?? new Fraction(0);
      const some = share.compare(rest) > 0 ? rest : share;
      if (some.compare(0) <= 0) return;
      left.set(line.id, rest.sub(some));
      adds.set(line.id, (adds.get(line.id) ?? new Fraction(0)).add(some));
    };
    if (step.kind === 'process' || step.kind === 'cool') return { ...step, text: ofProcess(step) };
    let { text } = step;
    for (let loose = looseAmounts({ lines: [...lines], steps: [] }, { text })[0]; loose;) {
      const line = lines.find(l => l.id === loose?.lineId) as Line;
      put(line, new Fraction(loose.share));
      ({ text } = loose);
      loose = looseAmounts({ lines: [...lines], steps: [] }, { text })[0];
    }
    const plain = step.text;
    const named = (line: Line): { at: number } | null => {
      for (const name of namesOfLine(line)) {
        const m = new RegExp(asWords(name), 'i').exec(plain);
        if (m) return { at: m.index };
      }
      return null;
    };
    const but = BUT.exec(plain)?.[1] ?? '';
    const excepted = (line: Line) => namesOfLine(line).some(n => new RegExp(asWords(n), 'i').test(but));
    for (const line of lines) {
      if (adds.has(line.id) || (but !== '' && excepted(line))) continue;
      const at = named(line);
      const inAll = line.where !== 'each jar' && ALL.test(plain);
      const inGroup = GROUPS.some(([words, is]) => is(line) && words.test(plain));
      const dosed = line.where === 'each jar' && step.kind === 'fill';
      if (at) {
        const before = plain.slice(0, at.at);
        const part = PART.find(([words]) => words.test(before))?.[1];
        put(line, new Fraction(part ?? 1));
      } else if (inAll || inGroup || dosed) put(line, new Fraction(1));
    }
    return {
      ...step,
      text: step.kind === 'fill' ? ofProcess({ ...step, text }) : text,
      adds: [...adds].map(([lineId, share]) => ({ lineId, share: share.toFraction() })),
    };
  });
  // Parts that make no whole: the steps would take a part of a line, and nobody would know where the rest goes.
  const torn = new Set(
    [...left].filter(([, rest]) => rest.compare(0) > 0 && rest.compare(1) < 0).map(([id]) => id),
  );
  return out.map((step, i) => {
    const written = steps[i] as Step;
    const whole = { ...step, adds: step.adds.filter(a => !torn.has(a.lineId)) };
    // What is bound to no one line stays as it was written.
    const loose = looseAmounts({ lines: [...lines], steps: [] }, written);
    const free = loose.some(l => torn.has(l.lineId)) || unboundNames({ lines: [...lines] }, whole).length > 0;
    return free ? { ...whole, text: step.kind === 'fill' ? ofProcess(written) : written.text } : whole;
  });
}

const HEADSPACE =
  /(?:\d+\s+\d\/\d|\d\/\d|\d+(?:[.,]\d+)?|[¼½¾]|one)[- ]*(?:inch|inches|in\b\.?|"|”|cm|mm)(?=[^.;\d]{0,3}\s*(?:of )?head ?-?(?:space|room))/gi;
const SPACE_AFTER =
  /(\bhead ?-?(?:space|room)\b[^.;\d]{0,12})(?:\d+\s+\d\/\d|\d\/\d|\d+(?:[.,]\d+)?|[¼½¾])[- ]*(?:inch(?:es)?|in\b\.?|"|”|cm|mm)/gi;

/** The words of filling and heating, their minutes and headspace left to the process. */
function ofProcess({ kind, text }: Pick<Step, 'kind' | 'text'>): string {
  const spaced = text.replaceAll(HEADSPACE, '{headspace}').replaceAll(SPACE_AFTER, '$1{headspace}');
  if (kind !== 'process') return spaced;
  const times = [...spaced.matchAll(/\b\d{1,3}(?:\s*(?:to|-)\s*\d{1,3})?\s*(?:minutes?|mins?\b\.?)/gi)];
  // Several times are of several jars: the process of this kitchen has them all.
  return times.length === 1 ? spaced.replace((times[0] as RegExpMatchArray)[0], '{minutes}') : spaced;
}
