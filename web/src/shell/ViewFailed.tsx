import { Box, Button, Typography } from '@mui/material';
import { say } from '../words/index.ts';

/**
 * Stands in the place of a view that broke, or that could not be loaded: after a new version its old parts are gone.
 * The rail and its clocks go on beside it.
 */
export function ViewFailed() {
  return (
    <Box role="alert" sx={{ maxWidth: 560, mt: 4 }}>
      <Typography variant="h1" gutterBottom>
        {say('view.failed')}
      </Typography>
      <Typography sx={{ mb: 2 }}>{say('view.failed.why')}</Typography>
      <Button variant="contained" onClick={() => window.location.reload()}>
        {say('view.failed.next')}
      </Button>
    </Box>
  );
}
