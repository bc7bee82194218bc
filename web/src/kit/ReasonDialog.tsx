import { Text } from './fields.tsx';
import { useTyped } from './form.ts';
import { FormDialog } from './FormDialog.tsx';
import { misread } from '../words/views.ts';

const LEAST = 3;

/** Asks for the reason of something that stays in the record. */
export function ReasonDialog({
  title,
  action,
  suggested = '',
  onReason,
  onClose,
}: {
  title: string;
  action: string;
  /** A reason that is likely; it can be typed over. */
  suggested?: string;
  onReason: (reason: string) => Promise<void> | void;
  onClose: () => void;
}) {
  const form = useTyped({ reason: suggested }, () => ({
    reason: (t: string) =>
      t.trim().length < LEAST ? misread('short-reason') : { ok: true as const, value: t.trim() },
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
