import { rangesText, readRanges } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Cells } from '../kit/layout.tsx';
import { misread } from '../words/views.ts';

/** Jar numbers of a text such as `3, 5-6` that are among these; none where nothing is typed. */
export const jarsAmong = (among: readonly number[]) => (text: string) => {
  const jars = readRanges(text);
  return jars !== null && jars.every(n => among.includes(n))
    ? { ok: true as const, value: jars }
    : misread('not-such-jars', { among: rangesText(among) });
};

/** "All but these": the numbers left out, typed; empty for none. */
export function AllBut({
  label,
  among,
  action,
  onTake,
}: {
  label: string;
  among: number[];
  action: (n: number) => string;
  onTake: (taken: number[], left: number[]) => Promise<boolean>;
}) {
  const form = useTyped({ jars: '' }, () => ({
    jars: (text: string) => {
      const left = jarsAmong(among)(text);
      return left.ok && left.value.length >= among.length ? misread('none-left') : left;
    },
  }));
  const out = readRanges(form.typed('jars')) ?? [];
  const take = form.submit(async ({ jars: left }) => {
    const taken = among.filter(n => !left.includes(n));
    if (await onTake(taken, left)) form.again();
  });
  return (
    <form noValidate onSubmit={take}>
      <Cells wide="1.3fr 1fr" gap={1.5} mt={1.5}>
        <Button type="submit" variant="contained" disabled={form.busy} sx={{ minHeight: 60 }}>
          {action(among.filter(n => !out.includes(n)).length)}
        </Button>
        <Text at={form.at('jars')} label={label} placeholder="none" />
      </Cells>
    </form>
  );
}
