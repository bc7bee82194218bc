import {
  type BatchEvent,
  type CorrectableType,
  type Correction,
  correctedInstant_ms,
} from '@cocotte/core/batches';
import { type Rule, bodyRules, check } from '@cocotte/contract';
import {
  type Fault,
  celsius,
  fahrenheit,
  instantOf,
  localTextOf,
  numberText,
  rangesText,
  readNumber,
  readRanges,
  type Names,
  byName,
} from '@cocotte/core/measure';
import { eventWords } from '@cocotte/core/records';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  TextField,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../batches/api.ts';
import { kitchenNow } from '../shell/clock.ts';
import { faultText } from '../shell/entry.ts';
import { useHere } from '../shell/session.tsx';

const NAMES = byName<string>({
  mass_g: 'Grams',
  temp_C: 'Temperature',
  ph: 'pH',
  jar: 'Jar',
  jars: 'Jar numbers',
  sealed: 'Sealed jars',
  failed: 'Failed jars',
  minutes: 'Minutes',
  text: 'Note',
  reason: 'Reason given',
  hoursSinceProcessing: 'Hours since processing',
  number: 'Load number',
});

/** Corrects an entry: the first stays in the record, the correction stands beside it with its reason. */
export function CorrectDialog({
  batch,
  event,
  onClose,
}: {
  batch: OpenBatch;
  event: BatchEvent;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const inF = kitchen.temperature === 'F';
  const body = event.body as unknown as Record<string, unknown>;
  const fields = Object.keys(body).filter(
    k =>
      k in NAMES &&
      (typeof body[k] === 'number' ||
        k === 'text' ||
        k === 'reason' ||
        (Array.isArray(body[k]) && k !== 'buffers')),
  );
  const show = (k: string): string => {
    const v = body[k];
    if (Array.isArray(v)) return rangesText(v as number[]);
    if (typeof v === 'number')
      return numberText(k === 'temp_C' && inF ? fahrenheit(v) : v, { locale: kitchen.locale }).replaceAll(
        /[\u00a0\u202f]/g,
        '',
      );
    return String(v ?? '');
  };
  const firstAt = localTextOf(correctedInstant_ms(event), kitchen.zone);
  const [texts, setTexts] = useState<Names<string>>(() => byName(fields.map(k => [k, show(k)])));
  const [at, setAt] = useState(firstAt);
  const [reason, setReason] = useState('');
  const [faults, setFaults] = useState<Names<string>>(() => byName());
  const send = async (takeBack: boolean) => {
    const found = byName<string>();
    const next = byName<unknown>(body);
    for (const k of takeBack ? [] : fields) {
      const text = texts[k] ?? '';
      if (text === show(k)) continue;
      if (Array.isArray(body[k])) {
        const numbers = readRanges(text);
        if (numbers === null) found[k] = 'Enter jar numbers such as 1-4, 7.';
        else next[k] = numbers;
      } else if (typeof body[k] === 'number') {
        const reading = readNumber(text, kitchen.locale, { name: NAMES[k] as string });
        if (reading.ok)
          next[k] = k === 'temp_C' && inF ? Math.round(celsius(reading.value) * 1000) / 1000 : reading.value;
        else found[k] = faultText(reading.fault);
      } else next[k] = text;
    }
    const at_ms = instantOf(at, kitchen.zone);
    if (Number.isNaN(at_ms)) found.at = 'This is not a time.';
    else if (at_ms > kitchenNow() + 60_000)
      found.at =
        'That time lies in the future. What is corrected has already happened. Enter the time it happened.';
    if (reason.trim().length < 3) found.reason = 'Say why. An inspector reads it beside the first entry.';
    const checked = takeBack
      ? { ok: true as const }
      : check(bodyRules[event.type as CorrectableType] as Rule<unknown>, next);
    if (!checked.ok)
      for (const f of checked.faults as Fault[])
        found[f.path.replace(/\[\d+\]$/, '') || 'reason'] ??= faultText(f);
    setFaults(found);
    if (Object.keys(found).length > 0) return;
    const correction: Correction = {
      replaces: event.id,
      type: event.type as CorrectableType,
      body: takeBack ? null : (next as unknown as Correction['body']),
      reason: reason.trim(),
      occurredAt: at === firstAt || takeBack ? null : new Date(at_ms).toISOString(),
    };
    if (await batch.enter([['entry.corrected', correction]])) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="correct-title">
      <DialogTitle id="correct-title" variant="h2">
        Correct an entry
      </DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 2 }}>
          {eventWords(event, batch.state.started?.recipe ?? null, kitchen)} The first entry stays in the
          record; the correction stands beside it.
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          {fields.map(k => (
            <TextField
              key={k}
              label={k === 'temp_C' ? `Temperature, °${kitchen.temperature}` : NAMES[k]}
              value={texts[k] ?? ''}
              onChange={e => setTexts({ ...texts, [k]: e.target.value })}
              error={faults[k] !== undefined}
              helperText={faults[k]}
            />
          ))}
          <TextField
            label="It happened at"
            type="datetime-local"
            value={at}
            onChange={e => setAt(e.target.value)}
            error={faults.at !== undefined}
            helperText={faults.at}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { step: 1 } }}
          />
          <TextField
            label="Reason"
            value={reason}
            onChange={e => setReason(e.target.value)}
            error={faults.reason !== undefined}
            helperText={faults.reason}
          />
        </Box>
      </DialogContent>
      <DialogActions sx={{ p: 2, flexWrap: 'wrap', gap: 1 }}>
        <Button variant="outlined" color="error" onClick={() => void send(true)}>
          Take it back
        </Button>
        <Button variant="contained" onClick={() => void send(false)}>
          Enter the correction
        </Button>
      </DialogActions>
    </Dialog>
  );
}
