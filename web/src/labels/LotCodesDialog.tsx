import { changeLabelSettings, type LabelSettingsView } from '@cocotte/contract';
import {
  jarLotCode,
  LOT_DAYS,
  LOT_SEPARATORS,
  type LotPart,
  type LotPattern,
  lotCodes,
  lotPatternFaults,
} from '@cocotte/core/batches';
import { dayOf } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { Pick, Text, Tick } from '../kit/fields.tsx';
import { useReadForm } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { words } from '../kit/readers.ts';
import { call, CallError } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** Orders in which the parts can stand. */
const ORDERS: readonly LotPart[][] = [
  ['product', 'day', 'sequence'],
  ['product', 'sequence', 'day'],
  ['day', 'product', 'sequence'],
  ['day', 'sequence', 'product'],
  ['sequence', 'product', 'day'],
  ['sequence', 'day', 'product'],
  ['day', 'sequence'],
  ['sequence', 'day'],
];
/** A product to show codes by. */
const SAMPLE = 'RPJ';
const NONE = 'none';

/** A name that leads back to the machine that asks: on a jar it leads nowhere. */
const isLoopback = (name: string) => /^(localhost|127\.|\[?::1)/.test(name);

const textsOf = ({ lots, pagesAt }: LabelSettingsView) => ({
  parts: lots.parts.join(' '),
  day: lots.day,
  separator: lots.separator === '' ? NONE : lots.separator,
  leftOut: lots.leftOut,
  load: lots.load,
  pages: pagesAt !== '',
  pagesAt: pagesAt === '' && !isLoopback(location.hostname) ? location.origin : pagesAt,
});
type Texts = ReturnType<typeof textsOf>;

const patternOf = (typed: Texts): LotPattern => ({
  parts: typed.parts.split(' ') as LotPart[],
  day: typed.day,
  separator: typed.separator === NONE ? '' : (typed.separator as LotPattern['separator']),
  leftOut: typed.leftOut.toUpperCase().replaceAll(/[\s,;]/g, ''),
  load: typed.load,
});

/** How codes of batches that are started from now on are put together, and whether lots have pages that anybody can read. */
export function LotCodesDialog({ settings, onClose }: { settings: LabelSettingsView; onClose: () => void }) {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  const client = useQueryClient();
  const form = useReadForm<Texts, { lots: LotPattern; pagesAt: string }>(textsOf(settings), typed => {
    const lots = patternOf(typed);
    const faults = lotPatternFaults(lots);
    if (faults.length > 0) return { ok: false, faults };
    if (!typed.pages) return { ok: true, value: { lots, pagesAt: '' } };
    const at = words(say('lots.pagesAt'))(typed.pagesAt);
    return at.ok
      ? { ok: true, value: { lots, pagesAt: at.value } }
      : { ok: false, faults: [{ ...at.fault, path: 'pagesAt' }] };
  });
  const { at } = form;
  const save = form.submit(async value => {
    const { page: _page, ...kept } = settings;
    try {
      const next = await call(changeLabelSettings, { body: { ...kept, ...value } });
      client.setQueryData(['label settings'], next);
      onClose();
    } catch (error) {
      if (error instanceof CallError && error.newer) client.setQueryData(['label settings'], error.newer);
      throw error;
    }
  });
  const lots = patternOf(form.all());
  const codes = lotCodes(lots, SAMPLE, dayOf(kitchenNow(), kitchen.zone));
  const sample = lotPatternFaults(lots).length === 0 ? codes.next().value : null;
  return (
    <FormDialog
      title={say('lots.title')}
      action={say('lots.save')}
      form={form}
      width="md"
      onClose={onClose}
      onSubmit={save}
    >
      <Box sx={{ color: 'text.secondary', mb: 1.5 }}>{say('lots.how')}</Box>
      <Cells wide="1.6fr 1fr 1fr" gap={1.5}>
        <Pick
          at={at('parts')}
          label={say('lots.parts')}
          of={ORDERS.map(o => [o.join(' '), o.map(p => say(`lots.part.${p}`)).join(', ')] as const)}
        />
        <Pick
          at={at('day')}
          label={say('lots.day')}
          of={LOT_DAYS.map(d => [d, say(`lots.day.${d}`)] as const)}
        />
        <Pick
          at={at('separator')}
          label={say('lots.separator')}
          of={LOT_SEPARATORS.map(
            s => [s === '' ? NONE : s, s === '' ? say('lots.separator.none') : s] as const,
          )}
        />
      </Cells>
      <Cells gap={1.5} mt={1.5}>
        <Text at={at('leftOut')} label={say('lots.leftOut')} hint={say('lots.leftOut.hint')} />
        <Box>
          <Tick at={at('load')} label={say('lots.load')} />
          <Soft sx={{ display: 'block' }}>{say('lots.load.hint')}</Soft>
        </Box>
      </Cells>
      {sample !== null && (
        <Box sx={{ mt: 2 }} role="status">
          {say('lots.sample')} <strong>{lots.load ? jarLotCode(lots, sample, 0, 1) : sample}</strong>
          {lots.load && (
            <>
              {', '}
              {say('lots.sample.load')} <strong>{jarLotCode(lots, sample, 0, 2)}</strong>
            </>
          )}
          {'; '}
          {say('lots.sample.later')} <strong>{jarLotCode(lots, sample, 1, lots.load ? 3 : null)}</strong>
        </Box>
      )}
      <Box component="h3" sx={{ mt: 2.5, mb: 0.5, fontSize: '1.05rem' }}>
        {say('lots.pages')}
      </Box>
      <Box sx={{ color: 'text.secondary' }}>{say('lots.pages.how')}</Box>
      {owner ? (
        <>
          <Tick at={at('pages')} label={say('lots.pages.on')} />
          {form.typed('pages') && (
            <Text at={at('pagesAt')} label={say('lots.pagesAt')} hint={say('lots.pagesAt.hint')} fullWidth />
          )}
        </>
      ) : (
        <Soft>{say(settings.pagesAt === '' ? 'lots.pages.offNow' : 'lots.pages.onNow')}</Soft>
      )}
    </FormDialog>
  );
}
