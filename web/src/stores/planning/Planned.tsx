import { addDays, dayText, weekOf } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import type { PlannedBatch } from '@cocotte/core/stores';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { Link } from 'react-router';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

/** What is planned, by the weeks of the kitchen. */
export function Planned({
  plans,
  today,
  onNeeds,
  onDrop,
}: {
  plans: readonly PlannedBatch[];
  /** The kitchen's day; empty before it is known. */
  today: string;
  /** What is done for what a plan lacks; null where it lacks nothing, or may not be done. */
  onNeeds: ((planId: string) => (() => void) | null) | null;
  onDrop: ((planId: string) => Promise<void>) | null;
}) {
  const { kitchen } = useHere();
  const present = today === '' ? '' : weekOf(today, kitchen.locale);
  const weekWords = (first: string) =>
    say('plans.week', {
      when: first === present ? 'this' : present !== '' && first === addDays(present, 7) ? 'next' : 'of',
      day: dayText(first, kitchen),
    });
  const weekOfPlan = (p: PlannedBatch) => weekOf(p.day, kitchen.locale);
  const inOrder = plans.toSorted((a, b) => (a.day < b.day ? -1 : 1));
  const weeks = [...new Set(inOrder.map(weekOfPlan))];
  return (
    <Sheet title="Planned">
      {plans.length === 0 && <Soft>No batch is planned.</Soft>}
      {weeks.map(first => (
        <Box key={first} sx={{ '& + &': { mt: 2 } }}>
          <Typography variant="h3" sx={{ fontSize: '1rem' }}>
            {weekWords(first)}
          </Typography>
          {inOrder
            .filter(p => weekOfPlan(p) === first)
            .map(p => {
              const needs = onNeeds?.(p.id);
              return (
                <Box
                  key={p.id}
                  sx={{
                    py: 1,
                    borderBottom: 1,
                    borderColor: 'rule.main',
                    '&:last-of-type': { borderBottom: 0 },
                  }}
                >
                  <MuiLink
                    component={Link}
                    to={`/recipes/${p.recipeId}?plan=${p.id}`}
                    sx={{ fontWeight: 650 }}
                  >
                    {p.name}
                  </MuiLink>
                  <Box>
                    <Soft>
                      {dayText(p.day, kitchen)} · {p.jars.map(j => jarCountText(j.count, j.size)).join(', ')}
                    </Soft>
                  </Box>
                  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
                    {needs && (
                      <Button
                        size="small"
                        variant="outlined"
                        onClick={needs}
                        aria-label={say('plans.needs', { name: p.name })}
                      >
                        {say('takeIn.needs')}
                      </Button>
                    )}
                    {onDrop && (
                      <Button
                        size="small"
                        variant="outlined"
                        onClick={() => void onDrop(p.id)}
                        aria-label={`Drop the plan of ${p.name}`}
                      >
                        Drop the plan
                      </Button>
                    )}
                  </Box>
                </Box>
              );
            })}
        </Box>
      ))}
    </Sheet>
  );
}
