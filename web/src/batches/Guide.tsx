import { listBatches, listItems, listRecipes } from '@cocotte/contract';
import { FIRST_STEPS, type FirstStep, firstSteps } from '@cocotte/core/kitchen';
import { Box, Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { UsualDialog } from '../kitchen/UsualDialog.tsx';
import { CheckMark, Sheet, Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** Of each step where it is done, and its words. */
const STEPS = {
  placed: { to: '/kitchen', what: 'guide.placed', why: 'guide.placed.why', go: 'guide.placed.go' },
  equipment: { to: '', what: 'guide.equipment', why: 'guide.equipment.why', go: 'guide.equipment.go' },
  recipe: { to: '/recipes/begin', what: 'guide.recipe', why: 'guide.recipe.why', go: 'guide.recipe.go' },
  shelf: { to: '/recipes', what: 'guide.shelf', why: 'guide.shelf.why', go: 'guide.shelf.go' },
  rules: { to: '/kitchen', what: 'guide.rules', why: 'guide.rules.why', go: 'guide.rules.go' },
  label: { to: '/kitchen', what: 'guide.label', why: 'guide.label.why', go: 'guide.label.go' },
  batch: { to: '/recipes', what: 'guide.batch', why: 'guide.batch.why', go: 'guide.batch.go' },
} as const satisfies Record<FirstStep, object>;
const keyOf = (kitchenId: string) => `cocotte.guide-off.${kitchenId}`;

/** What a new kitchen does first: beside the work, each with its button; it goes when all of it is done. */
export default function Guide() {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  const [off, setOff] = useState(() => localStorage.getItem(keyOf(kitchen.id)) !== null);
  const [equipping, setEquipping] = useState(false);
  const { data: recipes } = useQuery({
    queryKey: ['recipes', 'any'],
    queryFn: () =>
      call(listRecipes, {
        query: { after: '', search: '', family: '', product: '', tag: '', variantOf: '' },
      }),
    enabled: !off,
  });
  const { data: items } = useQuery({ queryKey: ['items'], queryFn: () => call(listItems), enabled: !off });
  const { data: batches } = useQuery({
    queryKey: ['batches', 'any'],
    queryFn: () => call(listBatches, { query: { after: '', stage: '', search: '' } }),
    enabled: !off,
  });
  if (off || !owner || !recipes || !items || !batches) return null;
  const left = firstSteps({
    kitchen,
    recipes: recipes.recipes.length,
    items: items.items.filter(i => i.kind === 'ingredient').length,
    batches: batches.batches.length,
  });
  if (left.length === 0) return null;
  const next = left[0];
  const hide = () => {
    localStorage.setItem(keyOf(kitchen.id), 'yes');
    setOff(true);
  };
  return (
    <Sheet
      title={say('guide.title')}
      aside={
        <Button size="small" onClick={hide}>
          {say('guide.hide')}
        </Button>
      }
      sx={{ gridColumn: '1 / -1' }}
    >
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {FIRST_STEPS.map(step => {
          const open = left.includes(step);
          return (
            <Box
              key={step}
              component="li"
              sx={{
                display: 'flex',
                gap: 1.5,
                alignItems: 'center',
                py: 1,
                borderBottom: 1,
                borderColor: 'rule.main',
                '&:last-of-type': { borderBottom: 0 },
              }}
            >
              <Box
                aria-hidden
                sx={{
                  flex: 'none',
                  width: 26,
                  height: 26,
                  borderRadius: '50%',
                  border: 2,
                  borderColor: open ? 'rule.strong' : 'leaf.main',
                  bgcolor: open ? 'transparent' : 'leaf.main',
                  color: 'background.paper',
                  display: 'grid',
                  placeItems: 'center',
                }}
              >
                {!open && <CheckMark size={13} />}
              </Box>
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Box sx={{ fontWeight: 700 }}>
                  {say(STEPS[step].what)}
                  {!open && <Soft sx={{ fontWeight: 400 }}> · {say('guide.done')}</Soft>}
                </Box>
                {open && <Soft sx={{ fontSize: '0.95rem' }}>{say(STEPS[step].why)}</Soft>}
              </Box>
              {open &&
                (step === 'equipment' ? (
                  <Button
                    variant={step === next ? 'contained' : 'outlined'}
                    onClick={() => setEquipping(true)}
                  >
                    {say(STEPS[step].go)}
                  </Button>
                ) : (
                  <Button
                    component={Link}
                    to={STEPS[step].to}
                    variant={step === next ? 'contained' : 'outlined'}
                  >
                    {say(STEPS[step].go)}
                  </Button>
                ))}
            </Box>
          );
        })}
      </Box>
      {equipping && <UsualDialog onClose={() => setEquipping(false)} />}
    </Sheet>
  );
}
