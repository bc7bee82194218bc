import { UNITS, moneyText } from '@cocotte/core/measure';
import { BUYING_UNITS, type Item, type LandedReceipt, type PricedBy } from '@cocotte/core/stores';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { Sheet } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { FactFields } from '../FactFields.tsx';
import { unitCostText } from '../words.ts';
import type { LineTexts } from './draft.ts';

const PRICED: Record<PricedBy, string> = { line: 'for the line', package: 'a package', unit: 'a unit' };

/** One line of a receipt: what came, its price, and what its lot says of itself. */
export function LineSheet({
  index,
  line,
  items,
  landed,
  set,
  at,
  onAdd,
  onRemove,
}: {
  index: number;
  line: LineTexts;
  items: Item[];
  landed: LandedReceipt['lines'][number] | null;
  set: (part: Partial<LineTexts>, ...names: string[]) => void;
  at: (name: string) => { error: boolean; helperText: string | undefined };
  onAdd: () => void;
  onRemove: (() => void) | undefined;
}) {
  const { kitchen } = useHere();
  const [more, setMore] = useState(false);
  const item = items.find(i => i.id === line.itemId);
  const text = (
    label: string,
    name:
      | 'packages'
      | 'quantity'
      | 'price'
      | 'discount'
      | 'label'
      | 'supplierLot'
      | 'strength'
      | 'subIngredients'
      | 'allergens',
    path: string = name,
    decimal = true,
  ) => (
    <TextField
      label={label}
      value={line[name]}
      onChange={e => set({ [name]: e.target.value }, path)}
      {...(decimal ? { inputMode: 'decimal' as const } : {})}
      {...at(path)}
    />
  );
  return (
    <Sheet
      title={item?.name ?? `Line ${index + 1}`}
      aside={
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          {landed && item && (
            <span>
              <strong>{moneyText(landed.landed, kitchen)}</strong> in the end,{' '}
              {unitCostText(landed.unitCost, item, kitchen)}
            </span>
          )}
          {onRemove && (
            <Button size="small" onClick={onRemove} aria-label={`Remove line ${index + 1}`}>
              Remove
            </Button>
          )}
        </Box>
      }
    >
      <Box
        role="group"
        aria-label={`Line ${index + 1}`}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', md: '2.2fr 0.8fr 1fr 1fr 1fr 1.3fr' },
          gap: 1.5,
          alignItems: 'start',
          '& > :first-of-type': { gridColumn: { xs: '1 / -1', md: 'auto' } },
        }}
      >
        <TextField
          select
          label="Item"
          value={line.itemId}
          onChange={e => {
            if (e.target.value === 'new') return onAdd();
            const chosen = items.find(i => i.id === e.target.value);
            set({ itemId: e.target.value, unit: line.unit || (chosen?.unit ?? '') }, 'itemId', 'unit');
          }}
          {...at('itemId')}
        >
          {items.map(i => (
            <MenuItem key={i.id} value={i.id}>
              {i.name}
            </MenuItem>
          ))}
          <MenuItem value="new">Something else: add it</MenuItem>
        </TextField>
        {text('Packages', 'packages')}
        {text('Of', 'quantity')}
        <TextField
          select
          label="Unit"
          value={line.unit}
          onChange={e => set({ unit: e.target.value as LineTexts['unit'] }, 'unit')}
          {...at('unit')}
        >
          {BUYING_UNITS.map(u => (
            <MenuItem key={u} value={u}>
              {u === 'each' ? 'pieces' : UNITS[u].symbol || u}
            </MenuItem>
          ))}
        </TextField>
        {text(`Price, ${kitchen.currency}`, 'price')}
        <TextField
          select
          label="The price is"
          value={line.pricedBy}
          onChange={e => set({ pricedBy: e.target.value as PricedBy })}
        >
          {Object.entries(PRICED).map(([k, w]) => (
            <MenuItem key={k} value={k}>
              {w}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box
        role="group"
        aria-label={`Line ${index + 1}, its lot`}
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(180px, 1fr))',
          gap: 1.5,
          mt: 1.5,
          alignItems: 'start',
        }}
      >
        {text('Lot name', 'label', 'label', false)}
        <TextField
          label="Best by"
          type="date"
          value={line.bestBy}
          onChange={e => set({ bestBy: e.target.value }, 'bestBy')}
          slotProps={{ inputLabel: { shrink: true } }}
          {...at('bestBy')}
        />
        {item && (
          <FactFields
            use={item.use}
            facts={line.facts}
            set={part => set({ facts: { ...line.facts, ...part } }, ...Object.keys(part))}
            fault={name => at(name).helperText}
          />
        )}
        {item?.use === 'vinegar' && text('Strength, %', 'strength', 'strength_pct')}
        {more && (
          <>
            {text('Their lot', 'supplierLot', 'supplierLot', false)}
            {text('Off this line', 'discount')}
            <FormControlLabel
              control={<Checkbox checked={line.taxed} onChange={(_, on) => set({ taxed: on })} />}
              label="Taxed"
            />
            {item?.kind === 'ingredient' &&
              text('Its own ingredients', 'subIngredients', 'subIngredients', false)}
            {item?.kind === 'ingredient' && text('Allergens, with commas', 'allergens', 'allergens', false)}
          </>
        )}
      </Box>
      <Button size="small" onClick={() => setMore(m => !m)} sx={{ mt: 1 }} aria-expanded={more}>
        {more ? 'Less' : 'Their lot, discount, tax, ingredients'}
      </Button>
    </Sheet>
  );
}
