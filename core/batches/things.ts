import { Fraction } from '../measure/index.ts';
import { knownMasses_g, lineMass_g } from '../recipes/index.ts';
import { atThePot } from './at-the-pot.ts';
import { deviation } from './counted.ts';
import type { PlacedEntry } from './evidence.ts';
import type { BatchEvent, StartedBody } from './events.ts';
import type { BatchState, Deviation, Note } from './state.ts';

/**
 * Lines added while cooking stand among the recipe's, and what took the place of one stands in it, so that they are drawn,
 * weighed, costed and labelled alike.
 */
export function withLines(
  started: StartedBody,
  added: BatchState['added'],
  replaced: BatchState['replaced'],
): StartedBody {
  if (added.length === 0 && replaced.length === 0) return started;
  const now = new Map(replaced.map(r => [r.was.id, r.line]));
  const known = new Set(started.recipe.lines.map(l => l.id));
  const more = added.map(a => a.line).filter(l => !known.has(l.id) && known.add(l.id));
  const lines = [...started.recipe.lines.map(l => now.get(l.id) ?? l), ...more];
  return { ...started, recipe: { ...started.recipe, lines } };
}

/** What took the place of a line at the pot, as far as the recipe has that line; the last one counts. */
export function replacedLines(
  started: StartedBody,
  entries: readonly (PlacedEntry & { event: BatchEvent<'line.replaced'> })[],
): BatchState['replaced'] {
  const last = new Map<string, BatchState['replaced'][number]>();
  for (const { event, trace } of entries) {
    const { lineId, line } = event.body;
    const was = started.recipe.lines.find(l => l.id === lineId);
    // It serves where the first served: what it is may change, not where it goes in.
    if (!was) continue;
    // A stronger one is worth no more than what the recipe counts on: what was drawn before may be weaker.
    const strength =
      line.minStrength_pct !== null && was.minStrength_pct !== null
        ? Math.min(line.minStrength_pct, was.minStrength_pct)
        : line.minStrength_pct;
    last.set(lineId, {
      was,
      line: { ...line, id: was.id, where: was.where, minStrength_pct: strength },
      by: trace,
    });
  }
  return [...last.values()];
}

/**
 * A substitution that takes the recipe out of its authority holds the batch; one that is covered or free does not. What was
 * drawn for the line before was drawn as something else: it counts for nothing, and holds the batch until it is put back.
 */
export function replacedDeviations(
  before: StartedBody,
  replaced: BatchState['replaced'],
  draws: BatchState['draws'],
): Deviation[] {
  return replaced.flatMap(({ was, line, by }) => {
    const drawn = draws
      .filter(d => d.by.at_ms <= by.at_ms)
      .flatMap(d => d.lots.filter(l => l.lineId === was.id));
    const first: Deviation[] =
      drawn.length === 0
        ? []
        : [
            deviation({
              key: `replaced_after_draw:${by.eventId}`,
              code: 'replaced_after_draw',
              jars: null,
              what: `Lot ${drawn.map(l => l.lotLabel).join(', ')} was drawn as ${was.name}, before ${line.name} went in for it.`,
              next: 'Put that draw back, and draw what went in.',
            }),
          ];
    const { answer, says } = atThePot(before.recipe, recipe => ({
      ...recipe,
      lines: recipe.lines.map(l => (l.id === was.id ? line : l)),
    }));
    if (answer !== 'costs') return first;
    return [
      ...first,
      deviation({
        key: `line_replaced:${by.eventId}`,
        code: 'line_replaced',
        jars: null,
        what: `${line.name} went in for ${was.name}. ${says.map(s => s.what).join(' ')}`,
        next: 'The authority covers the recipe as it stands. If it was entered by mistake, take the entry back; else the batch stays held.',
      }),
    ];
  });
}

/**
 * What entries name that the batch does not have. A line that is none of its recipe's holds it: something went in, or
 * was meant for another batch. A step or a burner is a matter of the books.
 */
export function unknownThings(
  standing: readonly PlacedEntry[],
  started: StartedBody,
  added: BatchState['added'],
  weighed: BatchState['weighed'],
): { deviations: Deviation[]; notes: Note[] } {
  const { recipe, kitchen } = started;
  const has = {
    step: new Set(recipe.steps.map(s => s.id)),
    line: new Set(recipe.lines.map(l => l.id)),
    burner: new Set(kitchen.costs.burners.map(b => b.id)),
  };
  const deviations: Deviation[] = recipe.sketch ? [] : addedLines(started, added, weighed);
  const notes: Note[] = [];
  for (const { event } of standing) {
    const named = thingNamed(event);
    // A sketch is written down while it is cooked: it has no lines or steps yet that could be missed.
    if (!named || has[named.kind].has(named.id) || (recipe.sketch && named.kind !== 'burner')) continue;
    const key = `unknown_${named.kind}:${event.id}`;
    const what = `An entry names a ${named.kind} that this batch does not have: "${named.id.slice(0, 60)}".`;
    if (named.kind === 'line')
      deviations.push(
        deviation({
          key,
          code: 'unknown_line',
          jars: named.jars,
          what,
          next: 'Take the entry back, or correct it to a line of this recipe; what went in besides is entered as an addition.',
        }),
      );
    else notes.push({ key, what, draw: null, lot: null, settled: null });
  }
  return { deviations, notes };
}

/** Dried spice up to this share of the pot changes nothing an authority tested; above it, it counts as fresh. */
const FREE_SPICE_SHARE = 0.01;
const NEVER_FREE = /\b(?:oil|butter|fat|fresh)\b/i;

/** What went in that the recipe does not name. */
function addedLines(
  started: StartedBody,
  added: BatchState['added'],
  weighed: BatchState['weighed'],
): Deviation[] {
  if (added.length === 0) return [];
  const extra = new Set(added.map(a => a.line.id));
  const own = started.recipe.lines.filter(l => !extra.has(l.id));
  const factor = new Fraction(started.factor).valueOf();
  const masses = knownMasses_g({ ...started.recipe, lines: own });
  const pot_g = [...masses.values()].reduce((sum, g) => sum + g, 0) * factor;
  return added.map(({ line, by }) => {
    const mass_g = Math.max(lineMass_g(line), weighed[line.id]?.mass_g ?? 0);
    const free =
      ((line.role === 'spice' && line.freshFactor > 1) || line.role === 'salt') &&
      mass_g <= pot_g * FREE_SPICE_SHARE &&
      !NEVER_FREE.test(`${line.name} ${line.preparation}`);
    return deviation({
      key: `line_added:${by.eventId}`,
      code: 'line_added',
      jars: null,
      what: `${line.name} went in, and the recipe does not name it.`,
      next: free
        ? 'Settle it with the reason, and write it into the recipe.'
        : 'The authority covers the recipe as it stands. If it was entered by mistake, take the entry back; else the batch stays held.',
      settles: free ? 'reason' : null,
    });
  });
}

function thingNamed(
  event: BatchEvent,
): { kind: 'step' | 'line' | 'burner'; id: string; jars: number[] | null } | null {
  switch (event.type) {
    case 'step.started':
    case 'step.done':
    case 'measure.taken':
      return { kind: 'step', id: event.body.stepId, jars: null };
    case 'line.weighed':
    case 'line.replaced':
      return { kind: 'line', id: event.body.lineId, jars: null };
    case 'dose.given':
    case 'dose.missed':
      return { kind: 'line', id: event.body.lineId, jars: event.body.jars };
    case 'energy.used':
      return { kind: 'burner', id: event.body.burnerId, jars: [] };
    default:
      return null;
  }
}
