import { clockText, fieldText, numberText, temperatureText } from '@cocotte/core/measure';
import { ownThermometer } from '@cocotte/core/kitchen';
import { keptBySugar } from '@cocotte/core/review';
import { Box } from '@mui/material';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick, Temperature } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Caution, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { TakeReading, useTaken } from '../kit/TakeReading.tsx';
import { useRead } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

type Place = 'pot' | 'canner' | 'jar';
/** Lowest and highest a thing can be, °C. */
const CAN_BE: Record<Place, [number, number]> = { pot: [-5, 130], canner: [-5, 105], jar: [-5, 105] };

/** Temperatures and soluble solids, read of the whole pot or of a part that was set aside. */
export function TemperatureEntry({
  batch,
  when,
  potId = null,
}: {
  batch: OpenBatch;
  when: When;
  /** Of which pot of several; null for all of them. */
  potId?: string | null;
}) {
  const { kitchen } = useHere();
  const read = useRead();
  const form = useTyped({ temp_C: '', where: 'pot' as Place, part: '' }, ({ where }) => ({
    temp_C: read.temperature_C({
      name: 'The temperature',
      min: CAN_BE[where][0],
      max: CAN_BE[where][1],
      why:
        where === 'pot'
          ? 'Water and sugar in an open pot stay below it.'
          : 'Water in an open canner or jar does not pass its boiling point.',
    }),
  }));
  const taken = useTaken();
  const log = form.submit(async v => {
    const part = v.where === 'pot' ? v.part : '';
    const by = taken.by(form.typed('temp_C'));
    if (
      await batch.enter(
        [
          [
            'temperature.read',
            {
              ...v,
              part,
              potId: v.where === 'pot' ? potId : null,
              ...by,
              // What is read by eye is read off the kitchen's own thermometer.
              checked: by.instrumentId === null ? ownThermometer(kitchen, v.temp_C) : by.checked,
            },
          ],
        ],
        when,
      )
    ) {
      taken.entered();
      form.again({ where: v.where, part: v.part });
    }
  });
  const solids = useTyped({ brix_pct: '', part: '' }, () => ({
    brix_pct: read.figure({
      name: 'The soluble solids',
      min: 0,
      above: true,
      unit: ' °Brix',
      max: 95,
      why: 'A refractometer for sugar reads up to 95.',
    }),
  }));
  const brixTaken = useTaken();
  const logSolids = solids.submit(async v => {
    const by = brixTaken.by(solids.typed('brix_pct'));
    if (await batch.enter([['solids.read', { ...v, outletId: null, potId, ...by }]], when)) {
      brixTaken.entered();
      solids.again({ part: v.part });
    }
  });
  const gel = batch.state.started?.gelPoint_C ?? 0;
  const recipe = batch.state.started?.recipe;
  const spread = recipe !== undefined && keptBySugar(recipe);
  const unproven = isUnproven(batch);
  const parts = [...new Set((recipe?.steps ?? []).flatMap(s => [s.part, s.separates?.part ?? '']))].filter(
    Boolean,
  );
  /** Where something is set aside, a reading is of the whole or of it alone: that is asked. */
  const ofParts = [['', 'the whole pot'] as const, ...parts.map(p => [p, `the ${p} alone`] as const)];
  const last = batch.state.temperatures.slice(-4).toReversed();
  const hasGel = batch.state.started?.recipe.steps.some(s => s.target.kind === 'gel point');
  return (
    <Sheet title="Temperature">
      {unproven && (
        <Box sx={{ mb: 2 }}>
          <Caution>{say('spread.unproven', { gel: temperatureText(gel, kitchen) })}</Caution>
        </Box>
      )}
      <TakeReading
        kind="thermometer"
        onTake={(temp_C, by) => {
          const text = fieldText(kitchen.temperature === 'F' ? temp_C * 1.8 + 32 : temp_C, kitchen.locale, 1);
          taken.take(text, by);
          form.set('temp_C', text);
        }}
      />
      <EntryForm form={form} action="Log the temperature" onSubmit={log} wide="1fr 110px" tall>
        <Temperature at={form.at('temp_C')} label="Read" />
        <Pick at={form.at('where')} label="In the" of={['pot', 'canner', 'jar']} />
        {parts.length > 0 && form.typed('where') === 'pot' && (
          <Pick at={form.at('part')} label="Of" of={ofParts} />
        )}
      </EntryForm>
      {last.map(t => (
        <Box key={t.by.eventId} sx={{ display: 'flex', justifyContent: 'space-between', mt: 1 }}>
          <span>
            <strong>{temperatureText(t.temp_C, kitchen)}</strong> in the {t.where}
            {t.potId !== null && ` ${t.potId}`}
            {t.part && `, the ${t.part} alone`}{' '}
            {hasGel && t.where === 'pot' && t.part === '' && t.temp_C >= gel - 0.05 && (
              <Tag tone="leaf">gel point</Tag>
            )}
          </span>
          <Soft>{clockText(t.by.at_ms, kitchen)}</Soft>
        </Box>
      ))}
      {spread && (
        <Box sx={{ mt: 2, pt: 2, borderTop: 1, borderColor: 'rule.main' }}>
          <TakeReading
            kind="refractometer"
            onTake={(brix, by) => {
              const text = fieldText(brix, kitchen.locale, 1);
              brixTaken.take(text, by);
              solids.set('brix_pct', text);
            }}
          />
          <EntryForm form={solids} action="Log the solids" onSubmit={logSolids} tall>
            <Figure at={solids.at('brix_pct')} label="Refractometer, in the pot" unit="°Brix" />
            {parts.length > 0 && <Pick at={solids.at('part')} label="Of" of={ofParts} />}
          </EntryForm>
          {batch.state.solids
            .slice(-3)
            .toReversed()
            .map(t => (
              <Box key={t.by.eventId} sx={{ display: 'flex', justifyContent: 'space-between', mt: 1 }}>
                <strong>{numberText(t.brix_pct, kitchen)} °Brix</strong>
                <Soft>{clockText(t.by.at_ms, kitchen)}</Soft>
              </Box>
            ))}
        </Box>
      )}
    </Sheet>
  );
}

/** An own spread rests on what is read of the pot, and it has to be read while there is one. */
export function isUnproven(batch: OpenBatch): boolean {
  const recipe = batch.state.started?.recipe;
  return (
    recipe?.authority.grade === 'own' &&
    keptBySugar(recipe) &&
    batch.standing.gate.conditions.some(c => c.code === 'gel' && !c.met)
  );
}
