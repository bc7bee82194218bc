import { UNITS, type UnitId, massText, readAmount } from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import type { Ingredient } from '@cocotte/core/ingredients';
import { lineMass_g } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { faultText } from '../../shell/entry.ts';
import { Fractions, Soft } from '../../shell/parts.tsx';
import type { DraftLine } from './draft.ts';
import { type At, Field } from './fields.tsx';
import { readLineAlone } from './read-draft.ts';

type Put = (id: string, key: string, part: Partial<DraftLine>) => void;

/** The amount as it is typed, with its reading shown at once; one that can mean two things asks which. */
export function AmountField({
  line,
  at,
  path,
  put,
  kitchen,
  ingredient,
}: {
  line: DraftLine;
  at: At;
  path: string;
  put: Put;
  kitchen: Kitchen;
  ingredient: Ingredient | undefined;
}) {
  const fault = at(`${path}.amount`);
  const read = line.amount.trim() === '' ? null : readAmount(line.amount, kitchen.locale, ingredient ?? {});
  const ask = read?.ok ? read.ask : null;
  return (
    <Box>
      <Field
        label="Amount"
        value={line.amount}
        onText={amount => put(line.id, 'amount', { amount, chosenUnit: '' })}
        fault={fault}
        hint={
          read && !read.ok ? (
            <Soft sx={{ color: 'ox.main' }}>{faultText(read.fault)}</Soft>
          ) : (
            <Reading line={line} kitchen={kitchen} />
          )
        }
      />
      {ask && (
        <Box role="group" aria-label={ask.what} sx={{ mt: 0.5 }}>
          <Soft sx={{ fontSize: '0.88rem' }}>{ask.what} Which is it?</Soft>
          {ask.choices.map(c => (
            <Button
              key={c.amount.unit}
              size="small"
              variant={line.chosenUnit === c.amount.unit ? 'contained' : 'outlined'}
              aria-pressed={line.chosenUnit === c.amount.unit}
              onClick={() => put(line.id, '', { chosenUnit: c.amount.unit satisfies UnitId })}
              sx={{ mr: 0.5, mt: 0.5 }}
            >
              {c.label}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Reading({ line, kitchen }: { line: DraftLine; kitchen: Kitchen }) {
  if (line.amount.trim() === '') return <>such as 2 1/2 c, 5 lb 4 oz, half a bushel</>;
  const { line: read, faults } = readLineAlone(line, kitchen);
  if (faults.some(f => f.path === '.amount')) return null;
  const unit = UNITS[read.amount.unit];
  const figure = `${read.amount.value.replace(/^(\d+)\/(\d+)$/, (_, a: string, b: string) => mixed(Number(a), Number(b)))}${read.amount.upTo ? ` to ${read.amount.upTo}` : ''} ${unit.symbol}`;
  let grams = '';
  try {
    grams = massText(lineMass_g(read), kitchen);
  } catch {
    grams = '';
  }
  const density = unit.dimension === 'volume' && read.density_gPerMl ? ` at ${read.density_gPerMl} g/mL` : '';
  return (
    <>
      reads <Fractions text={figure.trim()} />
      {grams && ` = ${grams}${density}`}
      {read.basis === 'as bought' && read.trimYield < 1 && grams && ' prepared'}
    </>
  );
}

function mixed(top: number, bottom: number): string {
  const whole = Math.floor(top / bottom);
  const rest = top % bottom;
  return whole === 0 ? `${rest}/${bottom}` : `${whole} ${rest}/${bottom}`;
}
