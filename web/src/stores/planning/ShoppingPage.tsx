import { dropPlan, readShopping } from '@cocotte/contract';
import { dayText, instantText, moneyText } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/recipes';
import type { ShoppingLine } from '@cocotte/core/stores';
import { Box, Button, Checkbox, Link as MuiLink } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../shell/call.ts';
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { usePlans, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { stockText } from '../words.ts';
import { type KeptList, keepList, readList, tickOf } from './shopping-kept.ts';

/** What is planned, and one list of what it lacks; the list stays on the phone. */
export function ShoppingPage() {
  const { kitchen } = useHere();
  const mayPlan = useMay('cook');
  const changed = useStockChanged();
  const { data: planned } = usePlans();
  const { data, error, dataUpdatedAt } = useQuery({
    queryKey: ['shopping'],
    queryFn: () => call(readShopping),
    retry: false,
  });
  const [before] = useState(() => readList(kitchen.id));
  const [ticked, setTicked] = useState<string[]>(before?.ticked ?? []);
  const kept: KeptList | null = useMemo(
    () =>
      data
        ? { lines: data.lines, day: data.day, at_ms: dataUpdatedAt, ticked }
        : before && { ...before, ticked },
    [data, dataUpdatedAt, before, ticked],
  );
  useEffect(() => {
    if (kept) keepList(kitchen.id, kept);
  }, [kept, kitchen.id]);
  const tick = (name: string) =>
    setTicked(t => (t.includes(name) ? t.filter(n => n !== name) : [...t, name]));
  const drop = async (planId: string) => {
    await call(dropPlan, { params: { planId } });
    await changed();
  };
  const missing = kept?.lines.filter(l => l.missing !== '0') ?? [];
  const enough = kept?.lines.filter(l => l.missing === '0') ?? [];
  const cost = missing.reduce((n, l) => n + Number(l.cost ?? 0), 0);
  const unpriced = missing.filter(l => l.cost === null).length;
  return (
    <>
      <ViewHead
        title="Planned and shopping"
        detail="What the planned batches need, less what is on the shelf."
      >
        <Button variant="outlined" onClick={() => window.print()}>
          Print the list
        </Button>
      </ViewHead>
      <StoresNav />
      {error && kept && (
        <Box role="status" sx={{ mb: 1.5 }}>
          <Tag tone="live">no connection</Tag>{' '}
          <Soft>the list of {instantText(kept.at_ms, kitchen)}; ticks are kept here</Soft>
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 360px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sheet
          title="To buy"
          aside={
            missing.length > 0 &&
            `about ${moneyText(cost.toFixed(2), kitchen)}${unpriced > 0 ? `, and ${unpriced} without a price` : ''}`
          }
        >
          {missing.length > 0 ? (
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {missing.map(l => (
                <BuyLine
                  key={l.name}
                  line={l}
                  ticked={ticked.includes(tickOf(l))}
                  onTick={() => tick(tickOf(l))}
                  today={kept?.day ?? ''}
                />
              ))}
            </Box>
          ) : (
            <Nothing>
              {(planned?.plans.length ?? 0) > 0
                ? 'Everything is on the shelf.'
                : 'Nothing is planned. Open a recipe and plan a batch of it.'}
            </Nothing>
          )}
        </Sheet>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }} className="no-print">
          <Sheet title="Planned">
            {(planned?.plans.length ?? 0) === 0 && <Soft>No batch is planned.</Soft>}
            {planned?.plans.map(p => (
              <Box
                key={p.id}
                sx={{
                  py: 1,
                  borderBottom: 1,
                  borderColor: 'rule.main',
                  '&:last-of-type': { borderBottom: 0 },
                }}
              >
                <MuiLink component={Link} to={`/recipes/${p.recipeId}?plan=${p.id}`} sx={{ fontWeight: 650 }}>
                  {p.name}
                </MuiLink>
                <Box>
                  <Soft>
                    {dayText(p.day, kitchen)} · {p.jars.map(j => jarCountText(j.count, j.size)).join(', ')}
                  </Soft>
                </Box>
                {mayPlan && (
                  <Button
                    size="small"
                    variant="outlined"
                    sx={{ mt: 0.5 }}
                    onClick={() => void drop(p.id)}
                    aria-label={`Drop the plan of ${p.name}`}
                  >
                    Drop the plan
                  </Button>
                )}
              </Box>
            ))}
          </Sheet>
          {enough.length > 0 && (
            <Sheet title="Enough on the shelf">
              <Soft>{enough.map(l => l.name).join(', ')}</Soft>
            </Sheet>
          )}
        </Box>
      </Box>
    </>
  );
}

function BuyLine({
  line,
  ticked,
  onTick,
  today,
}: {
  line: ShoppingLine;
  ticked: boolean;
  onTick: () => void;
  today: string;
}) {
  const { kitchen } = useHere();
  const unit = { unit: line.unit };
  const late = line.orderBy !== null && line.orderBy <= today;
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        gap: 1,
        alignItems: 'flex-start',
        py: 1,
        borderBottom: 1,
        borderColor: 'rule.main',
        opacity: ticked ? 0.75 : 1,
        '&:last-of-type': { borderBottom: 0 },
      }}
    >
      <Checkbox
        checked={ticked}
        onChange={onTick}
        slotProps={{ input: { 'aria-label': `${line.name} is bought` } }}
        sx={{ mt: -0.5, width: 48, height: 48 }}
      />
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 700, fontSize: '1.1rem', textDecoration: ticked ? 'line-through' : 'none' }}>
          {line.name}
        </Box>
        <Box>
          {line.packages.length > 0
            ? line.packages.map(p => `${p.count} × ${p.name}`).join(' and ')
            : stockText(line.buy, unit, kitchen)}
          {line.packages.length > 0 && <Soft> · {stockText(line.missing, unit, kitchen)} are lacking</Soft>}
        </Box>
        <Soft sx={{ fontSize: '0.92rem' }}>
          {line.uses.map(u => `${u.name}, ${dayText(u.day, kitchen)}`).join(' · ')}
        </Soft>
      </Box>
      <Box sx={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
        {line.cost !== null && Number(line.cost) > 0 && moneyText(line.cost, kitchen)}
        {line.orderBy && (
          <Box>
            {late ? (
              <Tag tone="live">order today</Tag>
            ) : (
              <Soft sx={{ fontSize: '0.92rem' }}>by {dayText(line.orderBy, kitchen)}</Soft>
            )}
          </Box>
        )}
      </Box>
    </Box>
  );
}
