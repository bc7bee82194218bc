import { type InstrumentLog, retireInstrument } from '@cocotte/contract';
import { CHECKED_KINDS, type CheckedKind, checkVerdict } from '@cocotte/core/kitchen';
import { dayOf, dayText, instantText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Line, Stack } from '../kit/layout.tsx';
import { List } from '../kit/List.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { CheckDialog } from './CheckDialog.tsx';
import { lastCheck, useInstrumentLogs } from './instrument-logs.ts';

/** Checks of one instrument that are shown at once. */
const SHOWN = 8;

/** The kitchen's instruments: when each is to be checked again, and the log of what it was held against. */
export function InstrumentsPage() {
  const logs = useInstrumentLogs();
  const mayCook = useMay('cook');
  const [open, setOpen] = useState<{ kind: CheckedKind; log: InstrumentLog | null } | null>(null);
  return (
    <>
      <ViewHead title={say('instruments.title')} detail={say('instruments.detail')} />
      {mayCook && (
        <Line>
          {CHECKED_KINDS.map(kind => (
            <Button key={kind} variant="outlined" onClick={() => setOpen({ kind, log: null })}>
              {say(`instruments.add.${kind === 'ph meter' ? 'meter' : kind}`)}
            </Button>
          ))}
        </Line>
      )}
      <Box sx={{ mt: 2 }}>
        <Loaded query={logs}>
          {({ instruments }) =>
            instruments.length === 0 ? (
              <Sheet>
                <Nothing>{say('instruments.none')}</Nothing>
              </Sheet>
            ) : (
              <Stack>
                {instruments.map(log => (
                  <LogSheet
                    key={log.instrument.id}
                    log={log}
                    onCheck={mayCook ? () => setOpen({ kind: log.instrument.kind, log }) : null}
                  />
                ))}
              </Stack>
            )
          }
        </Loaded>
      </Box>
      {open && <CheckDialog {...open} onClose={() => setOpen(null)} />}
    </>
  );
}

function LogSheet({ log, onCheck }: { log: InstrumentLog; onCheck: (() => void) | null }) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const day = (ms: number) => dayOf(ms, kitchen.zone);
  const today = day(kitchenNow());
  const { due, verdict } = lastCheck(log, kitchen);
  const late = due === null || due <= today;
  const retire = async () => {
    await call(retireInstrument, { body: { id: log.instrument.id, retired: !log.retired } });
    await client.invalidateQueries({ queryKey: ['instrument-checks'] });
  };
  return (
    <Sheet
      title={log.instrument.name}
      aside={
        log.retired
          ? say('instruments.retired')
          : due === null
            ? say('instruments.dueNow')
            : say(late ? 'instruments.due' : 'instruments.again', { day: dayText(due, kitchen) })
      }
    >
      {verdict && !verdict.good && !log.retired && (
        <Box sx={{ mb: 1 }}>
          <Tag tone="ox">{say('check.bad')}</Tag> {verdict.next}
        </Box>
      )}
      <List
        label={say('instruments.logOf', { name: log.instrument.name })}
        rows={log.checks.slice(0, SHOWN)}
        keyOf={c => c.id}
        nothing={say('instruments.noChecks')}
        columns={[
          { head: say('instruments.when'), cell: c => instantText(Date.parse(c.at), kitchen), whole: true },
          {
            head: say('instruments.found'),
            row: true,
            cell: c => {
              const found = checkVerdict(c.body, kitchen, day(Date.parse(c.at)), day);
              return (
                <>
                  <Tag tone={found.good ? 'leaf' : 'ox'}>{say(found.good ? 'check.good' : 'check.bad')}</Tag>{' '}
                  {found.what}
                </>
              );
            },
          },
          { head: say('instruments.who'), cell: c => <Soft>{c.person}</Soft>, from: 'sm' },
        ]}
      />
      {onCheck && (
        <Line mt={1.5}>
          {!log.retired && (
            <Button variant={late ? 'contained' : 'outlined'} onClick={onCheck}>
              {say(log.instrument.kind === 'ph meter' ? 'today.check.calibrate' : 'today.thermometer.go')}
            </Button>
          )}
          <Button onClick={() => void retire()}>
            {say(log.retired ? 'instruments.useAgain' : 'instruments.retire')}
          </Button>
        </Line>
      )}
    </Sheet>
  );
}
