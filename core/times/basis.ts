import type { MinutesByAltitude } from '../heat/index.ts';
import type { JarSizeId } from '../jars/index.ts';

/** Times an authority gives for sea level only; the altitude rule is ours to apply. */
export interface SeaLevelTime {
  kind: 'sea level';
  pack: 'hot' | 'raw';
  headspace_mm: number;
  minutes: { jarSize: JarSizeId; minutes: number }[];
}
/** What a time comes from: a published entry, or a sea-level time that altitude is added to. */
export type TimeBasis = { kind: 'entry'; entryId: string } | SeaLevelTime;

/** The heat step a process authority's letter sets. */
export type LetterProcess =
  | {
      kind: 'boiling water';
      pack: 'hot' | 'raw';
      headspace_mm: number;
      minutes: { jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
    }
  | SeaLevelTime
  | {
      kind: 'hot-fill-hold';
      /** Least temperature of the food as it is filled. */
      temp_C: number;
      hold_min: number;
      headspace_mm: number;
      jarSizes: JarSizeId[];
    };
