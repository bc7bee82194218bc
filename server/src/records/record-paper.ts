import { type BatchState, type Receipt, type SequencedEvent, timesInUse } from '@cocotte/core/batches';
import { assess } from '@cocotte/core/checks';
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
import { KNOWN_WORDS, eventWords, isRemark, recordOf } from '@cocotte/core/records';
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
  /** The cost sheet that was stored at its release; null while it may still change. */
  kept: CostSheet | null;
  now_ms: number;
  /** Pictures that the record names, as small as they are printed. */
  pictures: { paperId: string; jpeg: Uint8Array }[];
}

/** The batch record on paper: every entry, who and when, corrections beside what they correct, and the head hash. */
export async function drawRecord({
  texts,
  people,
  head,
  kitchen,
  context,
  kept,
  now_ms,
  pictures,
}: RecordPaper): Promise<Uint8Array> {
  const events = texts.map(text => JSON.parse(text) as SequencedEvent);
  const { state, standing: now } = assess(events);
  const started = state.started as NonNullable<BatchState['started']>;
  const { pdf, faces } = await newPaper(`Batch record ${started.lotCode}`);
  const flow = new Flow(
    pdf,
    faces,
    `${kitchen.name} · ${started.lotCode} · printed ${instantText(now_ms, kitchen)} · head of the record: entry ${head.seq}, SHA-256 ${head.hash}`,
    kitchen.paper,
  );
  flow.heading(`Batch record: ${started.recipe.name}`, 20);
  flow.text(
    `Lot ${started.lotCode} · made ${dayText(started.madeOn, kitchen)} · for ${started.purpose} · ${kitchen.name}, ${altitudeText(started.kitchen.altitude_m, kitchen)}`,
    { soft: true },
  );
  flow.text(`Authority: ${started.route.what} ${started.route.why}`);
  for (const time of timesInUse(state))
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
  const cost = kept ?? (batchCost(state, context) as CostSheet);
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
  flow.text(
    'Entered at the time: it arrived as it happened. Sent later: kept on its device, by a clock that went evenly. Written up: a person gave the time, or nothing speaks for the clock.',
    { soft: true },
  );
  for (const { event, at_ms, trace, corrections } of recordOf(events)) {
    const { seq } = event.receipt as Receipt;
    flow.row([
      { text: String(seq), x: 0, width: 30, soft: true },
      { text: instantText(at_ms, kitchen, true), x: 32, width: 98 },
      {
        text: `${under(people, event.personId) ?? 'somebody who left'}, ${KNOWN_WORDS[trace.known]}`,
        x: 134,
        width: 86,
      },
      {
        text: `${eventWords(event, started.recipe, kitchen)}${isRemark(state, event) ? ' A remark: it settled nothing.' : ''}`,
        x: 224,
        width: 292,
      },
    ]);
    for (const by of corrections) {
      const told = state.amendments[event.id]?.corrections.find(c => c.correctionId === by.event.id);
      flow.row([
        { text: String(by.event.receipt?.seq ?? ''), x: 0, width: 30, soft: true },
        { text: instantText(by.at_ms, kitchen, true), x: 32, width: 98 },
        {
          text: `${under(people, by.event.personId) ?? 'somebody who left'}, ${KNOWN_WORDS[by.trace.known]}`,
          x: 134,
          width: 86,
        },
        {
          text: `Correction of entry ${seq}. ${eventWords(by.event, started.recipe, kitchen)}${told?.counts === false ? ' It does not count: nobody who may sign has signed it.' : ''}`,
          x: 240,
          width: 276,
          bold: true,
        },
      ]);
    }
  }
  const shown = pictures.flatMap(p => {
    const entry = state.pictures.find(k => k.paperId === p.paperId);
    return entry ? [{ ...p, entry }] : [];
  });
  if (shown.length > 0) flow.heading('Pictures');
  for (const { jpeg, entry } of shown)
    await flow.picture(
      jpeg,
      `${instantText(entry.by.at_ms, kitchen)}${entry.text ? `: ${entry.text}` : ''}. SHA-256 ${entry.sha256}`,
    );
  return pdf.save();
}
