import type { Ingredient } from '../ingredient.ts';
import { one, type Known } from './entry.ts';

/** Fresh herbs count as low-acid produce: added to a tested product they take it out of its authority. */
const herb = (
  id: string,
  name: string,
  aliases: string,
  cup: number,
  sprig: number,
  water_pct = 88,
): Ingredient =>
  one(id, name, aliases, 'low-acid produce', {
    cup_g: { chopped: cup, leaves: Math.round(cup * 0.6) },
    one_g: { sprig, bunch: 60, leaf: 0.3, head: 4 },
    trim: { knife: 0.6 },
    water_pct,
    solids_pct: 3,
    ph: [5.5, 6.5],
    labelName: name.replace('Fresh ', ''),
  });
/** Fresh herbs. */
export const HERBS: Ingredient[] = [
  herb('dill', 'Fresh dill', 'dill heads, dill weed, fresh dill weed, dill sprigs, dill head', 9, 1, 86),
  herb('basil', 'Fresh basil', 'basil leaves', 24, 2.5, 92),
  herb('cilantro', 'Fresh cilantro', 'cilantro, coriander leaves, fresh coriander', 16, 2.2, 92),
  herb('parsley', 'Fresh parsley', 'parsley', 60, 1, 87.7),
  herb('mint', 'Fresh mint', 'mint leaves, mint', 24, 1.5, 85),
  herb('thyme-fresh', 'Fresh thyme', 'thyme sprigs', 40, 1, 65),
  herb('rosemary', 'Fresh rosemary', 'rosemary sprigs, rosemary', 27, 1.5, 68),
  herb('oregano-fresh', 'Fresh oregano', 'oregano sprigs, oregano leaves fresh', 20, 1, 81),
  herb('tarragon', 'Fresh tarragon', 'tarragon sprigs', 25, 1, 78),
  herb('sage', 'Fresh sage', 'sage leaves', 30, 1, 66),
  herb('lemongrass', 'Lemongrass', '', 67, 10, 70.6),
  herb('grape-leaf', 'Grape leaves', 'grape leaf', 14, 3, 73),
];

const dry = (id: string, name: string, aliases: string, cup: number, more: Known = {}): Ingredient =>
  one(id, name, aliases, 'spice', { cup_g: { 'as it is': cup }, water_pct: 9, solids_pct: 5, ...more });
/** Dried spices and herbs: with salt the only things whose amount may be changed freely. */
export const SPICES: Ingredient[] = [
  dry(
    'mustard-seed',
    'Mustard seed',
    'mustard seeds, yellow mustard seed, yellow mustard seeds, brown mustard seed',
    160,
  ),
  dry('mustard-powder', 'Dry mustard', 'mustard powder, ground mustard', 100),
  dry('celery-seed', 'Celery seed', 'celery seeds', 104),
  dry('dill-seed', 'Dill seed', 'dill seeds', 101),
  dry('dill-dried', 'Dried dill weed', 'dried dill, dill weed dried', 50),
  dry('coriander-seed', 'Coriander seed', 'coriander seeds, ground coriander', 80),
  dry('cumin', 'Cumin', 'cumin seed, cumin seeds, ground cumin', 100),
  dry('turmeric', 'Turmeric', 'ground turmeric', 150),
  dry('peppercorn', 'Black peppercorns', 'peppercorns, whole black peppercorns, black peppercorn', 140, {
    labelName: 'black pepper',
  }),
  dry('black-pepper', 'Ground black pepper', 'black pepper, pepper', 110, { labelName: 'black pepper' }),
  dry(
    'pepper-flakes',
    'Red pepper flakes',
    'crushed red pepper, hot pepper flakes, chile flakes, red pepper flake',
    85,
    { labelName: 'red pepper flakes' },
  ),
  dry('cayenne', 'Cayenne', 'ground cayenne, cayenne pepper, ground red pepper', 85, {
    labelName: 'cayenne pepper',
  }),
  dry('paprika', 'Paprika', 'sweet paprika, smoked paprika', 109),
  dry('chili-powder', 'Chili powder', 'chilli powder', 128, {
    subIngredients: 'chile peppers, cumin, garlic, oregano, salt',
  }),
  dry('cinnamon-stick', 'Cinnamon sticks', 'cinnamon stick, stick cinnamon', 60, {
    one_g: { stick: 2.6, each: 2.6 },
    labelName: 'cinnamon',
  }),
  dry('cinnamon', 'Ground cinnamon', 'cinnamon', 125),
  dry('clove-whole', 'Whole cloves', 'cloves', 85, { one_g: { each: 0.07 }, labelName: 'cloves' }),
  dry('clove-ground', 'Ground cloves', 'ground clove', 105, { labelName: 'cloves' }),
  dry('allspice', 'Allspice', 'ground allspice, whole allspice, allspice berries', 96),
  dry('nutmeg', 'Nutmeg', 'ground nutmeg, grated nutmeg', 112),
  dry('mace', 'Mace', 'ground mace', 85),
  dry('cardamom', 'Cardamom', 'cardamom pods, ground cardamom', 93, { one_g: { each: 0.2 } }),
  dry('ginger-ground', 'Ground ginger', 'powdered ginger', 83, { labelName: 'ginger' }),
  dry('ginger-candied', 'Candied ginger', 'crystallized ginger, crystallised ginger', 170, {
    role: 'sweetener',
    solids_pct: 80,
    water_pct: 15,
  }),
  dry('star-anise', 'Star anise', '', 60, { one_g: { each: 1 } }),
  dry('bay', 'Bay leaves', 'bay leaf, dried bay leaves', 28, {
    one_g: { each: 0.3, leaf: 0.3 },
    labelName: 'bay leaf',
  }),
  dry(
    'pickling-spice',
    'Mixed pickling spice',
    'pickling spice, pickling spices, mixed pickling spices',
    95,
    { subIngredients: 'mustard seed, coriander, allspice, bay leaf, cinnamon, chile peppers, cloves' },
  ),
  dry('oregano', 'Dried oregano', 'dried oregano leaves', 48),
  dry('rosemary-dried', 'Dried rosemary', 'dried rosemary leaves', 53),
  dry('sage-dried', 'Dried sage', 'rubbed sage, ground sage', 32),
  dry('tarragon-dried', 'Dried tarragon', 'dried tarragon leaves', 29),
  dry('mint-dried', 'Dried mint', 'dried mint leaves', 25),
  dry('parsley-dried', 'Dried parsley', 'parsley flakes, dried parsley flakes', 20),
  dry('thyme', 'Dried thyme', 'dried thyme leaves, ground thyme', 43),
  dry('basil-dried', 'Dried basil', 'dried basil leaves', 34),
  dry('curry-powder', 'Curry powder', 'curry', 101, {
    subIngredients: 'coriander, turmeric, cumin, ginger, pepper, mustard',
  }),
  dry('fennel-seed', 'Fennel seed', 'fennel seeds', 93),
  dry('caraway', 'Caraway seed', 'caraway seeds, caraway', 107),
  dry('juniper', 'Juniper berries', 'juniper', 80, { one_g: { each: 0.2 } }),
  dry('vanilla-bean', 'Vanilla beans', 'vanilla bean', 80, { one_g: { each: 3 }, labelName: 'vanilla bean' }),
  dry('vanilla-extract', 'Vanilla extract', 'vanilla', 208, {
    liquid: true,
    water_pct: 53,
    solids_pct: 12,
    labelName: 'vanilla extract',
    subIngredients: 'water, alcohol, vanilla bean extractives',
  }),
  dry('almond-extract', 'Almond extract', '', 208, {
    liquid: true,
    water_pct: 53,
    allergens: ['tree nuts (almond)'],
    notes: 'Some are made from peach kernels: read the bottle.',
  }),
  dry('lemon-zest', 'Lemon zest', 'grated lemon zest, lemon peel, grated lemon peel, lemon rind', 96, {
    water_pct: 81,
    one_g: { each: 6 },
  }),
  dry('orange-zest', 'Orange zest', 'grated orange zest, orange peel, grated orange peel, orange rind', 96, {
    water_pct: 73,
    one_g: { each: 12 },
  }),
  dry('lavender', 'Dried lavender', 'lavender, lavender buds', 30),
];
