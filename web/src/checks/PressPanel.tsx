import { type EventBodies, type SetAsideReason, SET_ASIDE_REASONS } from '@cocotte/core/batches';
import { rangesText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { loadable } from '@cocotte/core/batches';
import type { Fact, OpenBatch } from '../batches/open-batch.ts';
import { type When, pastInstant } from '../batches/when.ts';
import { kitchenNow } from '../shell/clock.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Switcher } from '../kit/controls.tsx';
import { Time } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { JarShelf } from '../kit/jars.tsx';
import { Line } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

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
      <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>
        Next day, with the thumb, in the middle of the lid. The ping is no proof. Tap the jars that did not
        seal, or that leave for another reason.
      </Typography>
      {shelf.length === 0 ? (
        <Soft>No jar is filled.</Soft>
      ) : (
        <JarShelf
          jars={shelf}
          marked={failed}
          onPress={n => present.some(j => j.number === n) && toggle(n)}
          markWord="did not seal"
        />
      )}
      {present.length > 0 && (
        <Box sx={{ display: 'flex', gap: 1.5, mt: 2, flexWrap: 'wrap' }}>
          <Switcher
            label={say('press.how')}
            value={how}
            of={[
              ['pressed', say('press.pressed')],
              ['bands off', say('press.bandsOff')],
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
      {leaving.length > 0 && <Leaving batch={batch} jars={leaving} onEnter={enter} />}
    </Sheet>
  );
}

const isStuck = (form: string | undefined) => form === 'failed' || form === 'held';

/** Ways on for jars that will not stand on the shelf: the cold, the canner again, or away. */
function Leaving({
  batch,
  jars,
  onEnter,
}: {
  batch: OpenBatch;
  jars: number[];
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
        {again && (
          <Button variant="outlined" component={Link} to={`/cook/${batch.id}`}>
            {say('jars.again')}
          </Button>
        )}
      </Line>
      <Line mt={1.5}>
        <Switcher
          label="Set aside because"
          value={why}
          of={SET_ASIDE_REASONS}
          onPick={setWhy}
          sx={{ width: 180 }}
        />
        <Button variant="outlined" onClick={() => void onEnter(['jars.set_aside', { jars, why }])}>
          Set jar {rangesText(jars)} aside
        </Button>
      </Line>
      <Soft>
        Within 24 h: refrigerate, freeze, or process again with a new lid. A jar found open or bulging later
        is destroyed untasted.
      </Soft>
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
