import { Box } from '@mui/material';
import { Link, useLocation } from 'react-router';

const PLACES = [
  ['/stores', 'Shelf'],
  ['/stores/receipts', 'Receipts'],
  ['/stores/shopping', 'Planned and shopping'],
  ['/stores/offer', 'Buy or leave'],
] as const;

/** The places of the stores, side by side. */
export function StoresNav() {
  const { pathname } = useLocation();
  const here = PLACES.toReversed().find(([path]) => pathname.startsWith(path))?.[0];
  return (
    <Box
      component="nav"
      aria-label="Places of the stores"
      className="no-print"
      sx={{
        display: 'flex',
        gap: { xs: 1.5, sm: 3 },
        overflowX: 'auto',
        whiteSpace: 'nowrap',
        borderBottom: 1,
        borderColor: 'rule.main',
        mb: 2,
      }}
    >
      {PLACES.map(([path, name]) => (
        <Box
          key={path}
          component={Link}
          to={path}
          aria-current={path === here ? 'page' : undefined}
          sx={{
            py: 1,
            textDecoration: 'none',
            color: path === here ? 'primary.main' : 'text.secondary',
            fontWeight: path === here ? 700 : 400,
            borderBottom: 3,
            borderColor: path === here ? 'primary.main' : 'transparent',
            '&:hover': { color: 'text.primary' },
          }}
        >
          {name}
        </Box>
      ))}
    </Box>
  );
}
