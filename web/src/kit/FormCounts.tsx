import type { JarForm } from '@cocotte/core/checks';
import { Box } from '@mui/material';
import { JarGlyph } from './jars.tsx';
import { Soft } from './parts.tsx';

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
