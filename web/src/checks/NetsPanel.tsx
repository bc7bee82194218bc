import { declarable_oz, densityOf, netsBySize, netVerdict, samplingOf } from '@cocotte/core/checks';
import { jarSize } from '@cocotte/core/jars';
import { fieldText, massText, ML_PER_PINT, numberText, rangesText } from '@cocotte/core/measure';
import { Box, Typography } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Facts } from '../kit/layout.tsx';
import { Sheet, Soft, Tag } from '../kit/parts.tsx';
import { useRead } from '../kit/readers.ts';
import { TakeReading } from '../kit/TakeReading.tsx';
import { useHere } from '../shell/session.tsx';
import { misread, say } from '../words/views.ts';

/** The heaviest food there is in a jar: a syrup of sugar alone. */
const HEAVIEST_GPERML = 1.45;

/** Smallest step of a kitchen scale. */
const STEP_G = 1;

/** What the jars really hold against what their label declares, by the published sampling rule. */
export function NetsPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const { state } = batch;
  /** What a jar weighs empty: the next one is like it. */
  const [tare, setTare] = useState('');
  const full = state.jars.filter(j => j.setAside?.why !== 'part-filled');
  if (full.length === 0) return null;
  const sizes = netsBySize(state, densityOf(state));
  const g = (grams: number) => massText(grams, kitchen);
  return (
    <Sheet title={say('nets.title')} aside={say('nets.aside', { n: state.weighings.length })}>
      {sizes.map(({ size, declared_g, nets }) => {
        const lot = full.filter(j => j.size === size).length;
        const v = netVerdict(nets, declared_g, lot, STEP_G);
        if (!v) return null;
        return (
          <Box key={size} sx={{ mb: 1.5 }}>
            <Box sx={{ fontWeight: 650 }}>
              {jarSize(size).name}{' '}
              <Tag tone={v.passes ? (v.sample >= v.asked ? 'leaf' : 'live') : 'ox'}>
                {say(v.passes ? (v.sample >= v.asked ? 'nets.passes' : 'nets.soFar') : 'nets.short')}
              </Tag>
            </Box>
            <Facts
              of={[
                [say('nets.declared'), g(v.declared_g)],
                [
                  say('nets.mean'),
                  say('nets.meanOf', { mean: g(v.mean_g), n: v.sample, asked: v.asked, limit: g(v.limit_g) }),
                ],
                [say('nets.single'), say('nets.singleOf', { most: g(v.variation_g) })],
                [
                  say('nets.under'),
                  v.short.length > 0 &&
                    v.short.map(s => say('nets.jar', { jar: s.jar, g: g(s.net_g) })).join(', '),
                ],
                [say('nets.target'), g(v.target_g)],
                [
                  say('nets.could'),
                  say('nets.couldBe', {
                    oz: numberText(declarable_oz(v.couldDeclare_g), kitchen, 1),
                    g: numberText(Math.floor(v.couldDeclare_g), kitchen, 0),
                  }),
                ],
              ]}
            />
            {!v.fineEnough && <Soft>{say('nets.coarse')}</Soft>}
            {!v.passes && <Box>{say('nets.what')}</Box>}
          </Box>
        );
      })}
      <Weighing key={state.weighings.length} batch={batch} when={when} tare={tare} onTare={setTare} />
      <Soft sx={{ mt: 1, display: 'block' }}>{say('nets.rule')}</Soft>
    </Sheet>
  );
}

/** One jar after the other on the scale: what it weighs filled, less what it weighs empty. */
function Weighing({
  batch,
  when,
  tare,
  onTare,
}: {
  batch: OpenBatch;
  when: When;
  tare: string;
  onTare: (text: string) => void;
}) {
  const { kitchen } = useHere();
  const read = useRead();
  const { state } = batch;
  const weighed = new Set(state.weighings.map(w => w.jar));
  const open = state.jars.filter(j => j.setAside?.why !== 'part-filled' && !weighed.has(j.number));
  const [next] = open;
  const grams = (name: string, min: number) => read.figure({ name, min, max: 6000, unit: ' g' });
  const form = useTyped({ jar: String(next?.number ?? ''), filled_g: '', tare_g: tare }, typed => ({
    jar: (text: string) => ({ ok: true as const, value: Number(text) }),
    tare_g: grams(say('nets.empty'), 1),
    filled_g: (text: string) => {
      const filled = grams(say('nets.filled'), 1)(text);
      const empty = grams(say('nets.empty'), 1)(typed.tare_g);
      if (!filled.ok || !empty.ok) return filled;
      const { size } = state.jars.find(j => j.number === Number(typed.jar)) ??
        next ?? { size: 'pint' as const };
      const most_g = jarSize(size).pints.valueOf() * ML_PER_PINT.valueOf() * HEAVIEST_GPERML;
      if (filled.value - empty.value > most_g)
        return misread('more-than-jar', { most: massText(most_g, kitchen), size: jarSize(size).name });
      return filled.value <= empty.value ? misread('not-heavier') : filled;
    },
  }));
  if (!next) return null;
  const lot = state.jars.filter(j => j.size === next.size).length;
  const enter = form.submit(async ({ jar, filled_g, tare_g }) => {
    const net_g = Math.round((filled_g - tare_g) * 10) / 10;
    // Kept before the entry is: with it the next jar's fields come.
    onTare(form.typed('tare_g'));
    await batch.enter([['jars.weighed', { jars: [{ jar, net_g }], left_g: 0 }]], when);
  });
  return (
    <>
      <Typography sx={{ color: 'text.secondary' }}>
        {say('nets.ask', { n: samplingOf(lot).sample, lot })}
      </Typography>
      <TakeReading
        kind="scale"
        onTake={mass_g => form.set('filled_g', fieldText(mass_g, kitchen.locale, 0))}
      />
      <EntryForm
        form={form}
        action={say('nets.enter')}
        onSubmit={enter}
        wide="1fr 1fr 1fr"
        narrow="1fr 1fr"
        tall
      >
        <Pick
          at={form.at('jar')}
          label={say('nets.which')}
          of={open.map(j => [String(j.number), say('press.oneJar', { jar: j.number })] as const)}
        />
        <Figure at={form.at('filled_g')} label={say('nets.filled')} unit="g" />
        <Figure at={form.at('tare_g')} label={say('nets.empty')} unit="g" />
      </EntryForm>
      {open.length > 1 && (
        <Soft sx={{ display: 'block' }}>
          {say('nets.left', { jars: rangesText(open.map(j => j.number)) })}
        </Soft>
      )}
    </>
  );
}
