import { JARS_TO_WEIGH } from '@cocotte/core/checks';
import { keptBySugar } from '@cocotte/core/review';
import { Box } from '@mui/material';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Cells } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { rows, useRead } from '../kit/readers.ts';
import { misread, say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

/** A row of the scale: a jar by its number, empty and filled. */
interface Row {
  jar: string;
  empty_g: string;
  filled_g: string;
}

/** Three filled jars on the scale: with what went in they prove the solids that an own spread hangs on. */
export function WeighJars({ batch, when }: { batch: OpenBatch; when: When }) {
  const { recipe } = batch.state.started as NonNullable<OpenBatch['state']['started']>;
  const full = batch.state.jars.filter(j => j.setAside?.why !== 'part-filled' && j.outletId === null);
  const gel = batch.standing.gate.conditions.find(c => c.code === 'gel');
  if (recipe.authority.grade !== 'own' || !keptBySugar(recipe) || full.length === 0) return null;
  return (
    <Sheet title={say('weigh.title')}>
      <Soft>{gel?.met || batch.state.nets.length > 0 ? gel?.evidence : say('weigh.why')}</Soft>
      {!gel?.met && <Scale key={full.length} batch={batch} when={when} jars={full.map(j => j.number)} />}
    </Sheet>
  );
}

function Scale({ batch, when, jars }: { batch: OpenBatch; when: When; jars: readonly number[] }) {
  const read = useRead();
  const count = Math.min(JARS_TO_WEIGH, jars.length);
  // The first, one of the middle and the last: a pot thickens while it is filled.
  const proposed = Array.from(
    { length: count },
    (_, i) => jars[Math.round((i * (jars.length - 1)) / Math.max(1, count - 1))],
  );
  const grams = (name: string, min = 1) => read.figure({ name, min, max: 6000 });
  const form = useTyped(
    {
      rows: proposed.map((jar): Row => ({ jar: String(jar), empty_g: '', filled_g: '' })),
      left_g: '',
    },
    typed => ({
      rows: rows((row: Row) => ({
        jar: (text: string) =>
          jars.includes(Number(text)) && typed.rows.filter(r => r.jar.trim() === text.trim()).length === 1
            ? { ok: true as const, value: Number(text) }
            : misread('not-such-jars', { among: jars.join(', ') }),
        empty_g: grams(say('weigh.empty')),
        filled_g: (text: string) => {
          const filled = grams(say('weigh.filled'))(text);
          const empty = grams(say('weigh.empty'))(row.empty_g);
          return filled.ok && empty.ok && filled.value <= empty.value ? misread('not-heavier') : filled;
        },
      })),
      left_g: grams(say('weigh.left'), 0),
    }),
  );
  const enter = form.submit(async v => {
    const weighed = v.rows.map(r => ({ jar: r.jar, net_g: r.filled_g - r.empty_g }));
    await batch.enter([['jars.weighed', { jars: weighed, left_g: v.left_g }]], when);
  });
  return (
    <EntryForm form={form} action={say('weigh.do')} onSubmit={enter} tall>
      {proposed.map((_, i) => (
        <Cells key={i} wide="0.6fr 1fr 1fr" gap={1} mt={0}>
          <Figure at={form.at(`rows.${i}.jar`)} label={say('weigh.jar')} />
          <Figure at={form.at(`rows.${i}.empty_g`)} label={say('weigh.empty')} unit="g" />
          <Figure at={form.at(`rows.${i}.filled_g`)} label={say('weigh.filled')} unit="g" />
        </Cells>
      ))}
      <Box>
        <Figure at={form.at('left_g')} label={say('weigh.left')} unit="g" />
      </Box>
    </EntryForm>
  );
}
