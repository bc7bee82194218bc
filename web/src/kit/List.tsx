import {
  Box,
  Button,
  type SxProps,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TableSortLabel,
  type Theme,
} from '@mui/material';
import { type KeyboardEvent, type Key, type ReactNode, useMemo, useState } from 'react';
import { faultsOf } from '../shell/call.ts';
import { say } from '../words/views.ts';
import { Aloud, Faults, Nothing } from './parts.tsx';

/** One column of a list. */
export interface Column<R> {
  head: ReactNode;
  cell: (row: R, index: number) => ReactNode;
  /** A figure: set to the right, never broken. */
  figure?: boolean;
  /** Left out below this width. */
  from?: 'sm' | 'md';
  /** By what the rows can be put in order; without it they cannot. */
  order?: (row: R) => string | number | null;
  /** Of a day, an instant, a code: never broken. */
  whole?: boolean;
  /** Names its row. */
  row?: boolean;
  /** Of an action: the head is read aloud only, the cell stands at the right. */
  action?: boolean;
  sx?: SxProps<Theme>;
}

/** Rows with what is still to come of them. */
export interface Listed<R> {
  /** Undefined while they are fetched for the first time. */
  rows: readonly R[] | undefined;
  error?: unknown;
  /** Fetches the next page, where there is one. */
  more?: (() => unknown) | undefined;
}

/** The rows of a question that is answered in pages. */
export function pagesOf<P, R>(
  query: {
    data: { pages: P[] } | undefined;
    error: unknown;
    hasNextPage: boolean;
    fetchNextPage: () => Promise<unknown>;
  },
  rowsOf: (page: P) => readonly R[],
): Listed<R> {
  return {
    rows: query.data?.pages.flatMap(rowsOf),
    error: query.error,
    more: query.hasNextPage ? () => query.fetchNextPage() : undefined,
  };
}

/** Numbers before texts, nothing last, texts as people sort them. */
function inOrder(a: string | number | null, b: string | number | null): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), undefined, { numeric: true });
}

/** Arrow keys go from row to row, to what each can be opened by. */
function onArrow(e: KeyboardEvent<HTMLElement>): void {
  if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
  const here = e.target as HTMLElement;
  if (here.closest('input, textarea, [role=combobox]')) return;
  let row = here.closest('tr');
  while (row) {
    row = (e.key === 'ArrowDown' ? row.nextElementSibling : row.previousElementSibling) as typeof row;
    const next = row?.querySelector<HTMLElement>('a, button');
    if (!next) continue;
    next.focus();
    e.preventDefault();
    return;
  }
}

/**
 * A list: rows in columns, with what it says when it is empty, fetched or failed, and the way to its next page. Where
 * all of its rows are here, its heads put them in order.
 */
export function List<R>({
  label,
  rows,
  error,
  more,
  columns,
  keyOf,
  nothing,
  find,
  foot,
  minWidth,
  rowSx,
  headFrom,
  size = 'small',
  sx,
}: Listed<R> & {
  /** Read aloud as the name of the table. */
  label: string;
  columns: readonly (Column<R> | false | null | undefined)[];
  keyOf: (row: R) => Key;
  /** What it says when there is nothing in it, and what to do. */
  nothing?: ReactNode;
  /** Fields that choose what is listed. */
  find?: ReactNode;
  /** Rows beneath all: sums. */
  foot?: ReactNode;
  /** Below it the list is pushed sideways instead of squeezed, px. */
  minWidth?: number;
  /** The heads are left out below this width. */
  headFrom?: 'sm' | 'md';
  rowSx?: (row: R) => SxProps<Theme> | undefined;
  size?: 'small' | 'medium';
  sx?: SxProps<Theme>;
}) {
  const [by, setBy] = useState<{ at: number; down: boolean } | null>(null);
  const shown = columns.filter(c => c !== false && c !== null && c !== undefined) as Column<R>[];
  const order = more ? undefined : by && shown[by.at]?.order;
  const sorted = useMemo(() => {
    if (!rows || !order || !by) return rows;
    const up = rows.toSorted((a, b) => inOrder(order(a), order(b)));
    return by.down ? up.toReversed() : up;
    // oxlint-disable-next-line react/exhaustive-deps -- the order of a column changes with nothing but the column
  }, [rows, by, more]);
  const look = (c: Column<R>, i: number): SxProps<Theme> => [
    c.from ? { display: { xs: 'none', [c.from]: 'table-cell' } } : {},
    c.figure || c.whole ? { whiteSpace: 'nowrap' } : {},
    // Words after a figure would otherwise stand against it.
    shown[i - 1]?.figure && !c.figure ? { pl: 4 } : {},
    ...(Array.isArray(c.sx) ? c.sx : [c.sx]),
  ];
  const headOf = (c: Column<R>, i: number) =>
    c.action ? (
      <Aloud>{c.head}</Aloud>
    ) : c.order && !more ? (
      <TableSortLabel
        active={by?.at === i}
        direction={by?.at === i && by.down ? 'desc' : 'asc'}
        onClick={() =>
          setBy(b => (b?.at !== i ? { at: i, down: false } : b.down ? null : { at: i, down: true }))
        }
      >
        {c.head}
      </TableSortLabel>
    ) : (
      c.head
    );
  return (
    <>
      {find}
      {error ? (
        <Faults faults={faultsOf(error)} />
      ) : rows === undefined ? (
        <Nothing>
          <span role="status">{say('list.waiting')}</span>
        </Nothing>
      ) : rows.length === 0 && nothing ? (
        <Nothing>{nothing}</Nothing>
      ) : (
        <Box sx={{ overflowX: 'auto', position: 'relative' }}>
          <Table
            size={size}
            aria-label={label}
            sx={[{ minWidth: minWidth ?? 0 }, ...(Array.isArray(sx) ? sx : [sx])]}
          >
            <TableHead sx={headFrom ? { display: { xs: 'none', [headFrom]: 'table-header-group' } } : {}}>
              <TableRow>
                {shown.map((c, i) => (
                  <TableCell
                    // oxlint-disable-next-line react/no-array-index-key -- a column is known by its place
                    key={i}
                    {...(c.figure || c.action ? { align: 'right' as const } : {})}
                    {...(by?.at === i && order
                      ? { sortDirection: by.down ? ('desc' as const) : ('asc' as const) }
                      : {})}
                    sx={look(c, i)}
                  >
                    {headOf(c, i)}
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody onKeyDown={onArrow}>
              {sorted?.map((row, n) => (
                <TableRow key={keyOf(row)} sx={rowSx?.(row) ?? {}}>
                  {shown.map((c, i) => (
                    <TableCell
                      // oxlint-disable-next-line react/no-array-index-key -- a column is known by its place
                      key={i}
                      {...(c.row ? { component: 'th', scope: 'row' } : {})}
                      {...(c.figure || c.action ? { align: 'right' as const } : {})}
                      sx={look(c, i)}
                    >
                      {c.cell(row, n)}
                    </TableCell>
                  ))}
                </TableRow>
              ))}
              {foot}
            </TableBody>
          </Table>
        </Box>
      )}
      {more && !error && (
        <Box sx={{ textAlign: 'center', mt: 1.5 }}>
          <Button variant="outlined" onClick={() => void more()}>
            {say('list.more')}
          </Button>
        </Box>
      )}
    </>
  );
}
