import { dayText, massText, numberText, shareText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useHistory, useTastings } from '../api.ts';
import { yieldSeen } from './plan.ts';

/** So many batches stand side by side. */
const SHOWN = 3;
const NOTHING = '–';

/** What the last batches of a recipe taught, side by side, at the moment of starting the next. */
export function LastBatches({ recipeId }: { recipeId: string }) {
  const { kitchen } = useHere();
  const { data: history } = useHistory(recipeId);
  const { data: tasted } = useTastings(recipeId);
  const batches = (history?.batches ?? []).filter(b => b.actual_pints !== null).slice(0, SHOWN);
  if (batches.length === 0) return null;
  const pints = (value: number | null) => (value === null ? NOTHING : numberText(value, kitchen, 2));
  const tastingOf = (lotCode: string) => tasted?.tastings.find(t => t.lotCode === lotCode);
  const rows: [what: string, cell: (b: (typeof batches)[number]) => ReactNode][] = [
    [say('last.foreseen'), b => pints(b.expected_pints)],
    [say('last.filled'), b => pints(b.actual_pints)],
    [
      say('last.cooked'),
      b =>
        b.learned.cook_min === null
          ? NOTHING
          : b.learned.boilOff_gPerMin === null
            ? say('last.minutes', { min: b.learned.cook_min })
            : say('last.minutesOff', {
                min: b.learned.cook_min,
                off: massText(b.learned.boilOff_gPerMin, kitchen),
              }),
    ],
    [
      say('last.set'),
      b => (b.learned.set ? say('look.setWords', { set: b.learned.set.replaceAll(' ', '') }) : NOTHING),
    ],
    [
      say('last.found'),
      b =>
        b.learned.found
          .map(f => say('last.faultIn', { fault: say('look.fault', { fault: f.fault }), n: f.jars }))
          .join(', ') || NOTHING,
    ],
    [say('last.ph'), b => (b.readings.at(-1) ? numberText(b.readings.at(-1)?.ph ?? 0, kitchen, 2) : NOTHING)],
    [
      say('last.tasted'),
      b => {
        const tasting = tastingOf(b.lotCode);
        return tasting ? `${tasting.rating}/5${tasting.notes ? `, ${tasting.notes}` : ''}` : NOTHING;
      },
    ],
    [say('last.why'), b => [...b.reasons, ...b.learned.said].join(' ') || NOTHING],
  ];
  // What nobody read or tasted of any of them is left out.
  const said = rows.filter(([, cell]) => batches.some(b => cell(b) !== NOTHING));
  const seen = yieldSeen(history?.batches ?? []);
  return (
    <Box sx={{ mt: 2, overflowX: 'auto' }}>
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          '& th, & td': { textAlign: 'left', p: 0.5, verticalAlign: 'top' },
          '& thead th': { whiteSpace: 'nowrap' },
        }}
      >
        <caption style={{ textAlign: 'left', fontWeight: 700 }}>
          {say('last.title', { n: batches.length })}
        </caption>
        <thead>
          <tr>
            <td />
            {batches.map(b => (
              <th key={b.batchId} scope="col">
                {dayText(b.madeOn, kitchen)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {said.map(([what, cell]) => (
            <tr key={what}>
              <Box component="th" scope="row" sx={{ fontWeight: 400, color: 'text.secondary' }}>
                {what}
              </Box>
              {batches.map(b => (
                <td key={b.batchId}>{cell(b)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
      {seen && <Soft>{say('last.corrected', { share: shareText(seen.share, kitchen) })}</Soft>}
    </Box>
  );
}
