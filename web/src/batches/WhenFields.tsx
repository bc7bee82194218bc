import { Box, FormControlLabel, Switch, TextField } from '@mui/material';
import { faultText } from '../shell/entry.ts';
import type { When } from './when.ts';

/** The switch for writing up afterwards, and the time that the next entries get. */
export function WhenFields({ when }: { when: When }) {
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
      <FormControlLabel
        control={<Switch checked={when.typed} onChange={(_, on) => when.setTyped(on)} />}
        label="Write up afterwards"
      />
      {when.typed && (
        <TextField
          label="It happened at"
          type="datetime-local"
          value={when.text}
          onChange={e => when.setText(e.target.value)}
          error={when.fault !== null}
          helperText={when.fault ? faultText(when.fault) : 'Marked in the record as typed in afterwards'}
          sx={{ width: 290 }}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { step: 1 } }}
        />
      )}
    </Box>
  );
}
