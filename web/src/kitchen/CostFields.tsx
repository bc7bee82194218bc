import { listPeople } from '@cocotte/contract';
import { COSTING_METHODS } from '@cocotte/core/kitchen';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { call } from '../shell/call.ts';
import { faultText } from '../shell/entry.ts';
import { Sheet, Soft } from '../shell/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import type { BurnerTexts, CostTexts } from './cost-texts.ts';

/** What costs are reckoned with: people's rates, burners, overhead, the market, and how stock is valued. */
export function CostFields({
  texts,
  set,
  faults,
}: {
  texts: CostTexts;
  set: (next: CostTexts) => void;
  faults: Fault[];
}) {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  const { data } = useQuery({ queryKey: ['people'], queryFn: () => call(listPeople), enabled: owner });
  const at = (path: string) => {
    const fault = faults.find(f => f.path === path);
    return { error: fault !== undefined, helperText: fault ? faultText(fault) : undefined };
  };
  const field = (name: Exclude<keyof CostTexts, 'rates' | 'burners' | 'method'>, label: string) => (
    <TextField
      label={label}
      inputMode="decimal"
      value={texts[name]}
      onChange={e => set({ ...texts, [name]: e.target.value })}
      {...at(name)}
    />
  );
  const burner = (i: number, part: Partial<BurnerTexts>) =>
    set({ ...texts, burners: texts.burners.map((b, k) => (k === i ? { ...b, ...part } : b)) });
  const rate = (personId: string, hourlyRate: string) =>
    set({ ...texts, rates: [...texts.rates.filter(r => r.personId !== personId), { personId, hourlyRate }] });
  const grid = {
    display: 'grid',
    gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
    gap: 2,
    alignItems: 'start',
    mt: 1.5,
  };
  return (
    <>
      <Sheet title="What costs are reckoned with">
        <Box sx={grid}>
          <TextField
            select
            label="What leaves stock costs"
            value={texts.method}
            onChange={e => set({ ...texts, method: e.target.value as CostTexts['method'] })}
          >
            {COSTING_METHODS.map(m => (
              <MenuItem key={m} value={m}>
                {m === 'weighted average' ? 'the weighted average' : 'its lot: first in, first out'}
              </MenuItem>
            ))}
          </TextField>
          {data?.people.map(p => (
            <TextField
              key={p.personId}
              label={`An hour of ${p.name}, ${kitchen.currency}`}
              inputMode="decimal"
              placeholder={kitchen.hourlyRate}
              value={texts.rates.find(r => r.personId === p.personId)?.hourlyRate ?? ''}
              onChange={e => rate(p.personId, e.target.value)}
              slotProps={{ inputLabel: { shrink: true } }}
              {...at(`rates.${p.personId}`)}
            />
          ))}
          {field('perBatch', 'Overhead of a batch')}
          {field('perJar', 'Overhead of a jar')}
          {field('perMonth', 'Overhead of a month')}
          {field('batchesPerMonth', 'Batches in a month')}
          {field('fee', 'Fee of one market')}
          {field('jars', 'Jars sold at one market')}
          {field('markup_pct', 'Usual markup, %')}
          {field('margin_pct', 'Usual margin, %')}
          {field('wholesale_pct', 'Wholesale, % of retail')}
        </Box>
      </Sheet>
      <Sheet title="Burners">
        <Soft>An electric one costs by its power and time; gas is weighed and drawn from its bottle.</Soft>
        {texts.burners.map((b, i) => (
          <Box
            key={b.id}
            role="group"
            aria-label={`Burner ${i + 1}`}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr 1fr', sm: '1.6fr 1.2fr 1fr auto' },
              gap: 1.5,
              mt: 2,
            }}
          >
            <TextField
              label="Burner"
              value={b.name}
              onChange={e => burner(i, { name: e.target.value })}
              {...at(`burners[${i}].name`)}
            />
            <TextField
              select
              label="Runs on"
              value={b.kind}
              onChange={e => burner(i, { kind: e.target.value as BurnerTexts['kind'] })}
            >
              <MenuItem value="electric">electricity</MenuItem>
              <MenuItem value="gas">gas</MenuItem>
            </TextField>
            <TextField
              label={b.kind === 'electric' ? 'Watts' : 'Grams an hour'}
              inputMode="decimal"
              value={b.use}
              onChange={e => burner(i, { use: e.target.value })}
              {...at(`burners[${i}].use`)}
            />
            <Button
              variant="outlined"
              aria-label={`Remove burner ${i + 1}`}
              onClick={() => set({ ...texts, burners: texts.burners.filter(x => x.id !== b.id) })}
            >
              Remove
            </Button>
          </Box>
        ))}
        <Box sx={{ ...grid, alignItems: 'center' }}>
          <Button
            variant="outlined"
            onClick={() =>
              set({
                ...texts,
                burners: [...texts.burners, { id: v7(), name: '', kind: 'electric', use: '' }],
              })
            }
          >
            Add a burner
          </Button>
          {field('electricity', `A kilowatt-hour costs, ${kitchen.currency}`)}
        </Box>
      </Sheet>
    </>
  );
}
