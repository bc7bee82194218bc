import { instantText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { useState } from 'react';
import { Sheet } from '../../kit/parts.tsx';
import { BuyLine } from './BuyLine.tsx';
import { keepList, readList, tickOf } from './shopping-kept.ts';

/** The shopping list as this device last saw it, for when nothing else can be reached. */
export function KeptShopping() {
  const [kept, setKept] = useState(() => readList(null));
  const missing = kept?.lines.filter(l => l.missing !== '0') ?? [];
  if (!kept || missing.length === 0) return null;
  const tick = (name: string) => {
    const ticked = kept.ticked.includes(name) ? kept.ticked.filter(n => n !== name) : [...kept.ticked, name];
    keepList({ ...kept, ticked });
    setKept({ ...kept, ticked });
  };
  return (
    <Sheet
      title={`To buy for ${kept.kitchenName}`}
      aside={`the list of ${instantText(kept.at_ms, kept.habits)}`}
      sx={{ mt: 3 }}
    >
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {missing.map(l => (
          <BuyLine
            key={l.name}
            line={l}
            ticked={kept.ticked.includes(tickOf(l))}
            onTick={() => tick(tickOf(l))}
            today={kept.day}
            habits={kept.habits}
          />
        ))}
      </Box>
    </Sheet>
  );
}
