import type { Product } from '../../times/index.ts';

/** One food or way that is refused, found by the words of a recipe. */
export interface FoodRefusal {
  code: string;
  /** Where the words are looked for: each ingredient's name, the recipe's own names, or its steps and notes. */
  in: 'line' | 'name' | 'steps';
  pattern: RegExp;
  /** Words that look like it and are not. */
  not?: RegExp;
  /** Refused only for these products; for all when left out. */
  products?: readonly Product[];
  /** Published entries that cover it, followed unchanged. */
  exceptEntries?: readonly string[];
  /** Refused in a dip or a soak as well: that is how it is used. */
  evenDipped?: boolean;
  /** Any tested publication or letter that has it covers it. */
  unlessCovered?: boolean;
  what: string;
  why: string;
  next: string;
}

const ASK = 'Leave it out. Cocotte keeps the recipe but starts no batch of it.';

/** What boiling water and steam do not make safe, and ways that are no process. Common practice of the trade, from memory. */
export const REFUSALS: readonly FoodRefusal[] = [
  {
    code: 'animal',
    in: 'line',
    pattern:
      /\b(meat|beef|veal|pork|ham|bacon|sausage|lard|suet|tallow|chicken|turkey|duck|goose|rabbit|venison|lamb|mutton|fish|tuna|salmon|cod|crab|lobsters?|prawns?|shrimps?|clams?|mussels?|oysters?|squid|anchov(?:y|ies)|eggs?|egg yolks?|milk|cream|cheese|whey|kefir|ghee|yogh?urt|buttermilk|condensed milk|mayonnaise|gelatine?)\b/,
    not: /cream of tartar|cream sherry|beef ?(?:steak )?tomato|turkey fig|egg plum|crab ?-?apple|oyster mushroom|lamb's lettuce|goose ?-?berr/,
    what: 'holds meat, fish, egg or dairy',
    why: 'These are low in acid and carry fat; boiling water does not make them safe to keep.',
    next: ASK,
  },
  {
    code: 'nut-spread',
    in: 'line',
    pattern:
      /\b(?:(?:nut|peanut|almond|cashew|hazelnut|pistachio|walnut|pecan|sesame) (?:butter|spread|paste|cream)|tahini|marzipan|praline)\b/,
    what: 'is a nut spread',
    why: 'Nut spreads are fatty and low in acid; spores in them outlive boiling water.',
    next: ASK,
  },
  {
    code: 'nut',
    in: 'line',
    pattern: /\b(peanuts?|walnuts?|pecans?|almonds?|hazelnuts?|cashews?|pistachios?|macadamias?|nuts)\b/,
    not: /nutmeg|extract|flavou?ring|(?:butter|spread|paste|cream)\b/,
    unlessCovered: true,
    what: 'holds nuts',
    why: 'Nuts are fatty and low in acid; only a tested recipe shows how many of them a conserve can take.',
    next: 'Leave them out, or follow a tested recipe or a letter that has them.',
  },
  {
    code: 'chocolate',
    in: 'line',
    pattern: /\b(chocolate|cocoa|cacao|caramel|dulce de leche|butterscotch)\b/,
    what: 'is a chocolate or caramel sauce',
    why: 'Cocoa and caramel sauces are low in acid, and no boiling-water process was ever tested for them.',
    next: ASK,
  },
  {
    code: 'drink',
    in: 'line',
    pattern: /\b(coffee|espresso|black tea|green tea|earl grey|tea leaves|tea bags?|brewed tea|tea)\b/,
    what: 'holds coffee or tea',
    why: 'Coffee and tea are low in acid.',
    next: ASK,
  },
  {
    code: 'starchy',
    in: 'line',
    pattern:
      /\b(black beans?|kidney beans?|pinto beans?|navy beans?|white beans?|chickpeas?|garbanzos?|lentils?|split peas?|baked beans|rice|pasta|noodles?|barley|oats?|oatmeal|quinoa|couscous|hominy|soy ?beans?|black-eyed peas?|dried beans?|potato(?:es)?|bread ?crumbs|bread|cake mix)\b/,
    not: /rice (?:wine|syrup|bran)|rice vinegar|brown rice syrup|barley malt|sweet potato vine/,
    exceptEntries: ['three-bean-salad'],
    what: 'holds cooked beans, grain or other starchy food',
    why: 'Dense starchy food is low in acid and heats slowly; boiling water does not reach its middle in time.',
    next: `${ASK} Pickled three-bean salad of the tested recipe is the exception.`,
  },
  {
    code: 'oil',
    in: 'line',
    pattern: /\boils?\b/,
    exceptEntries: ['marinated-peppers', 'marinated-mushrooms', 'three-bean-salad'],
    what: 'holds oil',
    why: 'Oil keeps air and acid from what it covers; the spores of botulism grow there.',
    next: 'Leave the oil out, or follow a tested marinated product unchanged.',
  },
  {
    code: 'lime',
    in: 'line',
    pattern: /\b(pickling lime|slaked lime|hydrated lime|calcium hydroxide)\b/,
    evenDipped: true,
    what: 'uses lime for crispness',
    why: 'Lime takes up acid; what is not rinsed out raises the pH of the jar.',
    next: 'Use calcium chloride or an ice soak.',
  },
  {
    code: 'alum',
    in: 'line',
    pattern: /\balum\b/,
    evenDipped: true,
    what: 'uses alum for crispness',
    why: 'It does nothing for quick pickles and is no longer recommended.',
    next: 'Use calcium chloride or an ice soak.',
  },
  {
    code: 'thickener',
    in: 'line',
    pattern:
      /\b(corn ?starch|corn ?flour|flour|tapioca|arrowroot|xanthan|guar|agar(?:-agar)?|carrageenan|locust bean gum|konjac|psyllium|roux|potato starch|rice starch|instant (?:modified )?starch|chia seeds?|cornmeal)\b/,
    not: /(?<!instant )modified (?:corn ?)?starch/,
    what: 'is thickened with something that was never tested',
    why: 'A thickener slows the heat on its way to the middle of the jar, each in its own way.',
    next: 'Can it thin and thicken on opening, or use cook-type modified starch in a tested amount.',
  },
  {
    code: 'low-acid-butter',
    in: 'line',
    pattern:
      /\b(pumpkins?|(?:winter|butternut|acorn|hubbard) squash|squash|bananas?|melons?|cantaloupes?|honeydew|watermelons?)\b/,
    not: /banana pepper|bitter melon|seeds?$|rind|pie spice|blossom/,
    products: ['fruit butter', 'purée', 'jam', 'preserves', 'fruit spread'],
    what: 'is a butter or purée of pumpkin, squash, banana or melon',
    why: 'These are low in acid, and their thickness varies too much for any tested time.',
    next: 'Freeze it.',
  },
  {
    code: 'curd',
    in: 'name',
    pattern: /\bcurd\b/,
    what: 'is a curd',
    why: 'Curds hold egg and butter.',
    next: 'Freeze or refrigerate it.',
  },
  {
    code: 'cake-in-jar',
    in: 'name',
    pattern: /\b(cake|bread|brownies?|muffins?|pudding)s? in (?:a |the )?jars?\b/,
    what: 'is a cake in a jar',
    why: 'Baked goods in closed jars are moist, low in acid and without air.',
    next: 'Sell it fresh.',
  },
  {
    code: 'soup',
    in: 'name',
    pattern: /\b(soup|broth|bone stock|stew|baked beans|refried|chil[il]i con carne|gravy)\b/,
    what: 'is a soup, broth or bean dish',
    why: 'Low-acid food needs pressure canning, which Cocotte does not do.',
    next: 'Freeze it.',
  },
  {
    code: 'pressure',
    in: 'steps',
    pattern: /\bpressure[- ]?(?:can|cook)/,
    what: 'calls for pressure canning',
    why: 'Cocotte guards boiling water and atmospheric steam only.',
    next: 'Take it to a process for low-acid food.',
  },
  {
    code: 'open-kettle',
    in: 'steps',
    pattern:
      /\b(open[- ]kettle|inversion method|invert (?:the )?jars|(?:turn|flip) (?:the )?jars (?:over|upside[- ]down)|upside[- ]down to seal|paraffin|sealing wax|seal with wax|melted wax|oven[- ]cann|process in (?:the |an )?(?:oven|microwave|dishwasher))/,
    what: 'is closed by open kettle, inversion, wax or oven',
    why: 'A seal is no heat step: nothing then stops what grows in the jar.',
    next: "Process it in boiling water by a published time. A letter's hot-fill-hold is the one exception.",
  },
];

/** Where the refusals come from. */
export const REFUSAL_SOURCE = 'What the trade refuses for boiling water, common practice (from memory)';
