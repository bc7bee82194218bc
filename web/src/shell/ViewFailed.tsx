import { Box, Button, Typography } from '@mui/material';

/**
 * Stands in the place of a view that broke, or that could not be loaded: after a new version its old parts are gone.
 * The rail and its clocks go on beside it.
 */
export function ViewFailed() {
  return (
    <Box role="alert" sx={{ maxWidth: 560, mt: 4 }}>
      <Typography variant="h1" gutterBottom>
        This view cannot be shown
      </Typography>
      <Typography sx={{ mb: 2 }}>
        Part of it failed or could not be loaded. What was entered on this device is kept, and the clocks go
        on. Load the page again; if it fails again, go on at another stop.
      </Typography>
      <Button variant="contained" onClick={() => window.location.reload()}>
        Load the page again
      </Button>
    </Box>
  );
}
