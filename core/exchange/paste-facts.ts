import type { Line, Recipe, SetBy } from '../recipes/index.ts';
import { type Method, METHOD_CHOICES, PRODUCTS, type Product, SPREADS } from '../times/index.ts';
import { said, taken, type TextFact, type TextRow } from './paste-words.ts';
import { headspaceIn, jarIn, makesIn, minutesIn, type MinutesSaid } from './paste-yield.ts';

/** What a text says of the whole: what it is, what sets it, how it is packed, how much it makes, its heat. */
export interface TextFacts {
  product: TextFact<Product>;
  setBy: TextFact<SetBy>;
  peel: TextFact<Method['peel']>;
  cut: TextFact<Method['cut']>;
  strain: TextFact<Method['strain']>;
  liquid: TextFact<Method['liquid']>;
  pack: TextFact<Method['pack']>;
  makes: TextFact<Recipe['makes']>;
  /** What the text says of headspace and minutes. It is kept as a note: an authority decides both. */
  headspace_mm: TextFact<number | null>;
  minutes: MinutesSaid[];
  /** Row that speaks of a pressure canner, of low-acid food; null where none does. */
  pressure: number | null;
}

/** What words call a product, the more particular before the general. */
const CALLED: readonly [RegExp, Product][] = [
  [/\bpie[- ]filling\b|\bfilling for pies?\b/i, 'pie filling'],
  [/\b(?:sauer)?kraut\b/i, 'sauerkraut'],
  [/\b(?:ketchup|catsup)\b/i, 'ketchup'],
  [/\bsalsas?\b|\bpico de gallo\b|\btaco sauce\b/i, 'salsa'],
  [/\bchutney\b/i, 'chutney'],
  [/\b(?:relish|piccalilli|chow[- ]?chow)\b/i, 'relish'],
  [/\bmarmalade\b/i, 'marmalade'],
  [/\bjell(?:y|ies)\b/i, 'jelly'],
  [/\b(?:preserves|conserves?)\b/i, 'preserves'],
  [/\bjams?\b/i, 'jam'],
  [/\btomatoes\b.*\bin (?:\w+ )?(?:water|juice)\b/i, 'tomatoes'],
  [/\bbread[- ](?:and|&|n)[- ]butter\b|\bdill (?:chips|spears|slices|beans|pickles?)\b/i, 'pickle'],
  [/\b(?!(?:peanut|and|cocoa|shea)\b|& )[\w\u00e9]+ butter\b/i, 'fruit butter'],
  [
    /\b(?:in|w\/|with)\s+(?:(?:extra |very )?(?:light|medium|heavy)\s+)?(?:\w+ )?(?:syrup|water|juice)\b/i,
    'fruit in liquid',
  ],
  [/\b\w*(?:syrup|sirup|cordial)\b/i, 'syrup'],
  [
    /\b(?:pickle[sd]?|pickling|dill(?:y|ed)|dills|gherkins?|giardiniera|bread[- ]and[- ]butter|pickled)\b/i,
    'pickle',
  ],
  [
    /\btomato(?:es)? (?:pasta |spaghetti |pizza )?sauce\b|\b(?:pasta|spaghetti|pizza|marinara) sauce\b|\bpassata\b/i,
    'tomato sauce',
  ],
  [/\b(?:juice|nectar)\b/i, 'juice'],
  [/\bapple ?sauce\b|\bpur[\u00e9e]e\b|\bcompote\b/i, 'pur\u00e9e'],
  [/\b\w+ spread\b/i, 'fruit spread'],
  [/\btomatoes\b/i, 'tomatoes'],
];
/**
 * @returns the product that words name, the first of them that is one; null where they name none
 * @example productNamed('Red plum jam') // 'jam'
 */
export function productNamed(text: string): Product | null {
  return CALLED.find(([is]) => is.test(text))?.[1] ?? null;
}

/** What follows from what goes in, where no word says what it is. */
function productOf(lines: readonly Line[], wholeFruit: boolean): Product {
  const has = (is: (l: Line) => boolean) => lines.some(is);
  const sugar = has(l => l.role === 'sweetener');
  const vinegar = has(l => /vinegar/i.test(l.name) && l.where !== 'each jar');
  if (vinegar && has(l => l.role === 'low-acid produce')) return 'pickle';
  if (has(l => l.role === 'fruit') && sugar) return wholeFruit ? 'fruit in liquid' : 'jam';
  return 'other';
}

const PECTINS: readonly [RegExp, SetBy][] = [
  [/^pectin-calcium|^calcium-water/, 'calcium pectin'],
  [/^pectin-low-sugar/, 'low-sugar pectin'],
  [/^pectin/, 'ordinary pectin'],
  [/^canning-starch/, 'modified starch'],
];

const METHOD_WORDS = {
  peel: [
    [
      /\b(?:do not peel|don't peel|unpeeled|skins? on|leave (?:the )?(?:skins?|peels?)|no need to peel|not peeled)\b/i,
      'skins on',
    ],
    [
      /\b(?:peel(?:ed|ing)?\b(?! and zest)|skinned|(?:slip|remove|rub|slide)(?: off)? (?:the )?skins?|pared?\b)/i,
      'peeled',
    ],
  ],
  cut: [
    [
      /\bleft whole|\bwhole (?:fruit|berries|beans|pods|peppers|cucumbers)\b|\bpack(?:ed)? whole\b|\bpuncture|\bprick\b/i,
      'whole',
    ],
    [/\bhal(?:ve|ves|ved)\b/i, 'halved'],
    [/\b(?:slice|slices|sliced|rings|rounds|spears|wedges)\b/i, 'sliced'],
    [/\b(?:chop|chopped|dice|diced|cubed|cubes|cut up|quartered|minced)\b/i, 'chopped'],
    [/\b(?:crush|crushed|mash|mashed)\b/i, 'crushed'],
    [
      /\b(?:pur[\u00e9e]e(?!s)|pur[\u00e9e]ed|food mill|press\w* through|sieve|blend(?:er|ed)?|mill)\b/i,
      'pur\u00e9ed',
    ],
  ],
  strain: [
    [
      /\bjelly bag\b|\bstrain(?:ed)?\b|\bdrip\b|\bfood mill\b|\bpress\w* through\b|\bthrough a (?:sieve|mill|food mill|strainer)\b|\bsieved?\b/i,
      'strained',
    ],
  ],
  pack: [
    [/\b(?:raw|cold)[- ]pack(?:ed)?\b|\bpack(?:ed)? (?:\w+ ){0,4}raw\b|\(raw\b/i, 'raw'],
    [
      /\bhot[- ]pack(?:ed)?\b|\bpack (?:\w+ ){0,3}hot\b|\bfill(?:ed)? (?:\w+ )?hot (?!(?:sterile |clean |half|pint|quart|jar))|\b(?:ladle|pour|spoon)\w* hot (?!(?:sterile |clean |half|pint|quart|jar|brine|syrup|vinegar|water|liquid))|\bhot (?:mixture|fruit|jam|sauce|juice|syrup and)\b/i,
      'hot',
    ],
  ],
} as const;

/** The first row that says one of them; of `all` the last in the order of the choices. */
function wordIn<T extends string>(
  rows: readonly TextRow[],
  words: readonly (readonly [RegExp, T])[],
): { value: T; number: number } | null {
  for (const [is, value] of words)
    for (const { number, text } of rows) if (is.test(text)) return { value, number };
  return null;
}

/** Pieces are poured over raw, unless they are heated in what covers them. */
function packOf(steps: readonly TextRow[], liquid: Method['liquid']): 'hot' | 'raw' {
  if (liquid === 'none') return 'hot';
  const text = steps.map(s => s.text).join(' ');
  const poured =
    /\b(?:pour|ladle|cover|top)\w*\b[^.]{0,50}\b(?:with|over)\b[^.]{0,30}\b(?:brine|syrup|vinegar|liquid|solution|jars?)\b|\b(?:pour|ladle|add) (?:(?:the|over|on|hot|boiling) )*(?:brine|syrup|vinegar|liquid|solution)\b/i.test(
      text,
    );
  const heated =
    /\b(?:add|return|put|place|drop|immerse)\b[^.;]{0,60}[.;,]?[^.;]{0,30}\b(?:simmer|boil|heat|bring|cook)|\b(?:with|and) (?:hot |boiling )*(?:syrup|brine)\b|\b(?:mixture|solids)\b/i.test(
      text,
    );
  return poured && !heated ? 'raw' : 'hot';
}

/**
 * What a text says of the whole recipe, each with the row that says it; what no row says is taken and marked.
 *
 * @param title  its name
 * @param rows  all rows
 * @param steps  rows of its steps
 * @param lines  its ingredients, with the rows they stand in
 */
export function factsOfText(
  title: string,
  rows: readonly TextRow[],
  steps: readonly TextRow[],
  lines: readonly { number: number; line: Line }[],
): TextFacts {
  const lineRows = new Set(lines.map(l => l.number));
  const all = lines.map(l => l.line);
  const named = productNamed(title.replace(/\([^)]*\)/g, ' ')) ?? productNamed(title);
  const titleRow = rows.find(r => r.text.includes(title))?.number ?? 1;
  const elsewhere = named
    ? null
    : rows
        .filter(r => !lineRows.has(r.number))
        .map(r => ({ r, is: productNamed(r.text) }))
        .find(f => f.is);
  const wholeFruit = steps.some(s => /\bsyrup\b.*\bover\b|\bcover with\b/i.test(s.text));
  const product: TextFact<Product> = named
    ? said(named, titleRow)
    : taken(elsewhere?.is ?? productOf(all, wholeFruit), PRODUCTS);
  const spread = SPREADS.includes(product.value);

  const pectin = lines.flatMap(l => {
    const is = PECTINS.find(([p]) => p.test(l.line.ingredientId ?? ''));
    return is ? [said(is[1], l.number)] : [];
  })[0];
  const without = wordIn([...rows], [
    [/\b(?:without|no)(?: added)? pectin\b|\bpectin[- ]free\b/i, 'nothing added'],
  ] as const);
  const gel = steps.find(s => /\bgel|\bjell|sett?ing point|sheet|wrinkle/i.test(s.text));
  const set: TextFact<SetBy> =
    pectin ??
    (!spread
      ? { value: 'not set', number: null, assumed: false, others: [] }
      : without
        ? said('nothing added', without.number)
        : gel || product.value === 'fruit butter'
          ? said('nothing added', gel?.number ?? titleRow)
          : taken<SetBy>('nothing added', ['ordinary pectin', 'low-sugar pectin', 'calcium pectin']));

  const method = methodOf(title, titleRow, product.value, steps, lines);
  const jar = jarIn([...steps, ...rows], spread);
  const pressure = rows.find(r =>
    /\bpressure[- ](?:can|cook)|\b(?:5|10|11|15) (?:lb|pounds?)\.? (?:of )?pressure\b/i.test(r.text),
  );
  return {
    product,
    setBy: set,
    ...method,
    makes: makesIn(rows, lineRows, jar.size, jar.said),
    headspace_mm: headspaceIn(steps.length > 0 ? steps : rows),
    minutes: minutesIn(steps.length > 0 ? steps : rows),
    pressure: pressure?.number ?? null,
  };
}

function methodOf(
  title: string,
  titleRow: number,
  product: Product,
  steps: readonly TextRow[],
  lines: readonly { number: number; line: Line }[],
): Pick<TextFacts, 'peel' | 'cut' | 'strain' | 'liquid' | 'pack'> {
  const main = lines.filter(l => l.line.role === 'fruit' || l.line.role === 'low-acid produce').slice(0, 1);
  const mainRows = main.map(l => ({ number: l.number, text: `${l.line.preparation} ${l.line.name}` }));
  const named: TextRow[] = [{ number: titleRow, text: title }];
  const first = <T extends string>(
    words: readonly (readonly [RegExp, T])[],
    ...groups: (readonly TextRow[])[]
  ) => groups.map(g => wordIn(g, words)).find(f => f !== null) ?? null;

  const peel = first(METHOD_WORDS.peel, mainRows, steps);
  const juicy = product === 'jelly' || product === 'juice' || product === 'syrup';
  const strained = first(
    METHOD_WORDS.strain,
    steps.filter(s => !/\bspice bag|bag of spices/i.test(s.text)),
  );
  const cuts = [...METHOD_WORDS.cut].reverse();
  const fine = cuts.slice(0, 1);
  const cut =
    first(fine, steps) ?? first(METHOD_WORDS.cut, named) ?? first(cuts, mainRows) ?? first(cuts, steps);
  const vinegar = lines.find(l => /vinegar/i.test(l.line.name) && l.line.where !== 'each jar');
  const syrup = [...named, ...steps].find(s => /\bsyrup\b/i.test(s.text));
  const sugar = lines.some(l => l.line.role === 'sweetener');
  const covered = product === 'fruit in liquid' || product === 'tomatoes';
  const liquid: TextFact<Method['liquid']> =
    product === 'pickle'
      ? vinegar
        ? said('vinegar brine', vinegar.number)
        : taken('salt brine', ['vinegar brine'])
      : covered
        ? syrup && sugar
          ? said('syrup', syrup.number)
          : /\bin (?:\w+ )?water\b/i.test(title)
            ? said('water', titleRow)
            : /\bjuice\b/i.test(title)
              ? said('juice', titleRow)
              : taken(sugar ? 'syrup' : 'water', METHOD_CHOICES.liquid)
        : { value: 'none', number: null, assumed: false, others: [] };
  const pack = first(METHOD_WORDS.pack, named, steps);
  return {
    peel: peel
      ? said<Method['peel']>(peel.value, peel.number)
      : taken<Method['peel']>('either', METHOD_CHOICES.peel),
    cut:
      juicy && strained
        ? said<Method['cut']>('juice', strained.number)
        : cut
          ? said<Method['cut']>(cut.value, cut.number)
          : taken<Method['cut']>(juicy ? 'juice' : 'chopped', METHOD_CHOICES.cut),
    strain: strained
      ? said<Method['strain']>('strained', strained.number)
      : taken<Method['strain']>(product === 'jelly' ? 'strained' : 'unstrained', METHOD_CHOICES.strain),
    liquid,
    pack: pack
      ? said<Method['pack']>(pack.value, pack.number)
      : taken<Method['pack']>(packOf(steps, liquid.value), METHOD_CHOICES.pack),
  };
}
