import { COOLED_HOURS, EQUILIBRIUM_HOURS, readAbove, readPh, uncertaintyOf } from '@cocotte/core/acid';
import { readWhen, textureOf } from '@cocotte/core/batches';
import { acidityOf, faultsOfReading, needsReading } from '@cocotte/core/checks';
import { instantText, numberText, temperatureText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../../batches/open-batch.ts';
import type { When } from '../../batches/when.ts';
import { Switcher } from '../../kit/controls.tsx';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { BeforeFilling } from './BeforeFilling.tsx';
import { MeterToday } from './MeterToday.tsx';
import { ReadingForm } from './ReadingForm.tsx';
import { Recheck } from './Recheck.tsx';

const OF = ['jar', 'pot'] as const;

/** The acidity bench: the meter of the day, what was read of which jar, and whether each reading counts. */
export function AcidityPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const { state } = batch;
  const started = state.started as NonNullable<typeof state.started>;
  const unfilled = state.loads.every(l => !l.lifted);
  const [of, setOf] = useState<(typeof OF)[number]>(unfilled ? 'pot' : 'jar');
  const asked = needsReading(started.recipe.foodClass);
  const [log, setLog] = useState(false);
  const texture = textureOf(started.recipe);
  const shown = acidityOf(state);
  const ph = (value: number) => numberText(value, kitchen);
  return (
    <Sheet
      title={say('acidity.title')}
      aside={say('acidity.aside', { limit: ph(started.phLimit), act: ph(started.phAct) })}
    >
      <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>
        {asked
          ? say(`acidity.how.${texture}`, {
              h: texture === 'smooth' ? COOLED_HOURS : EQUILIBRIUM_HOURS,
              act: ph(started.phAct),
            })
          : say('acidity.notAsked')}
      </Typography>
      {state.potReadings.map(r => (
        <Box key={r.by.eventId} sx={{ py: 1, borderBottom: 1, borderColor: 'rule.main' }}>
          <strong>pH {ph(readPh(r))}</strong> {say('acidity.before')}{' '}
          {readAbove(r, started.phLimit) && <Tag tone="ox">{say('acidity.mend')}</Tag>}{' '}
          <Soft>{instantText(r.by.at_ms, kitchen)}</Soft>
        </Box>
      ))}
      {state.readings.map(r => {
        const faults = faultsOfReading(state, r, kitchen);
        const { texture: _texture, ...known } = readWhen(state, r);
        return (
          <Box key={r.by.eventId} sx={{ py: 1, borderBottom: 1, borderColor: 'rule.main' }}>
            <strong>
              pH {ph(readPh(r))} ± {numberText(uncertaintyOf(r, r.recheck_off).u_ph, kitchen, 2)}
            </strong>{' '}
            {say('acidity.ofJar', {
              jar: r.jar,
              tight: String(r.tightest),
              sample: r.sample ?? '',
              temp: temperatureText(r.temp_C, kitchen),
              method: r.method,
            })}{' '}
            {known.hours === null
              ? say('reading.early')
              : say('reading.hours', { h: Math.floor(known.hours) })}{' '}
            {readAbove(r, started.phLimit) ? (
              <Tag tone="ox">{say('acidity.above', { limit: ph(started.phLimit) })}</Tag>
            ) : faults.length === 0 ? (
              <Tag tone="leaf">{say('acidity.counts')}</Tag>
            ) : (
              <Soft>{say('acidity.countsNot', { faults: faults.join('; ') })}</Soft>
            )}{' '}
            <Soft>{instantText(r.by.at_ms, kitchen)}</Soft>
          </Box>
        );
      })}
      {shown.how && (
        <Box sx={{ py: 1, color: 'leaf.main', fontWeight: 600 }}>
          {say(`acidity.shown.${howKey(shown.how)}`)}
        </Box>
      )}
      <Recheck batch={batch} when={when} />
      {!asked && !log && (
        <Button variant="outlined" onClick={() => setLog(true)}>
          {say('acidity.log')}
        </Button>
      )}
      {(asked || log) && <MeterToday />}
      {(asked || log) && unfilled && (
        <Switcher
          label={say('acidity.what')}
          value={of}
          of={OF.map(o => [o, say(`acidity.of.${o}`)] as const)}
          onPick={setOf}
          fullWidth
          sx={{ mt: 2 }}
        />
      )}
      {(asked || log) &&
        (of === 'pot' && unfilled ? (
          <BeforeFilling batch={batch} when={when} />
        ) : (
          <ReadingForm batch={batch} when={when} />
        ))}
    </Sheet>
  );
}

const howKey = (how: NonNullable<ReturnType<typeof acidityOf>['how']>) =>
  how === 'solids and brine agree'
    ? 'apart'
    : how === 'two days agree'
      ? 'days'
      : how === 'cooled'
        ? 'through'
        : 'laboratory';
