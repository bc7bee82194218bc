import type { PlacedRule } from '@cocotte/core/labels';
import { Box, Typography } from '@mui/material';
import { CheckMark, CrossMark, Sheet, Soft } from '../kit/parts.tsx';
import { say } from '../words/views.ts';

/** Every requirement, met or not, with its source; the one that is pointed at shows where on the label it is. */
export function Requirements({
  rules,
  pointed,
  onPoint,
}: {
  rules: readonly PlacedRule[];
  /** What of them is pointed at. */
  pointed: string | null;
  onPoint: (what: string | null) => void;
}) {
  const unmet = rules.filter(r => !r.met).length;
  return (
    <Sheet
      title={say('label.rules')}
      aside={say('label.rules.aside', { met: rules.length - unmet, of: rules.length })}
    >
      {rules.map(r => {
        const at = r.at;
        const shown = at !== null && pointed === r.what;
        return (
          <Box
            key={r.what}
            onPointerEnter={() => onPoint(r.what)}
            onPointerLeave={() => onPoint(null)}
            sx={{
              display: 'flex',
              gap: 1.5,
              py: 0.75,
              px: 1,
              mx: -1,
              borderBottom: 1,
              borderColor: 'rule.main',
              '&:last-of-type': { borderBottom: 0 },
              bgcolor: shown ? 'live.tint' : undefined,
            }}
          >
            <Box sx={{ mt: 0.25, color: r.met ? 'leaf.main' : 'ox.main' }}>
              {r.met ? <CheckMark /> : <CrossMark />}
            </Box>
            <Box sx={{ minWidth: 0, flex: 1 }}>
              {at ? (
                <Box
                  component="button"
                  type="button"
                  aria-pressed={shown}
                  onFocus={() => onPoint(r.what)}
                  onBlur={() => onPoint(null)}
                  onClick={() => onPoint(r.what)}
                  sx={{
                    all: 'unset',
                    cursor: 'pointer',
                    fontWeight: 700,
                    textDecoration: 'underline dotted',
                    textUnderlineOffset: '3px',
                    '&:focus-visible': { outline: '2px solid', outlineColor: 'primary.main' },
                  }}
                >
                  {r.what}
                </Box>
              ) : (
                <strong>{r.what}</strong>
              )}{' '}
              <Soft sx={{ fontSize: '0.9rem' }}>{r.rule}</Soft>
              <Box sx={{ overflowWrap: 'anywhere' }}>{r.met ? r.shown : r.next}</Box>
            </Box>
          </Box>
        );
      })}
      <Typography sx={{ mt: 1.5, color: 'text.secondary', fontSize: '0.92rem' }}>
        {say('label.rules.memory')}
      </Typography>
    </Sheet>
  );
}
