import type { Pasted, Settled, TextFact } from '@cocotte/core/exchange';
import { JAR_SIZES } from '@cocotte/core/jars';
import { SET_BY } from '@cocotte/core/recipes';
import { findEntries } from '@cocotte/core/review';
import { METHOD_CHOICES, type Method, PRODUCTS, processEntry } from '@cocotte/core/times';
import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { Count, Switcher } from '../../../kit/controls.tsx';
import { Cells } from '../../../kit/layout.tsx';
import { Sheet } from '../../../kit/parts.tsx';
import { say } from '../../../words/views.ts';
import type { Choices } from './settle.ts';

const KEYS = [
  ['pack', 'paste.pack'],
  ['liquid', 'paste.liquid'],
  ['cut', 'paste.cut'],
  ['peel', 'paste.peel'],
  ['strain', 'paste.strain'],
] as const satisfies readonly (readonly [keyof Method, string])[];

/** What the text says of the whole, each with its row; what it does not say was taken, and is marked. */
export function PasteFacts({
  read,
  facts,
  choices,
  onChoose,
}: {
  read: Pasted;
  facts: Settled['facts'];
  choices: Choices;
  onChoose: (part: Partial<Choices>) => void;
}) {
  const put = (part: Partial<Choices['facts']>) => onChoose({ facts: { ...choices.facts, ...part } });
  const from = (fact: TextFact<unknown>, chosen: boolean): ReactNode =>
    chosen ? (
      say('paste.chosen')
    ) : fact.assumed ? (
      <Box component="span" sx={{ color: 'live.main' }}>
        {fact.number === null ? say('paste.taken') : say('paste.takenFrom', { row: fact.number })}
      </Box>
    ) : fact.number === null ? (
      ''
    ) : (
      say('paste.row', { row: fact.number })
    );
  const follows = [...new Set(findEntries(read.title, 6).map(f => f.entry.id))].flatMap(id => {
    const entry = processEntry(id);
    return entry ? [[id, `${entry.product}, ${entry.pack} pack`] as const] : [];
  });
  return (
    <Sheet title={say('paste.whole')}>
      <Cells gap={1.5} narrow="1fr 1fr">
        <Count
          label={say('paste.makes')}
          size="small"
          value={facts.makes.count}
          min={1}
          max={500}
          onCount={count => put({ makes: { ...facts.makes, count } })}
          helperText={from(read.facts.makes, choices.facts.makes !== undefined)}
        />
        <Switcher
          label={say('paste.jars')}
          size="small"
          value={facts.makes.size}
          of={JAR_SIZES.map(s => [s.id, s.plural] as const)}
          onPick={size => put({ makes: { ...facts.makes, size } })}
        />
        <Switcher
          label={say('paste.kind')}
          size="small"
          value={facts.product}
          of={PRODUCTS}
          onPick={product => put({ product })}
          helperText={from(read.facts.product, choices.facts.product !== undefined)}
        />
        <Switcher
          label={say('paste.set')}
          size="small"
          value={facts.setBy}
          of={SET_BY}
          onPick={setBy => put({ setBy })}
          helperText={from(read.facts.setBy, choices.facts.setBy !== undefined)}
        />
        {KEYS.map(([key, words]) => (
          <Switcher
            key={key}
            label={say(words)}
            size="small"
            value={facts.method[key]}
            of={METHOD_CHOICES[key]}
            onPick={value => put({ method: { ...choices.facts.method, [key]: value } })}
            helperText={from(read.facts[key], choices.facts.method[key] !== undefined)}
          />
        ))}
        <Switcher
          label={say('paste.follows')}
          size="small"
          value={choices.entryId}
          of={[['', say('paste.ownRecipe')], ...follows]}
          onPick={entryId => onChoose({ entryId })}
          helperText={say('paste.followsWhy')}
        />
      </Cells>
    </Sheet>
  );
}
