import { type Found, find } from '@cocotte/contract';
import {
  Box,
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  List,
  ListItemButton,
  ListItemText,
  Switch,
} from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from './call.ts';
import { keysAreOff, setKeysOff } from './keys.ts';
import { Search } from '../kit/controls.tsx';
import { Nothing } from '../kit/parts.tsx';

const PLACE: Record<Found['kind'], (id: string) => string> = {
  batch: id => `/records/${id}`,
  recipe: id => `/recipes/${id}`,
  lot: id => `/stores/lots/${id}`,
};
const KIND: Record<Found['kind'], string> = { batch: 'Batch', recipe: 'Recipe', lot: 'Lot' };

/** Finds anything: a lot code from a jar in the hand, a recipe, a lot. */
export function FindDialog({ code, onClose }: { code: string; onClose: () => void }) {
  const [text, setText] = useState(code);
  const words = useDeferredValue(text.trim());
  /** Enter was pressed, or a scanner typed it: what is found first is opened once the answer is of all that was typed. */
  const opens = useRef(code !== '');
  const navigate = useNavigate();
  const { data: answer } = useQuery({
    queryKey: ['find', words],
    queryFn: () => call(find, { query: { words } }),
    enabled: words !== '',
  });
  // What was found for fewer letters is not what is looked for.
  const data = words === text.trim() ? answer : undefined;
  const go = useCallback(
    (f: Found) => {
      onClose();
      void navigate(PLACE[f.kind](f.id));
    },
    [onClose, navigate],
  );
  useEffect(() => {
    if (!opens.current || !data) return;
    opens.current = false;
    const [first] = data.found;
    // A code that was misread leads nowhere.
    if (first && data.slip === '') go(first);
  }, [data, go]);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="find-title">
      <DialogTitle id="find-title" variant="h2">
        Find
      </DialogTitle>
      <DialogContent>
        <Search
          autoFocus
          label="Lot code, recipe or lot"
          value={text}
          onText={typed => {
            opens.current = false;
            setText(typed);
          }}
          onKeyDown={e => {
            if (e.key !== 'Enter' || text.trim() === '') return;
            // A code that was misread is held against the jar first.
            if (data && data.slip !== '') return;
            if (data?.found[0]) go(data.found[0]);
            else opens.current = data === undefined;
          }}
          sx={{ mt: 1 }}
        />
        {data?.slip && (
          <Box role="alert" sx={{ mt: 1.5, color: 'ox.main' }}>
            {data.slip}
          </Box>
        )}
        <List>
          {data?.found.map(f => (
            <ListItemButton key={f.kind + f.id} onClick={() => go(f)}>
              <ListItemText
                primary={f.title}
                secondary={`${KIND[f.kind]}${f.detail ? ` · ${f.detail}` : ''}`}
              />
            </ListItemButton>
          ))}
        </List>
        {data && data.found.length === 0 && <Nothing>Nothing has these words. Try fewer letters.</Nothing>}
      </DialogContent>
    </Dialog>
  );
}

const KEYS: [string, string][] = [
  ['1 to 6, 8', 'Go to a stop of the work'],
  ['/', 'Find a lot code, a recipe or a lot'],
  ['n', 'Start a batch: choose the recipe'],
  ['?', 'This list'],
  ['Esc', 'Close what is open'],
  ['Ctrl + Enter', 'Keep the recipe that is being written'],
];

/** The list of keys, and the switch that turns them off. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const [off, setOff] = useState(keysAreOff());
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title" variant="h2">
        Keys
      </DialogTitle>
      <DialogContent>
        <Box
          component="dl"
          sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 3, rowGap: 1, m: 0 }}
        >
          {KEYS.map(([key, what]) => [
            <Box component="dt" key={key} sx={{ fontWeight: 700 }}>
              {key}
            </Box>,
            <Box component="dd" key={what} sx={{ m: 0 }}>
              {what}
            </Box>,
          ])}
        </Box>
        <FormControlLabel
          sx={{ mt: 2 }}
          control={
            <Switch
              checked={!off}
              onChange={(_, on) => {
                setKeysOff(!on);
                setOff(!on);
              }}
            />
          }
          label="Single keys are on"
        />
        <Box sx={{ textAlign: 'right', mt: 1 }}>
          <Button variant="outlined" onClick={onClose}>
            Close
          </Button>
        </Box>
      </DialogContent>
    </Dialog>
  );
}
