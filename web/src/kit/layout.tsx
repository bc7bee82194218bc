import { Box, type SxProps, type Theme } from '@mui/material';
import { Fragment, type ReactNode } from 'react';

interface Props {
  children: ReactNode;
  sx?: SxProps<Theme>;
}
const also = (sx: SxProps<Theme> | undefined) => (Array.isArray(sx) ? sx : [sx]);
/** Columns that may become narrower than what stands in them. */
const able = (columns: string) =>
  columns.includes('(') ? columns : columns.replaceAll(/[\d.]+fr/g, 'minmax(0, $&)');

/** Fields side by side; beneath one another, or in two columns, on a phone. */
export function Cells({
  wide = '1fr 1fr',
  narrow = '1fr',
  gap = 2,
  mt = 1,
  children,
  sx,
  ...rest
}: Props & {
  wide?: string;
  narrow?: string;
  gap?: number;
  mt?: number;
  role?: string;
  'aria-label'?: string;
}) {
  return (
    <Box
      {...rest}
      sx={[
        {
          display: 'grid',
          gridTemplateColumns: { xs: able(narrow), sm: able(wide) },
          gap,
          mt,
          alignItems: 'start',
        },
        ...also(sx),
      ]}
    >
      {children}
    </Box>
  );
}

/** Sheets side by side on a wide screen, else beneath one another. */
export function Columns({
  of = '1fr 1fr',
  from = 'md',
  children,
  sx,
}: Props & { of?: string; from?: 'sm' | 'md' | 'lg' }) {
  return (
    <Box
      sx={[
        {
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', [from]: able(of) },
          gap: 2,
          alignItems: 'start',
        },
        ...also(sx),
      ]}
    >
      {children}
    </Box>
  );
}

/** Sheets beneath one another. */
export function Stack({ children, sx, gap = 2 }: Props & { gap?: number }) {
  return (
    <Box sx={[{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap }, ...also(sx)]}>{children}</Box>
  );
}

/** Things in a line, which breaks where it must. */
export function Line({ children, sx, mt = 0 }: Props & { mt?: number }) {
  return (
    <Box sx={[{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt }, ...also(sx)]}>
      {children}
    </Box>
  );
}

/** What is known of a thing: only what there is. */
export function Facts({ of }: { of: readonly (readonly [name: string, value: ReactNode])[] }) {
  return (
    <Box
      component="dl"
      sx={{
        display: 'grid',
        gridTemplateColumns: '120px 1fr',
        gap: 0.75,
        m: 0,
        '& dt': { color: 'text.secondary' },
        '& dd': { m: 0 },
      }}
    >
      {of
        .filter(([, value]) => value !== null && value !== undefined && value !== '' && value !== false)
        .map(([name, value]) => (
          <Fragment key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </Fragment>
        ))}
    </Box>
  );
}
