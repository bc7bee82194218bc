import { type Jurisdiction, PLACE_FOODS, PLACE_RULES, type PlaceFood } from '@cocotte/core/kitchen';
import { fieldText, type Habits } from '@cocotte/core/measure';
import { Figure, Pick, Text, Tick } from '../kit/fields.tsx';
import type { At } from '../kit/form.ts';
import { Cells } from '../kit/layout.tsx';
import { anyWords, listed, orNone, readersOf, type ValuesOf, words } from '../kit/readers.ts';
import { say } from '../words/views.ts';

/** What a place says, as it stands in its fields. */
export function placeTexts(rules: Jurisdiction, habits: Habits) {
  return {
    name: rules.name,
    source: rules.source,
    spread: rules.foods['fruit spread'].rule,
    acid: rules.foods['acid food'].rule,
    acidified: rules.foods['acidified food'].rule,
    fermented: rules.foods['fermented food'].rule,
    phLimit: rules.phLimit === null ? '' : fieldText(rules.phLimit, habits.locale, 2),
    outlets: rules.outlets.join(', '),
    ceiling: rules.ceiling === null ? '' : fieldText(Number(rules.ceiling.amount), habits.locale, 2),
    training: rules.training,
    registration: rules.registration,
    statement: rules.statement,
    rules: rules.label.rules,
    statement_pt:
      rules.label.statement_pt === null ? '' : fieldText(rules.label.statement_pt, habits.locale, 1),
    maker: rules.label.maker,
    number: rules.label.number,
    madeOn: rules.label.madeOn,
  };
}
export type PlaceTexts = ReturnType<typeof placeTexts>;

/** The field in which each kind of food is decided. */
const FOOD_FIELDS = {
  'fruit spread': 'spread',
  'acid food': 'acid',
  'acidified food': 'acidified',
  'fermented food': 'fermented',
} as const satisfies Record<PlaceFood, keyof PlaceTexts>;

/** Readers of what a place says. */
export function placeShape(habits: Habits) {
  const read = readersOf(habits);
  return {
    name: words(say('place.which')),
    source: words(say('place.source')),
    phLimit: orNone(read.figure({ name: say('place.phLimit'), min: 2, max: 4.6 })),
    outlets: listed,
    ceiling: orNone(read.decimal({ name: say('place.ceilingField'), min: 0, max: 100_000_000 })),
    training: anyWords,
    registration: anyWords,
    statement: anyWords,
    statement_pt: orNone(read.figure({ name: say('place.statementPt'), min: 4, max: 40 })),
  };
}
type Read = Omit<PlaceTexts, keyof ReturnType<typeof placeShape>> & ValuesOf<ReturnType<typeof placeShape>>;

/** The place as it was read; of a kind of food that is decided otherwise the reason is who said so. */
export function placeFrom(v: Read, from: Jurisdiction, currency: string): Partial<Jurisdiction> {
  const foods = { ...from.foods };
  for (const food of PLACE_FOODS) {
    const rule = v[FOOD_FIELDS[food]];
    if (rule !== from.foods[food].rule) foods[food] = { rule, why: say('place.byAuthority') };
  }
  return {
    name: v.name,
    source: v.source,
    foods,
    phLimit: v.phLimit,
    outlets: v.outlets,
    ceiling: v.ceiling === null ? null : { amount: v.ceiling, currency: from.ceiling?.currency ?? currency },
    training: v.training,
    registration: v.registration,
    statement: v.statement,
    label: {
      rules: v.rules,
      statement_pt: v.statement_pt,
      maker: v.maker,
      number: v.number,
      madeOn: v.madeOn,
    },
  };
}

/** Fields of what a place says, to be changed by the authority's own words. */
export function PlaceEdit({ at }: { at: (name: keyof PlaceTexts) => At }) {
  return (
    <>
      <Cells gap={1.5} mt={1.5}>
        <Text at={at('name')} label={say('place.which')} />
        <Text at={at('source')} label={say('place.source')} multiline />
      </Cells>
      <Cells wide="1fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        {PLACE_FOODS.map(food => (
          <Pick key={food} at={at(FOOD_FIELDS[food])} label={food} of={PLACE_RULES} />
        ))}
      </Cells>
      <Cells wide="1fr 1fr 2fr" gap={1.5} mt={1.5}>
        <Figure at={at('phLimit')} label={say('place.phLimit')} />
        <Figure at={at('ceiling')} label={say('place.ceilingField')} />
        <Text at={at('outlets')} label={say('place.outlets')} />
      </Cells>
      <Cells gap={1.5} mt={1.5}>
        <Text at={at('training')} label={say('place.training')} />
        <Text at={at('registration')} label={say('place.registration')} />
      </Cells>
      <Text
        at={at('statement')}
        label={say('place.statement')}
        multiline
        minRows={2}
        fullWidth
        sx={{ mt: 1.5 }}
      />
      <Cells wide="1fr 1fr 1.4fr" gap={1.5} mt={1.5}>
        <Figure at={at('statement_pt')} label={say('place.statementPt')} />
        <Pick
          at={at('rules')}
          label={say('place.rules')}
          of={[
            ['US', say('place.rules.US')],
            ['EU', say('place.rules.EU')],
          ]}
        />
        <Pick at={at('maker')} label={say('place.maker')} of={['address', 'address or number']} />
      </Cells>
      <Tick at={at('number')} label={say('place.number')} />
      <Tick at={at('madeOn')} label={say('place.madeOn')} />
    </>
  );
}
