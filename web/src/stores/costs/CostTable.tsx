import { moneyText, numberText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import type { CostPartId, CostSheet } from '@cocotte/core/stores';
import { Box, Button, TableCell, TableRow } from '@mui/material';
import { useState } from 'react';
import { List } from '../../kit/List.tsx';
import { Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';

export const PART_WORDS: Record<CostPartId, string> = {
  ingredients: 'Ingredients',
  jars: 'Jars',
  lids: 'Lids',
  bands: 'Bands',
  labels: 'Labels',
  packaging: 'Packaging',
  work: 'Work',
  'opening and cleaning': 'Opening and cleaning',
  energy: 'Energy',
  overhead: 'Overhead',
  market: 'Market',
};

/** What a jar of each size costs, large. */
export function PerJar({ sheet }: { sheet: CostSheet }) {
  const { kitchen } = useHere();
  const habits = { ...kitchen, currency: sheet.currency };
  return (
    <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap' }}>
      {sheet.bySize.map(s => (
        <Box key={s.size}>
          <Box component="strong" sx={{ fontSize: '1.9rem', color: 'text.primary', lineHeight: 1.1 }}>
            {moneyText(s.perJar, habits)}
          </Box>{' '}
          <Soft>a {jarSize(s.size).name}</Soft>
        </Box>
      ))}
    </Box>
  );
}

/** What a batch costs, in parts that add up; each part opens into its lines. */
export function CostTable({ sheet, label }: { sheet: CostSheet; label: string }) {
  const { kitchen } = useHere();
  const habits = { ...kitchen, currency: sheet.currency };
  const [open, setOpen] = useState<ReadonlySet<CostPartId>>(new Set());
  const toggle = (part: CostPartId) =>
    setOpen(o => {
      const next = new Set(o);
      if (!next.delete(part)) next.add(part);
      return next;
    });
  const rows = sheet.parts
    .filter(p => p.exact !== '0')
    .flatMap(({ part, amount }) => [
      { key: part as string, part, line: null, money: amount },
      ...(open.has(part) ? sheet.lines.filter(l => l.part === part) : []).map((line, i) => ({
        key: `${line.key} ${i}`,
        part,
        line,
        money: line.cost,
      })),
    ]);
  const jars = sheet.bySize.reduce((n, s) => n + s.count, 0);
  const lost = sheet.lost.reduce((n, l) => n + l.count, 0);
  return (
    <>
      <List
        label={label}
        rows={rows}
        keyOf={r => r.key}
        rowSx={r =>
          r.line
            ? { '& td': { borderBottom: 0, py: 0.25, color: 'text.secondary', fontSize: '0.92rem' } }
            : undefined
        }
        columns={[
          {
            head: 'Part',
            cell: ({ part, line }) =>
              line ? (
                <Box sx={{ pl: 3.5 }}>
                  {line.name} ·{' '}
                  {numberText(
                    Number(line.quantity),
                    kitchen,
                    line.unit === 'h' || line.unit === 'kWh' ? 2 : 1,
                  )}{' '}
                  {line.unit === 'each' ? '' : line.unit} · {line.detail}
                </Box>
              ) : (
                <Button
                  size="small"
                  onClick={() => toggle(part)}
                  aria-expanded={open.has(part)}
                  sx={{
                    px: 0,
                    minWidth: 0,
                    fontSize: '1rem',
                    color: 'text.primary',
                    fontWeight: 400,
                    minHeight: 32,
                    textDecoration: 'underline',
                    textDecorationColor: 'rgba(128,128,128,0.5)',
                    textUnderlineOffset: 3,
                  }}
                >
                  {PART_WORDS[part]}
                </Button>
              ),
          },
          { head: 'Cost', figure: true, cell: r => moneyText(r.money, habits) },
        ]}
        foot={
          <TableRow sx={{ '& td': { fontWeight: 700 } }}>
            <TableCell>
              Total, over {numberText(jars, kitchen, 0)} {jars === 1 ? 'jar' : 'jars'}
            </TableCell>
            <TableCell align="right">{moneyText(sheet.total, habits)}</TableCell>
          </TableRow>
        }
      />
      {sheet.bySize.length > 1 && (
        <Soft sx={{ display: 'block', mt: 1, fontSize: '0.92rem' }}>
          {sheet.bySize
            .map(
              s =>
                `${numberText(s.count, kitchen, 0)} ${jarSize(s.size).plural} bear ${moneyText(s.total, habits)}`,
            )
            .join(', ')}
          ; they share the pot by net weight.
        </Soft>
      )}
      {lost > 0 && (
        <Box sx={{ mt: 1 }}>
          {sheet.lost.map(l => `${l.count} ${l.why}`).join(', ')}:{' '}
          {sheet.bySize.map(s => (
            <span key={s.size}>
              each {jarSize(s.size).name} that can be sold carries{' '}
              <strong>{moneyText(s.lossPerJar, habits)}</strong> of it.{' '}
            </span>
          ))}
        </Box>
      )}
      {sheet.unpriced.length > 0 && (
        <Box sx={{ mt: 1 }}>
          <Tag tone="live">not in it</Tag> {sheet.unpriced.join(', ')}
        </Box>
      )}
    </>
  );
}
