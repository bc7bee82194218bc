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
import { useDeferredValue, useState } from 'react';
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
export function FindDialog({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const words = useDeferredValue(text.trim());
  const navigate = useNavigate();
  const { data } = useQuery({
    queryKey: ['find', words],
    queryFn: () => call(find, { query: { words } }),
    enabled: words !== '',
  });
  const go = (f: Found) => {
    onClose();
    void navigate(PLACE[f.kind](f.id));
  };
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
          onText={setText}
          onKeyDown={e => {
            if (e.key === 'Enter' && data?.found[0]) go(data.found[0]);
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
