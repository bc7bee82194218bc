/**
 * Names that are given to several things, and what they may be: by the words people write in recipes. Common practice;
 * what hangs on it is acid, strength, what is low in acid, and whether it counts as a dried spice.
 */
export const UNCLEAR: readonly { words: readonly string[]; of: readonly string[] }[] = [
  { words: ['pepper', 'peppers'], of: ['bell-pepper', 'hot-pepper', 'black-pepper'] },
  { words: ['red pepper', 'red peppers'], of: ['bell-pepper', 'hot-pepper', 'pepper-flakes', 'cayenne'] },
  { words: ['cayenne pepper', 'cayenne peppers'], of: ['cayenne', 'hot-pepper'] },
  {
    words: ['chile', 'chili', 'chilli', 'chiles', 'chilies', 'chillies'],
    of: ['hot-pepper', 'dried-pepper', 'chili-powder'],
  },
  { words: ['pimento'], of: ['pimiento', 'allspice'] },
  { words: ['lemon juice'], of: ['bottled-lemon', 'fresh-lemon'] },
  { words: ['lime juice'], of: ['bottled-lime', 'fresh-lime'] },
  {
    words: ['pectin', 'fruit pectin'],
    of: ['pectin-powder', 'pectin-liquid', 'pectin-low-sugar', 'pectin-calcium'],
  },
  { words: ['mustard'], of: ['mustard-seed', 'mustard-powder', 'prepared-mustard'] },
  { words: ['ginger'], of: ['ginger', 'ginger-ground', 'ginger-candied'] },
  { words: ['dill', 'dill weed'], of: ['dill', 'dill-dried', 'dill-seed'] },
  { words: ['basil'], of: ['basil', 'basil-dried'] },
  { words: ['thyme'], of: ['thyme-fresh', 'thyme'] },
  { words: ['oregano'], of: ['oregano-fresh', 'oregano'] },
  { words: ['rosemary'], of: ['rosemary', 'rosemary-dried'] },
  { words: ['sage'], of: ['sage', 'sage-dried'] },
  { words: ['tarragon'], of: ['tarragon', 'tarragon-dried'] },
  { words: ['mint'], of: ['mint', 'mint-dried'] },
  { words: ['parsley'], of: ['parsley', 'parsley-dried'] },
  { words: ['coriander'], of: ['coriander-seed', 'cilantro'] },
  { words: ['fennel'], of: ['fennel', 'fennel-seed'] },
  { words: ['cloves', 'clove'], of: ['clove-whole', 'clove-ground', 'garlic'] },
  { words: ['bean', 'beans'], of: ['snap-bean', 'kidney-bean', 'black-bean'] },
  { words: ['currant', 'currants'], of: ['currant-red', 'currant-black', 'currants-dried'] },
  { words: ['starch', 'clear starch'], of: ['canning-starch', 'cornstarch', 'clear-instant-starch'] },
  { words: ['squash'], of: ['zucchini', 'pumpkin'] },
];

/** A word that makes another kind of a fruit, wherever it stands: one that is not safely acid, or is no fruit any more. */
export const KINDS_BY_WORD: readonly { of: string; words: readonly string[]; is: string }[] = [
  { of: 'peach', words: ['white'], is: 'white-peach' },
  { of: 'nectarine', words: ['white'], is: 'white-nectarine' },
  { of: 'pear', words: ['asian', 'nashi'], is: 'asian-pear' },
  { of: 'tomato', words: ['dried', 'sun'], is: 'dried-tomato' },
];
