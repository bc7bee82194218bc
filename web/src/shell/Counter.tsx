import { Box, ButtonBase } from '@mui/material';
import { say } from '../words/views.ts';
import { act } from './acting.ts';
import { useHere } from './session.tsx';

/** The names of those who stand at this device, large enough for a wet thumb: whoever is tapped acts from then on. */
export function NameTiles() {
  const { atCounter, person } = useHere();
  if (atCounter.length < 2) return null;
  return (
    <Box
      role="group"
      aria-label={say('counter.who')}
      className="no-print"
      sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 2 }}
    >
      {atCounter.map(c => {
        const acts = c.id === person.id;
        return (
          <ButtonBase
            key={c.id}
            aria-pressed={acts}
            onClick={() => act(c.id)}
            sx={{
              flex: '1 1 150px',
              maxWidth: 520,
              minHeight: 64,
              px: 2,
              borderRadius: 1,
              border: 2,
              borderColor: acts ? 'primary.main' : 'rule.main',
              bgcolor: acts ? 'primary.main' : 'background.paper',
              color: acts ? 'primary.contrastText' : 'text.primary',
              fontSize: '1.25rem',
              fontWeight: 650,
              lineHeight: 1.2,
              justifyContent: 'flex-start',
              textAlign: 'left',
            }}
          >
            <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {c.name}
              <Box component="span" sx={{ display: 'block', fontSize: '0.95rem', fontWeight: 450 }}>
                {say(acts ? 'counter.acts' : 'counter.tap')}
              </Box>
            </Box>
          </ButtonBase>
        );
      })}
    </Box>
  );
}
