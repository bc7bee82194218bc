import { Box, Button } from '@mui/material';
import { Link } from 'react-router';
import { useHere, useMay } from './session.tsx';

/** Says, on every view, that nobody has entered where this kitchen stands, and where an owner does. */
export function NotSetUp() {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  if (kitchen.placed) return null;
  return (
    <Box
      role="status"
      sx={{
        bgcolor: 'live.tint',
        borderBottom: 2,
        borderColor: 'live.fill',
        px: { xs: 1.5, sm: 3.5 },
        py: 1,
        display: 'flex',
        gap: 2,
        alignItems: 'center',
        flexWrap: 'wrap',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 240 }}>
        <strong>This kitchen is not set up.</strong> Nobody has entered its altitude and time zone; processing
        times follow from them, and no batch starts until they are there.
        {!owner && ' An owner enters them in the settings.'}
      </Box>
      {owner && (
        <Button size="small" variant="outlined" component={Link} to="/kitchen">
          Enter them
        </Button>
      )}
    </Box>
  );
}
