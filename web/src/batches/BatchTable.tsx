import type { BatchRow } from '@cocotte/contract';
import type { JarForm } from '@cocotte/core/checks';
import { dayText } from '@cocotte/core/measure';
import { Box, Link as MuiLink, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { JarGlyph } from '../shell/jars.tsx';
import { Soft, Tag } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';

/** Batches in a table: what, which lot, where its jars stand, and what the stop adds. */
export function BatchTable({
  rows,
  to,
  last,
}: {
  rows: BatchRow[];
  to: (row: BatchRow) => string;
  last?: { title: string; cell: (row: BatchRow) => ReactNode };
}) {
  const { kitchen } = useHere();
  return (
    <Box sx={{ overflowX: 'auto', position: 'relative' }}>
      <Table>
        <TableHead>
          <TableRow>
            <TableCell>Batch</TableCell>
            <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>Made</TableCell>
            <TableCell>Jars</TableCell>
            {last && <TableCell>{last.title}</TableCell>}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map(row => (
            <TableRow key={row.id}>
              <TableCell>
                <MuiLink component={Link} to={to(row)} sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
                  {row.summary.name}
                </MuiLink>
                <br />
                <Soft>{row.summary.lotCode}</Soft>{' '}
                {row.summary.purpose !== 'sale' && <Tag tone="live">{row.summary.purpose}</Tag>}
              </TableCell>
              <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' }, whiteSpace: 'nowrap' }}>
                {dayText(row.summary.madeOn, kitchen)}
              </TableCell>
              <TableCell>
                <FormCounts forms={row.summary.forms} />
              </TableCell>
              {last && <TableCell>{last.cell(row)}</TableCell>}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

/** How many jars have each form, each with its glyph. */
export function FormCounts({ forms }: { forms: Partial<Record<JarForm, number>> }) {
  const entries = Object.entries(forms) as [JarForm, number][];
  if (entries.length === 0) return <Soft>none filled</Soft>;
  return (
    <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
      {entries.map(([form, n]) => (
        <Box key={form} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <JarGlyph form={form} size="half-pint" scale={0.55} />
          <span>
            {n} {form}
          </span>
        </Box>
      ))}
    </Box>
  );
}
