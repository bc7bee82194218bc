import { mixLots } from '@cocotte/contract';
import { type Fault, fieldText, readDecimal, type Names, byName } from '@cocotte/core/measure';
import { type Item, type Lot, unitSign } from '@cocotte/core/stores';
import { Box, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { faultText } from '../../shell/entry.ts';
import { Soft } from '../../shell/parts.tsx';
import { FormDialog } from '../../shell/FormDialog.tsx';
import { useHere } from '../../shell/session.tsx';
import { useStockChanged } from '../api.ts';

/** A bin that was refilled: which lots are in it now. */
export function MixDialog({ item, lots, onClose }: { item: Item; lots: Lot[]; onClose: () => void }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const [lotId] = useState(() => v7());
  const [label, setLabel] = useState(`${lots[0]?.label ?? ''} + ${lots[1]?.label ?? ''}`.slice(0, 40));
  const [typed, setTyped] = useState<Names<string>>(() =>
    byName(lots.slice(0, 2).map(l => [l.id, fieldText(Number(l.onHand), kitchen.locale, 9)])),
  );
  const [faults, setFaults] = useState<Fault[]>([]);
  const chosen = lots.filter(l => l.id in typed);
  const save = async () => {
    const found: Fault[] = [];
    const parts = chosen.map((l, i) => {
      const read = readDecimal(typed[l.id] ?? '', kitchen.locale, {
        name: 'The quantity',
        min: 0,
        above: true,
        max: 1e7,
      });
      if (!read.ok) found.push({ ...read.fault, path: `parts[${i}].quantity` });
      return { lotId: l.id, quantity: read.ok ? read.value : '0' };
    });
    setFaults(found);
    if (found.length > 0) return;
    try {
      await call(mixLots, { body: { lotId, label: label.trim(), parts } });
      await changed();
      onClose();
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const of = (i: number) => faults.find(f => f.path === `parts[${i}].quantity`);
  return (
    <FormDialog
      title="Poured together"
      action="Pour together"
      faults={faults.filter(f => !/^parts\[\d+\]\.quantity$/.test(f.path))}
      disabled={chosen.length < 2}
      onClose={onClose}
      onSubmit={() => void save()}
    >
      <Soft>
        What is in the bin now. It keeps the earliest best-by, the lowest strength and every allergen.
      </Soft>
      <Box sx={{ mt: 1.5 }}>
        {lots.map(l => {
          const at = chosen.indexOf(l);
          const fault = at < 0 ? undefined : of(at);
          return (
            <Box key={l.id} sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', mb: 1 }}>
              <FormControlLabel
                sx={{ flex: 1 }}
                control={
                  <Checkbox
                    checked={l.id in typed}
                    onChange={(_, on) =>
                      setTyped(({ [l.id]: _gone, ...t }) =>
                        on ? { ...t, [l.id]: fieldText(Number(l.onHand), kitchen.locale, 9) } : t,
                      )
                    }
                  />
                }
                label={`${l.label}, ${l.onHand} ${unitSign(item.unit)} left`}
              />
              {l.id in typed && (
                <TextField
                  label={`Of ${l.label}`}
                  value={typed[l.id]}
                  onChange={e => setTyped(t => ({ ...t, [l.id]: e.target.value }))}
                  error={fault !== undefined}
                  helperText={fault && faultText(fault)}
                  sx={{ width: 170 }}
                />
              )}
            </Box>
          );
        })}
        <TextField
          label="Name of the mixed lot"
          value={label}
          onChange={e => setLabel(e.target.value)}
          sx={{ mt: 1 }}
        />
      </Box>
    </FormDialog>
  );
}
