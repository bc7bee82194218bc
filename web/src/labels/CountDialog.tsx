import type { LabelCount } from '@cocotte/core/labels';
import { Typography } from '@mui/material';
import type { OpenBatch } from '../batches/open-batch.ts';
import { Figure } from '../kit/fields.tsx';
import { useReadForm } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { orElse, readShape, useRead } from '../kit/readers.ts';
import { misread, say } from '../words/views.ts';

const FIELDS = ['used', 'spoiled', 'destroyed'] as const;

/** What became of the labels of a print: no more of them than were printed. */
export function CountDialog({
  batch,
  count,
  onClose,
}: {
  batch: OpenBatch;
  count: LabelCount;
  onClose: () => void;
}) {
  const read = useRead();
  const figure = (name: string) => orElse(0, read.figure({ name, min: 0, max: 10_000, whole: true }));
  const form = useReadForm<Record<(typeof FIELDS)[number], string>, Record<(typeof FIELDS)[number], number>>(
    {
      used: String(count.used),
      spoiled: String(count.spoiled),
      destroyed: String(count.destroyed),
    },
    typed => {
      const found = readShape(
        {
          used: figure(say('label.count.used')),
          spoiled: figure(say('label.count.spoiled')),
          destroyed: figure(say('label.count.destroyed')),
        },
        typed,
      );
      if (!found.ok) return found;
      const { used, spoiled, destroyed } = found.value;
      const sum = used + spoiled + destroyed;
      if (sum <= count.printed) return found;
      const { fault } = misread('labels-over', { sum, printed: count.printed });
      return { ok: false, faults: [{ ...fault, path: 'used' }] };
    },
  );
  const save = form.submit(async v => {
    await batch.enter([['labels.counted', { printId: count.printId, ...v }]]);
    onClose();
  });
  return (
    <FormDialog
      title={say('label.count.title')}
      action={say('label.count.save')}
      form={form}
      onClose={onClose}
      onSubmit={save}
    >
      <Typography sx={{ mb: 1.5, color: 'text.secondary' }}>
        {say('label.count.how', { printed: count.printed })}
      </Typography>
      <Cells wide="1fr 1fr 1fr" gap={1.5}>
        {FIELDS.map(name => (
          <Figure key={name} at={form.at(name)} label={say(`label.count.${name}`)} />
        ))}
      </Cells>
    </FormDialog>
  );
}
