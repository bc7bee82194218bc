import { Box, Button, Typography } from '@mui/material';
import { useSyncExternalStore } from 'react';
import { outbox } from '../outbox/index.ts';
import { faultText } from './entry.ts';

/** Says what is still on this device, and what the server would not take. */
export function OutboxBar() {
  const { waiting, away } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const kept = waiting.filter(w => !w.refused);
  const refused = waiting.filter(w => w.refused);
  return (
    <>
      {away && kept.length > 0 && (
        <Box
          role="status"
          sx={{
            bgcolor: 'live.tint',
            borderBottom: 2,
            borderColor: 'live.fill',
            px: 3,
            py: 1,
            display: 'flex',
            gap: 2,
            alignItems: 'center',
            flexWrap: 'wrap',
          }}
        >
          <Box sx={{ flex: 1, minWidth: 240 }}>
            <strong>The kitchen's book cannot be reached.</strong>{' '}
            {kept.length === 1 ? 'One entry is' : `${kept.length} entries are`} kept on this device and will
            be sent when it is back. Go on working.
          </Box>
          <Button size="small" variant="outlined" onClick={outbox.deliver}>
            Try now
          </Button>
        </Box>
      )}
      {refused.length > 0 && (
        <Box role="alert" sx={{ bgcolor: 'ox.tint', borderBottom: 2, borderColor: 'ox.main', px: 3, py: 1 }}>
          {refused.map(w => (
            <Box key={w.key} sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
              <Typography sx={{ flex: 1, minWidth: 240 }}>
                <strong>An entry was not taken ({w.entry.type}).</strong>{' '}
                {w.refused?.map(faultText).join(' ')}
              </Typography>
              <Button size="small" variant="outlined" onClick={() => void outbox.discard(w.key)}>
                Let it go
              </Button>
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}
