import { lineMasses } from '@cocotte/core/batches';
import { fieldText, kitchenVolume, massText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Fractions, Sheet, Soft } from '../kit/parts.tsx';
import { TakeReading, useTaken } from '../kit/TakeReading.tsx';
import { useRead } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { misread, say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';
import { BowlPicture } from './steps/BowlPicture.tsx';
import type { When } from './when.ts';

/** Within this of what is wanted a weight is right: what a kitchen's scale and a spoon differ by. Our choice. */
const RIGHT_WITHIN = 0.02;

/** Below this a cook takes a spoon, and no scoop. Our choice. */
const BY_SPOON_G = 60;

/** Weighs bowl by bowl to one total, the empty bowl taken off, with a bar that fills. */
export function WeighEntry({
  batch,
  when,
  first,
}: {
  batch: OpenBatch;
  when: When;
  /** The step in hand: what goes in there is chosen first. */
  first?: Step | undefined;
}) {
  const { kitchen } = useHere();
  const read = useRead();
  const lines = lineMasses(batch.state).filter(m => m.line.where !== 'each jar');
  const weighing = (name: string) => read.figure({ name, min: 0, above: true, max: 1_000_000, unit: ' g' });
  const taken = useTaken();
  const next = lines.find(m => m.basis !== 'weighed' && first?.adds.some(a => a.lineId === m.line.id));
  /** What was weighed last: the same again is one tap, scoop by scoop. */
  const [last, setLast] = useState<{ lineId: string; mass_g: number } | null>(null);
  const form = useTyped(
    { lineId: next?.line.id ?? lines[0]?.line.id ?? '', mass_g: '', bowl_g: '' },
    ({ bowl_g }) => {
      const bowl = bowl_g.trim() === '' ? null : weighing(say('bowl.empty'))(bowl_g);
      return {
        bowl_g: () => bowl ?? { ok: true as const, value: 0 },
        mass_g: (text: string) => {
          const gross = weighing('The weight')(text);
          if (!gross.ok || !bowl?.ok) return gross;
          return gross.value > bowl.value
            ? { ok: true as const, value: gross.value - bowl.value }
            : misread('lighter-than-bowl', { bowl: massText(bowl.value, kitchen) });
        },
      };
    },
  );
  const weigh = form.submit(async ({ lineId, mass_g }) => {
    const bowl_g = form.typed('bowl_g');
    const by = taken.by(form.typed('mass_g'));
    if (!(await batch.enter([['line.weighed', { lineId, mass_g, ...by }]], when))) return;
    taken.entered();
    setLast({ lineId, mass_g });
    form.again({ lineId, bowl_g });
  });
  const chosen = lines.find(m => m.line.id === form.typed('lineId'));
  const so_far_g = chosen?.basis === 'weighed' ? chosen.actual_g : 0;
  const share = chosen && chosen.planned_g > 0 ? so_far_g / chosen.planned_g : 0;
  const left_g = chosen ? chosen.planned_g - so_far_g : 0;
  const right = Math.abs(1 - share) <= RIGHT_WITHIN;
  // Little is put in by the spoon: what is still wanted, in the spoon at hand.
  const density = chosen?.line.density_gPerMl ?? null;
  const spoons =
    density !== null && !right && left_g > 0 && left_g < BY_SPOON_G
      ? kitchenVolume(left_g / density).text
      : '';
  return (
    <Sheet title="Weigh" aside="bowl by bowl, added up">
      <TakeReading
        kind="scale"
        onTake={(mass_g, by) => {
          const text = fieldText(mass_g, kitchen.locale, 0);
          taken.take(text, by);
          form.set('mass_g', text);
        }}
      />
      <EntryForm
        form={form}
        action="Add the weight"
        onSubmit={weigh}
        wide="1fr 110px 120px"
        narrow="1fr 1fr"
        tall
      >
        <Pick
          at={form.at('lineId')}
          label="Ingredient"
          of={lines.map(m => [m.line.id, m.line.name] as const)}
          sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' } }}
        />
        <Figure at={form.at('mass_g')} label="Grams" />
        <Figure at={form.at('bowl_g')} label={say('bowl.empty')} unit="g" />
        {chosen && (
          <Box
            sx={{
              gridColumn: '1 / -1',
              display: 'grid',
              gridTemplateColumns: 'minmax(110px, 200px) 1fr',
              gap: 2,
              alignItems: 'center',
            }}
          >
            <BowlPicture
              share={share}
              shows={massText(so_far_g, kitchen)}
              label={say('bowl.bar', {
                done: massText(so_far_g, kitchen),
                planned: massText(chosen.planned_g, kitchen),
              })}
            />
            <Box>
              <Box
                sx={{
                  fontSize: '1.7rem',
                  fontWeight: 700,
                  lineHeight: 1.2,
                  color: right ? 'leaf.main' : share > 1 ? 'ox.main' : 'text.primary',
                }}
              >
                {right
                  ? say('bowl.right')
                  : say(left_g > 0 ? 'bowl.left' : 'bowl.over', { g: massText(Math.abs(left_g), kitchen) })}
              </Box>
              {spoons && (
                <Box sx={{ fontSize: '1.2rem' }}>
                  <Fractions text={spoons} />
                </Box>
              )}
              <Soft>
                Planned {massText(chosen.planned_g, kitchen)}
                {so_far_g > 0 && (
                  <>
                    , weighed so far <strong>{massText(so_far_g, kitchen)}</strong>
                  </>
                )}
              </Soft>
            </Box>
          </Box>
        )}
      </EntryForm>
      {last && last.lineId === chosen?.line.id && !right && left_g > 0 && (
        <Button
          variant="outlined"
          fullWidth
          sx={{ minHeight: 56, mt: 1.5 }}
          onClick={() => void batch.enter([['line.weighed', last]], when)}
        >
          {say('bowl.again', { g: massText(last.mass_g, kitchen) })}
        </Button>
      )}
    </Sheet>
  );
}
