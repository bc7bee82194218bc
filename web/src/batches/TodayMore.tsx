import { type InstrumentLog, listLettersDue, readShopping } from '@cocotte/contract';
import {
  type CheckedKind,
  JAM_THERMOMETER,
  POINT_WORDS,
  runsOut,
  thermometerDue,
} from '@cocotte/core/kitchen';
import { jarCountText } from '@cocotte/core/jars';
import { addDays, dayOf, dayText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { CheckDialog } from '../kitchen/CheckDialog.tsx';
import { dueInstruments, lastCheck, useInstrumentLogs } from '../kitchen/instrument-logs.ts';
import { Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { useNow } from '../shell/clock.ts';
import { useToday } from '../shell/rail.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { usePlans, useStock } from '../stores/api.ts';
import { say } from '../words/views.ts';
import { TodayRow } from './TodayRow.tsx';

/** Rows of spoiling stock that are shown; the rest is under Stores. */
const SPOILING_SHOWN = 4;

/** What Today says of what is planned and of what spoils: what is lacking for today and tomorrow, and what has to be used. */
export default function TodayMore({ otherwise }: { otherwise: ReactNode }) {
  const { kitchen } = useHere();
  const today = dayOf(useNow(), kitchen.zone);
  const tomorrow = addDays(today, 1);
  const { data: planned } = usePlans();
  const soon = (planned?.plans ?? [])
    .filter(p => p.day <= tomorrow)
    .toSorted((a, b) => (a.day < b.day ? -1 : 1));
  const { data: list } = useQuery({
    queryKey: ['shopping'],
    queryFn: () => call(readShopping),
    enabled: soon.length > 0,
  });
  const { data: stock } = useStock({ search: '', kind: '', only: 'spoiling soon', at: '' });
  const spoiling = stock?.pages[0]?.rows ?? [];
  const lacks = (planId: string) =>
    (list?.lines ?? []).filter(l => l.missing !== '0' && l.uses.some(u => u.planId === planId));
  const papers = runsOut(kitchen.jurisdiction, today);
  const { data: read } = useQuery({
    queryKey: ['letters-due', today],
    queryFn: () => call(listLettersDue),
  });
  const letters = read?.letters ?? [];
  // A thermometer is asked for where somebody is about to cook by it.
  const mayCook = useMay('cook');
  const cooking = (useToday().data?.batches ?? []).some(b => b.summary.stage === 'cooking');
  const cooks = soon.length > 0 || cooking;
  const thermometer = mayCook && cooks && thermometerDue(kitchen, today);
  const { data: kept } = useInstrumentLogs();
  const logs = kept?.instruments ?? [];
  const jam = logs.find(l => l.instrument.id === JAM_THERMOMETER) ?? null;
  const others = logs.filter(l => l.instrument.id !== JAM_THERMOMETER);
  // Whoever is about to cook or to read asks for what they do it by; a meter is calibrated on the day of its reading.
  const reads = (useToday().data?.batches ?? []).some(b => b.summary.due.some(d => d.kind === 'acidity'));
  const due = [
    ...(mayCook && cooks
      ? dueInstruments(others, ['thermometer', 'scale', 'refractometer'], kitchen, today)
      : []),
    ...(mayCook && reads ? dueInstruments(others, ['ph meter'], kitchen, today) : []),
  ];
  const [checking, setChecking] = useState<{ kind: CheckedKind; log: InstrumentLog | null } | null>(null);
  if (papers.length + letters.length + soon.length + spoiling.length + due.length === 0 && !thermometer)
    return <>{otherwise}</>;
  return (
    <>
      {letters.map(l => (
        <TodayRow key={l.recipeId}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>{say('today.letter', { name: l.name })}</Box>
            <Soft>
              {say(l.reviewOn < today ? 'today.letter.over' : 'today.letter.ends', {
                reference: l.reference,
                day: dayText(l.reviewOn, kitchen),
              })}
            </Soft>
          </Box>
          <Button
            component={Link}
            to={`/recipes/${l.recipeId}`}
            variant={l.reviewOn < today ? 'contained' : 'outlined'}
          >
            {say('today.open')}
          </Button>
        </TodayRow>
      ))}
      {thermometer && (
        <TodayRow>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>{say('today.thermometer')}</Box>
            <Soft>
              {kitchen.thermometerCheckedOn === null
                ? say('today.thermometer.never')
                : say('today.thermometer.last', { day: dayText(kitchen.thermometerCheckedOn, kitchen) })}
            </Soft>
          </Box>
          <Button variant="outlined" onClick={() => setChecking({ kind: 'thermometer', log: jam })}>
            {say('today.thermometer.go')}
          </Button>
        </TodayRow>
      )}
      {due.map(log => {
        const { on } = lastCheck(log, kitchen);
        return (
          <TodayRow key={log.instrument.id}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
                {say(`today.check.${log.instrument.kind === 'ph meter' ? 'meter' : log.instrument.kind}`, {
                  name: log.instrument.name,
                })}
              </Box>
              <Soft>{on && say('today.check.last', { day: dayText(on, kitchen) })}</Soft>
            </Box>
            <Button variant="outlined" onClick={() => setChecking({ kind: log.instrument.kind, log })}>
              {say(log.instrument.kind === 'ph meter' ? 'today.check.calibrate' : 'today.thermometer.go')}
            </Button>
          </TodayRow>
        );
      })}
      {checking && <CheckDialog {...checking} onClose={() => setChecking(null)} />}
      {papers.map(point => (
        <PaperRow key={point.point} {...point} />
      ))}
      {soon.map(p => {
        const missing = lacks(p.id);
        return (
          <TodayRow key={p.id}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
                {say('today.planned', {
                  name: p.name,
                  when: p.day === today ? 'today' : p.day === tomorrow ? 'tomorrow' : 'past',
                  day: dayText(p.day, kitchen),
                })}
              </Box>
              <Soft>{p.jars.map(j => jarCountText(j.count, j.size)).join(', ')}</Soft>
              {missing.length > 0 && (
                <Box sx={{ fontSize: '0.95rem' }}>
                  {say('today.lacks', { what: missing.map(l => l.name).join(', ') })}
                </Box>
              )}
            </Box>
            {missing.length > 0 ? (
              <Button component={Link} to="/stores/shopping" variant="outlined">
                {say('today.shop')}
              </Button>
            ) : (
              <Button
                component={Link}
                to={`/recipes/${p.recipeId}?plan=${p.id}`}
                variant={p.day <= today ? 'contained' : 'outlined'}
              >
                {say('today.open')}
              </Button>
            )}
          </TodayRow>
        );
      })}
      {spoiling.slice(0, SPOILING_SHOWN).map(r => (
        <TodayRow key={r.item.id}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
              {say('today.spoils', { name: r.item.name })}
            </Box>
            {r.soonestBestBy && (
              <Soft>{say('today.bestBy', { day: dayText(r.soonestBestBy, kitchen) })}</Soft>
            )}
          </Box>
          <Button component={Link} to={`/stores/items/${r.item.id}`} variant="outlined">
            {say('today.look')}
          </Button>
        </TodayRow>
      ))}
      {spoiling.length > SPOILING_SHOWN && (
        <Soft>{say('today.spoilsMore', { n: spoiling.length - SPOILING_SHOWN })}</Soft>
      )}
    </>
  );
}

/** A permit, a course or another point of the place that has run out, or soon will. */
function PaperRow({ point, renewsOn, over }: ReturnType<typeof runsOut>[number]) {
  const { kitchen } = useHere();
  return (
    <TodayRow>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
          {say('paper.renew', { what: POINT_WORDS[point] })}
        </Box>
        <Soft>{say(over ? 'paper.over' : 'paper.ends', { day: dayText(renewsOn, kitchen) })}</Soft>
      </Box>
      <Button component={Link} to="/kitchen" variant={over ? 'contained' : 'outlined'}>
        {say('paper.look')}
      </Button>
    </TodayRow>
  );
}
