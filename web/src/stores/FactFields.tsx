import { CONDITIONS, type Item, JUICE_KINDS, type LotFacts, SALT_KINDS } from '@cocotte/core/stores';
import { Day, Pick } from '../kit/fields.tsx';
import type { At } from '../kit/form.ts';
import { wordsOrNone } from '../kit/readers.ts';

type Kinds = { [K in 'salt' | 'juice' | 'condition' | 'pickedOn']: LotFacts[K] };

/** What a lot says of its kind, while nothing is chosen. */
export const NO_FACTS = { salt: '', juice: '', condition: '', pickedOn: '' };
/** Readers of these fields. */
export const factReaders = {
  salt: wordsOrNone,
  juice: wordsOrNone,
  condition: wordsOrNone,
  pickedOn: wordsOrNone,
};

/** What was read of them, as a lot keeps it: the server says which of them must be there. */
export const factsOf = ({ salt, juice, condition, pickedOn }: { [K in keyof Kinds]: string | null }) =>
  ({ salt, juice, condition, pickedOn }) as Kinds;

/** What a lot must say because of what its item is: the salt's kind, bottled or fresh, the condition of produce. */
export function FactFields({ use, at }: { use: Item['use']; at: (name: keyof Kinds) => At }) {
  return (
    <>
      {use === 'salt' && <Pick at={at('salt')} label="Kind of salt" of={SALT_KINDS} />}
      {use === 'citrus juice' && <Pick at={at('juice')} label="Bottled or fresh" of={JUICE_KINDS} />}
      {use === 'produce' && <Pick at={at('condition')} label="Condition" of={CONDITIONS} />}
      {use === 'produce' && <Day at={at('pickedOn')} label="Picked on" />}
    </>
  );
}
