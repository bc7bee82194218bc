import { type BatchState, cooked, type JarFault } from '../batches/index.ts';
import { depthText, durationText, type Figures, numberText } from '../measure/index.ts';

/** What may have brought a fault about, of what this batch's own record shows, and what to change. */
export interface Cause {
  of: JarFault | 'too soft' | 'too firm';
  /** What the record shows. */
  what: string;
  /** What to do otherwise. */
  change: string;
}

/** What practice says where the record shows nothing. Common practice, no source. */
const USUAL: { readonly [K in Cause['of']]: string } = {
  'too soft': 'Cook a little further, or weigh fruit and sugar again; wait two weeks, it may still set.',
  'too firm': 'Take it off sooner, at the gel point and not after.',
  floating: 'Pack tighter, hot rather than raw, and let a jam rest and be stirred before it is filled.',
  siphoned: 'Keep the headspace, and leave the jars in the canner for five minutes with the heat off.',
  cloudy: 'Use canning salt and whole spices; in hard water, boil the water and pour it off its sediment.',
  darkened: 'Keep the food under its liquid and out of light; white sugar instead of brown.',
  separated: 'Heat tomatoes as soon as they are cut; cook longer before straining.',
  crystals:
    'Let grape juice stand in the cold and pour it off; in jam use the measured sugar and dissolve all of it.',
  'soft pieces':
    'Take fresh, firm produce, cut the blossom end off, and process no longer than is asked for.',
};

/** How much longer than foreseen a pot has to boil to be named. Our choice. */
const LONGER_MIN = 5;
/** Degrees past the gel point that make a jam firm. Our choice. */
const PAST_GEL_C = 1;
/** Share of the required time beyond which pieces go soft. Our choice. */
const OVER_SHARE = 1.2;
/** Minutes a load rests with the heat off before it is lifted. Common practice. */
const REST_MIN = 4;

/**
 * What may have caused what was seen, from this batch's own record; the usual advice where the record shows nothing.
 *
 * @param figures  whose figures its sentences are written in
 */
export function causesOf(state: BatchState, figures: Figures & { measures: 'US' | 'metric' }): Cause[] {
  const { started } = state;
  if (!started) return [];
  const seen = new Set<Cause['of']>(state.looks.flatMap(l => l.found));
  const set = state.looks.findLast(l => l.set !== null)?.set;
  if (set === 'too soft' || set === 'too firm') seen.add(set);
  const n = (value: number, places = 0) => numberText(value, figures, places);
  const minutes = cooked(state)?.minutes ?? null;
  const foreseen = started.expected?.cook_min ?? null;
  const longer = minutes !== null && foreseen !== null ? minutes - foreseen : 0;
  const hottest = Math.max(
    -Infinity,
    ...state.temperatures.filter(t => t.where === 'pot' && t.part === '').map(t => t.temp_C),
  );
  const names = started.recipe.lines.map(l => l.name.toLowerCase());
  const named = (re: RegExp) => started.recipe.lines.find(l => re.test(l.name.toLowerCase()))?.name;
  const headspaces = state.jars.flatMap(j => {
    const asked = started.times.find(t => t.jarSize === j.size)?.headspace_mm;
    return j.headspace_mm !== null && asked !== undefined ? [{ was: j.headspace_mm, asked }] : [];
  });
  const [space] = headspaces;
  const out: Cause[] = [];
  const add = (of: Cause['of'], what: string, change = USUAL[of]) => {
    if (seen.has(of)) out.push({ of, what, change });
  };
  if (Number.isFinite(hottest) && hottest < started.gelPoint_C - 0.3)
    add('too soft', `The pot reached ${n(started.gelPoint_C - hottest, 1)} °C less than the gel point.`);
  if (longer < -LONGER_MIN) add('too soft', `It boiled ${n(-longer)} minutes less than was foreseen.`);
  if (started.pots.overridden)
    add('too soft', 'The pectin was doubled in one pot.', 'Split the batch over two pots.');
  if (hottest > started.gelPoint_C + PAST_GEL_C)
    add('too firm', `The pot went ${n(hottest - started.gelPoint_C, 1)} °C past the gel point.`);
  for (const of of ['too firm', 'darkened', 'crystals'] as const)
    if (longer > LONGER_MIN) add(of, `It boiled ${n(longer)} minutes longer than was foreseen.`);
  const brown = named(/brown sugar|molasses/);
  if (brown) add('darkened', `${brown} is in it.`, 'Take white sugar where the colour matters.');
  if (space)
    for (const of of ['siphoned', 'darkened', 'floating'] as const)
      add(
        of,
        `The headspace was ${depthText(space.was, figures)} where ${depthText(space.asked, figures)} is asked for.`,
        'Fill to the headspace of the entry.',
      );
  for (const load of state.loads) {
    if (load.heatOff && load.lifted && load.lifted.at_ms - load.heatOff.at_ms < REST_MIN * 60_000)
      add(
        'siphoned',
        `Load ${load.number} was lifted ${durationText((load.lifted.at_ms - load.heatOff.at_ms) / 1000)} after the heat went off.`,
      );
    if (load.time_s !== null && load.required_s !== null && load.time_s > load.required_s * OVER_SHARE)
      add(
        'soft pieces',
        `Load ${load.number} stood at the boil ${durationText(load.time_s - load.required_s)} longer than asked for.`,
      );
  }
  if (started.times.some(t => t.pack === 'raw'))
    add('floating', 'It was packed raw.', 'Pack hot where the entry has a time for it.');
  if (named(/table salt|iodi[sz]ed/))
    add(
      'cloudy',
      'Table salt is in it: its anti-caking agent clouds a brine.',
      'Take canning or pickling salt.',
    );
  if (named(/ground /)) add('cloudy', `${named(/ground /) ?? ''} is in it.`, 'Take whole spices, in a bag.');
  if (Object.values(state.measures).some(m => m.how === 'pressed'))
    add('cloudy', 'The bag was pressed.', 'Let it drip.');
  if (names.some(x => x.includes('water')))
    add(
      'cloudy',
      'Water is in the brine: hard water clouds it.',
      'Boil it, let it stand, and pour it off its sediment; or take soft water.',
    );
  if (names.some(x => x.includes('grape')))
    add('crystals', 'Grapes hold tartaric acid, which falls out.', USUAL.crystals);
  for (const of of seen)
    if (!out.some(c => c.of === of))
      out.push({ of, what: 'Nothing in the record of this batch explains it.', change: USUAL[of] });
  return out;
}
