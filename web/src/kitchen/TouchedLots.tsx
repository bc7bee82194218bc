import { listTouchedLots } from '@cocotte/contract';
import { rangesText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Loaded } from '../kit/Loaded.tsx';
import { Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { say } from '../words/views.ts';

/** Lots whose printed labels would say something else today: what a change of the place has touched. */
export function TouchedLots() {
  const query = useQuery({ queryKey: ['label touched'], queryFn: () => call(listTouchedLots) });
  return (
    <Loaded query={query}>
      {({ lots }) =>
        lots.length === 0 ? (
          <Soft>{say('place.touched.none')}</Soft>
        ) : (
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {lots.map(l => (
              <li key={l.printId}>
                <MuiLink component={Link} to={`/label/${l.batchId}`}>
                  {l.name} {l.lotCode}
                </MuiLink>
                , {say('place.touched.jars', { jars: rangesText(l.jars) })}{' '}
                <Soft>{l.changes.map(c => c.name).join(', ')}</Soft>
              </li>
            ))}
          </Box>
        )
      }
    </Loaded>
  );
}
