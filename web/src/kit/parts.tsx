import type { Fault } from '@cocotte/core/measure';
import { Box, Paper, type SxProps, type Theme, Typography } from '@mui/material';
import { Fragment, type ReactNode, useEffect, useId, useRef } from 'react';
import { useLocation } from 'react-router';
import { faultText } from './readers.ts';

/** A white sheet with a fine rule: the one container. */
export function Sheet({
  title,
  aside,
  children,
  sx,
  tone,
}: {
  title?: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  sx?: SxProps<Theme>;
  tone?: 'live' | 'ox';
}) {
  const id = useId();
  return (
    <Paper
      component="section"
      aria-labelledby={title ? id : undefined}
      sx={[
        {
          position: 'relative',
          border: 1,
          borderColor: tone === 'live' ? 'live.fill' : tone === 'ox' ? 'ox.main' : 'rule.main',
          bgcolor: tone ? `${tone}.tint` : 'background.paper',
          p: { xs: 2, sm: '16px 22px' },
        },
        ...(Array.isArray(sx) ? sx : [sx]),
      ]}
    >
      {title && (
        <Box
          sx={{
            display: 'flex',
            alignItems: 'baseline',
            justifyContent: 'space-between',
            gap: 2,
            mb: 1.75,
            flexWrap: 'wrap',
          }}
        >
          <Typography variant="h2" id={id}>
            {title}
          </Typography>
          {aside && <Box sx={{ color: 'text.secondary', fontSize: '0.95rem' }}>{aside}</Box>}
        </Box>
      )}
      {children}
    </Paper>
  );
}

/** The address whose heading was the last to be shown. */
let headed: string | null = null;

/** The heading of a view, with its actions; also the page's title. A new view is begun at its heading. */
export function ViewHead({
  title,
  detail,
  children,
}: {
  title: string;
  detail?: ReactNode;
  children?: ReactNode;
}) {
  useEffect(() => {
    document.title = `${title} · Cocotte`;
  }, [title]);
  const heading = useRef<HTMLHeadingElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    // Whoever reads by ear hears where they are; where the page was opened, and within a view, nothing moves.
    if (headed !== null && headed !== pathname) heading.current?.focus({ preventScroll: true });
    headed = pathname;
  }, [pathname]);
  return (
    <Box sx={{ display: 'flex', alignItems: 'flex-end', gap: 2, flexWrap: 'wrap', mb: 2 }}>
      <Box sx={{ flex: '1 1 300px' }}>
        <Typography variant="h1" ref={heading} tabIndex={-1} sx={{ outline: 'none' }}>
          {title}
        </Typography>
        {detail && <Box sx={{ color: 'text.secondary', mt: 0.5 }}>{detail}</Box>}
      </Box>
      {children && (
        <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap' }} className="no-print">
          {children}
        </Box>
      )}
    </Box>
  );
}

/** Read aloud, not shown. */
export function Aloud({ children }: { children: ReactNode }) {
  return (
    <Box
      component="span"
      sx={{
        position: 'absolute',
        width: '1px',
        height: '1px',
        overflow: 'hidden',
        clipPath: 'inset(50%)',
        whiteSpace: 'nowrap',
      }}
    >
      {children}
    </Box>
  );
}

/** Secondary text. */
export function Soft({ children, sx }: { children: ReactNode; sx?: SxProps<Theme> }) {
  return (
    <Box component="span" sx={[{ color: 'text.secondary' }, ...(Array.isArray(sx) ? sx : [sx])]}>
      {children}
    </Box>
  );
}

/** An amount with its fractions set as fractions. */
export function Fractions({ text }: { text: string }) {
  return (
    <>
      {text.split(/(\d+\/\d+)/).map((part, i) => (
        // oxlint-disable-next-line react/no-array-index-key -- parts of one text have no other name
        <Fragment key={i}>{i % 2 === 1 ? <Fraction text={part} /> : part}</Fragment>
      ))}
    </>
  );
}

/** Raised over lowered: the text face has the `frac` glyphs of a few fractions only. */
function Fraction({ text }: { text: string }) {
  const [top, bottom] = text.split('/');
  return (
    <span className="frac">
      <sup>{top}</sup>/<sub>{bottom}</sub>
    </span>
  );
}

/** A sign with words: state is never colour alone. */
export function Tag({ tone, children }: { tone: 'leaf' | 'live' | 'ox' | 'plain'; children: ReactNode }) {
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.75,
        fontSize: '0.9rem',
        fontWeight: 600,
        px: 1,
        py: '2px',
        borderRadius: 1,
        whiteSpace: 'nowrap',
        bgcolor: tone === 'plain' ? 'aub.tint' : `${tone}.tint`,
        color: tone === 'plain' ? 'text.primary' : `${tone}.main`,
      }}
    >
      {tone === 'leaf' && <CheckMark size={12} />}
      {tone === 'ox' && <CrossMark size={12} />}
      {children}
    </Box>
  );
}

export function CheckMark({ size = 16 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
      <path
        d="M2 8.500l4 4 8-9.500"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.600"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}

export function CrossMark({ size = 16 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
      <path
        d="M3 3l10 10M13 3L3 13"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.600"
        strokeLinecap="round"
      />
    </svg>
  );
}

/** Faults that belong to no single field. */
export function Faults({ faults }: { faults: readonly Fault[] }) {
  if (faults.length === 0) return null;
  return (
    <Box
      role="alert"
      sx={{
        border: 1,
        borderColor: 'ox.main',
        bgcolor: 'ox.tint',
        borderRadius: 1,
        px: 2,
        py: 1.25,
        my: 1.5,
      }}
    >
      {faults.map(f => (
        <Typography key={f.path + f.code + f.what} sx={{ my: 0.25 }}>
          <strong>{f.what}</strong> {faultText({ what: '', why: f.why, next: f.next })}
        </Typography>
      ))}
    </Box>
  );
}

/** A caution, beside the action that can hurt. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', color: 'live.main', my: 0.75 }}>
      <svg
        width="20"
        height="20"
        viewBox="0 0 20 20"
        aria-hidden="true"
        style={{ flex: 'none', marginTop: 2 }}
      >
        <path
          d="M10 2.500L18.500 17h-17z"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.800"
          strokeLinejoin="round"
        />
        <path d="M10 8v4M10 14.200v.6" stroke="currentColor" strokeWidth="1.900" strokeLinecap="round" />
      </svg>
      <span>{children}</span>
    </Box>
  );
}

/** What a list says when there is nothing in it, and what to do. */
export function Nothing({ children }: { children: ReactNode }) {
  return <Box sx={{ color: 'text.secondary', py: 3, textAlign: 'center' }}>{children}</Box>;
}
