import { type BatchState, type Filling, fillings, type Trace } from '../batches/index.ts';
import { rangesText } from '../measure/index.ts';
import { type Condition, condition, tempBoth } from './condition.ts';

const HOUR_MS = 3_600_000;
/** What was left over is brought back within a day. Common practice of the trade. */
const BACK_WITHIN_MS = 24 * HOUR_MS;
/** Cooked food cools from 57 to 21 °C within 2 hours, and to 5 °C within 4 more. FDA Food Code, cooling (from memory). */
const COOLS = [
  { to_C: 21, within_ms: 2 * HOUR_MS },
  { to_C: 5, within_ms: 6 * HOUR_MS },
] as const;

/** Whether what is in the pot is acid before it is filled: its own acid, or acid that goes into the pot. */
export function isAcidInPot({ started }: Pick<BatchState, 'started'>): boolean {
  const recipe = started?.recipe;
  if (!recipe) return false;
  if (recipe.foodClass === 'fruit spread' || recipe.foodClass === 'acid food') return true;
  return recipe.lines.some(l => l.role === 'acid' && (l.where === 'pot' || l.where === 'brine'));
}

/** Whether one of several pots was cooked in between: it is filled fresh, however long after the first. */
function isFreshPot({ started, steps }: BatchState, filling: Filling, before: Filling): boolean {
  if (!started || started.pots.count < 2) return false;
  return started.recipe.steps
    .filter(s => s.kind === 'cook')
    .flatMap(s => Object.values(steps[s.id]?.pots ?? {}))
    .some(
      ({ done }) =>
        done !== null && !done.doubtful && done.at_ms > before.to_ms && done.at_ms <= filling.from_ms,
    );
}

/** What stands against jars of a later filling; null where nothing does. */
function faultOf(
  state: BatchState,
  filling: Filling,
  before: Filling,
): { what: string; by: Trace | null } | null {
  const backs = state.leftoversBack.filter(
    b => b.by.at_ms >= before.to_ms && b.by.at_ms <= filling.from_ms && !b.by.doubtful,
  );
  if (backs.length === 0)
    return { what: 'nobody entered when it was refrigerated, and that it came back', by: null };
  // Whatever was entered of it counts: a second entry does not take back the first.
  for (const back of backs) {
    const fault = faultOfBack(state, filling, before, back);
    if (fault) return fault;
  }
  return null;
}

function faultOfBack(
  state: BatchState,
  filling: Filling,
  before: Filling,
  back: BatchState['leftoversBack'][number],
): { what: string; by: Trace } | null {
  const started = state.started as NonNullable<BatchState['started']>;
  const t = (temp_C: number) => tempBoth(temp_C, started.kitchen);
  const put_ms = Date.parse(back.refrigeratedAt);
  if (put_ms > back.by.at_ms)
    return { what: 'it was refrigerated after it came back, as entered', by: back.by };
  if (
    filling.from_ms - put_ms > BACK_WITHIN_MS ||
    filling.from_ms - before.to_ms > BACK_WITHIN_MS + 4 * HOUR_MS
  )
    return { what: 'it came back after more than a day', by: back.by };
  if (!back.boiled) return { what: 'it was not brought to a full boil', by: back.by };
  if (isAcidInPot(state)) return null;
  for (const { to_C, within_ms } of COOLS) {
    const cold = back.cooled.some(c => {
      const at_ms = Date.parse(c.at);
      return c.temp_C <= to_C && at_ms >= before.to_ms && at_ms - before.to_ms <= within_ms;
    });
    if (!cold)
      return {
        what: `no temperature shows it at ${t(to_C)} or below within ${within_ms / HOUR_MS} hours of the last filling`,
        by: back.by,
      };
  }
  return null;
}

/** Jars filled from what was left over: refrigerated, back within a day, boiled, and cooled fast where it is not acid yet. */
export function leftoverConditions(state: BatchState): Condition[] {
  const groups = fillings(state);
  return groups.slice(1).map((filling, i) => {
    const before = groups[i] as Filling;
    const fresh = isFreshPot(state, filling, before);
    const fault = fresh ? null : faultOf(state, filling, before);
    const jars = filling.jars.filter(j => !j.setAside).map(j => j.number);
    return condition({
      code: `leftover:${filling.lotCode}`,
      title: `What was left over, as lot ${filling.lotCode}`,
      met: fault === null || jars.length === 0,
      evidence: fault
        ? `Jars ${rangesText(jars)} were filled long after the others: ${fault.what}.`
        : fresh
          ? 'Another pot was cooked in between, and filled fresh.'
          : 'It was refrigerated, came back within a day and was boiled once.',
      why: 'Food that stands warm between two fillings may spoil before its acid or its heat can keep it. FDA Food Code, cooling (from memory); a day is common practice.',
      next: 'Enter when it was refrigerated and that it was boiled, with the time when that was; otherwise keep these jars in the refrigerator.',
      jars,
      against: fault !== null,
      proof: fault?.by ? [fault.by] : [],
    });
  });
}
