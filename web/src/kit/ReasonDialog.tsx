import { unreadable } from '@cocotte/core/measure';
import { Text } from './fields.tsx';
import { useTyped } from './form.ts';
import { FormDialog } from './FormDialog.tsx';

const LEAST = 3;

/** Asks for the reason of something that stays in the record. */
export function ReasonDialog({
  title,
  action,
  onReason,
  onClose,
}: {
  title: string;
  action: string;
  onReason: (reason: string) => Promise<void> | void;
  onClose: () => void;
}) {
  const form = useTyped({ reason: '' }, () => ({
    reason: (t: string) =>
      t.trim().length < LEAST
        ? unreadable('missing', 'The reason is too short.', 'It stands in the record.', 'Say why.')
        : { ok: true as const, value: t.trim() },
  }));
  return (
    <FormDialog
      title={title}
      action={action}
      form={form}
      width="xs"
      onClose={onClose}
      onSubmit={form.submit(v => onReason(v.reason))}
    >
      <Text at={form.at('reason')} label="Reason" autoFocus sx={{ mt: 1 }} />
    </FormDialog>
  );
}
