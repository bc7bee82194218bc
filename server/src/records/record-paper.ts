import { type BatchState, type SequencedEvent, correctedInstant_ms, fold } from '@cocotte/core/batches';
import { standing } from '@cocotte/core/checks';
import type { Kitchen } from '@cocotte/core/kitchen';
import {
  type Names,
  altitudeText,
  dayText,
  instantText,
  moneyText,
  rangesText,
  under,
} from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { eventWords } from '@cocotte/core/records';
import { type CostContext, type CostSheet, batchCost } from '@cocotte/core/stores';
import { Flow, newPaper } from '../house/paper.ts';

/** What the paper of a record is drawn from. */
export interface RecordPaper {
  /** Every entry of the batch as JSON text, in the order the server gave them. */
  texts: string[];
  people: Names<string>;
  head: { seq: number; hash: string };
  kitchen: Kitchen;
  context: CostContext;
  now_ms: number;
}

/** The batch record on paper: every entry, who and when, corrections beside what they correct, and the head hash. */
export async function drawRecord({
  texts,
  people,
  head,
  kitchen,
  context,
  now_ms,
}: RecordPaper): Promise<Uint8Array> {
  const events = texts.map(text => JSON.parse(text) as SequencedEvent);
  const state = fold(events);
  const now = standing(state);
  const started = state.started as NonNullable<BatchState['started']>;
  const { pdf, faces } = await newPaper(`Batch record ${started.lotCode}`);
  const flow = new Flow(
    pdf,
    faces,
    `${kitchen.name} · ${started.lotCode} · printed ${instantText(now_ms, kitchen)} · head of the record: entry ${head.seq}, SHA-256 ${head.hash}`,
  );
  flow.heading(`Batch record: ${started.recipe.name}`, 20);
  flow.text(
    `Lot ${started.lotCode} · made ${dayText(started.madeOn, kitchen)} · for ${started.purpose} · ${kitchen.name}, ${altitudeText(started.kitchen.altitude_m, kitchen)}`,
    { soft: true },
  );
  flow.text(`Authority: ${started.route.what} ${started.route.why}`);
  for (const time of started.times)
    flow.text(
      `Process for ${jarCountText(1, time.jarSize).slice(2)}: ${time.minutes} min, row ${time.rowId}, ${time.band}. ${time.source.title}, ${time.source.edition}, ${time.source.part}${time.source.fromMemory ? ' (from memory)' : ''}.`,
    );
  flow.heading('Release');
  for (const c of now.gate.conditions) {
    flow.row([
      { text: c.met ? 'met' : 'OPEN', x: 0, width: 40, bold: !c.met },
      { text: c.title, x: 46, width: 170 },
      { text: c.evidence, x: 222, width: 294 },
    ]);
  }
  flow.text(now.released.length > 0 ? `Released: jars ${rangesText(now.released)}.` : 'No jar is released.', {
    bold: true,
  });
  const cost = batchCost(state, context) as CostSheet;
  if (cost.total !== '0.00') {
    flow.heading('Cost');
    for (const part of cost.parts)
      flow.row([
        { text: part.part, x: 0, width: 200 },
        {
          text: moneyText(part.amount, { ...kitchen, currency: cost.currency }),
          x: 216,
          width: 80,
          right: true,
        },
      ]);
    flow.row([
      { text: 'Total', x: 0, width: 200, bold: true },
      {
        text: moneyText(cost.total, { ...kitchen, currency: cost.currency }),
        x: 216,
        width: 80,
        bold: true,
        right: true,
      },
    ]);
  }
  flow.heading('Every entry');
  const corrected = new Map(Object.entries(state.corrections));
  const byId = new Map(events.map(e => [e.id, e]));
  const inOrder = [...events].sort(
    (a, b) => correctedInstant_ms(a) - correctedInstant_ms(b) || a.seq - b.seq,
  );
  for (const event of inOrder) {
    if (event.type === 'entry.corrected' && byId.has(event.body.replaces)) continue;
    const who = under(people, event.personId) ?? 'somebody who left';
    const when = instantText(correctedInstant_ms(event), kitchen, true);
    flow.row([
      { text: String(event.seq), x: 0, width: 30, soft: true },
      { text: when, x: 32, width: 98 },
      { text: who + (event.typedInAfterwards ? ' (typed in afterwards)' : ''), x: 134, width: 86 },
      { text: eventWords(event, started.recipe, kitchen), x: 224, width: 292 },
    ]);
    const by = corrected.get(event.id);
    const correction = by ? byId.get(by) : undefined;
    if (correction) {
      flow.row([
        { text: String(correction.seq), x: 0, width: 30, soft: true },
        { text: instantText(correctedInstant_ms(correction), kitchen, true), x: 32, width: 98 },
        { text: under(people, correction.personId) ?? '', x: 134, width: 86 },
        {
          text: `Correction of entry ${event.seq}. ${eventWords(correction, started.recipe, kitchen)}`,
          x: 240,
          width: 276,
          bold: true,
        },
      ]);
    }
  }
  return pdf.save();
}
