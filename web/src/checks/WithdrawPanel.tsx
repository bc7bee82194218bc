import { withdrawJars } from '@cocotte/contract';
import { rangesText, readRanges } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { List } from '../kit/List.tsx';
import { Caution, Sheet, Soft } from '../kit/parts.tsx';
import { words } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { useMaySign } from '../shell/session.tsx';
import { misread, say } from '../words/views.ts';

/** What was released and is found bad is called back: at once the list of its jars, and where each of them is. */
export function WithdrawPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const [open, setOpen] = useState(false);
  const maySign = useMaySign();
  const { state, standing } = batch;
  const ever = new Set(state.releases.flatMap(r => r.jars));
  const back = state.jars.filter(j => j.withdrawn);
  const out = state.jars.filter(j => ever.has(j.number) && !j.withdrawn).map(j => j.number);
  if (ever.size === 0) return null;
  const lot = state.started?.lotCode ?? '';
  /** Where each jar is, as far as this book knows. */
  const places = new Map<string, number[]>();
  for (const jar of back) {
    const at = jar.setAside ? say('withdraw.gone', { why: jar.setAside.why }) : say('withdraw.here');
    places.set(at, [...(places.get(at) ?? []), jar.number]);
  }
  return (
    <Sheet title={say('withdraw.title')} aside={back.length > 0 && say('withdraw.aside', { n: back.length })}>
      {back.length > 0 ? (
        <>
          <Caution>{say('withdraw.what', { why: back[0]?.withdrawn?.why ?? '' })}</Caution>
          <List
            label={say('withdraw.list')}
            rows={[...places]}
            keyOf={([place]) => place}
            columns={[
              { head: say('deviations.lot'), cell: () => lot, whole: true },
              { head: say('withdraw.where'), row: true, cell: ([place]) => place },
              { head: say('withdraw.jars'), cell: ([, jars]) => rangesText(jars) },
              { head: say('withdraw.count'), figure: true, cell: ([, jars]) => jars.length },
            ]}
          />
        </>
      ) : (
        <Soft>{say('withdraw.why')}</Soft>
      )}
      {out.length > 0 && standing.released.length + back.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          {maySign ? (
            <Button variant="outlined" color="error" onClick={() => setOpen(true)}>
              {say('withdraw.open')}
            </Button>
          ) : (
            <Soft>{say('withdraw.noRight')}</Soft>
          )}
        </Box>
      )}
      {open && <WithdrawDialog batch={batch} when={when} jars={out} onClose={() => setOpen(false)} />}
    </Sheet>
  );
}

function WithdrawDialog({
  batch,
  when,
  jars,
  onClose,
}: {
  batch: OpenBatch;
  when: When;
  jars: readonly number[];
  onClose: () => void;
}) {
  const form = useTyped({ jars: rangesText([...jars]), why: '' }, () => ({
    jars: (text: string) => {
      const read = readRanges(text);
      return read && read.length > 0 ? { ok: true as const, value: read } : misread('not-numbers');
    },
    why: words(say('withdraw.reason')),
  }));
  const withdraw = form.submit(async ({ jars: chosen, why }) => {
    const faults = await batch.decide(
      'jars.withdrawn',
      stamp => call(withdrawJars, { params: { batchId: batch.id }, body: { jars: chosen, why, stamp } }),
      when,
    );
    if (faults.length > 0) return faults;
    return onClose();
  });
  return (
    <FormDialog
      title={say('withdraw.dialog')}
      action={say('withdraw.do')}
      form={form}
      onClose={onClose}
      onSubmit={withdraw}
    >
      <Soft>{say('withdraw.holds')}</Soft>
      <Text at={form.at('jars')} label={say('withdraw.which')} fullWidth sx={{ mt: 2 }} />
      <Text at={form.at('why')} label={say('withdraw.reason')} fullWidth multiline sx={{ mt: 2 }} />
    </FormDialog>
  );
}
