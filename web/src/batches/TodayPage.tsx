import type { BatchRow } from '@cocotte/contract';
import { type Due, REPROCESS_HOURS } from '@cocotte/core/checks';
import { clockText, countdownText, instantText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { useNow } from '../shell/clock.ts';
import { Columns } from '../kit/layout.tsx';
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../kit/parts.tsx';
import { useToday } from '../shell/rail.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/index.ts';
import { TodayRow as Row } from './TodayRow.tsx';

/** It is read once, on the first evenings: nobody else waits for it. */
const Guide = lazy(() => import('./Guide.tsx'));
const TodayMore = lazy(() => import('./TodayMore.tsx'));
const TodayShelf = lazy(() => import('./TodayShelf.tsx'));
const FormCounts = lazy(async () => ({ default: (await import('../kit/FormCounts.tsx')).FormCounts }));

const jars = (n: number) => (n === 1 ? '1 jar' : `${n} jars`);
const DUE: Record<Due['kind'], { words: (n: number) => string; to: (id: string) => string; action: string }> =
  {
    press: { words: n => `Press ${jars(n)}`, to: id => `/check/${id}`, action: 'Press' },
    acidity: { words: () => 'Read the pH', to: id => `/check/${id}`, action: 'Read' },
    settle: {
      words: n => (n === 1 ? 'Settle a deviation' : `Settle ${n} deviations`),
      to: id => `/check/${id}`,
      action: 'Settle',
    },
    sign: {
      words: n => (n === 1 ? 'Sign a correction' : `Sign ${n} corrections`),
      to: id => `/records/${id}`,
      action: 'Look',
    },
    reprocess: {
      words: n => say('today.failed', { n }),
      to: id => `/cook/${id}`,
      action: say('today.failed.go'),
    },
    held: { words: n => `${jars(n)} held`, to: id => `/check/${id}`, action: 'See why' },
    release: { words: n => `Release ${jars(n)}`, to: id => `/check/${id}`, action: 'Release' },
    look: {
      words: n => say('today.lookAt', { n }),
      to: id => `/check/${id}`,
      action: say('today.lookAt.go'),
    },
    'look again': {
      words: n => say('today.lookAgain', { n }),
      to: id => `/check/${id}`,
      action: say('today.lookAt.go'),
    },
    'ask back': {
      words: n => say('today.askBack', { n }),
      to: id => `/label/${id}`,
      action: say('today.askBack.go'),
    },
    label: { words: n => `Print labels for ${jars(n)}`, to: id => `/label/${id}`, action: 'Print' },
  };

/** What is running, and what is due next and when. */
export function TodayPage() {
  const { kitchen, person } = useHere();
  const { data } = useToday();
  const now = useNow();
  const batches = data?.batches ?? [];
  const due = batches
    .flatMap(b => b.summary.due.map(d => ({ batch: b, due: d })))
    .sort((a, b) => a.due.from_ms - b.due.from_ms);
  // The meter is calibrated once a day, before the first reading.
  const firstReading = due.find(d => d.due.kind === 'acidity' && d.due.from_ms <= now);
  const running = batches.filter(b => b.summary.stage === 'cooking');
  const nothing = data && due.length === 0 && (
    <Nothing>Nothing waits. {batches.length === 0 ? 'Start a batch from a recipe.' : ''}</Nothing>
  );
  const greeting = new Intl.DateTimeFormat(kitchen.locale, {
    timeZone: kitchen.zone,
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  }).format(now);
  return (
    <>
      <ViewHead
        title="Today"
        detail={
          <>
            {greeting} · {person.name}
          </>
        }
      >
        <Button component={Link} to="/recipes" variant="contained" size="large">
          Start a batch
        </Button>
      </ViewHead>
      <Columns of="1.25fr 1fr">
        <Sheet
          title="Due"
          aside={due.length > 0 ? `${due.filter(d => d.due.from_ms <= now).length} now` : ''}
        >
          {due.map(({ batch, due: d }) => (
            <DueRow
              key={`${batch.id} ${d.kind}`}
              batch={batch}
              due={d}
              now={now}
              zone={kitchen}
              also={d === firstReading?.due ? say('today.calibrate') : ''}
            />
          ))}
          <Suspense fallback={nothing}>
            <TodayMore otherwise={nothing} />
          </Suspense>
        </Sheet>
        <Sheet title="On the stove">
          {running.map(b => (
            <Box
              key={b.id}
              sx={{
                py: 1.5,
                borderBottom: 1,
                borderColor: 'rule.main',
                '&:last-of-type': { borderBottom: 0 },
              }}
            >
              <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', justifyContent: 'space-between' }}>
                <Box>
                  <Typography variant="h3">{b.summary.name}</Typography>
                  <Soft>{b.summary.lotCode}</Soft>
                </Box>
                <Button component={Link} to={`/cook/${b.id}`} variant="outlined">
                  Go on
                </Button>
              </Box>
              {b.summary.running.map(r => (
                <Box key={r.id} sx={{ mt: 0.75 }}>
                  {r.latest_ms !== null && r.latest_ms < now ? (
                    <Tag tone="ox">{say('today.waitOver')}</Tag>
                  ) : (
                    <Tag tone="live">
                      {r.until_ms > now ? countdownText((r.until_ms - now) / 1000) : 'ready'}
                    </Tag>
                  )}{' '}
                  {r.title}
                  {r.latest_ms !== null && (
                    <Soft>
                      , from {clockText(r.until_ms, kitchen)} by {clockText(r.latest_ms, kitchen)}
                    </Soft>
                  )}
                </Box>
              ))}
              {Object.keys(b.summary.forms).length > 0 && (
                <Box sx={{ mt: 1 }}>
                  <Suspense>
                    <FormCounts forms={b.summary.forms} />
                  </Suspense>
                </Box>
              )}
            </Box>
          ))}
          {data && running.length === 0 && <Nothing>The stove is off.</Nothing>}
        </Sheet>
        <Suspense>
          <Guide />
        </Suspense>
        <Suspense>
          <TodayShelf />
        </Suspense>
      </Columns>
      {data?.more && (
        <Typography sx={{ mt: 2 }}>
          Only the newest 200 open batches are shown here; the rest are under Records.
        </Typography>
      )}
    </>
  );
}

/** A jar that failed may be processed again within a day of being lifted. */
function leftToReprocess(lifted_ms: number, now: number): string {
  const left_s = (lifted_ms + REPROCESS_HOURS * 3_600_000 - now) / 1000;
  return left_s > 0 ? say('today.failed.left', { left: countdownText(left_s) }) : say('today.failed.over');
}

function DueRow({
  batch,
  due,
  now,
  zone,
  also,
}: {
  batch: BatchRow;
  due: Due;
  now: number;
  zone: { zone: string; locale: string };
  also: string;
}) {
  const open = due.from_ms <= now;
  const { words, to, action } = DUE[due.kind];
  return (
    <Row>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 700, fontSize: '1.08rem' }}>{words(due.count)}</Box>
        <Soft>
          {batch.summary.name} · {batch.summary.lotCode} ·{' '}
          {due.kind === 'reprocess'
            ? leftToReprocess(due.from_ms, now)
            : open
              ? `since ${instantText(due.from_ms, zone)}`
              : `from ${instantText(due.from_ms, zone)}`}
        </Soft>
        {due.next && <Box sx={{ fontSize: '0.95rem' }}>{due.next}</Box>}
        {also && <Box sx={{ fontSize: '0.95rem' }}>{also}</Box>}
      </Box>
      {open ? (
        <Button
          component={Link}
          to={to(batch.id)}
          variant="contained"
          aria-label={`${action}: ${batch.summary.name}`}
        >
          {action}
        </Button>
      ) : (
        <Tag tone="plain">in {countdownText((due.from_ms - now) / 1000)}</Tag>
      )}
    </Row>
  );
}
