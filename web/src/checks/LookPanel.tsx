import { JAR_FAULTS, type JarFault, type SetSeen } from '@cocotte/core/batches';
import { LOOK_AFTER_HOURS } from '@cocotte/core/checks';
import { clockText, rangesText } from '@cocotte/core/measure';
import { Box, Checkbox, FormControlLabel } from '@mui/material';
import { useState } from 'react';
import { jarsAmong } from '../batches/AllBut.tsx';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { OneOf, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Caution, Sheet, Soft } from '../kit/parts.tsx';
import { anyWords } from '../kit/readers.ts';
import { Causes, TasteEntry } from './Causes.tsx';
import { useNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

const SET_WORDS: readonly (readonly [SetSeen, string])[] = [
  ['as meant', say('look.set.asMeant')],
  ['too soft', say('look.set.soft')],
  ['too firm', say('look.set.firm')],
];

/** What is seen in cooled jars: how it set, what floats or clouds, and in which of them. It holds nothing; it is what is learned. */
export function LookPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const now_ms = useNow();
  const { state } = batch;
  const standing = state.jars.filter(j => !j.setAside && j.loadIds.length > 0).map(j => j.number);
  const lifted_ms = Math.max(0, ...state.loads.map(l => l.lifted?.at_ms ?? 0));
  const sets = (state.started?.recipe.setBy ?? 'not set') !== 'not set';
  const [found, setFound] = useState<ReadonlySet<JarFault>>(new Set());
  const form = useTyped({ set: '' as SetSeen | '', jars: '', text: '' }, () => ({
    jars: jarsAmong(standing),
    text: anyWords,
  }));
  const toggle = (fault: JarFault) =>
    setFound(f => new Set(f.has(fault) ? [...f].filter(x => x !== fault) : [...f, fault]));
  const enter = form.submit(async ({ set, jars, text }) => {
    const body = {
      jars: found.size > 0 && jars.length > 0 ? jars : standing,
      set: set === '' ? null : set,
      found: JAR_FAULTS.filter(f => found.has(f)),
      text,
    };
    if (await batch.enter([['jars.looked', body]], when)) {
      setFound(new Set());
      form.again();
    }
  });
  if (standing.length === 0 || lifted_ms === 0) return null;
  const from_ms = lifted_ms + LOOK_AFTER_HOURS * 3_600_000;
  const last = state.looks.at(-1);
  return (
    <Sheet title={say('look.title')} aside={say('look.times', { n: state.looks.length })}>
      <Soft>
        {now_ms < from_ms ? say('look.early', { at: clockText(from_ms, kitchen) }) : say('look.why')}
      </Soft>
      <EntryForm form={form} action={say('look.action')} onSubmit={enter}>
        {sets && <OneOf at={form.at('set')} label={say('look.set')} of={SET_WORDS} row />}
        <Box
          role="group"
          aria-label={say('look.found')}
          sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(4, 1fr)' } }}
        >
          {JAR_FAULTS.map(fault => (
            <FormControlLabel
              key={fault}
              control={<Checkbox checked={found.has(fault)} onChange={() => toggle(fault)} />}
              label={say('look.fault', { fault })}
              sx={{ minHeight: 46 }}
            />
          ))}
        </Box>
        {found.size > 0 && (
          <Text
            at={form.at('jars')}
            label={say('look.jars')}
            placeholder={rangesText(standing)}
            hint={say('look.jars.hint')}
          />
        )}
        <Text at={form.at('text')} label={say('look.text')} multiline minRows={1} />
      </EntryForm>
      <Caution>{say('look.caution')}</Caution>
      {last && (
        <Box sx={{ mt: 1.5 }}>
          <Soft>
            {say('look.last', {
              seen: [
                ...(last.set ? [say('look.setWords', { set: last.set.replaceAll(' ', '') })] : []),
                ...last.found.map(fault => say('look.fault', { fault })),
                ...(last.text ? [last.text] : []),
              ].join(', '),
            })}
          </Soft>
        </Box>
      )}
      <Causes batch={batch} />
      {!batch.rehearsal && <TasteEntry batch={batch} />}
    </Sheet>
  );
}
