import {
  type EventBodies,
  hasCooled,
  loadable,
  PRESS_AFTER_HOURS,
  type SetAsideReason,
  SET_ASIDE_REASONS,
  SUSPECT,
} from '@cocotte/core/batches';
import { REPROCESS_HOURS } from '@cocotte/core/checks';
import { isFlatLid } from '@cocotte/core/jars';
import { rangesText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Fact, OpenBatch } from '../batches/open-batch.ts';
import { type When, pastInstant } from '../batches/when.ts';
import { kitchenNow, useNow } from '../shell/clock.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Switcher } from '../kit/controls.tsx';
import { Time } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { JarShelf } from '../kit/jars.tsx';
import { Line } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { PressOneByOne } from './PressOneByOne.tsx';
import { SuspectJars } from './SuspectJars.tsx';

type How = EventBodies['jars.pressed']['how'];

/** Press, then say which did not hold: "all sealed but these", by tapping the jars. */
export function PressPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const forms = new Map(batch.standing.forms.map(f => [f.number, f.form]));
  const [failed, setFailed] = useState<ReadonlySet<number>>(new Set());
  const [how, setHow] = useState<How>('pressed');
  const lifted = new Set(batch.state.loads.filter(l => l.lifted).map(l => l.id));
  const present = batch.state.jars.filter(j => !j.setAside && lifted.has(j.loadIds.at(-1) ?? ''));
  const shelf = batch.state.jars.map(j => ({
    number: j.number,
    size: j.size,
    form: forms.get(j.number) ?? ('filled' as const),
  }));
  const bad = present.filter(j => failed.has(j.number)).map(j => j.number);
  const good = present.filter(j => !failed.has(j.number)).map(j => j.number);
  // What failed, is held, or is a trial has somewhere to go in any case.
  const stays = batch.state.started?.purpose === 'trial';
  const stuck = present.filter(j => stays || isStuck(forms.get(j.number))).map(j => j.number);
  const leaving = bad.length > 0 ? bad : stuck;
  const toggle = (n: number) =>
    setFailed(f => {
      const next = new Set(f);
      if (!next.delete(n)) next.add(n);
      return next;
    });
  const enter = async (fact: Fact) => {
    if (await batch.enter([fact], when)) setFailed(new Set());
  };
  const open = present.some(j => !j.pressed);
  const [way, setWay] = useState<'all but' | 'one by one'>('all but');
  const now_ms = useNow();
  const hoursSince = (at_ms: number) => (now_ms - at_ms) / 3_600_000;
  const cooled = (lifted_ms: number) => {
    const h = hoursSince(lifted_ms);
    return h < PRESS_AFTER_HOURS
      ? say('press.cools', { h: Math.ceil(PRESS_AFTER_HOURS - h) })
      : say('press.cooled', { h: Math.floor(h) });
  };
  const liftedOf = (j: (typeof present)[number]) =>
    batch.state.loads.find(l => l.id === j.loadIds.at(-1))?.lifted ?? null;
  const provenNow = (j: (typeof present)[number]) => {
    const at = liftedOf(j);
    return j.pressed !== null && at !== null && hasCooled(j.pressed.by, at);
  };
  const inLoads = batch.state.loads.map(load => ({
    load: load as typeof load | null,
    jars: batch.state.jars.flatMap(j => (j.loadIds.at(-1) === load.id ? j.number : [])),
  }));
  const groups = [
    ...inLoads,
    { load: null, jars: batch.state.jars.flatMap(j => (j.loadIds.length === 0 ? j.number : [])) },
  ].filter(g => g.jars.length > 0);
  /** Hours left in which a jar that failed may be processed again. */
  const hoursLeft = Math.min(
    ...present
      .filter(j => leaving.includes(j.number))
      .map(j => REPROCESS_HOURS - hoursSince(liftedOf(j)?.at_ms ?? 0)),
  );
  return (
    <Sheet
      title="Press the jars"
      aside={`${present.filter(j => j.pressed?.sealed).length} of ${present.length} sealed`}
    >
      {batch.state.loads
        .filter(l => !l.lifted && (l.heatOff || l.boilingSince))
        .map(l => (
          <ForgottenLift key={l.id} batch={batch} load={l} />
        ))}
      <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>{say('press.how.thumb')}</Typography>
      {shelf.length === 0 ? (
        <Soft>{say('press.noJar')}</Soft>
      ) : (
        groups.map(({ load, jars }) => (
          <Box key={load?.id ?? ''} sx={{ mb: 1 }}>
            {load && (
              <Box sx={{ fontWeight: 650 }}>
                {say('press.load', { load: load.number })}{' '}
                <Soft>{load.lifted ? cooled(load.lifted.at_ms) : say('press.inCanner')}</Soft>
              </Box>
            )}
            <JarShelf
              jars={shelf.filter(j => jars.includes(j.number))}
              marked={failed}
              onPress={n => present.some(j => j.number === n) && toggle(n)}
              markWord={say('press.mark')}
            />
          </Box>
        ))
      )}
      {present.length > 0 && (
        <Switcher
          label={say('press.way')}
          value={way}
          of={[
            ['all but', say('press.way.allBut')],
            ['one by one', say('press.way.oneByOne')],
          ]}
          onPick={setWay}
          sx={{ width: 225, mt: 2, mr: 1.5 }}
        />
      )}
      {present.length > 0 && way === 'one by one' && (
        <PressOneByOne
          batch={batch}
          when={when}
          how={how}
          jars={present.filter(j => !j.pressed || (j.pressed.sealed && !provenNow(j)))}
        />
      )}
      {present.length > 0 && way === 'all but' && (
        <Box sx={{ display: 'flex', gap: 1.5, mt: 2, flexWrap: 'wrap' }}>
          <Switcher
            label={say('press.how')}
            value={how}
            of={[
              ['pressed', say('press.pressed')],
              ['bands off', say('press.bandsOff')],
              ...(present.some(j => !isFlatLid(j.closure))
                ? ([['as the letter says', say('press.byLetter')]] as const)
                : []),
            ]}
            onPick={setHow}
            sx={{ width: 225 }}
          />
          <Button
            variant={open || bad.length > 0 ? 'contained' : 'outlined'}
            sx={{ minHeight: 60, flex: '1 1 220px' }}
            onClick={() => void enter(['jars.pressed', { sealed: good, failed: bad, how }])}
          >
            {bad.length === 0 ? `All ${good.length} sealed` : `All sealed but ${rangesText(bad)}`}
          </Button>
        </Box>
      )}
      {leaving.length > 0 && <Leaving batch={batch} jars={leaving} hoursLeft={hoursLeft} onEnter={enter} />}
    </Sheet>
  );
}

const isStuck = (form: string | undefined) => form === 'failed' || form === 'held';

/** Ways on for jars that will not stand on the shelf: the cold, the canner again, or away. */
function Leaving({
  batch,
  jars,
  hoursLeft,
  onEnter,
}: {
  batch: OpenBatch;
  jars: number[];
  hoursLeft: number;
  onEnter: (fact: Fact) => Promise<void>;
}) {
  const [why, setWhy] = useState<SetAsideReason>('seal failed');
  // Another boil mends a seal or a time; it mends no acid.
  const again = loadable(batch.state).some(j => jars.includes(j.number));
  return (
    <Box sx={{ mt: 1.5, pt: 1.5, borderTop: 1, borderColor: 'rule.main' }}>
      <Box sx={{ fontWeight: 650, mb: 1 }}>{say('jars.where', { jars: rangesText(jars) })}</Box>
      <Line>
        <Button variant="outlined" onClick={() => void onEnter(['jars.moved', { jars, to: 'refrigerator' }])}>
          {say('jars.refrigerate')}
        </Button>
        <Button variant="outlined" onClick={() => void onEnter(['jars.moved', { jars, to: 'freezer' }])}>
          {say('jars.freeze')}
        </Button>
        {again && hoursLeft > 0 && (
          <Button variant="outlined" component={Link} to={`/cook/${batch.id}`}>
            {say('jars.again')}
          </Button>
        )}
      </Line>
      {again && (
        <Box sx={{ mt: 1, fontWeight: hoursLeft > 0 && hoursLeft < 6 ? 650 : 400 }}>
          {hoursLeft > 0
            ? say('jars.hoursLeft', { h: Math.floor(hoursLeft), min: Math.floor((hoursLeft % 1) * 60) })
            : say('jars.noHours')}
        </Box>
      )}
      <Line mt={1.5}>
        <Switcher
          label="Set aside because"
          value={why}
          of={SET_ASIDE_REASONS.filter(
            r =>
              !SUSPECT.includes(r) &&
              r !== 'destroyed' &&
              // The gate is for samples and gifts too.
              ((r !== 'sampled' && r !== 'gifted') || jars.every(n => batch.standing.released.includes(n))),
          )}
          onPick={setWhy}
          sx={{ width: 180 }}
        />
        <Button variant="outlined" onClick={() => void onEnter(['jars.set_aside', { jars, why }])}>
          Set jar {rangesText(jars)} aside
        </Button>
      </Line>
      <SuspectJars
        jars={jars}
        onDestroyed={found => void onEnter(['jars.set_aside', { jars, why: found }])}
      />
    </Box>
  );
}

/** A press proves nothing of jars whose lifting nobody entered: it is asked for here. */
function ForgottenLift({ batch, load }: { batch: OpenBatch; load: OpenBatch['state']['loads'][number] }) {
  const { kitchen } = useHere();
  const form = useTyped({ at: '' }, () => ({ at: pastInstant(kitchen.zone, kitchenNow) }));
  const enter = form.submit(async ({ at }) => {
    await batch.enter([['load.lifted', { loadId: load.id }]], at);
  });
  return (
    <Box sx={{ mb: 2, borderLeft: 4, borderColor: 'live.main', pl: 1.5 }}>
      <strong>{say('press.notLifted', { load: load.number })}</strong> {say('press.notLifted.why')}
      <EntryForm form={form} action={say('press.lifted')} onSubmit={enter}>
        <Time at={form.at('at')} label={say('press.liftedAt')} />
      </EntryForm>
    </Box>
  );
}
