import type { BatchEvent, BoilLoss, ByInstrument, CorrectiveAction, Known } from '../batches/index.ts';
import {
  type Habits,
  dayOf,
  dayText,
  depthText,
  durationText,
  massText,
  numberText,
  rangesText,
  temperatureText,
} from '../measure/index.ts';
import { jarCountText } from '../jars/index.ts';
import type { Recipe } from '../recipes/index.ts';

/** How an entry is known, as people read it. */
export const KNOWN_WORDS: { readonly [K in Known]: string } = {
  live: 'entered at the time',
  queued: 'sent later',
  'written up': 'written up',
  waiting: 'waiting',
};

/**
 * One event in a sentence, for the record on screen and on paper.
 *
 * @param recipe  the batch's recipe, to name lines and steps; null before the start is known
 */
export function eventWords(
  event: BatchEvent,
  recipe: Recipe | null,
  habits: Pick<Habits, 'locale' | 'temperature' | 'measures' | 'zone'>,
): string {
  return words(event.type, event.body, recipe, habits);
}

const LOST: { readonly [K in BoilLoss]: string } = {
  boil: 'The boil was lost',
  water: 'The water went below the lids',
  interrupted: 'The load was interrupted',
};

/** What was done about a deviation, as people read it. */
export const ACTION_WORDS: { readonly [K in CorrectiveAction]: string } = {
  'shown right': 'Settled a deviation',
  'processed again': 'To be processed again',
  refrigerated: 'Refrigerated',
  held: 'Held',
  'authority asked': "A process authority's word",
  destroyed: 'Destroyed',
};

const ofPot = (potId: string | null): string => (potId === null ? '' : ` in pot ${potId}`);
const beforeItsTurn = (reason: string): string => (reason === '' ? '' : ` Before its turn: ${reason}`);

/** By which instrument, and how far that was off when it was checked last. */
function readBy(
  { instrumentId, checked }: Pick<ByInstrument, 'instrumentId' | 'checked'>,
  habits: Pick<Habits, 'locale' | 'temperature' | 'zone'>,
  unit: 'C' | '' = '',
): string {
  const off = checked && (unit === 'C' && habits.temperature === 'F' ? checked.off * 1.8 : checked.off);
  const how =
    checked &&
    `checked ${dayText(dayOf(Date.parse(checked.at), habits.zone), habits)}, ${numberText(off ?? 0, habits)}${unit && ` °${habits.temperature}`} off`;
  if (!instrumentId) return how ? `, the instrument ${how}` : '';
  return `, by ${instrumentId}${how ? ` (${how})` : ''}`;
}

/** Of a separated part, where it is not of the whole. */
const ofPart = (part: string): string => (part ? `, of the ${part} alone` : '');

function words(
  type: BatchEvent['type'],
  rawBody: unknown,
  recipe: Recipe | null,
  habits: Pick<Habits, 'locale' | 'temperature' | 'measures' | 'zone'>,
): string {
  const e = { type, body: rawBody } as Pick<BatchEvent, 'type' | 'body'> as BatchEvent;
  const line = (id: string) => recipe?.lines.find(l => l.id === id)?.name ?? 'a line';
  const step = (id: string) => recipe?.steps.find(s => s.id === id)?.text ?? 'a step';
  const jars = (numbers: number[]) =>
    numbers.length === 1 ? `jar ${numbers[0]}` : `jars ${rangesText(numbers)}`;
  switch (e.type) {
    case 'batch.started':
      return `Started ${e.body.recipe.name}, version ${e.body.recipeVersion}, for ${e.body.purpose}: ${e.body.jars.map(j => jarCountText(j.count, j.size)).join(', ')}. Lot ${e.body.lotCode}.${e.body.heat === 'steam' ? ' In steam.' : ''}${e.body.pots?.overridden ? ' Ordinary pectin is doubled, by decision.' : ''}`;
    case 'lot.drawn':
      return `${e.body.used ? 'Drew what had been used without a connection:' : 'Drew'} ${e.body.lots.map(l => `${numberText(Number(l.quantity), habits)} ${l.unit === 'each' ? '' : `${l.unit} `}${l.name} (lot ${l.lotLabel})`).join('; ')}.`;
    case 'draw.reversed':
      return `Put a draw back: ${e.body.reason}`;
    case 'lots.returned':
      return `Back to the shelf: ${e.body.lots.length === 1 ? `${numberText(Number(e.body.lots[0]?.quantity), habits)} of a lot` : `${e.body.lots.length} lots`}. ${e.body.reason}`;
    case 'jars.taken':
      return `Took ${jars(e.body.jars)} into the kitchen as lot ${e.body.label}.`;
    case 'curve.kept':
      return `Kept the curve of ${e.body.instrumentId ?? 'a thermometer'}: ${numberText(e.body.readings, habits, 0)} readings, ${temperatureText(e.body.lowest_C, habits)} to ${temperatureText(e.body.highest_C, habits)}${readBy({ ...e.body, instrumentId: null }, habits, 'C')}: ${step(e.body.stepId)}`;
    case 'pot.taken':
      return `Took ${massText(e.body.mass_g, habits)} out of the pot, ${e.body.how}: ${e.body.name}, lot ${e.body.label}.`;
    case 'jars.released':
      return `Released ${jars(e.body.jars)}. ${e.body.evidence.map(c => c.title).join('; ')}.${e.body.named.length > 0 ? ` Signed in the knowledge of: ${e.body.named.join('; ')}.` : ''}`;
    case 'outlet.opened':
      return `Opened ${e.body.name} as a lot of its own: ${e.body.lotCode}.`;
    case 'labels.printed':
      return `Printed labels for ${jars(e.body.jars)}: ${e.body.label.statementOfIdentity}, ${e.body.label.netContents}.`;
    case 'labels.counted':
      return `Counted labels: ${e.body.used} used, ${e.body.spoiled} spoiled, ${e.body.destroyed} destroyed.`;
    case 'step.started':
      return `Began${ofPot(e.body.potId)}: ${step(e.body.stepId)}${beforeItsTurn(e.body.outOfOrder)}`;
    case 'step.done':
      return `Done${ofPot(e.body.potId)}: ${step(e.body.stepId)}${e.body.ended ? ` Ended by ${e.body.ended}.` : ''}${beforeItsTurn(e.body.outOfOrder)}`;
    case 'line.weighed':
      return `Weighed ${massText(e.body.mass_g, habits)} of ${line(e.body.lineId)}${readBy(e.body, habits)}.`;
    case 'line.added':
      return `Added ${e.body.line.amount.text} of ${e.body.line.name}, which the recipe does not name.`;
    case 'measure.taken':
      return `Measured ${e.body.unit === 'g' ? massText(e.body.quantity, habits) : `${numberText(e.body.quantity, habits, 0)} mL`}${e.body.how ? `, ${e.body.how}` : ''}${e.body.from.length > 1 ? `, pooled from ${e.body.from.length}` : ''}: ${step(e.body.stepId)}`;
    case 'level.read':
      return `In the pot: ${e.body.of === 'weight' ? massText(e.body.quantity, habits) : `${numberText(e.body.quantity, habits, 0)} mm deep`}.`;
    case 'lot.used':
      return `Used ${numberText(e.body.quantity, habits)}${e.body.unit === 'each' ? '' : ` ${e.body.unit}`} of a lot${e.body.lineId === null ? '' : ` for ${line(e.body.lineId)}`} without a connection.`;
    case 'canner.lit':
      return 'Lit the burner under the canner.';
    case 'jars.moved':
      return `Moved ${jars(e.body.jars)} to the ${e.body.to}.`;
    case 'correction.signed':
      return 'Signed a correction.';
    case 'yield.explained':
      return `Yield: ${e.body.reason}`;
    case 'temperature.read':
      return `Read ${temperatureText(e.body.temp_C, habits)} in the ${e.body.where}${ofPart(e.body.part)}${readBy(e.body, habits, 'C')}.`;
    case 'solids.read':
      return `Read ${numberText(e.body.brix_pct, habits)} °Brix in the pot${ofPart(e.body.part)}${readBy(e.body, habits)}.`;
    case 'jars.boiled':
      return `Boiled the empty jars for ${numberText(e.body.minutes, habits)} minutes.`;
    case 'jars.weighed':
      return `Weighed filled jars: ${e.body.jars.map(j => `${j.jar} ${massText(j.net_g, habits)}`).join(', ')} inside; ${massText(e.body.left_g, habits)} left beside.`;
    case 'jars.filled':
      return `Filled ${jars(e.body.jars)}, ${jarCountText(e.body.jars.length, e.body.size)}${e.body.headspace_mm === null ? '' : `, with ${depthText(e.body.headspace_mm, habits)} headspace`}.`;
    case 'dose.given':
      return `${line(e.body.lineId)} into ${jars(e.body.jars)}.`;
    case 'dose.missed':
      return `${line(e.body.lineId)} missed in ${jars(e.body.jars)}.`;
    case 'dose.checked':
      return `${numberText(e.body.quantity, habits, 1)} ${e.body.unit} of ${line(e.body.lineId)} left the bottle.`;
    case 'left.over':
      return e.body.went === 'nothing left'
        ? `Nothing was left of the ${e.body.what}.`
        : `Left of the ${e.body.what}${e.body.mass_g === null ? '' : `, ${massText(e.body.mass_g, habits)}`}: ${e.body.went === 'refrigerator' ? 'to the refrigerator' : e.body.went}.${e.body.text ? ` ${e.body.text}` : ''}`;
    case 'leftover.back':
      return `What was left came back from the refrigerator, in it since ${e.body.refrigeratedAt}${e.body.boiled ? ', and was brought to a full boil' : ', and was not boiled'}.`;
    case 'line.replaced':
      return `${e.body.line.amount.text} ${e.body.line.name} took the place of ${line(e.body.lineId)}.`;
    case 'pot.washed':
      return e.body.washed
        ? `The pot was washed: ${e.body.allergens.join(', ')} had been in it.`
        : `The pot was not washed: ${e.body.allergens.join(', ')} had been in it.`;
    case 'jars.marked':
      return e.body.for === 'sale'
        ? `${jars(e.body.jars)}: for sale like the others.`
        : `${jars(e.body.jars)}: ${e.body.for === 'reading' ? 'to be opened for the reading' : 'kept for the lot'}.`;
    case 'picture.kept':
      return `Kept a picture${e.body.text ? `: ${e.body.text}` : '.'}`;
    case 'load.packed':
      return `Load ${e.body.number} packed with ${jars(e.body.jars)}${e.body.newLidLotId ? ', new lids' : ''}${e.body.heat === 'steam' ? ', in steam' : ''}.`;
    case 'load.boiling':
      return 'Full boil: the clock started.';
    case 'load.boil_lost':
      return `${LOST[e.body.lost]}: the time so far is void.`;
    case 'load.heat_off':
      return 'Heat off.';
    case 'load.lifted':
      return 'Jars lifted.';
    case 'jars.set_aside':
      return `Set aside ${jars(e.body.jars)}: ${e.body.why}.`;
    case 'jars.pressed':
      return `${e.body.how === 'bands off' ? 'Bands off, looked at' : e.body.how === 'pressed' ? 'Pressed' : 'Proven as the letter says'}: ${e.body.sealed.length} sealed${e.body.failed.length > 0 ? `, ${jars(e.body.failed)} failed` : ''}.`;
    case 'jars.market_checked':
      return `Before market, ${jars(e.body.jars)}: ${e.body.done.join(', ')}.`;
    case 'jars.withdrawn':
      return `Called back ${jars(e.body.jars)}: ${e.body.why}`;
    case 'jars.looked': {
      const seen = [
        ...(e.body.set === null ? [] : [`set ${e.body.set}`]),
        ...(e.body.found.length > 0 ? e.body.found : ['nothing wrong']),
      ];
      return `Looked at ${jars(e.body.jars)}: ${seen.join(', ')}.${e.body.text ? ` ${e.body.text}` : ''}`;
    }
    case 'ph.read':
      return `pH ${numberText(e.body.ph, habits)}${e.body.replicates.length > 1 ? ` (${e.body.replicates.map(r => numberText(r, habits)).join(', ')})` : ''} in jar ${e.body.jar}${e.body.tightest ? ', the tightest' : ''}${e.body.sample === null ? '' : `, ${e.body.sample}`} at ${temperatureText(e.body.temp_C, habits)}${e.body.hoursSinceProcessing > 0 ? `, ${Math.floor(e.body.hoursSinceProcessing)} h after processing as entered` : ''}, by ${e.body.method}${e.body.buffers.length > 0 ? `, buffers ${e.body.buffers.map(b => numberText(b, habits)).join(' and ')}` : ''}${e.body.calibration?.slope_pct == null ? '' : `, slope ${numberText(e.body.calibration.slope_pct, habits, 1)} %`}${e.body.reference ? `, ${e.body.reference}` : ''}${e.body.paper ? ', with its paper' : ''}.`;
    case 'pot.ph_read':
      return `Before filling it read pH ${numberText(e.body.ph, habits)} at ${temperatureText(e.body.temp_C, habits)}, by ${e.body.method}.`;
    case 'meter.rechecked':
      return `The buffer read ${numberText(e.body.reads_ph, habits)} again at ${temperatureText(e.body.temp_C, habits)}.`;
    case 'minutes.worked':
      return `${durationText(e.body.minutes * 60)} of work.`;
    case 'minutes.shared':
      return `${durationText(e.body.minutes * 60)} of work, on ${e.body.with.length + 1} batches at once.`;
    case 'kitchen.worked':
      return `${durationText(e.body.minutes * 60)} of opening and cleaning the kitchen.`;
    case 'energy.used':
      return `A burner was on for ${durationText(e.body.minutes * 60)}.`;
    case 'note.written':
      return e.body.text;
    case 'deviation.settled':
      return `${ACTION_WORDS[e.body.action]}${e.body.minutes === null ? '' : ` at ${e.body.minutes} min`}: ${e.body.reason}${e.body.cause ? ` Cause: ${e.body.cause}` : ''}${e.body.paper ? ' With its paper.' : ''}`;
    case 'deviation.looked':
      return `A second look at a deviation: ${e.body.agrees ? 'agrees' : 'does not agree'}.${e.body.text ? ` ${e.body.text}` : ''}`;
    case 'entry.corrected':
      return e.body.body === null
        ? `Taken back: ${e.body.reason}`
        : `Corrected to: ${words(e.body.type, e.body.body, recipe, habits)} Reason: ${e.body.reason}`;
  }
}
