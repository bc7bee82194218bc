import { libraryOf, nameIndex } from '../ingredients/index.ts';
import { MM_PER_INCH } from '../measure/index.ts';
import type { Step } from '../recipes/index.ts';
import type { PastedLine } from './paste-lines.ts';
import { readPasted } from './paste.ts';
import { TEXTS } from './text-corpus.fixture.ts';

import { describe, expect, it } from 'vitest';

const INDEX = nameIndex(libraryOf([]));
const read = (text: string) => {
  let n = 0;
  return readPasted(text, 'en-US', INDEX, () => `id-${++n}`);
};

/** What was read, as the fixture writes facts; those that are marked for a person to look at begin with "?". */
function factsRead(text: string): { fact: string; marked: boolean }[] {
  const r = read(text);
  const { facts } = r;
  const out: { fact: string; marked: boolean }[] = [];
  const put = (fact: string, marked = false) => out.push({ fact, marked });
  put(`name ${r.title}`);
  put(`makes ${facts.makes.value.count} ${facts.makes.value.size}`, facts.makes.assumed);
  put(`kind ${facts.product.value}`, facts.product.assumed);
  put(`set ${facts.setBy.value}`, facts.setBy.assumed);
  for (const key of ['pack', 'liquid', 'peel', 'cut', 'strain'] as const)
    put(`${key} ${facts[key].value}`, facts[key].assumed);
  for (const l of r.lines) put(`line ${lineText(l)}`, isMarked(l));
  for (const s of r.steps) {
    const said = stepText(s.step);
    if (said) put(said, s.doubts.length > 0);
  }
  if (facts.headspace_mm.value !== null)
    put(`headspace ${Math.round((facts.headspace_mm.value / MM_PER_INCH) * 100) / 100}`);
  for (const m of facts.minutes) put(`process ${m.size === null ? '' : `${m.size} `}${m.minutes}`);
  return out;
}

const isMarked = (l: PastedLine) =>
  l.faults.length > 0 || l.ask !== null || l.which.length > 0 || l.unread !== '';

function lineText(l: PastedLine): string {
  const { amount, ingredientId, minStrength_pct, where, ratio } = l.line;
  return [
    `${amount.value}${amount.upTo === null ? '' : `..${amount.upTo}`} ${amount.unit} ${ingredientId}`,
    minStrength_pct === null ? '' : `${minStrength_pct}%`,
    where === 'each jar' ? where : '',
    ratio ? `per ${ratio.per.value} ${ratio.per.unit} ${l.ratioOf}` : '',
  ]
    .filter(Boolean)
    .join(' ');
}

function stepText(step: Step): string {
  if (step.window) return `wait ${step.window.from_min}..${step.window.to_min}`;
  const { target } = step;
  switch (target.kind) {
    case 'gel point':
      return 'cook gel';
    case 'time':
      return `cook ${target.minutes} min`;
    case 'temperature':
      return `cook ${Math.round(target.temp_C)} C${target.hold_min > 0 ? ` hold ${target.hold_min}` : ''}`;
    case 'reduced':
      return `cook reduced ${Math.round(target.by * 100) / 100}`;
    case 'look':
      return 'cook look';
    default:
      return '';
  }
}

/** A wait or a time that the fixture gives as a person reads it, as the reader has to give it, and whether it has to be marked. */
function wanted(fact: string): { fact: string; mark: boolean } {
  const overnight = /^wait overnight$/.test(fact);
  if (overnight) return { fact: 'wait 480..720', mark: true };
  const one = /^wait (\d+)$/.exec(fact);
  if (one) return { fact: `wait ${one[1]}..${Number(one[1]) * 1.5}`, mark: true };
  const range = /^cook (\d+)\.\.\d+ min$/.exec(fact);
  if (range) return { fact: `cook ${range[1]} min`, mark: true };
  const head = /^headspace (?:(\d)\/(\d)|(\d))$/.exec(fact);
  if (head)
    return {
      fact: `headspace ${Math.round((head[3] ? Number(head[3]) : Number(head[1]) / Number(head[2])) * 100) / 100}`,
      mark: false,
    };
  return { fact, mark: false };
}

/** Facts of a text against what was read: right, marked, silently wrong. */
function held(text: string, facts: string) {
  const got = factsRead(text);
  const rows = facts.split('\n').filter(Boolean).map(wanted);
  const right: string[] = [];
  const marked: string[] = [];
  const wrong: string[] = [];
  const key = (fact: string) => fact.split(' ')[0] as string;
  for (const kind of new Set(rows.map(r => key(r.fact)))) {
    const want = rows.filter(r => key(r.fact) === kind);
    const have = got.filter(g => key(g.fact) === kind);
    // In their order: what is there and what is missing, by the longest common run.
    const pairs = aligned(
      want.map(w => w.fact),
      have.map(h => h.fact),
    );
    want.forEach((w, i) => {
      const at = pairs.get(i);
      const is = at === undefined ? undefined : have[at];
      if (is && (!w.mark || is.marked)) right.push(w.fact);
      else if (is) wrong.push(`${w.fact}, taken without a mark`);
      else if (have.some((h, k) => h.marked && ![...pairs.values()].includes(k))) marked.push(w.fact);
      else
        wrong.push(
          `${w.fact}, not ${
            have
              .filter((_, k) => ![...pairs.values()].includes(k))
              .map(h => h.fact)
              .join(' | ') || 'read'
          }`,
        );
    });
    have.forEach((h, k) => {
      if (![...pairs.values()].includes(k) && !h.marked && want.length <= pairs.size)
        wrong.push(`${h.fact}, too much`);
    });
  }
  return { right, marked, wrong };
}

/** The longest run of equal texts in both, as index of the first to index of the second. */
function aligned(a: string[], b: string[]): Map<number, number> {
  const best: number[][] = Array.from({ length: a.length + 1 }, () => Array<number>(b.length + 1).fill(0));
  const at = (i: number, j: number) => best[i]?.[j] ?? 0;
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      (best[i] as number[])[j] = a[i] === b[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1));
  const out = new Map<number, number>();
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) out.set(i++, j++);
    else if (at(i + 1, j) >= at(i, j + 1)) i++;
    else j++;
  }
  return out;
}

describe('sixty recipe texts in many layouts', () => {
  const all = TEXTS.map(([text, facts]) => ({ title: text.split('\n')[0], ...held(text, facts) }));
  const count = (of: 'right' | 'marked' | 'wrong') => all.reduce((sum, h) => sum + h[of].length, 0);

  it('95 % of their facts are read right', () => {
    const whole = count('right') + count('marked') + count('wrong');
    expect(
      count('right') / whole,
      all
        .flatMap(h => [
          ...h.marked.map(m => `${h.title}: ${m} (marked)`),
          ...h.wrong.map(w => `${h.title}: ${w}`),
        ])
        .join('\n'),
    ).toBeGreaterThanOrEqual(0.95);
  });

  it('none is silently wrong', () => {
    expect(all.flatMap(h => h.wrong.map(w => `${h.title}: ${w}`))).toEqual([]);
  });
});
