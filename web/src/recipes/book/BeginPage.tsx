import { dayOf } from '@cocotte/core/measure';
import { type FoundEntry, findEntries, recipeFromEntry } from '@cocotte/core/review';
import { Box, Button, ListItemButton, ListItemText } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Search } from '../../kit/controls.tsx';
import { Line } from '../../kit/layout.tsx';
import { Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { Handed } from '../editor/RecipeEditor.tsx';

/** Three ways to a recipe: a published entry first, then a text, then by hand. */
export function BeginPage() {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const asked = useDeferredValue(text);
  const found = findEntries(asked);
  const begin = (entry: FoundEntry) => {
    const handed: Handed = recipeFromEntry(entry, dayOf(kitchenNow(), kitchen.zone));
    void navigate('/recipes/new', { state: handed });
  };
  return (
    <>
      <ViewHead title={say('begin.title')} />
      <Sheet>
        <Soft>{say('begin.how')}</Soft>
        <Box role="search" sx={{ mt: 1.5 }}>
          <Search
            label={say('begin.search')}
            placeholder={say('begin.tryThese')}
            value={text}
            onText={setText}
            fullWidth
          />
        </Box>
        <Box role="group" aria-label={say('begin.found')} sx={{ mt: 1 }}>
          {found.map(entry => (
            <ListItemButton
              key={`${entry.entry.id} ${entry.formula} ${entry.fruit ?? ''}`}
              sx={{ minHeight: 56 }}
              onClick={() => begin(entry)}
            >
              <ListItemText
                primary={entry.title}
                secondary={entry.detail}
                slotProps={{ primary: { sx: { fontWeight: 700 } } }}
              />
            </ListItemButton>
          ))}
        </Box>
        {asked.trim() !== '' && found.length === 0 && <Box role="status">{say('begin.nothing')}</Box>}
      </Sheet>
      <Sheet title={say('begin.other')} aside={say('begin.own')} sx={{ mt: 2 }}>
        <Line>
          <Button component={Link} to="/recipes/paste" variant="outlined">
            {say('begin.paste')}
          </Button>
          <Button component={Link} to="/recipes/new" variant="outlined">
            {say('begin.byHand')}
          </Button>
          <Button component={Link} to="/recipes/exchange" variant="outlined">
            {say('begin.file')}
          </Button>
        </Line>
      </Sheet>
    </>
  );
}
