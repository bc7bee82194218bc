import {
  type Condition,
  CONDITIONS,
  type Item,
  JUICE_KINDS,
  type JuiceKind,
  type LotFacts,
  SALT_KINDS,
  type SaltKind,
} from '@cocotte/core/stores';
import { MenuItem, TextField } from '@mui/material';

type Kinds = Pick<LotFacts, 'salt' | 'juice' | 'condition' | 'pickedOn'>;

/** What a lot must say because of what its item is: the salt's kind, bottled or fresh, the condition of produce. */
export function FactFields({
  use,
  facts,
  set,
  fault,
}: {
  use: Item['use'];
  facts: Kinds;
  set: (part: Partial<Kinds>) => void;
  fault?: (name: keyof Kinds) => string | undefined;
}) {
  const pick = <T extends string>(name: 'salt' | 'juice' | 'condition', label: string, of: readonly T[]) => (
    <TextField
      select
      label={label}
      value={facts[name] ?? ''}
      onChange={e => set({ [name]: e.target.value as T })}
      error={fault?.(name) !== undefined}
      helperText={fault?.(name)}
    >
      {of.map(k => (
        <MenuItem key={k} value={k}>
          {k}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <>
      {use === 'salt' && pick<SaltKind>('salt', 'Kind of salt', SALT_KINDS)}
      {use === 'citrus juice' && pick<JuiceKind>('juice', 'Bottled or fresh', JUICE_KINDS)}
      {use === 'produce' && pick<Condition>('condition', 'Condition', CONDITIONS)}
      {use === 'produce' && (
        <TextField
          label="Picked on"
          type="date"
          value={facts.pickedOn ?? ''}
          onChange={e => set({ pickedOn: e.target.value || null })}
          error={fault?.('pickedOn') !== undefined}
          helperText={fault?.('pickedOn')}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      )}
    </>
  );
}
