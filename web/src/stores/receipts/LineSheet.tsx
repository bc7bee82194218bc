import { moneyText } from '@cocotte/core/measure';
import type { Item, LandedReceipt, PricedBy } from '@cocotte/core/stores';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Day, Figure, Money, Pick, Text, Tick } from '../../kit/fields.tsx';
import type { At } from '../../kit/form.ts';
import { Cells, Line } from '../../kit/layout.tsx';
import { Sheet } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { FactFields } from '../FactFields.tsx';
import { BUYING_UNIT_WORDS, unitCostText } from '../words.ts';
import type { ReceiptTexts } from './draft.ts';

const PRICED: [PricedBy, string][] = [
  ['line', 'for the line'],
  ['package', 'a package'],
  ['unit', 'a unit'],
  ['later', say('receipt.later')],
];

/** One line of a receipt: what came, its price, and what its lot says of itself. */
export function LineSheet({
  index,
  itemId,
  items,
  landed,
  later,
  at,
  onItem,
  onRemove,
}: {
  index: number;
  itemId: string;
  items: Item[];
  landed: LandedReceipt['lines'][number] | null;
  /** Its price is still to come. */
  later: boolean;
  at: (name: keyof ReceiptTexts['lines'][number]) => At;
  /** An item was chosen; `new` for one that is not kept yet. */
  onItem: (itemId: string) => void;
  onRemove: (() => void) | undefined;
}) {
  const { kitchen } = useHere();
  const [more, setMore] = useState(false);
  const item = items.find(i => i.id === itemId);
  return (
    <Sheet
      title={item?.name ?? `Line ${index + 1}`}
      aside={
        <Line>
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
        </Line>
      }
    >
      <Cells
        role="group"
        aria-label={`Line ${index + 1}`}
        narrow="1fr 1fr"
        wide="1fr 1fr 1fr"
        gap={1.5}
        mt={0}
        sx={{
          gridTemplateColumns: { md: '2.2fr 0.8fr 1fr 1fr 1.2fr 1.3fr' },
          '& > :first-of-type': { gridColumn: { xs: '1 / -1', md: 'auto' } },
        }}
      >
        <Pick
          at={at('itemId')}
          label="Item"
          of={[...items.map(i => [i.id, i.name] as const), ['new', 'Something else: add it']]}
          onPick={onItem}
        />
        <Figure at={at('packages')} label="Packages" />
        <Figure at={at('quantity')} label="Of" />
        <Pick at={at('unit')} label="Unit" of={BUYING_UNIT_WORDS} />
        <Money at={at('price')} label="Price" disabled={later} />
        <Pick at={at('pricedBy')} label="The price is" of={PRICED} />
      </Cells>
      <Cells
        role="group"
        aria-label={`Line ${index + 1}, its lot`}
        wide="repeat(auto-fill, minmax(180px, 1fr))"
        gap={1.5}
        mt={1.5}
      >
        <Text at={at('label')} label="Lot name" hint={say('receipt.named')} />
        <Day at={at('bestBy')} label="Best by" />
        {item && <FactFields use={item.use} at={at} />}
        {item?.use === 'vinegar' && <Figure at={at('strength_pct')} label="Strength" unit="%" />}
        {more && (
          <>
            <Text at={at('supplierLot')} label="Their lot" />
            <Money at={at('discount')} label="Off this line" />
            <Tick at={at('taxed')} label="Taxed" />
            {item?.kind === 'ingredient' && <Text at={at('subIngredients')} label="Its own ingredients" />}
            {item?.kind === 'ingredient' && <Text at={at('allergens')} label="Allergens, with commas" />}
          </>
        )}
      </Cells>
      <Button size="small" onClick={() => setMore(m => !m)} sx={{ mt: 1 }} aria-expanded={more}>
        {more ? 'Less' : 'Their lot, discount, tax, ingredients'}
      </Button>
    </Sheet>
  );
}
