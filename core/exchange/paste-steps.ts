import { celsius } from '../measure/index.ts';
import { type Step, type StepKind, type StepTarget, stepFrom } from '../recipes/index.ts';
import { type Question, rangesOf, untilOf } from './paste-words.ts';

/** A step as it was read from pasted text, with its number there. */
export interface PastedStep {
  number: number;
  text: string;
  step: Step;
  /** What was taken and not said, with what else it could be. */
  doubts: Question<Pick<Step, 'window'> | Pick<Step, 'target'>>[];
}

/** Signs that begin a row and say nothing. */
export const BULLET =
  /^\s*(?:[-*\u2022\u2013\u2014\u2023\u2043\u2192\u25a0-\u25e6\u2610-\u2612\u2713\u2714\u274f\u00b7]|\[\s?\])\s+/;
/** A number that begins a row. */
export const NUMBERED = /^\s*(?:step\s*)?\d{1,2}\s*[.):]\s+/i;

const STEP_LENGTH = 600;

const KINDS: [RegExp, StepKind][] = [
  [/\bprocess(?:ed|ing)?\b(?!\w)|water[- ]bath|\bcanner\b|boiling water for \d+|\bsteam[- ]can/i, 'process'],
  [
    /^(?!.*\b(?:pan|kettle|stockpot|bowl)\b).*\b(?:fill|ladle|pack|pour|spoon|funnel|pot (?:into|up))\b.*\b(?:jars?|half[- ]?pints?|pints|quarts|headspace)\b|\binto (?:hot |sterile |clean |sterilized )*jars\b|^fill\b|\bpack (?:hot|raw)\b/i,
    'fill',
  ],
  [
    /\b(?:strain|drip|jelly bag|through (?:a |two |four |several |layers? (?:of )?)*(?:cheese)?cloth)\b/i,
    'strain',
  ],
  [
    /\bsoak\b|\bin (?:cold |iced? )+water\b.*\b(?:hours?|h)\b|\bcover(?:ed)? with (?:cold |ice )?(?:salt|ice|water|brine)|\bin (?:the )?(?:salt )?brine\b/i,
    'soak',
  ],
  [
    /\bovernight\b|\b(?:stand|sit|(?<!the )rest|marinate|macerate|chill|refrigerate|ferment(?:ed)?|steep|infuse)\b/i,
    'rest',
  ],
  [/\bcool\b(?! water| place| enough).*\b(?:hours?|h|overnight)\b|\blet (?:jars )?cool\b/i, 'cool'],
  [
    /^measure\b(?!.*\bjars\b)|\bmeasure (?:out )?(?:the )?(?:strained )?(?:juice|pulp|pur[ée]e)\b/i,
    'measure',
  ],
  [
    /\b(?:boil(?:ed|ing)?|simmer(?:ed|ing)?|cook(?:ed|ing)?|(?:re)?heat(?:ed|ing)?|reduced?|gel|blanch|steam|bring|immerse|warm(?= .*\d))\b/i,
    'cook',
  ],
];
/** Kinds of which a sentence names the wait, where it names one. */
const WAITS: ReadonlySet<StepKind> = new Set(['soak', 'rest', 'cool', 'strain']);

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

/** Ways people say that a spread has come to its gel point. Common usage. */
const GEL =
  /\b(?:gel|jell?y?(?:ing|ied)?|gell?ing|set(?:ting)?|jam)[- ](?:point|stage|temperature)\b|\bsheet(?:s|ing)?\b|\b(?:cold|chilled|frozen) (?:plate|saucer|dish)|\bwrinkles?\b|\b8 ?(?:°|º|degrees?)? ?F\.? (?:above|over)|\b4[.,]5 ?(?:°|º|degrees?)? ?C\.? (?:above|over)/i;
const DEGREES = /(\d{2,3}(?:[.,]\d)?)\s*(?:°|º|degrees?|deg\.?)?\s*(F|C|Fahrenheit|Celsius)\b/gi;

/** A temperature in a text, the highest that is named, in °C; null where none is. */
function temperatureIn(text: string): { temp_C: number; written: string } | null {
  const found = [...text.matchAll(DEGREES)].map(m => {
    const figure = Number((m[1] as string).replace(',', '.'));
    return { temp_C: /^f/i.test(m[2] as string) ? celsius(figure) : figure, written: m[0] };
  });
  // "70 to 75 °F": the unit stands once.
  return found.reduce<(typeof found)[number] | null>((a, b) => (a && a.temp_C >= b.temp_C ? a : b), null);
}

type Target = { target: StepTarget; doubts: PastedStep['doubts'] };

/** What a cook step goes to, from its words. */
function targetIn(text: string): Target {
  const none: Target = { target: { kind: 'none' }, doubts: [] };
  const by = reducedIn(text);
  if (by !== null) return { ...none, target: { kind: 'reduced', by } };
  const [span] = rangesOf(text);
  const minutes = span ? span.from_min : null;
  const heat = temperatureIn(text);
  const timed = (): Target => {
    if (!span || minutes === null) return none;
    const others = span.to_min > span.from_min ? [span.to_min, (span.from_min + span.to_min) / 2] : [];
    return {
      target: { kind: 'time', minutes },
      doubts:
        others.length === 0
          ? []
          : [
              {
                what: `"${span.words}": the shorter time was taken.`,
                others: others.map(m => ({
                  label: `${m} minutes`,
                  value: { target: { kind: 'time', minutes: m } },
                })),
              },
            ],
    };
  };
  if (heat && heat.temp_C > 40) {
    const hold_min = minutes !== null && /\b(?:hold|keep|held|for|maintain)\b/i.test(text) ? minutes : 0;
    const target: StepTarget = { kind: 'temperature', temp_C: heat.temp_C, hold_min };
    // 220 °F is the gel point near sea level, 104.5 °C: higher up it is another.
    if (heat.temp_C >= 103 && heat.temp_C <= 106.5)
      return {
        target: { kind: 'gel point' },
        doubts: [
          {
            what: `${heat.written} is the gel point near sea level; the one of this kitchen was taken.`,
            others: [{ label: `${heat.written} as written`, value: { target } }],
          },
        ],
      };
    return { ...none, target };
  }
  if (GEL.test(text)) {
    const time = timed();
    return {
      target: { kind: 'gel point' },
      doubts:
        time.target.kind === 'time'
          ? [
              {
                what: 'The gel point ends it; the minutes are a guess of the text.',
                others: [{ label: `${minutes} minutes`, value: { target: time.target } }],
              },
            ]
          : [],
    };
  }
  if (span) return timed();
  const until = untilOf(text);
  return until ? { ...none, target: { kind: 'look', text: until } } : none;
}

/** A wait from its words: a window as said; of one figure, or "overnight", the window is taken and marked. */
function windowIn(text: string): { window: Step['window']; doubts: PastedStep['doubts'] } {
  const spans = rangesOf(text);
  const [span] = spans.sort((a, b) => b.to_min - a.to_min);
  const other = (from_min: number, to_min: number, label: string) => ({
    label,
    value: { window: { from_min, to_min } },
  });
  if (!span) return { window: null, doubts: [] };
  if (span.how === 'range') return { window: { from_min: span.from_min, to_min: span.to_min }, doubts: [] };
  const { from_min: said } = span;
  const most = said * 1.5;
  const taken =
    span.how === 'overnight'
      ? { from_min: 480, to_min: 720 }
      : span.how === 'up to'
        ? { from_min: 0, to_min: said }
        : { from_min: said, to_min: most };
  const others =
    span.how === 'overnight'
      ? [other(720, 1440, '12 to 24 h'), other(600, 960, '10 to 16 h')]
      : span.how === 'up to'
        ? [other(said / 2, said, 'at least half of that')]
        : [other(said, said, 'just so long'), other(said, said * 2, 'up to twice as long')];
  return {
    window: taken,
    doubts:
      span.how === 'up to'
        ? []
        : [
            {
              what:
                span.how === 'overnight'
                  ? '"Overnight" was taken as 8 to 12 h.'
                  : `"${span.words}" names no end: half as long again was taken.`,
              others,
            },
          ],
  };
}

const ABBREVIATED = /\b(in|min|mins|hr|hrs|lb|lbs|oz|qt|qts|pt|pts|tsp|tbsp|approx|pkg|no|c|t|f)\.\s+(\S)/gi;

/** Sentences of a row; what is abbreviated ends none. */
function sentences(row: string): string[] {
  return row
    .replaceAll(ABBREVIATED, (whole, word: string, next: string) =>
      /[A-Z]/.test(next) ? whole : `${word}\u0000${whole.slice(word.length + 1)}`,
    )
    .split(/(?<=[.!]|;(?!\s*(?:hold|keep|then hold|maintain)))\s+/)
    .map(s => s.replaceAll('\u0000', '.').trim())
    .filter(Boolean);
}

/** "…, let stand 20 minutes", "and then boil 5 minutes": a second thing with a time of its own. */
const SECOND =
  /(?:,|;)?\s+(?:and\s+)?(?:then\s+)?(?=(?:let|leave|stand|chill|refrigerate|process|return|simmer|boil(?:ed)?\s+(?:hard|gently|rapidly|\d)|pack (?:hot|raw)|fill|cover and)\b)/i;

/** A sentence with two times is two steps. */
function clauses(sentence: string): string[] {
  if (rangesOf(sentence).length < 2 || KINDS[0]?.[0].test(sentence.slice(0, 20))) return [sentence];
  const at = SECOND.exec(sentence.slice(1));
  if (!at) return [sentence];
  const head = sentence.slice(0, at.index + 1);
  const tail = sentence.slice(at.index + 1 + at[0].length);
  if (rangesOf(head).length === 0 || rangesOf(tail).length === 0) return [sentence];
  return [head, ...clauses(tail.charAt(0).toUpperCase() + tail.slice(1))];
}

const kindOf = (text: string): StepKind => KINDS.find(([pattern]) => pattern.test(text))?.[1] ?? 'prepare';

/** Whether a sentence says when it ends. */
const ends = (step: Step) => step.target.kind !== 'none' || step.window !== null;

/** One sentence as a step. */
function stepOf(number: number, row: string, text: string, newId: () => string): PastedStep {
  const kind = kindOf(text);
  const step = stepFrom(newId(), kind, text);
  let doubts: PastedStep['doubts'] = [];
  if (WAITS.has(kind)) ({ window: step.window, doubts } = windowIn(text));
  else if (kind === 'cook') ({ target: step.target, doubts } = targetIn(text));
  return { number, text: row, step, doubts };
}

/**
 * The steps of one row: a sentence that ends by itself, or is of another kind, is a step of its own; what says nothing of
 * its own goes with the one before. A step longer than a step may be is cut between sentences. No word is lost.
 */
export function pastedSteps(number: number, row: string, newId: () => string): PastedStep[] {
  const bare = row.replace(BULLET, '').replace(NUMBERED, '');
  const out: PastedStep[] = [];
  for (const text of sentences(bare)
    .flatMap(clauses)
    .flatMap(s => s.match(/.{1,600}/gs) ?? [])) {
    const read = stepOf(number, row, text, newId);
    const last = out.at(-1);
    const joined = last ? `${last.step.text} ${text}` : '';
    const fits = last !== undefined && joined.length <= STEP_LENGTH;
    const plain = !ends(read.step) && (read.step.kind === 'prepare' || read.step.kind === last?.step.kind);
    // "Crush berries. Simmer 10 minutes.": the first of two may be what the second ends.
    const before = last && !ends(last.step) && last.step.kind === 'prepare' && read.step.kind === 'cook';
    if (fits && plain) last.step.text = joined;
    else if (fits && before)
      out[out.length - 1] = { ...read, step: { ...read.step, id: last.step.id, text: joined } };
    else out.push(read);
  }
  return out;
}
