import { releaseJars } from '@cocotte/contract';
import { type Condition, standsOut } from '@cocotte/core/checks';
import type { MarkedFor } from '@cocotte/core/batches';
import {
  addDays,
  addMonths,
  dayOf,
  dayText,
  type Fault,
  instantText,
  rangesText,
} from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { KNOWN_WORDS } from '@cocotte/core/records';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { Switcher } from '../kit/controls.tsx';
import { Line } from '../kit/layout.tsx';
import { CheckMark, CrossMark, Faults, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMaySign } from '../shell/session.tsx';
import { say } from '../words/views.ts';

const PURPOSES = { sale: 'for sale', gift: 'as gifts', home: 'for home', trial: '' } as const;

/** The gate: every condition, with its evidence or what is missing; and the one action, open only when all are met. */
export function GatePanel({ batch, mayCook, when }: { batch: OpenBatch; mayCook: boolean; when: When }) {
  const { gate, released, asksMore } = batch.standing;
  const { conditions, releasable } = gate;
  const maySign = useMaySign();
  const [faults, setFaults] = useState<Fault[]>([]);
  const [loadId, setLoad] = useState('');
  const waiting = releasable.filter(n => !released.includes(n));
  const byLoad = batch.state.loads
    .map(l => ({ ...l, waiting: l.jars.filter(n => waiting.includes(n)) }))
    .filter(l => l.waiting.length > 0);
  const chosen = byLoad.find(l => l.id === loadId)?.waiting ?? waiting;
  const open = conditions.filter(c => !c.met);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const sizes = new Set(batch.state.jars.filter(j => chosen.includes(j.number)).map(j => j.size));
  const [size] = sizes;
  const count = size && sizes.size === 1 ? jarCountText(chosen.length, size) : `${chosen.length} jars`;
  const named = conditions.filter(c => c.met).flatMap(c => standsOut(c) || []);
  const release = async () =>
    setFaults(
      await batch.decide(
        'jars.released',
        stamp => call(releaseJars, { params: { batchId: batch.id }, body: { jars: chosen, stamp } }),
        when,
      ),
    );
  const ready = waiting.length > 0 && batch.pending.length === 0 && mayCook;
  return (
    <Sheet
      title="The gate"
      aside={open.length === 0 ? 'every condition is met' : `${open.length} open of ${conditions.length}`}
    >
      <Box component="ul" aria-label="Conditions of release" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {conditions.map(c => (
          <ConditionRow key={c.code} condition={c} people={batch.view.people} />
        ))}
      </Box>
      {asksMore.length > 0 && (
        <Box sx={{ mt: 1.5 }}>{say('gate.asksMore', { titles: asksMore.join('; ') })}</Box>
      )}
      <Faults faults={faults} />
      {ready && !maySign && <Box sx={{ mt: 2, fontWeight: 600 }}>{say('gate.noRight', { count })}</Box>}
      {ready && maySign && (
        <Box sx={{ mt: 2 }}>
          {byLoad.length > 1 && (
            <Switcher
              fullWidth
              label={say('gate.which')}
              value={byLoad.some(l => l.id === loadId) ? loadId : ''}
              of={[
                ['', say('gate.all', { n: waiting.length })],
                ...byLoad.map(
                  l => [l.id, say('gate.load', { load: l.number, n: l.waiting.length })] as const,
                ),
              ]}
              onPick={setLoad}
              sx={{ mb: 1.5 }}
            />
          )}
          {named.length > 0 && (
            <Box sx={{ mb: 1.5, borderLeft: 4, borderColor: 'live.main', pl: 1.5 }}>
              {say('gate.named', { named: named.join('; ') })}
            </Box>
          )}
          <Button
            fullWidth
            variant="contained"
            sx={{ minHeight: 64, fontSize: '1.15rem' }}
            disabled={batch.busy}
            onClick={() => void release()}
          >
            Release {count} {PURPOSES[started.purpose]}
          </Button>
        </Box>
      )}
      <KeptJar batch={batch} mayCook={mayCook} when={when} />
      {waiting.length === 0 && released.length === 0 && (
        <Box sx={{ mt: 2, color: 'ox.main', fontWeight: 600 }}>{say('gate.held')}</Box>
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

function ConditionRow({ condition: c, people }: { condition: Condition; people: Record<string, string> }) {
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
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontWeight: 650 }}>
          {c.title} <Soft sx={{ fontWeight: 400 }}>{c.met ? 'met' : 'open'}</Soft>
        </Box>
        <Box>{c.evidence}</Box>
        {c.met ? (
          <Proof proof={c.proof} people={people} />
        ) : (
          <Box sx={{ color: 'text.secondary' }}>
            {c.why} {c.next}
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** The jar that is kept for its lot, with the day on which it may go; and from when on the others taste right. */
function KeptJar({ batch, mayCook, when }: { batch: OpenBatch; mayCook: boolean; when: When }) {
  const { kitchen } = useHere();
  const { started, jars } = batch.state;
  const standing = jars.filter(j => !j.setAside && j.loadIds.length > 0);
  if (!started || standing.length === 0) return null;
  const kept = standing.filter(j => j.marked === 'keeping');
  const until = addMonths(started.madeOn, started.recipe.shelfLife_months);
  const ready = started.recipe.readyAfter_days;
  const last = standing.at(-1)?.number ?? 0;
  const mark = (numbers: number[], to: MarkedFor) =>
    void batch.enter([['jars.marked', { jars: numbers, for: to }]], when);
  const mayGo = until < dayOf(kitchenNow(), kitchen.zone);
  return (
    <Box sx={{ mt: 2 }}>
      {ready > 0 && (
        <Box>{say('gate.readyFrom', { day: dayText(addDays(started.madeOn, ready), kitchen) })}</Box>
      )}
      {kept.length > 0 ? (
        <Line>
          <span>
            {say(mayGo ? 'gate.keptMayGo' : 'gate.kept', {
              jars: rangesText(kept.map(j => j.number)),
              day: dayText(until, kitchen),
            })}
          </span>
          {mayCook && (
            <Button
              size="small"
              onClick={() =>
                mark(
                  kept.map(j => j.number),
                  'sale',
                )
              }
            >
              {say('gate.keepNone')}
            </Button>
          )}
        </Line>
      ) : (
        mayCook &&
        started.purpose === 'sale' && (
          <Line>
            <Soft>{say('gate.keepWhy')}</Soft>
            <Button size="small" variant="outlined" onClick={() => mark([last], 'keeping')}>
              {say('gate.keep', { jar: last })}
            </Button>
          </Line>
        )
      )}
    </Box>
  );
}

/** Who entered the last of what shows it, when, and how that is known; what was written up or corrected stands out. */
function Proof({ proof, people }: { proof: Condition['proof']; people: Record<string, string> }) {
  const { kitchen } = useHere();
  const last = proof.reduce<(typeof proof)[number] | null>((a, t) => (a && a.at_ms > t.at_ms ? a : t), null);
  if (!last) return null;
  const written = proof.some(t => t.known === 'written up');
  const later = proof.some(t => t.known === 'queued');
  return (
    <Soft sx={{ fontSize: '0.92rem' }}>
      {people[last.personId] ?? say('record.you')}, {instantText(last.at_ms, kitchen)}
      {!written && <>, {KNOWN_WORDS[later ? 'queued' : 'live']}</>}{' '}
      {written && <Tag tone="live">{KNOWN_WORDS['written up']}</Tag>}{' '}
      {proof.some(t => t.corrected) && <Tag tone="live">{say('record.corrected')}</Tag>}
    </Soft>
  );
}
