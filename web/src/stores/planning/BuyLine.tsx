import { type Habits, dayText, moneyText } from '@cocotte/core/measure';
import type { ShoppingLine } from '@cocotte/core/stores';
import { Box, Checkbox } from '@mui/material';
import { Soft, Tag } from '../../kit/parts.tsx';
import { stockText } from '../words.ts';

/** One thing to buy, with a large tick: in packages, for which batches, and by when. */
export function BuyLine({
  line,
  ticked,
  onTick,
  today,
  habits,
}: {
  line: ShoppingLine;
  ticked: boolean;
  onTick: () => void;
  today: string;
  habits: Habits;
}) {
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
            : stockText(line.buy, unit, habits)}
          {line.packages.length > 0 && <Soft> · {stockText(line.missing, unit, habits)} are lacking</Soft>}
        </Box>
        <Soft sx={{ fontSize: '0.92rem' }}>
          {line.uses.map(u => `${u.name}, ${dayText(u.day, habits)}`).join(' · ')}
        </Soft>
      </Box>
      <Box sx={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
        {line.cost !== null && Number(line.cost) > 0 && moneyText(line.cost, habits)}
        {line.orderBy && (
          <Box>
            {late ? (
              <Tag tone="live">order today</Tag>
            ) : (
              <Soft sx={{ fontSize: '0.92rem' }}>by {dayText(line.orderBy, habits)}</Soft>
            )}
          </Box>
        )}
      </Box>
    </Box>
  );
}
