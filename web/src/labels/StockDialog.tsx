import { changeLabelSettings, labelCheckPage, type LabelSettingsView } from '@cocotte/contract';
import type { LabelStock } from '@cocotte/core/batches';
import { LABEL_STOCKS, stockFaults } from '@cocotte/core/labels';
import { byName, fieldText, kitchenUnits } from '@cocotte/core/measure';
import { Box, Link } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Switcher } from '../kit/controls.tsx';
import { Figure, Pick, Text } from '../kit/fields.tsx';
import { useReadForm } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { readersOf, readShape, words } from '../kit/readers.ts';
import { addressOf, call, CallError } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

const NEW = '';
/** Measures of a stock, each by the path of what it is kept as, with its limits in mm. */
const MEASURES = [
  ['pageWidth', 'page_mm.width', 10, 1000],
  ['pageHeight', 'page_mm.height', 10, 1000],
  ['labelWidth', 'label_mm.width', 10, 500],
  ['labelHeight', 'label_mm.height', 10, 500],
  ['left', 'margin_mm.left', 0, 500],
  ['top', 'margin_mm.top', 0, 500],
  ['pitchX', 'pitch_mm.x', 0, 1000],
  ['pitchY', 'pitch_mm.y', 0, 1000],
] as const;
type MeasureName = (typeof MEASURES)[number][0];
/** On a roll a label is a page of its own. */
const OF_A_ROLL = new Set<MeasureName>(['labelWidth', 'labelHeight']);

/** Blank labels of one's own by their measures, how far the printer is off, and the page that shows it. */
export function StockDialog({
  settings,
  start,
  onClose,
}: {
  settings: LabelSettingsView;
  /** The stock that is chosen now: a new one begins with its measures. */
  start: LabelStock;
  onClose: (stockId: string | null) => void;
}) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const { sign, size } = kitchenUnits(kitchen).length;
  const plain = (mm: number, places = 3) => fieldText(mm / size, kitchen.locale, places);
  const own = (id: string) => settings.stocks.find(s => s.id === id);
  const [id, setId] = useState(own(start.id) ? start.id : NEW);
  const textsOf = (stock: LabelStock, name: string) => ({
    name,
    form: stock.form,
    shape: stock.shape,
    columns: String(stock.columns),
    rows: String(stock.rows),
    pageWidth: plain(stock.page_mm.width),
    pageHeight: plain(stock.page_mm.height),
    labelWidth: plain(stock.label_mm.width),
    labelHeight: plain(stock.label_mm.height),
    left: plain(stock.margin_mm.left),
    top: plain(stock.margin_mm.top),
    pitchX: plain(stock.pitch_mm.x),
    pitchY: plain(stock.pitch_mm.y),
    offsetX: fieldText(settings.offset_mm.x, kitchen.locale, 2),
    offsetY: fieldText(settings.offset_mm.y, kitchen.locale, 2),
  });
  type Texts = ReturnType<typeof textsOf>;
  const read = readersOf(kitchen);
  /** Whether measures of a stock of one's own are typed, or only how far the printer is off. */
  const named = (typed: Texts) => id !== NEW || typed.name.trim() !== '';
  const form = useReadForm<Texts, { stock: LabelStock | null; offset_mm: { x: number; y: number } }>(
    textsOf(start, own(start.id)?.name ?? ''),
    typed => {
      const offsets = readShape(
        {
          offsetX: read.figure({ name: say('label.offset.x'), min: -20, max: 20, unit: ' mm' }),
          offsetY: read.figure({ name: say('label.offset.y'), min: -20, max: 20, unit: ' mm' }),
        },
        typed,
      );
      if (!offsets.ok) return offsets;
      const offset_mm = { x: offsets.value.offsetX, y: offsets.value.offsetY };
      if (!named(typed)) return { ok: true, value: { stock: null, offset_mm } };
      const roll = typed.form === 'roll';
      const measure = (name: MeasureName, min: number, max: number) => (text: string) => {
        if (roll && !OF_A_ROLL.has(name)) return { ok: true as const, value: 0 };
        const found = read.figure({
          name: say(`label.measure.${name}`),
          min: min / size,
          max: max / size,
          unit: ` ${sign}`,
        })(text);
        return found.ok ? { ok: true as const, value: found.value * size } : found;
      };
      const found = readShape(
        {
          name: words(say('label.stock.name')),
          ...byName(MEASURES.map(([name, , min, max]) => [name, measure(name, min, max)])),
          columns: roll
            ? () => ({ ok: true as const, value: 1 })
            : read.figure({ name: say('label.columns'), min: 1, max: 40, whole: true }),
          rows: roll
            ? () => ({ ok: true as const, value: 1 })
            : read.figure({ name: say('label.rows'), min: 1, max: 80, whole: true }),
        },
        typed,
      );
      if (!found.ok) return found;
      const v = found.value as unknown as Record<MeasureName | 'columns' | 'rows', number> & { name: string };
      const label_mm = { width: v.labelWidth, height: v.labelHeight };
      const stock: LabelStock = {
        id: id === NEW ? v7() : id,
        name: v.name,
        form: typed.form,
        shape: typed.shape,
        label_mm,
        page_mm: roll ? label_mm : { width: v.pageWidth, height: v.pageHeight },
        columns: v.columns,
        rows: v.rows,
        margin_mm: { left: v.left, top: v.top },
        pitch_mm: roll ? { x: label_mm.width, y: label_mm.height } : { x: v.pitchX, y: v.pitchY },
      };
      const faults = stockFaults(stock).map(f => ({ ...f, path: fieldOf(f.path) }));
      return faults.length > 0 ? { ok: false, faults } : { ok: true, value: { stock, offset_mm } };
    },
  );
  const { at } = form;
  const save = form.submit(async ({ stock, offset_mm }) => {
    const { page: _page, ...kept } = settings;
    const stocks = stock ? [...settings.stocks.filter(s => s.id !== stock.id), stock] : [...settings.stocks];
    try {
      const next = await call(changeLabelSettings, {
        body: { ...kept, stocks, offset_mm },
      });
      client.setQueryData(['label settings'], next);
      onClose(stock?.id ?? null);
    } catch (error) {
      if (error instanceof CallError && error.newer) client.setQueryData(['label settings'], error.newer);
      throw error;
    }
  });
  const roll = form.typed('form') === 'roll';
  return (
    <FormDialog
      title={say('label.stock.title')}
      action={say('label.stock.save')}
      form={form}
      width="md"
      onClose={() => onClose(null)}
      onSubmit={save}
    >
      <Switcher
        fullWidth
        sx={{ mt: 1 }}
        label={say('label.stock.which')}
        value={id}
        of={[[NEW, say('label.stock.new')], ...settings.stocks.map(s => [s.id, s.name] as const)]}
        onPick={picked => {
          setId(picked);
          const found = own(picked);
          form.again(textsOf(found ?? start, found?.name ?? ''));
        }}
      />
      <Cells wide="2fr 1fr 1fr" gap={1.5} mt={1.5}>
        <Text at={at('name')} label={say('label.stock.name')} hint={say('label.stock.name.hint')} />
        <Pick
          at={at('form')}
          label={say('label.form')}
          of={[
            ['sheet', say('label.form.sheet')],
            ['roll', say('label.form.roll')],
          ]}
        />
        <Pick
          at={at('shape')}
          label={say('label.shape')}
          of={[
            ['rectangle', say('label.shape.rectangle')],
            ['round', say('label.shape.round')],
          ]}
        />
      </Cells>
      <Cells wide="1fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        {MEASURES.filter(([name]) => !roll || OF_A_ROLL.has(name)).map(([name]) => (
          <Figure key={name} at={at(name)} label={say(`label.measure.${name}`)} unit={sign} />
        ))}
        {!roll && (
          <>
            <Figure at={at('columns')} label={say('label.columns')} />
            <Figure at={at('rows')} label={say('label.rows')} />
          </>
        )}
      </Cells>
      <Box component="h3" sx={{ mt: 2.5, mb: 0.5, fontSize: '1.05rem' }}>
        {say('label.printer')}
      </Box>
      <Box sx={{ color: 'text.secondary' }}>
        {say('label.printer.how')}{' '}
        <Link href={addressOf(labelCheckPage, { stockId: start.id })} target="_blank" rel="noreferrer">
          {say('label.printer.page', { stock: start.name })}
        </Link>
      </Box>
      <Cells gap={1.5} mt={1.5}>
        <Figure at={at('offsetX')} label={say('label.offset.x')} unit="mm" />
        <Figure at={at('offsetY')} label={say('label.offset.y')} unit="mm" />
      </Cells>
      <Box sx={{ color: 'text.secondary', mt: 1 }}>{say('label.stock.ship', { n: LABEL_STOCKS.length })}</Box>
    </FormDialog>
  );
}

/** The field in which a measure of a stock is typed. */
const fieldOf = (path: string): string => MEASURES.find(([, of]) => of === path)?.[0] ?? path;
