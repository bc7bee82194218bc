import { releaseJars } from '@cocotte/contract';
import { type SetAsideReason, SET_ASIDE_REASONS } from '@cocotte/core/batches';
import { type Condition, needsReading } from '@cocotte/core/checks';
import { type Fault, rangesText } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/api.ts';
import { type When, useWhen } from '../batches/when.ts';
import { WhenFields } from '../batches/WhenFields.tsx';
import { call } from '../shell/call.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Switcher } from '../kit/controls.tsx';
import { Figure, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { JarShelf } from '../kit/jars.tsx';
import { CheckMark, CrossMark, Faults, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { Columns, Line, Stack } from '../kit/layout.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { useRead, words } from '../kit/readers.ts';
import { useHere, useMay, useMaySign } from '../shell/session.tsx';
import { CostPanel } from '../stores/costs/CostPanel.tsx';
import { AcidityPanel } from './AcidityPanel.tsx';
import { TakeJars } from './TakeJars.tsx';

/** One batch between held and released. */
export function CheckPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Checking batch={open} />}</Loaded>;
}

function Checking({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCook = useMay('cook');
  const when = useWhen(kitchen);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  return (
    <>
      <ViewHead
        title={started.recipe.name}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> · for {started.purpose}
          </>
        }
      >
        <Button component={Link} to={`/cook/${batch.id}`} variant="outlined">
          Cook
        </Button>
        <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
          Record
        </Button>
      </ViewHead>
      {mayCook && (
        <Box sx={{ mb: 1.5 }}>
          <WhenFields when={when} />
        </Box>
      )}
      <Columns>
        <Box component="fieldset" disabled={!mayCook} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
          <Stack>
            <PressPanel batch={batch} when={when} />
            {needsReading(started.recipe.foodClass) && <AcidityPanel batch={batch} when={when} />}
            <DeviationPanel batch={batch} when={when} />
            {!needsReading(started.recipe.foodClass) && <AcidityPanel batch={batch} when={when} />}
          </Stack>
        </Box>
        <Stack>
          <GatePanel batch={batch} mayCook={mayCook} when={when} />
          <CostPanel batch={batch} />
          {mayCook && <TakeJars batch={batch} />}
        </Stack>
      </Columns>
    </>
  );
}

/** Press, then say which did not hold: "all sealed but these", by tapping the jars. */
function PressPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const forms = new Map(batch.standing.forms.map(f => [f.number, f.form]));
  const [failed, setFailed] = useState<ReadonlySet<number>>(new Set());
  const [why, setWhy] = useState<SetAsideReason>('seal failed');
  const lifted = new Set(batch.state.loads.filter(l => l.lifted).map(l => l.id));
  const present = batch.state.jars.filter(j => !j.setAside && lifted.has(j.loadIds.at(-1) ?? ''));
  const shelf = batch.state.jars.map(j => ({
    number: j.number,
    size: j.size,
    form: forms.get(j.number) ?? ('filled' as const),
  }));
  const bad = present.filter(j => failed.has(j.number)).map(j => j.number);
  const good = present.filter(j => !failed.has(j.number)).map(j => j.number);
  const unsealed = present.filter(j => j.pressed?.sealed === false).map(j => j.number);
  const toggle = (n: number) =>
    setFailed(f => {
      const next = new Set(f);
      if (!next.delete(n)) next.add(n);
      return next;
    });
  const press = async () => {
    if (await batch.enter([['jars.pressed', { sealed: good, failed: bad }]], when)) setFailed(new Set());
  };
  const open = present.some(j => !j.pressed);
  return (
    <Sheet
      title="Press the jars"
      aside={`${present.filter(j => j.pressed?.sealed).length} of ${present.length} sealed`}
    >
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
          <Button
            variant={open || bad.length > 0 ? 'contained' : 'outlined'}
            sx={{ minHeight: 60, flex: '1 1 220px' }}
            onClick={() => void press()}
          >
            {bad.length === 0 ? `All ${good.length} sealed` : `All sealed but ${rangesText(bad)}`}
          </Button>
        </Box>
      )}
      {(bad.length > 0 || unsealed.length > 0) && (
        <Line mt={1.5}>
          <Switcher
            label="Set aside because"
            value={why}
            of={SET_ASIDE_REASONS}
            onPick={setWhy}
            sx={{ width: 180 }}
          />
          <Button
            variant="outlined"
            onClick={() =>
              void batch
                .enter([['jars.set_aside', { jars: bad.length > 0 ? bad : unsealed, why }]], when)
                .then(ok => ok && setFailed(new Set()))
            }
          >
            Set jar {rangesText(bad.length > 0 ? bad : unsealed)} aside
          </Button>
          <Soft>
            Refrigerate, freeze, or process again with a new lid within 24 h. A jar found open or bulging
            later is destroyed untasted.
          </Soft>
        </Line>
      )}
    </Sheet>
  );
}

function DeviationPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { deviations } = batch.state;
  if (deviations.length === 0) return null;
  return (
    <Sheet title="Deviations">
      {deviations.map(d => (
        <Box
          key={d.key}
          sx={{ py: 1.25, borderBottom: 1, borderColor: 'rule.main', '&:last-of-type': { borderBottom: 0 } }}
        >
          <strong>{d.what}</strong>{' '}
          {d.settled ? <Soft>Settled: {d.settled.reason}</Soft> : <Soft>{d.next}</Soft>}
          {d.canSettle && !d.settled && <SettleEntry batch={batch} deviationKey={d.key} when={when} />}
        </Box>
      ))}
    </Sheet>
  );
}

function SettleEntry({ batch, deviationKey, when }: { batch: OpenBatch; deviationKey: string; when: When }) {
  const read = useRead();
  const form = useTyped({ minutes: '', reason: '' }, () => ({
    minutes: read.figure({ name: 'The minutes', min: 0, max: 1440 }),
    reason: words('The reason'),
  }));
  const settle = form.submit(async v => {
    await batch.enter([['deviation.settled', { key: deviationKey, ...v }]], when);
  });
  return (
    <EntryForm form={form} action="Settle it" onSubmit={settle} wide="140px 1fr" narrow="1fr">
      <Figure at={form.at('minutes')} label="Minutes seen" />
      <Text at={form.at('reason')} label="On which clock, and why it holds" />
    </EntryForm>
  );
}

/** The gate: every condition, with its evidence or what is missing; and the one action, open only when all are met. */
function GatePanel({ batch, mayCook, when }: { batch: OpenBatch; mayCook: boolean; when: When }) {
  const { conditions, releasable } = batch.standing.gate;
  const maySign = useMaySign();
  const [faults, setFaults] = useState<Fault[]>([]);
  const released = batch.standing.released;
  const waiting = releasable.filter(n => !released.includes(n));
  const open = conditions.filter(c => !c.met);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const size = batch.state.jars.find(j => j.number === waiting[0])?.size ?? started.recipe.makes.size;
  const mixed = new Set(batch.state.jars.filter(j => waiting.includes(j.number)).map(j => j.size)).size > 1;
  const count = mixed ? `${waiting.length} jars` : jarCountText(waiting.length, size);
  const release = async () =>
    setFaults(
      await batch.decide(
        stamp => call(releaseJars, { params: { batchId: batch.id }, body: { jars: waiting, stamp } }),
        when,
      ),
    );
  return (
    <Sheet
      title="The gate"
      aside={open.length === 0 ? 'every condition is met' : `${open.length} open of ${conditions.length}`}
    >
      <Box component="ul" aria-label="Conditions of release" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {conditions.map(c => (
          <ConditionRow key={c.code} condition={c} />
        ))}
      </Box>
      <Faults faults={faults} />
      {waiting.length > 0 && batch.pending.length === 0 && mayCook && !maySign && (
        <Box sx={{ mt: 2, fontWeight: 600 }}>
          {count} can be released. It takes somebody who may release and sign; an owner gives that right under
          People.
        </Box>
      )}
      {waiting.length > 0 && batch.pending.length === 0 && mayCook && maySign && (
        <Button
          fullWidth
          variant="contained"
          sx={{ mt: 2, minHeight: 64, fontSize: '1.15rem' }}
          disabled={batch.busy}
          onClick={() => void release()}
        >
          Release {count}{' '}
          {started.purpose === 'sale' ? 'for sale' : started.purpose === 'gift' ? 'as gifts' : 'for home'}
        </Button>
      )}
      {waiting.length === 0 && released.length === 0 && (
        <Box sx={{ mt: 2, color: 'ox.main', fontWeight: 600 }}>
          Held: nothing can be released while these are open.
        </Box>
      )}
      {released.length > 0 && (
        <Line mt={2}>
          <Box sx={{ color: 'leaf.main', fontWeight: 700 }}>Released: jars {rangesText(released)}.</Box>
          <Button
            component={Link}
            to={`/label/${batch.id}`}
            variant={waiting.length > 0 ? 'outlined' : 'contained'}
          >
            Go on to the labels
          </Button>
        </Line>
      )}
    </Sheet>
  );
}

function ConditionRow({ condition: c }: { condition: Condition }) {
  return (
    <Box
      component="li"
      sx={{ display: 'flex', gap: 1.5, py: 1.1, borderBottom: 1, borderColor: 'rule.main' }}
    >
      <Box
        sx={{
          width: 26,
          height: 26,
          flex: 'none',
          borderRadius: c.met ? '50%' : 1,
          display: 'grid',
          placeItems: 'center',
          bgcolor: c.met ? 'leaf.main' : 'ox.tint',
          color: c.met ? 'background.paper' : 'ox.main',
          border: '2px solid',
          borderColor: c.met ? 'leaf.main' : 'ox.main',
        }}
      >
        {c.met ? <CheckMark size={13} /> : <CrossMark size={12} />}
      </Box>
      <Box>
        <Box sx={{ fontWeight: 650 }}>
          {c.title} <Soft sx={{ fontWeight: 400 }}>{c.met ? 'met' : 'open'}</Soft>
        </Box>
        <Box>{c.evidence}</Box>
        {!c.met && (
          <Box sx={{ color: 'text.secondary' }}>
            {c.why} {c.next}
          </Box>
        )}
      </Box>
    </Box>
  );
}
