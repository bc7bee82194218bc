import { Fraction } from '../measure/index.ts';
import type { Line, Step } from '../recipes/index.ts';
import { type CookFault, cookEnd } from './cooking.ts';
import { STAYS_IN_POT } from './data/yields.ts';
import { fillJars } from './filling.ts';
import type { Balance, CookBalance, Flow, VesselId } from './made.ts';
import {
  type Contents,
  type Parts,
  type Shares,
  evenly,
  massIn,
  massOf,
  partsOf,
  pour,
  take,
  together,
} from './parts.ts';
import { AT_MIDDLE, type Chosen, type Process, type ProcessLine } from './process.ts';
import { drained } from './soaking.ts';
import { throughCloth } from './straining.ts';
import { volume_mL } from './volume.ts';

/**
 * The material balance of a process: each line goes into its vessel, steps move, drain, strain, boil off and blend back,
 * jars and outlets receive. In equals out at every flow, since nothing is made or lost but by a flow of its own.
 *
 * @param chosen  values of what is uncertain; those that are not named stand at their middle
 * @example
 * const kitchen = { altitude_m: 0, thermometerError_C: 0, pot: null, pots: 1, headspace_mm: 6.35 };
 * const made = balance(plan(plumJam, new Fraction(1), [{ size: 'half-pint', count: 8 }], kitchen));
 * massIn(made.vessels.get('steam') ?? new Map()) > 900; // true
 */
export function balance(process: Process, chosen: Chosen = AT_MIDDLE): Balance {
  const run = new Run(process, chosen);
  for (const step of process.recipe.steps) run.step(step);
  return run.fill();
}

/** Whether a line is a piece of food, that a soak drains and a jar packs. */
const isPiece = (line: Line) => line.role === 'fruit' || line.role === 'low-acid produce';

class Run {
  readonly flows: Flow[] = [];
  readonly vessels = new Map<VesselId, Contents>();
  readonly cooks: CookBalance[] = [];
  readonly faults: CookFault[] = [];
  private readonly lines: Map<string, ProcessLine>;
  private readonly middle: Map<string, number>;
  private readonly strained = new Set<string>();
  private readonly soaked = new Set<string>();
  /** The vessel that all goes into that has no other. */
  private main: 'board' | 'soak' | 'pot' = 'board';
  /** The last cook step of the whole whose end nothing foretells. */
  private byEye: { step: Step; at: number } | null = null;
  private readonly process: Process;
  private readonly chosen: Chosen;

  constructor(process: Process, chosen: Chosen) {
    this.process = process;
    this.chosen = chosen;
    this.lines = new Map(process.lines.map(l => [l.line.id, l]));
    this.middle = new Map(process.uncertain.map(u => [u.id, u.mid]));
    const named = new Set(process.recipe.steps.flatMap(s => s.adds.map(a => a.lineId)));
    for (const { line } of process.lines) if (!named.has(line.id)) this.add(null, line.id, 1, this.main);
  }

  /** What an uncertain figure is reckoned with; `otherwise` where nothing is uncertain about it. */
  private value(id: string, otherwise: number): number {
    return this.chosen[id] ?? this.middle.get(id) ?? otherwise;
  }

  private at(id: VesselId): Contents {
    const there = this.vessels.get(id);
    if (there) return there;
    const empty: Contents = new Map();
    this.vessels.set(id, empty);
    return empty;
  }

  /** Moves shares of what is in a vessel to another. */
  private move(
    stepId: string | null,
    from: VesselId,
    to: VesselId,
    shares: Shares | ((line: Line, parts: Parts) => Shares | null),
  ): void {
    const source = this.at(from);
    const contents: Contents = new Map();
    for (const [lineId, parts] of source) {
      const wanted =
        typeof shares === 'function' ? shares((this.lines.get(lineId) as ProcessLine).line, parts) : shares;
      if (!wanted) continue;
      const taken = take(parts, wanted);
      if (massOf(taken) === 0) continue;
      contents.set(lineId, taken);
      pour(this.at(to), lineId, taken);
    }
    if (contents.size > 0) this.flows.push({ stepId, from, to, contents });
  }

  private all(stepId: string | null, from: VesselId, to: VesselId): void {
    if (from === to) return;
    const source = this.at(from);
    this.vessels.delete(from);
    const contents: Contents = new Map();
    for (const [lineId, parts] of source) if (massOf(parts) > 0) contents.set(lineId, parts);
    if (contents.size === 0) return;
    this.flows.push({ stepId, from, to, contents });
    const target = this.at(to);
    for (const [lineId, parts] of contents) pour(target, lineId, parts);
  }

  private add(stepId: string | null, lineId: string, share: number, into: VesselId): void {
    const of = this.lines.get(lineId);
    if (!of || of.line.where === 'each jar') return;
    const { line } = of;
    const trim = this.value(`trim:${lineId}`, line.trimYield);
    // A weight as bought is trimmed to more or less; a prepared one took more or less to buy.
    const prepared_g =
      of.prepared_g *
      share *
      (line.basis === 'as bought' && of.known !== 'weighed' ? trim / line.trimYield : 1);
    const enter = (to: VesselId, mass_g: number) => {
      if (!(mass_g > 0)) return;
      const parts = partsOf(line, mass_g);
      pour(this.at(to), lineId, parts);
      this.flows.push({ stepId, from: `line:${lineId}`, to, contents: new Map([[lineId, parts]]) });
    };
    enter(line.where === 'dip' ? 'drain' : line.where === 'brine' ? 'brine' : into, prepared_g);
    if (trim < 1) enter('trimmings', prepared_g / trim - prepared_g);
  }

  step(step: Step): void {
    const part: VesselId | null =
      step.part !== '' && this.vessels.has(`part:${step.part}`) ? `part:${step.part}` : null;
    for (const { lineId, share } of step.adds)
      this.add(step.id, lineId, share === '1' ? 1 : new Fraction(share).valueOf(), part ?? this.main);
    if (step.separates) {
      const { share } = step.separates;
      this.move(step.id, this.main, `part:${step.separates.part}`, evenly(share));
    }
    if (step.kind === 'blend back' && part) this.all(step.id, part, this.main);
    if (step.kind === 'soak') this.soak(step);
    if (step.kind === 'strain') this.strain(step, part ?? this.main);
    if (step.kind === 'cook' || step.kind === 'acidify') this.cook(step, part);
    if (step.kind === 'measure') this.measure(step, part ?? this.main);
  }

  /** What is measured after a step before anything else happens to the vessel. */
  private measuredAfter(step: Step): { quantity: number; unit: 'g' | 'mL' } | null {
    const { steps } = this.process.recipe;
    for (const next of steps.slice(steps.indexOf(step) + 1)) {
      if (next.part !== step.part) continue;
      if (next.kind === 'measure') return this.process.measures[next.id] ?? null;
      if (next.kind !== 'rest' || next.adds.length > 0) return null;
    }
    return null;
  }

  private soak(step: Step): void {
    this.become(step.id, 'soak');
    const contents = this.at(this.main);
    const liquid = [...contents.keys()].filter(
      id => this.lines.get(id)?.line.where === 'soak' && !this.soaked.has(id),
    );
    if (
      liquid.length === 0 ||
      ![...contents.keys()].some(id => isPiece((this.lines.get(id) as ProcessLine).line))
    )
      return;
    const measured = this.measuredAfter(step);
    const keep = drained(
      contents,
      id => (this.lines.get(id) as ProcessLine).line,
      measured?.unit === 'g' ? measured.quantity : null,
      (id, otherwise) => this.value(id, otherwise),
    );
    for (const id of liquid) this.soaked.add(id);
    this.move(step.id, this.main, 'drain', line => keep(line));
  }

  private strain(step: Step, vessel: VesselId): void {
    this.lift(step.id, vessel);
    const contents = this.at(vessel);
    const ids = [...contents.keys()].filter(
      id => this.lines.get(id)?.line.where === 'strained' && !this.strained.has(id),
    );
    if (ids.length === 0) return;
    for (const id of ids) this.strained.add(id);
    const shares = throughCloth(
      contents,
      new Map(
        ids.map(id => [id, this.value(`kept:${id}`, (this.lines.get(id) as ProcessLine).line.keptShare)]),
      ),
      this.measuredAfter(step),
      this.process.recipe.product === 'jelly' || this.process.recipe.product === 'juice',
    );
    this.move(step.id, vessel, 'cloth', line => shares.get(line.id) ?? null);
  }

  /** Lifts out what was only to give its taste. */
  private lift(stepId: string | null, vessel: VesselId): void {
    this.move(stepId, vessel, 'lifted', line =>
      line.where === 'infused' && !this.strained.has(line.id) ? evenly(1 - line.keptShare) : null,
    );
    for (const id of this.at(vessel).keys())
      if (this.lines.get(id)?.line.where === 'infused') this.strained.add(id);
  }

  private become(stepId: string | null, next: 'soak' | 'pot'): void {
    if (this.main === next) return;
    const from = this.main;
    this.main = next;
    if (this.vessels.has(from)) this.all(stepId, from, next);
  }

  private cook(step: Step, part: VesselId | null): void {
    const added = step.adds.map(a => this.lines.get(a.lineId)?.line.where);
    const ofBrine =
      part === null &&
      this.vessels.has('brine') &&
      ((added.length > 0 && added.every(w => w === 'brine')) || !this.vessels.has(this.main));
    if (step.kind === 'acidify' && step.target.kind === 'none') return;
    if (part === null && !ofBrine) this.become(step.id, 'pot');
    const vessel = part ?? (ofBrine ? 'brine' : this.main);
    const start = together(this.at(vessel));
    const end = cookEnd(step, start, this.process, this.measuredAfter(step), (id, otherwise) =>
      this.value(id, otherwise),
    );
    if (end.fault) this.faults.push({ stepId: step.id, ...end.fault });
    if (end.water_g !== null) this.steam(step.id, vessel, start.water_g - end.water_g);
    if (part === null && !ofBrine)
      this.byEye = end.judged && !end.fault ? { step, at: this.cooks.length } : null;
    this.cooks.push({ stepId: step.id, part: step.part, start, end: together(this.at(vessel)), ...end });
  }

  private steam(stepId: string, vessel: VesselId, water_g: number): void {
    const { water_g: there } = together(this.at(vessel));
    if (!(water_g > 0) || there === 0) return;
    const share = Math.min(1, water_g / there);
    this.move(stepId, vessel, 'steam', { water_g: share });
  }

  /** What was measured is there: less than was reckoned stayed somewhere, and is told as that. */
  private measure(step: Step, vessel: VesselId): void {
    const measured = this.process.measures[step.id];
    if (!measured || measured.known === 'planned') return;
    const there = together(this.at(vessel));
    const found = measured.unit === 'g' ? massOf(there) : volume_mL(there);
    if (found > measured.quantity)
      this.move(step.id, vessel, 'unaccounted', evenly(1 - measured.quantity / found));
  }

  fill(): Balance {
    const { recipe } = this.process;
    const stepId = recipe.steps.findLast(s => s.kind === 'fill')?.id ?? null;
    for (const vessel of [this.main, 'brine'] as const)
      if (this.vessels.has(vessel)) this.lift(stepId, vessel);
    // A soak that no step drains keeps what its recipe says.
    this.move(stepId, this.main, 'drain', line =>
      line.where === 'soak' && !this.soaked.has(line.id) ? evenly(1 - line.keptShare) : null,
    );
    this.move(stepId, this.main, 'cloth', line =>
      line.where === 'strained' && !this.strained.has(line.id) ? evenly(1 - line.keptShare) : null,
    );
    // What nobody blended back is still there at the end.
    const parts = [...this.vessels.keys()].filter(id => id.startsWith('part:'));
    for (const id of parts) this.all(stepId, id, this.main);
    if (recipe.packing === null && this.vessels.has('brine')) this.all(stepId, 'brine', this.main);
    const doses = this.process.lines.filter(l => l.line.where === 'each jar');
    const filling = {
      process: this.process,
      doses,
      value: (id: string, other: number) => this.value(id, other),
    };
    this.boilToJars(filling);
    const ready = together(this.at(this.main));
    const brine = together(this.at('brine'));
    if (this.main === 'pot') {
      const sticks = this.value('stays', STAYS_IN_POT.share);
      this.move(stepId, this.main, 'wall', evenly(sticks));
    }
    for (const { id, mass_g } of this.process.taken) {
      const left = massIn(this.at(this.main));
      if (left > 0) this.move(stepId, this.main, `outlet:${id}`, evenly(Math.min(1, mass_g / left)));
    }
    for (const outlet of recipe.outlets) {
      const left = massIn(this.at(this.main));
      const wanted = massOf(ready) * outlet.share;
      if (left > 0) this.move(stepId, this.main, `outlet:${outlet.id}`, evenly(Math.min(1, wanted / left)));
    }
    const { jars, taken, brineTaken, summary } = fillJars(this.at(this.main), this.at('brine'), filling);
    this.move(stepId, this.main, 'jars', evenly(taken));
    this.all(stepId, this.main, 'left over');
    if (this.vessels.has('brine')) {
      this.move(stepId, 'brine', 'jars', evenly(brineTaken));
      this.all(stepId, 'brine', 'spare brine');
    }
    for (const dose of doses) {
      const mass_g = dose.prepared_g * summary.pints;
      if (!(mass_g > 0)) continue;
      const parts = partsOf(dose.line, mass_g);
      pour(this.at('jars'), dose.line.id, parts);
      this.flows.push({
        stepId,
        from: `line:${dose.line.id}`,
        to: 'jars',
        contents: new Map([[dose.line.id, parts]]),
      });
    }
    for (const [id, contents] of this.vessels) if (massIn(contents) <= 1e-9) this.vessels.delete(id);
    return {
      flows: this.flows,
      vessels: this.vessels,
      cooks: this.cooks,
      jars,
      filling: summary,
      ready,
      brine,
      faults: this.faults,
    };
  }

  /** A pot that is cooked until it looks right ends where its jars are full: nothing else says how far it goes. */
  private boilToJars(filling: Parameters<typeof fillJars>[2]): void {
    if (!this.byEye || this.main !== 'pot' || this.process.recipe.packing) return;
    const start = together(this.at('pot'));
    const outletShare = this.process.recipe.outlets.reduce((sum, o) => sum + o.share, 0);
    const sticks = this.value('stays', STAYS_IN_POT.share);
    // Density rises as it thickens: a few rounds settle it.
    let water_g = start.water_g;
    for (let i = 0; i < 8; i++) {
      const { wanted_g } = fillJars(new Map([['', { ...start, water_g }]]), new Map(), filling);
      const taken_g = this.process.taken.reduce((sum, t) => sum + t.mass_g, 0);
      const end_g = (wanted_g * this.value('by eye', 1) + taken_g) / Math.max(0.05, 1 - outletShare - sticks);
      water_g = Math.max(start.water_g * LEAST_WATER, end_g - (massOf(start) - start.water_g));
    }
    if (water_g >= start.water_g) return;
    this.steam(this.byEye.step.id, 'pot', start.water_g - water_g);
    const cook = this.cooks[this.byEye.at] as CookBalance;
    cook.end = together(this.at('pot'));
  }
}

/** More than so much of its water is not boiled out of anything by eye. Our bound, from no source. */
const LEAST_WATER = 0.3;
