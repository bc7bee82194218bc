/** Groups that words name without their kind, and the kinds any of which stands for its group. */
export const ALLERGEN_GROUPS: readonly { group: string; kinds: readonly string[] }[] = [
  {
    group: 'tree nuts',
    kinds: [
      'almond',
      'walnut',
      'pecan',
      'cashew',
      'hazelnut',
      'pistachio',
      'brazil nut',
      'macadamia',
      'pine nut',
    ],
  },
  { group: 'shellfish', kinds: ['crab', 'shrimp', 'lobster'] },
  { group: 'fish', kinds: ['anchovy'] },
];

/** A food that is an allergen, the words it hides behind, and whose law names it. */
export interface AllergenWord {
  allergen: string;
  /** Matched as whole words, in any case. */
  words: RegExp;
  /** What its words hold without being it. */
  not?: RegExp;
  /** Named by the law of the United States as one of nine, or only by that of the European Union. */
  of: 'both' | 'EU';
}

/**
 * Words of a package that name a major allergen. Tree nuts, fish and shellfish are declared by their kind; where a text names
 * none, by their group, which is more than nothing.
 *
 * @source FALCPA (21 USC 321(qq)) and the FASTER Act: the nine; Regulation (EU) 1169/2011 annex II: the fourteen. Which words
 *   hide them is from memory of guidance on both
 */
export const ALLERGEN_WORDS: readonly AllergenWord[] = [
  {
    allergen: 'milk',
    words:
      /\b(?:milk|butter|buttermilk|cream|cheese|whey|casein(?:ates?)?|lactose|ghee|yogh?urt|lactalbumin)\b/i,
    not: /\b(?:cocoa butter|peanut butter|almond butter|cashew butter|coconut (?:milk|cream)|cream of tartar|butter beans?|(?:apple|pear|peach|plum|fruit|pumpkin) butter|soy milk|almond milk|oat milk|shea butter|butter lettuce|butternut|creamed coconut)\b/gi,
    of: 'both',
  },
  {
    allergen: 'egg',
    words: /\b(?:eggs?|albumen|albumin|mayonnaise|meringue|ovalbumin)\b/i,
    not: /\b(?:egg ?plants?)\b/gi,
    of: 'both',
  },
  {
    allergen: 'wheat',
    words: /\b(?:wheat|semolina|durum|spelt|farina|seitan|einkorn|emmer|khorasan|bulgh?ur|couscous)\b/i,
    not: /\bbuckwheat\b/gi,
    of: 'both',
  },
  { allergen: 'soy', words: /\b(?:soy|soya|soybeans?|tofu|tempeh|miso|edamame|tamari|shoyu)\b/i, of: 'both' },
  { allergen: 'peanut', words: /\b(?:peanuts?|groundnuts?|arachis)\b/i, of: 'both' },
  { allergen: 'sesame', words: /\b(?:sesame|tahini|benne|gingelly|halva)\b/i, of: 'both' },
  { allergen: 'almond', words: /\b(?:almonds?|marzipan|amaretto)\b/i, of: 'both' },
  { allergen: 'walnut', words: /\bwalnuts?\b/i, of: 'both' },
  { allergen: 'pecan', words: /\bpecans?\b/i, of: 'both' },
  { allergen: 'cashew', words: /\bcashews?\b/i, of: 'both' },
  { allergen: 'hazelnut', words: /\b(?:hazelnuts?|filberts?|praline)\b/i, of: 'both' },
  { allergen: 'pistachio', words: /\bpistachios?\b/i, of: 'both' },
  { allergen: 'Brazil nut', words: /\bbrazil nuts?\b/i, of: 'both' },
  { allergen: 'macadamia', words: /\bmacadamias?(?: nuts?)?\b/i, of: 'both' },
  { allergen: 'pine nut', words: /\b(?:pine nuts?|pignoli|pinon)\b/i, of: 'both' },
  {
    allergen: 'tree nuts',
    words: /\b(?:nuts?|nut (?:paste|butter|meal|flour|oil)s?)\b/i,
    not: /\b(?:(?:pine|brazil|macadamia|soy|soya|ground|tiger|kola|betel|corn|cashew|hazel|pecan|wal|pea|coco|chest|butter) ?nuts?|nut[ -]free)\b/gi,
    of: 'both',
  },
  { allergen: 'shellfish', words: /\b(?:shellfish|crustaceans?|seafood)\b/i, of: 'both' },
  { allergen: 'anchovy', words: /\banchov(?:y|ies)\b/i, of: 'both' },
  { allergen: 'fish', words: /\b(?:fish|cod|tuna|salmon|isinglass|sardines?|bonito)\b/i, of: 'both' },
  { allergen: 'crab', words: /\bcrabs?\b/i, not: /\bcrab ?apples?\b/gi, of: 'both' },
  { allergen: 'shrimp', words: /\b(?:shrimps?|prawns?)\b/i, of: 'both' },
  { allergen: 'lobster', words: /\blobsters?\b/i, of: 'both' },
  { allergen: 'mustard', words: /\bmustard\b/i, of: 'EU' },
  { allergen: 'celery', words: /\b(?:celery|celeriac)\b/i, of: 'EU' },
  { allergen: 'lupin', words: /\blupins?\b/i, of: 'EU' },
  { allergen: 'barley (gluten)', words: /\b(?:barley|malt)\b/i, of: 'EU' },
  { allergen: 'rye (gluten)', words: /\brye\b/i, of: 'EU' },
  { allergen: 'oats (gluten)', words: /\boats?\b/i, of: 'EU' },
];
