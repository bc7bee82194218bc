import { dropPlan, readShopping } from '@cocotte/contract';
import { moneyText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { type ShoppingLine, type Wanted, wantedLine } from '@cocotte/core/stores';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { v7 } from 'uuid';
import { call } from '../../shell/call.ts';
import { Columns } from '../../kit/layout.tsx';
import { Nothing, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { useItems, usePlans, useStockChanged } from '../api.ts';
import { useLibrary } from '../../recipes/library.ts';
import { say } from '../../words/views.ts';
import { StoresNav } from '../StoresNav.tsx';
import { BuyLine } from './BuyLine.tsx';
import { Planned } from './Planned.tsx';
import { TakeInDialog } from './TakeInDialog.tsx';
import { keepTicks, readTicks, tickOf } from './shopping-kept.ts';

/** What is planned, and one list of what it lacks; the list stays on the phone. */
export function ShoppingPage() {
  const { kitchen } = useHere();
  const mayPlan = useMay('cook');
  const changed = useStockChanged();
  const client = useQueryClient();
  const { data: planned } = usePlans();
  const { data } = useQuery({ queryKey: ['shopping'], queryFn: () => call(readShopping) });
  const [ticked, setTicked] = useState(() => readTicks(kitchen.id));
  useEffect(() => keepTicks(kitchen.id, ticked), [kitchen.id, ticked]);
  const tick = (name: string) =>
    setTicked(t => (t.includes(name) ? t.filter(n => n !== name) : [...t, name]));
  const drop = async (planId: string) => {
    await call(dropPlan, { params: { planId } });
    await changed();
  };
  const missing = data?.lines.filter(l => l.missing !== '0') ?? [];
  const enough = data?.lines.filter(l => l.missing === '0') ?? [];
  const { data: kept } = useItems();
  const library = useLibrary();
  const [taking, setTaking] = useState<Wanted[] | null>(null);
  const wanted = (lines: ShoppingLine[]) =>
    lines.map(l => wantedLine(l, kept?.items ?? [], library.byId, v7));
  const bought = wanted(missing.filter(l => ticked.includes(tickOf(l))));
  /** What a plan lacks; null where the shelf has all of it. */
  const needed = (planId: string) => {
    const lines = missing.filter(l => l.uses.some(u => u.planId === planId));
    return lines.length > 0 ? () => setTaking(wanted(lines)) : null;
  };
  const cost = missing.reduce((n, l) => n + Number(l.cost ?? 0), 0);
  const unpriced = missing.filter(l => l.cost === null).length;
  return (
    <>
      <ViewHead
        title="Planned and shopping"
        detail="What the planned batches need, less what is on the shelf."
      >
        {bought.length > 0 && (
          <Button variant="contained" onClick={() => setTaking(bought)}>
            {say('shopping.bought')}
          </Button>
        )}
        <Button variant="outlined" onClick={() => window.print()}>
          Print the list
        </Button>
      </ViewHead>
      <StoresNav />
      {taking && (
        <TakeInDialog
          wanted={taking}
          onClose={() => {
            setTaking(null);
            void client.invalidateQueries({ queryKey: ['shopping'] });
          }}
        />
      )}
      <Columns of="1fr 360px">
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
                  today={data?.day ?? ''}
                  habits={kitchen}
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
          <Planned
            plans={planned?.plans ?? []}
            today={data?.day ?? ''}
            onNeeds={mayPlan ? needed : null}
            onDrop={mayPlan ? drop : null}
          />
          {enough.length > 0 && (
            <Sheet title="Enough on the shelf">
              <Soft>{enough.map(l => l.name).join(', ')}</Soft>
            </Sheet>
          )}
        </Box>
      </Columns>
    </>
  );
}
