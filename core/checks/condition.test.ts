import { describe, expect, it } from 'vitest';
import type { Trace } from '../batches/index.ts';
import { condition, sentence, standsOut, tempBoth } from './condition.ts';

const trace = (over: Partial<Trace> = {}): Trace => ({
  eventId: 'e',
  personId: 'p',
  at_ms: 0,
  known: 'live',
  doubtful: false,
  earliest_ms: 0,
  latest_ms: 0,
  corrected: false,
  ...over,
});
const said = { code: 'c', title: 'Sealed', evidence: 'pressed', why: 'so', next: 'press', jars: null };

describe('a condition', () => {
  it('that is met says what shows it, and nothing to do', () =>
    expect(condition({ ...said, met: true, against: true, proof: [trace()] })).toMatchObject({
      next: '',
      against: false,
      proof: [trace()],
    }));
  it('that is not met says what to do, and nothing shows it', () => {
    expect(condition({ ...said, met: false, against: true, proof: [trace()] })).toMatchObject({
      next: 'press',
      against: true,
      proof: [],
    });
    expect(condition({ ...said, met: false })).toMatchObject({ against: false, proof: [] });
    expect(condition({ ...said, met: true })).toMatchObject({ against: false, proof: [] });
  });
});

describe('what stands out in its evidence', () => {
  const of = (...proof: Trace[]) => standsOut({ title: 'Sealed', proof });
  it('is nothing where all was entered at the time, sent later or waits', () => {
    expect(of()).toBe('');
    expect(of(trace(), trace({ known: 'queued' }), trace({ known: 'waiting' }))).toBe('');
  });
  it('is one entry among many that was written up, corrected, or both', () => {
    expect(of(trace(), trace({ known: 'written up' }))).toBe('Sealed: written up');
    expect(of(trace({ corrected: true }), trace())).toBe('Sealed: corrected');
    expect(of(trace({ known: 'written up' }), trace({ corrected: true }))).toBe(
      'Sealed: written up and corrected',
    );
  });
});

it('writes a temperature in both scales, as the kitchen writes figures', () => {
  expect(tempBoth(102.06, { locale: 'en-US' })).toBe('215.7 °F (102.1 °C)');
  expect(tempBoth(102.06, { locale: 'de-DE' })).toBe('215,7 °F (102,1 °C)');
  expect(sentence('jars 1-4')).toBe('Jars 1-4');
  expect(sentence('')).toBe('');
});
