import type { FoodRules, Jurisdiction, PlaceRule } from '../jurisdiction.ts';

const yes = (why: string): PlaceRule => ({ rule: 'allowed', why });
const no = (why: string): PlaceRule => ({ rule: 'not allowed', why });
const approved = (why: string): PlaceRule => ({ rule: 'approved process', why });

const SPREADS_ONLY = 'Its list has jams, jellies and fruit butters; canned acidified food is none of it.';
const foods = (
  spread: PlaceRule,
  acid: PlaceRule,
  acidified: PlaceRule,
  fermented: PlaceRule,
): FoodRules => ({
  'fruit spread': spread,
  'acid food': acid,
  'acidified food': acidified,
  'fermented food': fermented,
});

/**
 * Profiles that ship: a neutral sample for the demo, and six places from memory, each to be held against the authority's own
 * words before anything is sold. Rules change every year; a profile confirms nothing until its owner has ticked it.
 */
export const JURISDICTIONS: readonly Jurisdiction[] = [
  {
    id: 'sample',
    name: 'Sample place (made up, for the demo)',
    version: 2,
    fromMemory: false,
    source: 'made up for the demo; no place has these rules',
    foods: foods(
      yes('Fruit spreads are allowed.'),
      yes('Food that is acid by itself is allowed.'),
      yes('Acidified food is allowed with its pH read in each batch.'),
      yes('Fermented vegetables are allowed with their pH read in each batch.'),
    ),
    phLimit: 4.6,
    outlets: ['market', 'farm stand', 'home'],
    ceiling: { amount: '35000', currency: 'USD' },
    training: 'a food handler course, every three years',
    registration: '',
    statement: 'Made in a home kitchen that is not inspected.',
    label: { rules: 'US', statement_pt: null, maker: 'address', number: false, madeOn: true },
  },
  {
    id: 'us-ca',
    name: 'California, cottage food operation',
    version: 2,
    fromMemory: true,
    source: 'California Homemade Food Act, Health and Safety Code 113758 and 114365; list of approved foods',
    foods: foods(
      yes('Jams, jellies, preserves and fruit butters that meet 21 CFR 150.'),
      no('Canned fruit in liquid, juices and purées are not on its list.'),
      no('Pickles, salsas and other acidified food are not on its list.'),
      no('Fermented vegetables are not on its list.'),
    ),
    phLimit: null,
    outlets: ['home', 'market', 'events', 'by delivery'],
    ceiling: { amount: '75000', currency: 'USD' },
    training: 'a food processor course within three months of registering, every three years',
    registration: 'registered (class A) or permitted (class B) by the county, every year',
    statement: 'Made in a Home Kitchen',
    label: { rules: 'US', statement_pt: 12, maker: 'address or number', number: true, madeOn: false },
  },
  {
    id: 'us-tx',
    name: 'Texas, cottage food production',
    version: 2,
    fromMemory: true,
    source: 'Texas Health and Safety Code chapter 437; 25 TAC 229.661',
    foods: foods(
      yes('Jams, jellies and fruit butters.'),
      yes('Canned fruit that is acid by itself.'),
      approved(
        'Acidified food follows a recipe from an approved source or one that a laboratory or process authority approved, or has the pH of each batch read.',
      ),
      approved('Fermented vegetables follow an approved recipe, with the pH of each batch read.'),
    ),
    phLimit: 4.6,
    outlets: ['home', 'market', 'farm stand', 'events'],
    ceiling: { amount: '150000', currency: 'USD' },
    training: 'an accredited food handler course, every two years',
    registration: '',
    statement:
      'This food is made in a home kitchen and is not inspected by the Department of State Health Services or a local health department.',
    label: { rules: 'US', statement_pt: null, maker: 'address or number', number: false, madeOn: false },
  },
  {
    id: 'us-oh',
    name: 'Ohio, cottage food production operation',
    version: 2,
    fromMemory: true,
    source: 'Ohio Revised Code 3715.01 and 3715.023; Ohio Administrative Code 901:3-20',
    foods: foods(
      yes('Jams, jellies and fruit butters.'),
      no(SPREADS_ONLY),
      no('Acidified food needs a licensed cannery.'),
      no('Fermented food is not on its list.'),
    ),
    phLimit: null,
    outlets: ['home', 'market', 'farm stand', 'shops in the state'],
    ceiling: null,
    training: '',
    registration: '',
    statement: 'This Product is Home Produced',
    label: { rules: 'US', statement_pt: 10, maker: 'address', number: false, madeOn: false },
  },
  {
    id: 'us-mi',
    name: 'Michigan, cottage food',
    version: 2,
    fromMemory: true,
    source: 'Michigan Food Law, act 92 of 2000, section 4102',
    foods: foods(
      yes('Jams and jellies in glass jars.'),
      no(SPREADS_ONLY),
      no('Pickles, salsas and other acidified food need a licensed kitchen.'),
      no('Fermented vegetables need a licensed kitchen.'),
    ),
    phLimit: null,
    outlets: ['home', 'market', 'events', 'farm stand'],
    ceiling: { amount: '25000', currency: 'USD' },
    training: '',
    registration: '',
    statement:
      'Made in a home kitchen that has not been inspected by the Michigan Department of Agriculture and Rural Development.',
    label: { rules: 'US', statement_pt: 11, maker: 'address or number', number: false, madeOn: false },
  },
  {
    id: 'us-wi',
    name: 'Wisconsin, home-canned food',
    version: 2,
    fromMemory: true,
    source: 'Wisconsin Statutes 97.29(2)(b) on naturally acid and acidified home-canned food',
    foods: foods(
      yes('Canned fruit of pH 4.6 or below, jams and jellies.'),
      yes('Canned fruit of pH 4.6 or below.'),
      yes('Pickled and acidified vegetables of pH 4.6 or below, each batch read.'),
      yes('Sauerkraut of pH 4.6 or below, each batch read.'),
    ),
    phLimit: 4.6,
    outlets: ['market', 'community events'],
    ceiling: { amount: '5000', currency: 'USD' },
    training: '',
    registration: '',
    statement: 'This product was made in a private home not subject to state licensing or inspection.',
    label: { rules: 'US', statement_pt: null, maker: 'address', number: false, madeOn: true },
  },
  {
    id: 'us-ky',
    name: 'Kentucky, home-based processor and microprocessor',
    version: 2,
    fromMemory: true,
    source: 'Kentucky Revised Statutes 217.136 to 217.139; 902 KAR 45:090',
    foods: foods(
      yes('Jams, jellies and preserves, as a home-based processor.'),
      approved('Canned fruit needs a recipe approved for this producer, as a microprocessor.'),
      approved(
        'Acidified food needs a recipe approved for this producer, as a microprocessor with produce of their own.',
      ),
      approved('Fermented food needs a recipe approved for this producer.'),
    ),
    phLimit: 4.6,
    outlets: ['farm stand', 'market', 'home'],
    ceiling: { amount: '60000', currency: 'USD' },
    training: 'for acidified food the microprocessor workshop, every three years',
    registration: 'registered every year; acidified food with each recipe approved',
    statement: 'This product is home-produced and processed.',
    label: { rules: 'US', statement_pt: 10, maker: 'address', number: false, madeOn: true },
  },
];
