import { batchStepText, type BatchState, type SequencedEvent, fold, timesInUse } from '@cocotte/core/batches';
import { needsReading } from '@cocotte/core/checks';
import type { Kitchen } from '@cocotte/core/kitchen';
import {
  Fraction,
  altitudeText,
  depthText,
  kitchenWeight,
  massText,
  numberText,
  temperatureText,
} from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { type JarsWanted, amountsPerPot, scaleRecipe, targetAt, targetWords } from '@cocotte/core/recipes';
import { waterCover_mm } from '@cocotte/core/times';
import { Flow, newPaper } from '../house/paper.ts';

/** The sheet to cook from without a screen: targets printed, lines to write on. Typed in afterwards as such. */
export async function drawBlank({
  texts,
  kitchen,
}: {
  texts: string[];
  kitchen: Kitchen;
}): Promise<Uint8Array> {
  const events = texts.map(text => JSON.parse(text) as SequencedEvent);
  const state = fold(events);
  const started = state.started as NonNullable<BatchState['started']>;
  const { recipe } = started;
  const { pdf, faces } = await newPaper(`${recipe.name}, ${started.lotCode}`);
  const flow = new Flow(
    pdf,
    faces,
    `${kitchen.name} · ${started.lotCode} · Targets as they stood when the batch was started. Write times as the clock shows them; type them in afterwards.`,
    kitchen.paper,
  );
  flow.heading(recipe.name, 20);
  flow.text(
    `Lot ${started.lotCode} · for ${started.purpose} · ${started.madeOn} · ${started.jars.map(j => jarCountText(j.count, j.size)).join(', ')} · ${altitudeText(started.kitchen.altitude_m, kitchen)}`,
    { soft: true },
  );
  if (recipe.authority.grade === 'letter' && recipe.authority.demo)
    flow.text('DEMO, do not cook from this.', { bold: true });
  flow.heading('Into it');
  const scaled = scaleRecipe(recipe, new Fraction(started.factor), started.jars as JarsWanted[]);
  const pots = started.pots.count;
  const perPot = pots > 1 ? amountsPerPot(recipe, new Fraction(started.factor), pots) : null;
  flow.row([
    { text: 'Line', x: 0, width: 190, soft: true },
    { text: 'Measure', x: 195, width: 80, soft: true },
    { text: 'Weigh', x: 280, width: 70, soft: true },
    { text: 'Lot', x: 360, width: 70, soft: true },
    { text: 'Weighed', x: 440, width: 76, soft: true },
  ]);
  for (const line of scaled.lines) {
    const each = line.eachJar.map(e => `${e.measure} in each ${e.size}`).join(', ');
    flow.row(
      [
        { text: `${line.name}${line.preparation ? `, ${line.preparation}` : ''}`, x: 0, width: 190 },
        { text: each || line.measure, x: 195, width: 80 },
        {
          text: `${massText(line.mass_g, kitchen)} (${kitchenWeight(line.mass_g)})`,
          x: 280,
          width: 76,
          bold: true,
        },
      ],
      22,
    );
    const one = perPot?.get(line.lineId);
    if (one)
      flow.text(`in each of ${pots} pots: ${one.measure}, ${massText(one.mass_g, kitchen)}`, { soft: true });
  }
  flow.heading('Steps');
  recipe.steps.forEach((step, i) => {
    const words = targetWords(targetAt(step.target, new Fraction(started.factor), pots), kitchen);
    const target =
      step.target.kind === 'gel point'
        ? ` To ${temperatureText(started.gelPoint_C, kitchen)}.`
        : words && ` ${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
    flow.row(
      [
        { text: String(i + 1), x: 0, width: 30, bold: true, box: true },
        {
          text:
            batchStepText(state, step, kitchen) + target + (step.caution ? ` Caution: ${step.caution}` : ''),
          x: 34,
          width: 366,
        },
        { text: 'at', x: 420, width: 20, soft: true },
      ],
      24,
    );
  });
  const dosed = scaled.lines.filter(l => l.eachJar.length > 0);
  if (dosed.length > 0) {
    flow.heading('In each jar');
    const jars = started.jars.reduce((n, j) => n + j.count, 0);
    const wide = 48;
    for (const line of dosed) {
      flow.text(`${line.name}: ${line.eachJar.map(e => `${e.measure} in each ${e.size}`).join(', ')}`, {
        bold: true,
      });
      for (let first = 1; first <= jars; first += 10)
        flow.row(
          Array.from({ length: Math.min(10, jars - first + 1) }, (_, i) => ({
            text: String(first + i),
            x: i * wide,
            width: wide - 16,
            box: true,
          })),
          18,
        );
    }
  }
  if (pots > 1) {
    flow.heading('Pots');
    for (let pot = 1; pot <= pots; pot++) flow.blank(`Pot ${pot}: hottest / ended at`, 170);
  }
  flow.heading('Process');
  for (const time of timesInUse(state)) {
    flow.text(
      `${jarCountText(1, time.jarSize).slice(2)}: ${numberText(time.minutes, kitchen)} minutes from the full boil, ${time.pack} pack, ${time.jars} jars, headspace ${depthText(time.headspace_mm, kitchen)}, ${depthText(waterCover_mm(time.minutes), kitchen)} of water over the lids.`,
      { bold: true },
    );
    flow.text(
      `${time.source.title}, ${time.source.edition}, ${time.source.part}${time.source.fromMemory ? ' (from memory)' : ''}; ${time.band}.`,
      { soft: true, size: 8.5 },
    );
  }
  for (const none of started.noTime) flow.text(`${none.what} ${none.why}`, { bold: true });
  for (const load of [1, 2, 3]) {
    flow.gap(4);
    flow.text(`Load ${load}`, { bold: true });
    for (const label of [
      'Jars (numbers)',
      'Full boil at',
      'Boil lost at / back at',
      'Heat off at',
      'Lifted at',
    ])
      flow.blank(label, 130);
  }
  flow.heading('Next day');
  for (const label of [
    'Pressed at / failed jars',
    ...(needsReading(recipe.foodClass) ? ['pH, jar, temperature, time', 'Meter calibrated in buffers'] : []),
    'Minutes worked',
    'By',
  ])
    flow.blank(label, 170);
  return pdf.save();
}
