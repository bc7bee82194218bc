import { ACTION_WORDS } from '@cocotte/core/records';
import { dayText, instantText, rangesText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { Switcher } from '../kit/controls.tsx';
import { List } from '../kit/List.tsx';
import { PaperLink } from '../kit/PaperLink.tsx';
import { Sheet, Soft, Tag, ViewHead } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { useCheckHistory } from './history.ts';

const SHOW = ['all', 'open', 'unseen'] as const;

/** Every deviation the kitchen ever had, apart from the batches' records: what, why, what was done, by whom, with what. */
export function DeviationsPage() {
  const { kitchen, session } = useHere();
  const { data, error } = useCheckHistory();
  const [show, setShow] = useState<(typeof SHOW)[number]>('all');
  const all = data?.batches.flatMap(b => b.deviations.map(d => ({ ...d, batch: b })));
  const rows = all?.filter(
    d => show === 'all' || (show === 'open' ? d.state === 'open' : d.unseen && d.actions.length > 0),
  );
  const nameOf = (personId: string) => data?.people[personId] ?? session.person?.name ?? '';
  return (
    <>
      <ViewHead title={say('deviations.list')} detail={say('deviations.source')} />
      <Sheet>
        <List
          label={say('deviations.list')}
          rows={rows}
          error={error}
          keyOf={d => `${d.batch.batchId} ${d.key}`}
          nothing={say('deviations.none')}
          minWidth={720}
          find={
            <Switcher
              label={say('deviations.show')}
              value={show}
              of={SHOW.map(s => [s, say(`deviations.show.${s}`)] as const)}
              onPick={setShow}
              sx={{ width: 240 }}
            />
          }
          columns={[
            {
              head: say('deviations.lot'),
              row: true,
              whole: true,
              order: d => d.batch.madeOn,
              cell: d => (
                <>
                  <MuiLink component={Link} to={`/check/${d.batch.batchId}`}>
                    {d.batch.lotCode}
                  </MuiLink>
                  <Box>
                    <Soft>{dayText(d.batch.madeOn, kitchen)}</Soft>
                  </Box>
                </>
              ),
            },
            {
              head: say('deviations.happened'),
              cell: d => (
                <>
                  {d.what}{' '}
                  {d.jars && d.jars.length > 0 && (
                    <Soft>{say('deviations.jars', { jars: rangesText(d.jars) })}</Soft>
                  )}
                </>
              ),
            },
            {
              head: say('deviations.done'),
              cell: d => (
                <>
                  {d.actions.map(a => (
                    <Box key={a.at_ms}>
                      {ACTION_WORDS[a.action]}: {a.reason}
                      {a.cause && ` ${say('deviations.cause', { cause: a.cause })}`}{' '}
                      {a.paperId && <PaperLink paperId={a.paperId} />}{' '}
                      <Soft>
                        {nameOf(a.personId)}, {instantText(a.at_ms, kitchen)}
                      </Soft>
                    </Box>
                  ))}
                  {d.secondLook && (
                    <Soft>
                      {say(d.secondLook.agrees ? 'deviations.agreed' : 'deviations.disagreed', {
                        name: nameOf(d.secondLook.personId),
                      })}
                    </Soft>
                  )}
                  {d.actions.length === 0 && <Soft>{say('deviations.nothing')}</Soft>}
                </>
              ),
            },
            {
              head: say('deviations.stands'),
              cell: d => (
                <Tag tone={d.state === 'open' ? 'ox' : d.state === 'settled' ? 'leaf' : 'plain'}>
                  {say(`deviations.state.${d.state}`)}
                </Tag>
              ),
            },
          ]}
        />
      </Sheet>
    </>
  );
}
