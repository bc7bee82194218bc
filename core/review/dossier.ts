import { jarCountText, jarSize } from '../jars/index.ts';
import { altitudeText, Fraction, type Habits, numberText, temperatureText } from '../measure/index.ts';
import { knownMasses_g, type Recipe, reducedText, type StepTarget, stepText } from '../recipes/index.ts';
import { acidBalance } from './acid-balance.ts';
import { classOf } from './rules.ts';

/** Who asks, and where. */
export interface Asker extends Habits {
  makerName: string;
  makerAddress: string;
  altitude_m: number;
}

/** A reading of a trial batch that goes along. */
export interface TrialReading {
  day: string;
  ph: number;
  method: string;
}

/**
 * What a process authority will ask for, as plain text that is ready to send: the formula by weight and percent, how
 * it is made, how it is packed, what was measured, and what is still missing. Common practice of process review.
 */
export function dossier(recipe: Recipe, asker: Asker, readings: readonly TrialReading[]): string {
  const masses = knownMasses_g(recipe);
  const total = [...masses.values()].reduce((sum, m) => sum + m, 0);
  const n = (value: number, places: number) => numberText(value, asker, places);
  const balance = acidBalance(recipe);
  const missing = missingFrom(recipe, readings);
  const lines = recipe.lines.map(l => {
    const mass = masses.get(l.id) ?? 0;
    const facts = [
      l.preparation,
      l.where === 'pot' ? '' : l.where,
      l.minStrength_pct === null ? '' : `${n(l.minStrength_pct, 1)} % acid`,
      l.subIngredients === '' ? '' : `of ${l.subIngredients}`,
      l.keptShare === 1 ? '' : `${n(l.keptShare * 100, 0)} % of it stays in the food`,
    ].filter(Boolean);
    return `- ${l.name}: ${n(mass, 1)} g (${n(total === 0 ? 0 : (mass / total) * 100, 2)} %), written as ${l.amount.text}${facts.length > 0 ? `; ${facts.join('; ')}` : ''}`;
  });
  const steps = recipe.steps.map(
    (s, i) =>
      `${i + 1}. ${stepText(recipe, s, { factor: new Fraction(1), minutes: '', headspace: '' })}${targetText(s.target, asker) ? ` [${targetText(s.target, asker)}]` : ''}`,
  );
  return [
    `Request for a scheduled process: ${recipe.name}`,
    '',
    `From: ${asker.makerName}, ${asker.makerAddress}`,
    `Kitchen altitude: ${altitudeText(asker.altitude_m, asker)}`,
    `Statement of identity: ${recipe.statementOfIdentity}`,
    `Kind of product: ${recipe.product}; class by our review: ${classOf(recipe)}`,
    '',
    'Formula, as prepared, for one batch',
    ...lines,
    `Total ${n(total, 0)} g; makes ${jarCountText(recipe.makes.count, recipe.makes.size)} as written.`,
    `Low-acid produce: ${n(balance.lowAcidShare * 100, 1)} % of all fruit and produce (dried counted as fresh).`,
    balance.barrierPer100_g === null
      ? 'No added acid is needed as a barrier by our review.'
      : `Barrier acid: ${n(balance.barrierPer100_g, 2)} g as acetic acid for 100 g of low-acid produce, in what reaches the jars.`,
    '',
    'How it is made',
    `Peel: ${recipe.method.peel}. Cut: ${recipe.method.cut}. ${recipe.method.strain === 'strained' ? 'Strained' : 'Not strained'}. Packing liquid: ${recipe.method.liquid}. Pack: ${recipe.method.pack}. Set by: ${recipe.setBy}.`,
    ...steps,
    '',
    'Containers',
    ...recipe.jars.map(j => `- ${jarSize(j.size).name} glass jar with a two-piece metal lid, new flat lid`),
    '',
    'Readings of trial batches',
    ...(readings.length === 0
      ? ['- none yet']
      : readings.map(r => `- ${r.day}: pH ${n(r.ph, 2)}, ${r.method}`)),
    '',
    'Still missing',
    ...(missing.length === 0 ? ['- nothing that we know of'] : missing.map(m => `- ${m}`)),
    '',
    'Please tell us: whether it is an acid or an acidified food; the highest equilibrium pH; the heat step with its time by jar size for our altitude, or a hot fill with temperature, hold and closure; headspace; the limits of the formula; and your reference and date.',
    '',
  ].join('\n');
}

function missingFrom(recipe: Recipe, readings: readonly TrialReading[]): string[] {
  return [
    readings.length === 0
      ? 'an equilibrium pH of at least one trial batch, by a calibrated meter or a laboratory'
      : '',
    recipe.steps.some(s => s.kind === 'fill')
      ? ''
      : 'how the jars are filled, with the temperature of the food',
    recipe.steps.some(s => s.kind === 'cook' && s.target.kind !== 'none')
      ? ''
      : 'the end of cooking as a temperature, time or volume',
    recipe.lines.some(l => l.amount.toTaste) ? 'a fixed amount for what is added to taste' : '',
    recipe.statementOfIdentity === '' ? 'the statement of identity' : '',
  ].filter(Boolean);
}

function targetText(target: StepTarget, habits: Habits): string {
  switch (target.kind) {
    case 'none':
      return '';
    case 'gel point':
      return 'to the gel point, 8 °F above boiling water here';
    case 'temperature':
      return `to ${temperatureText(target.temp_C, habits)}${target.hold_min > 0 ? `, held ${numberText(target.hold_min, habits)} min` : ''}`;
    case 'time':
      return `${numberText(target.minutes, habits)} min`;
    case 'volume':
      return `down to ${numberText(target.volume_mL / 1000, habits, 2)} L`;
    case 'depth':
      return `down to ${numberText(target.depth_mm, habits, 0)} mm in the pot`;
    case 'reduced':
      return `reduced by ${reducedText(target.by, habits)}`;
    case 'look':
      return target.text;
  }
}
