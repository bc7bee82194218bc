import { type Step, type StepKind, stepFrom } from '../recipes/index.ts';

/** A step as it was read from pasted text, with its number there. */
export interface PastedStep {
  number: number;
  text: string;
  step: Step;
}

/** Signs that begin a row and say nothing. */
export const BULLET = /^\s*(?:[-*\u2022\u2013\u2014\u25a2\u25a1\u25e6\u00b7]|\[\s?\])\s+/;
/** A number that begins a row. */
export const NUMBERED = /^\s*(?:step\s*)?\d{1,2}\s*[.):]\s+/i;

const STEP_LENGTH = 600;
/** A step longer than a step may be is cut between sentences. */
export function inParts(row: string): string[] {
  if (row.length <= STEP_LENGTH) return [row];
  const parts = [''];
  for (const sentence of row.split(/(?<=[.!;])\s+/).flatMap(s => s.match(/.{1,600}/gs) ?? [])) {
    const last = parts.at(-1) as string;
    if (`${last} ${sentence}`.length > STEP_LENGTH) parts.push(sentence);
    else parts[parts.length - 1] = `${last} ${sentence}`.trim();
  }
  return parts;
}

const KINDS: [RegExp, StepKind][] = [
  [/\bprocess\b|water[- ]bath|canner|boiling water for \d+/i, 'process'],
  [/\b(?:fill|ladle|pack)\b.*\bjars?\b|\binto (?:hot |sterile |clean |sterilized )?jars\b/i, 'fill'],
  [/\b(?:strain|drip|jelly bag|through (?:a )?(?:cheese)?cloth)\b/i, 'strain'],
  [/\bovernight\b|\blet (?:it )?(?:stand|sit|rest)\b|\bmacerate\b/i, 'rest'],
  [/\bsoak\b|\bcover with (?:cold |ice )?(?:salt|water|brine)/i, 'soak'],
  [/\bcool\b(?! water).*\b(?:hours?|h|overnight)\b|\blet (?:jars )?cool\b/i, 'cool'],
  [/\bmeasure (?:the )?(?:juice|pulp)\b/i, 'measure'],
  [/\b(?:boil|simmer|cook|heat|reduce|gel)\b/i, 'cook'],
];

const SHARES: [RegExp, number][] = [
  [/\b(?:two|2)[- ]thirds\b|\b2\/3\b/i, 2 / 3],
  [/\b(?:one|a|1)[- ]third\b|\b1\/3\b/i, 1 / 3],
  [/\b(?:three|3)[- ]quarters\b|\b3\/4\b/i, 3 / 4],
  [/\b(?:one|a|1)[- ]quarter\b|\b1\/4\b/i, 1 / 4],
  [/\bhalf\b|\b1\/2\b/i, 1 / 2],
];

/** The share that boils away, "reduced by one third" or "reduced to two thirds"; null where nothing says so. */
function reducedIn(text: string): number | null {
  const said = /\breduc\w*\b[^.;]*?\b(by|to)\b([^.;]*)/i.exec(text);
  if (!said) return null;
  const share = SHARES.find(([pattern]) => pattern.test(said[2] as string))?.[1];
  if (share === undefined) return null;
  return /^to$/i.test(said[1] as string) ? 1 - share : share;
}

/** A step as its row says it: its kind, its wait, what it is cooked to. */
export function pastedStep(number: number, row: string, newId: () => string): PastedStep {
  const text = row.replace(BULLET, '').replace(NUMBERED, '').slice(0, STEP_LENGTH);
  const kind = KINDS.find(([pattern]) => pattern.test(text))?.[1] ?? 'prepare';
  const step = stepFrom(newId(), kind, text);
  const wait = /(\d+)\s*(?:to|-|–)\s*(\d+)\s*(hours?|hrs?|h|minutes?|min)\b/i.exec(text);
  const held = /(\d+(?:\.\d+)?)\s*(hours?|hrs?|h|minutes?|min)\b/i.exec(text);
  const minutes = (n: string, unit: string) => Number(n) * (/^h/i.test(unit) ? 60 : 1);
  if ((kind === 'soak' || kind === 'rest' || kind === 'cool') && wait)
    step.window = {
      from_min: minutes(wait[1] as string, wait[3] as string),
      to_min: minutes(wait[2] as string, wait[3] as string),
    };
  else if ((kind === 'soak' || kind === 'rest' || kind === 'cool') && held)
    step.window = {
      from_min: minutes(held[1] as string, held[2] as string),
      to_min: minutes(held[1] as string, held[2] as string) * 1.5,
    };
  else if (kind === 'cook' && /\bgel(?:l?ing)? point\b|sheets? (?:off|from)/i.test(text))
    step.target = { kind: 'gel point' };
  else if (kind === 'cook' && reducedIn(text) !== null)
    step.target = { kind: 'reduced', by: reducedIn(text) as number };
  else if (kind === 'cook' && held)
    step.target = { kind: 'time', minutes: minutes(held[1] as string, held[2] as string) };
  return { number, text: row, step };
}
