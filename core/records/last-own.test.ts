import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { eventWords, lastOwn } from './index.ts';

const HABITS = { locale: 'en-US', temperature: 'F', measures: 'US', zone: 'UTC' } as const;
const line = plumJam.lines[0]?.id ?? '';
const last = (batch: PaperBatch, who = batch.events[0]?.personId ?? '') =>
  lastOwn(batch.events, fold(batch.events), who);

describe('the entry that can be taken back', () => {
  it('is none where only the kitchen decided something', () => {
    expect(last(new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll())).toBeNull();
  });

  it('is the last of ones own; once it is taken back the one before, and never the taking back', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    batch.fact('line.weighed', { lineId: line, mass_g: 500 });
    batch.wait(1).fact('line.weighed', { lineId: line, mass_g: 700 });
    const second = last(batch);
    expect(second && eventWords(second, plumJam, HABITS)).toMatch(/700 g/);
    expect(last(batch, 'somebody else')).toBeNull();
    batch.fact('entry.corrected', {
      replaces: second?.id ?? '',
      type: 'line.weighed',
      body: null,
      occurredAt: null,
      reason: 'Tapped by mistake.',
    });
    expect(fold(batch.events).weighed[line]?.mass_g).toBe(500);
    const first = last(batch);
    expect(first && eventWords(first, plumJam, HABITS)).toMatch(/500 g/);
  });
});
