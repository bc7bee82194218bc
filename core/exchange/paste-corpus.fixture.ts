/**
 * Sixty recipe texts made up for this test, in the ways people write them: bullets, numbers, brackets, ranges, fractions,
 * mixed measures, headings, British and American words. Nothing here was copied, and nothing is to be cooked from.
 * Each: the text, and for every ingredient line what it must read as: amount in its unit and the ingredient's id.
 */
type Expected = [value: string, unit: string, ingredientId: string];
interface Case {
  text: string;
  lines: Expected[];
}

const BASES: [title: string, lines: [string, Expected][], steps: string[]][] = [
  [
    'Plum jam',
    [
      ['4 1/2 lb red plums, stoned', ['9/2', 'lb', 'plum']],
      ['7 c sugar', ['7', 'cup', 'sugar']],
      ['1/4 cup bottled lemon juice', ['1/4', 'cup', 'bottled-lemon']],
    ],
    ['Boil to the gel point.', 'Fill hot jars.', 'Process 10 minutes.'],
  ],
  [
    'Peach butter',
    [
      ['6 pounds ripe peaches', ['6', 'lb', 'peach']],
      ['3 cups granulated sugar', ['3', 'cup', 'sugar']],
      ['1 tsp ground cinnamon', ['1', 'tsp', 'cinnamon-ground']],
    ],
    ['Cook the peaches soft and mill them.', 'Simmer until thick.'],
  ],
  [
    'Strawberry jam',
    [
      ['2 quarts strawberries, hulled', ['2', 'quart', 'strawberry']],
      ['7 cups sugar', ['7', 'cup', 'sugar']],
      ['1 package powdered pectin', ['1', 'package', 'pectin-powder']],
    ],
    ['Crush the berries.', 'Bring to a boil with the pectin.'],
  ],
  [
    'Dilly beans',
    [
      ['4 lbs green beans', ['4', 'lb', 'snap-bean']],
      ['5 c white vinegar (5%)', ['5', 'cup', 'white-vinegar']],
      ['5 cups water', ['5', 'cup', 'water']],
      ['1/2 cup canning salt', ['1/2', 'cup', 'canning-salt']],
      ['8 heads fresh dill', ['8', 'head', 'dill']],
      ['8 cloves garlic', ['8', 'clove', 'garlic']],
    ],
    ['Trim the beans.', 'Boil the brine.', 'Pack jars and cover with brine.'],
  ],
  [
    'Tomato salsa',
    [
      ['3 kg tomatoes, peeled and chopped', ['3', 'kg', 'tomato']],
      ['4 medium onions, chopped', ['4', 'each', 'onion']],
      ['6 jalapeño peppers', ['6', 'each', 'jalapeno']],
      ['250 ml bottled lime juice', ['250', 'mL', 'bottled-lime']],
      ['1-2 tbsp canning salt', ['1', 'tbsp', 'canning-salt']],
    ],
    ['Chop all of it.', 'Simmer 20 minutes.'],
  ],
  [
    'Pickled beets',
    [
      ['7 lb beets', ['7', 'lb', 'beet']],
      ['4 cups cider vinegar', ['4', 'cup', 'cider-vinegar']],
      ['1½ tsp canning salt', ['3/2', 'tsp', 'canning-salt']],
      ['2 c sugar', ['2', 'cup', 'sugar']],
      ['2 cinnamon sticks', ['2', 'stick', 'cinnamon-stick']],
      ['12 whole cloves', ['12', 'each', 'clove-whole']],
    ],
    ['Boil the beets until tender.', 'Slice and pack into jars.'],
  ],
  [
    'Apple chutney',
    [
      ['2 quarts apples, chopped', ['2', 'quart', 'apple']],
      ['1 cup chopped onion', ['1', 'cup', 'onion']],
      ['2 3/4 cups brown sugar', ['11/4', 'cup', 'brown-sugar']],
      ['1 pint cider vinegar', ['1', 'pint', 'cider-vinegar']],
      ['2 tbsp mustard seed', ['2', 'tbsp', 'mustard-seed']],
    ],
    ['Combine and simmer.', 'Stir often.'],
  ],
  [
    'Red currant jelly',
    [
      ['6 lb 4 oz red currants', ['25/4', 'lb', 'currant-red']],
      ['850 g sugar', ['850', 'g', 'sugar']],
      ['1 c water', ['1', 'cup', 'water']],
    ],
    ['Strain through a bag overnight.', 'Boil to the gel point.'],
  ],
  [
    'Bread and butter pickles',
    [
      ['6 lbs pickling cucumbers', ['6', 'lb', 'cucumber']],
      ['3 lb onions', ['3', 'lb', 'onion']],
      ['1/2 c canning salt', ['1/2', 'cup', 'canning-salt']],
      ['4 cups white vinegar', ['4', 'cup', 'white-vinegar']],
      ['4 1/2 cups sugar', ['9/2', 'cup', 'sugar']],
      ['1 tbsp celery seed', ['1', 'tbsp', 'celery-seed']],
      ['1 tbsp turmeric', ['1', 'tbsp', 'turmeric']],
    ],
    ['Slice thin.', 'Cover with ice and stand 3 to 4 hours.', 'Boil in the syrup.'],
  ],
  [
    'Blackberry syrup',
    [
      ['half a bushel apples', ['1/2', 'bushel', 'apple']],
      ['6 1/2 c blackberries', ['13/2', 'cup', 'blackberry']],
      ['a pinch of salt', ['1', 'pinch', 'salt']],
      ['6 3/4 c sugar', ['27/4', 'cup', 'sugar']],
    ],
    ['Crush, boil, strain.', 'Boil again one minute.'],
  ],
];

/** Six ways to write the same recipe down. */
const WAYS: ((title: string, lines: string[], steps: string[]) => string)[] = [
  (t, l, s) => [t, '', 'Ingredients', ...l, '', 'Method', ...s.map((x, i) => `${i + 1}. ${x}`)].join('\n'),
  (t, l, s) => [t, '', 'INGREDIENTS:', ...l.map(x => `- ${x}`), '', 'DIRECTIONS:', ...s].join('\r\n'),
  (t, l, s) => [t, '', ...l.map(x => `• ${x}`), '', 'Instructions', ...s.map(x => `* ${x}`)].join('\n'),
  (t, l, s) => [t, 'Makes about 6 pints', '', 'You will need:', ...l, '', 'Procedure', ...s].join('\n'),
  (t, l, s) =>
    [
      `# ${t}`,
      '',
      'Ingredients',
      ...l.map(x => `* ${x}`),
      '',
      'Steps',
      ...s.map((x, i) => `Step ${i + 1}: ${x}`),
    ].join('\n'),
  (t, l, s) => [t, '', ...l, '', ...s.map((x, i) => `${i + 1}) ${x}`)].join('\n'),
];

export const CORPUS: Case[] = BASES.flatMap(([title, lines, steps]) =>
  WAYS.map(way => ({
    text: way(
      title,
      lines.map(l => l[0]),
      steps,
    ),
    lines: lines.map(l => l[1]),
  })),
);
