import { balance, netOfJars_g } from '../balance/index.ts';
import { type BatchState, type LabelContent, observed } from '../batches/index.ts';
import { type JarSizeId, jarSize } from '../jars/index.ts';
import type { Kitchen } from '../kitchen/index.ts';
import { dayText, Decimal, massText } from '../measure/index.ts';
import type { NetContents } from '../recipes/index.ts';
import { groupsIn } from './allergens.ts';
import { claimsIn } from './claims.ts';
import { isConcentrate } from './directions.ts';
import { GRAMS_PER_OUNCE, ML_PER_FLUID_OUNCE } from './factors.ts';
import type { LabelSetup } from './setup.ts';

/** One thing the rules want on a label, and where it is met. */
export interface LabelRule {
  what: string;
  met: boolean;
  shown: string;
  rule: string;
  next: string;
  /** The field of the label that meets it; empty where it is none. */
  field: string;
}

const DILUTION = 'Directions for diluting';
const OVERSTATES = 'No more stated than a jar holds';
/** Rules whose breach is said in other words than that something is missing. */
export const FAULTY: ReadonlyMap<string, string> = new Map([
  [OVERSTATES, 'The label states more than a jar holds.'],
  ['Your own words', 'Your own words make a claim that may not be made.'],
  [DILUTION, 'Nobody has said how it is diluted.'],
]);

/** Directions that the food needs: a concentrate says how it is diluted. */
function directionRules(
  state: BatchState,
  { diluteParts }: LabelSetup,
  { directions }: LabelContent,
): LabelRule[] {
  const recipe = state.started?.recipe;
  if (recipe && isConcentrate(recipe) && diluteParts === null)
    return [
      {
        what: DILUTION,
        field: 'directions',
        met: false,
        shown: '',
        rule: 'Common practice',
        next: 'Enter how many parts of water go to one part of it.',
      },
    ];
  return directions === ''
    ? []
    : [
        {
          what: 'Directions',
          field: 'directions',
          met: true,
          shown: directions,
          rule: 'Common practice',
          next: '',
        },
      ];
}

/** What the rules want of the words, and whether they are met. */
export function contentRules(
  state: BatchState,
  kitchen: Pick<Kitchen, 'jurisdiction' | 'locale'>,
  setup: LabelSetup,
  size: JarSizeId,
  net: NetContents | undefined,
  label: LabelContent,
  named: { why: string; source: string },
): LabelRule[] {
  const eu = label.asks.rules === 'EU';
  const rule = (
    what: string,
    field: string,
    shown: string,
    us: string,
    euRule: string,
    next: string,
  ): LabelRule => ({
    what,
    field,
    met: shown !== '',
    shown,
    rule: `${eu ? euRule : us} (from memory)`,
    next,
  });
  const found = (what: string, field: string, shown: string, source: string): LabelRule => ({
    what,
    field,
    met: true,
    shown,
    rule: source,
    next: '',
  });
  const EU = 'Regulation (EU) 1169/2011';
  const statementSettled = label.statement !== '' || kitchen.jurisdiction.confirmedOn !== null;
  const claims = claimsIn(setup.words, 'words');
  const stopping = claims.filter(c => c.stops);
  const allergens = eu ? label.emphasised.join(', ') : label.contains;
  const unkinded = groupsIn(allergens.split(', ')).join(' and ');
  return [
    rule(
      'Statement of identity',
      'identity',
      label.statementOfIdentity,
      '21 CFR 101.3',
      `${EU}, article 17`,
      'Enter what the food is called in the recipe.',
    ),
    ...(named.why === '' ? [] : [found('A name it may bear', 'identity', named.why, named.source)]),
    rule(
      'Ingredients by weight',
      'ingredients',
      label.ingredients,
      '21 CFR 101.4',
      `${EU}, article 18`,
      'Add the lines to the recipe.',
    ),
    found(
      'Allergens',
      eu ? 'ingredients' : 'contains',
      allergens === ''
        ? 'None of the major allergens in what was drawn'
        : `${eu ? 'Set bold' : 'Contains'}: ${allergens}${unkinded === '' ? '' : `. Which ${unkinded}, has to be said: enter the kind in the text of its package`}`,
      eu ? `${EU}, article 21 (from memory)` : 'FALCPA and the FASTER Act (from memory)',
    ),
    ...(setup.fewSulphites === ''
      ? []
      : [
          found(
            'Sulphites under 10 ppm',
            '',
            setup.fewSulphites,
            eu ? `${EU}, annex II (from memory)` : '21 CFR 101.100(a)(4) (from memory)',
          ),
        ]),
    ...(label.shares === ''
      ? []
      : [
          found(
            'Share of juice or fruit',
            'shares',
            label.shares,
            eu ? 'Directive 2001/113/EC (from memory)' : '21 CFR 101.30 (from memory)',
          ),
        ]),
    ...directionRules(state, setup, label),
    rule(
      eu ? 'Net quantity' : 'Net contents in both systems',
      'net',
      label.netContents,
      '21 CFR 101.7; NIST Handbook 130',
      `${EU}, article 23`,
      'Enter the net contents of this jar in the recipe.',
    ),
    ...contentsRule(state, size, net, kitchen),
    rule(
      'Maker',
      'maker',
      label.maker,
      '21 CFR 101.5',
      `${EU}, article 8`,
      'Enter the maker in the kitchen settings.',
    ),
    rule(
      label.asks.maker === 'address or number' ? 'Address or registration number' : 'Address',
      'maker',
      label.address || (label.asks.maker === 'address or number' ? label.registration : ''),
      '21 CFR 101.5',
      `${EU}, article 8`,
      'Enter the address in the kitchen settings.',
    ),
    ...(label.asks.number
      ? [
          rule(
            'Registration number',
            'maker',
            label.registration,
            kitchen.jurisdiction.source || label.place?.name || '',
            kitchen.jurisdiction.source || label.place?.name || '',
            'Enter the number of your registration in the kitchen settings.',
          ),
        ]
      : []),
    found('Lot code', 'lot', label.lotCode, 'Needed to trace and recall'),
    found(
      'Made on and best by',
      'lot',
      [label.madeOn, label.bestBy].map(d => dayText(d, label)).join(', '),
      'Common practice',
    ),
    {
      what: "Jurisdiction's statement",
      field: 'statement',
      met: statementSettled,
      shown:
        label.statement ||
        (statementSettled ? `None is asked for, confirmed on ${kitchen.jurisdiction.confirmedOn}` : ''),
      rule: kitchen.jurisdiction.source || 'Set by your state or county',
      next: 'Ask your authority, then enter the sentence, or confirm that none is asked for, in the kitchen settings.',
    },
    ...(claims.length === 0
      ? []
      : [
          {
            what: 'Your own words',
            field: 'words',
            met: stopping.length === 0,
            shown: claims.map(c => `${c.what} ${c.why}`).join(' '),
            rule: claims.map(c => c.source).join('; '),
            next: stopping.map(c => `"${c.said}": ${c.why} ${c.next}`).join(' '),
          },
        ]),
  ];
}

/** So much more than is reckoned may be stated before it cannot be: glass, headspace and density differ. Our bound, from no source. */
const OVERSTATED = 1.1;

/** What is stated against what a jar of it holds, by the balance of the batch. */
function contentsRule(
  state: BatchState,
  size: JarSizeId,
  net: NetContents | undefined,
  kitchen: Pick<Kitchen, 'locale'>,
): LabelRule[] {
  if (!net) return [];
  const there_g = netOfJars_g(balance(observed(state))).get(size);
  const stated =
    net.kind === 'weight'
      ? new Decimal(net.oz).times(GRAMS_PER_OUNCE).toNumber()
      : new Decimal(net.floz).times(ML_PER_FLUID_OUNCE).toNumber();
  const most = net.kind === 'weight' ? there_g : jarSize(size).brim_mL;
  if (most === undefined) return [];
  const unit = (value: number) =>
    net.kind === 'weight' ? massText(value, kitchen) : `${Math.round(value)} mL`;
  return [
    {
      what: OVERSTATES,
      field: 'net',
      met: stated <= most * OVERSTATED,
      shown:
        stated <= most * OVERSTATED
          ? `${unit(stated)} stated; a jar ${net.kind === 'weight' ? 'is reckoned to hold' : 'brimful holds'} ${unit(most)}`
          : '',
      rule: '21 CFR 101.7; NIST Handbook 133 (from memory)',
      next: `A jar holds about ${unit(most)}. State no more, or weigh a filled jar and correct what was entered.`,
    },
  ];
}
