import { changeLabelSetup, type LabelSettingsView, printLabels } from '@cocotte/contract';
import { LABEL_READS, type LabelRead, lotOf, lotsOf } from '@cocotte/core/batches';
import { jarCountText, type JarSizeId, jarSize } from '@cocotte/core/jars';
import {
  containerOf,
  fitsJar,
  LABEL_STOCKS,
  codeSymbol,
  labelCodes,
  labelContent,
  labelPlaceFault,
  layOut,
  type LabelSetup,
  type PlacedRule,
  requirements,
  sameLabel,
  withNearest,
} from '@cocotte/core/labels';
import { dayOf, type Fault } from '@cocotte/core/measure';
import { Button, Link as MuiLink } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/open-batch.ts';
import { Count, Switcher, Toggle } from '../kit/controls.tsx';
import { useTyped } from '../kit/form.ts';
import { giveOut } from '../kit/give-out.ts';
import { Cells, Columns, Line, Stack } from '../kit/layout.tsx';
import { LeaveAsked } from '../kit/leaving.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { NewerAsked } from '../kit/NewerAsked.tsx';
import { Caution, Faults, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { readShape } from '../kit/readers.ts';
import { Saved } from '../kit/Saved.tsx';
import { call, CallError, faultsOf } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { useLabelSettings, useLabelSetup } from './api.ts';
import { labelPng, labelSvg } from './label-files.ts';
import { LabelPreview } from './LabelPreview.tsx';
import { LidList } from './LidList.tsx';
import { ReadFirst } from './ReadFirst.tsx';
import { Requirements } from './Requirements.tsx';
import { setupOf, setupShape, setupTexts } from './setup-form.ts';
import { SetupFields } from './SetupFields.tsx';
import { SheetsMade } from './SheetsMade.tsx';
import { StockDialog } from './StockDialog.tsx';
import { type LabelTools, useLabelTools } from './tools.ts';

/** Spare labels at most, as the server takes them. */
const SPARES_MOST = 500;

/** The label as it is printed, beside every requirement; how it is made, and the sheets that were. */
export function LabelPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Labelling batch={open} />}</Loaded>;
}

function Labelling({ batch }: { batch: OpenBatch }) {
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const setup = useLabelSetup(started.recipeId);
  const settings = useLabelSettings();
  const tools = useLabelTools();
  const data =
    setup.data && settings.data && tools.data
      ? { setup: setup.data, settings: settings.data, tools: tools.data }
      : null;
  return (
    <Loaded query={{ data, error: setup.error ?? settings.error ?? tools.error }}>
      {known => <LabelWork batch={batch} {...known} />}
    </Loaded>
  );
}

interface SetupView {
  setup: LabelSetup;
  version: number;
}

function LabelWork({
  batch,
  setup: kept,
  settings,
  tools,
}: {
  batch: OpenBatch;
  setup: SetupView;
  settings: LabelSettingsView;
  tools: LabelTools;
}) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const mayPrint = useMay('cook');
  const { state } = batch;
  const started = state.started as NonNullable<typeof state.started>;
  const released = state.jars.filter(j => batch.standing.released.includes(j.number));
  const sizes = [...new Set((released.length > 0 ? released : state.jars).map(j => j.size))];
  const [sizeChosen, setSize] = useState<JarSizeId | null>(null);
  const size =
    sizeChosen && sizes.includes(sizeChosen) ? sizeChosen : (sizes[0] ?? started.recipe.makes.size);
  const labelled = new Set(state.labels.flatMap(l => l.jars));
  const ofAll = released.filter(j => j.size === size).map(j => j.number);
  const lots = lotsOf(state).flatMap(l => (l.jars.some(j => ofAll.includes(j.number)) ? [l.lotCode] : []));
  const [lotChosen, setLot] = useState('');
  const lot = lots.includes(lotChosen) ? lotChosen : lots[0];
  const ofSize = ofAll.filter(n => lots.length < 2 || lotOf(state, n)?.lotCode === lot);
  const unlabelled = ofSize.filter(n => !labelled.has(n));
  const jars = unlabelled.length > 0 ? unlabelled : ofSize;

  /** What the fields were filled from: a newer one by somebody else does not take away what is typed. */
  const [from, setFrom] = useState(kept);
  const shapeOf = setupShape(kitchen);
  const form = useTyped(setupTexts(from.setup, size, kitchen), shapeOf, { live: true });
  const fill = (view: SetupView, of = size) => {
    setFrom(view);
    form.again(setupTexts(view.setup, of, kitchen));
  };
  const newer = kept.version > from.version && !form.busy ? kept : null;
  if (newer && !form.dirty) fill(newer);
  const pickSize = (of: JarSizeId) => {
    setSize(of);
    const texts = setupTexts(from.setup, of, kitchen);
    if (!form.dirty) form.again(texts);
    else
      for (const name of ['size', 'number', 'across_mm', 'tall_mm', 'lid_mm'] as const)
        form.set(name, texts[name]);
  };
  const [saved, setSaved] = useState(0);
  const keep = async (setup: LabelSetup): Promise<SetupView> => {
    try {
      const next = await call(changeLabelSetup, {
        params: { recipeId: started.recipeId },
        body: { setup, version: from.version },
      });
      fill(next);
      client.setQueryData(['label setup', started.recipeId], next);
      return next;
    } catch (error) {
      if (error instanceof CallError && error.newer)
        client.setQueryData(['label setup', started.recipeId], error.newer);
      throw error;
    }
  };
  const save = form.submit(async v => {
    await keep(setupOf(v, from.setup));
    setSaved(n => n + 1);
  });

  const typed = form.all();
  const read = readShape(shapeOf(typed), typed);
  const setup = read.ok ? setupOf({ ...typed, ...read.value }, from.setup) : from.setup;
  const stocks = [...settings.stocks, ...LABEL_STOCKS];
  const stock = stocks.find(s => s.id === setup.stockId) ?? (LABEL_STOCKS[0] as (typeof stocks)[number]);
  const content = labelContent(state, kitchen, setup, size, jars);
  const place = labelPlaceFault(state, kitchen, dayOf(kitchenNow(), kitchen.zone));
  const codes = content.ok ? labelCodes(setup, size, content.label, settings.page) : null;
  const ask =
    content.ok && codes?.ok
      ? {
          label: content.label,
          design: setup.design,
          size_mm: stock.label_mm,
          shape: stock.shape,
          look: setup.look,
          container: containerOf(setup, size),
          form: stock.form,
          codes: codes.codes.map(c => codeSymbol(c, tools.writeSymbol)),
        }
      : null;
  const made = ask && layOut(ask, tools.fonts);
  const rules: PlacedRule[] =
    ask && made?.ok
      ? requirements(content.rules, ask, made, tools.fonts)
      : content.rules.map(r => ({ ...r, at: null }));
  const unfit =
    ask && made && !made.ok ? withNearest(made.faults, ask, stock, settings.stocks, tools.fonts) : [];

  const [zoom, setZoom] = useState<'1' | '1.6'>('1');
  const [pointed, setPointed] = useState<string | null>(null);
  const [start, setStart] = useState(0);
  const [spares, setSpares] = useState(0);
  const [reads, setReads] = useState<ReadonlySet<LabelRead>>(new Set());
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [ownStock, setOwnStock] = useState(false);
  const each = stock.columns * stock.rows;
  const gone = Math.min(start, each - 1);
  const wasRead =
    content.ok &&
    state.labels.some(l => l.read.length === LABEL_READS.length && sameLabel(l.label, content.label));
  const print = async () => {
    setFaults([]);
    try {
      const { version } = form.dirty ? await keep(setup) : from;
      setFaults(
        await batch.decide('labels.printed', stamp =>
          call(printLabels, {
            params: { batchId: batch.id },
            body: { jars, size, setupVersion: version, start: gone, spares, read: [...reads], stamp },
          }),
        ),
      );
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const out = async (kind: 'svg' | 'png') => {
    if (!made?.ok) return;
    try {
      for (const piece of made.pieces)
        giveOut(
          await (kind === 'svg' ? labelSvg : labelPng)(piece, tools, setup.look),
          `${lot ?? started.lotCode}${made.pieces.length > 1 ? `-${piece.name}` : ''}.${kind}`,
        );
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const count =
    unlabelled.length > 0 ? say('label.make', { n: jars.length }) : say('label.again', { n: jars.length });
  return (
    <>
      <LeaveAsked dirty={form.dirty && !form.busy} />
      <ViewHead
        title={say('label.title', { name: started.recipe.name })}
        detail={
          <>
            {say('label.lot')} <strong>{started.lotCode}</strong> ·{' '}
            {say('label.released', { n: released.length })}
          </>
        }
      >
        <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
          {say('label.record')}
        </Button>
      </ViewHead>
      <Saved times={saved} />
      {released.length === 0 && (
        <Sheet tone="ox" sx={{ mb: 2 }}>
          {say('label.releasedOnly')}{' '}
          <MuiLink component={Link} to={`/check/${batch.id}`}>
            {say('label.whatHolds')}
          </MuiLink>
        </Sheet>
      )}
      {newer && (
        <NewerAsked onTake={() => fill(newer)} onKeep={() => setFrom({ ...from, version: newer.version })}>
          {say('label.newer')}
        </NewerAsked>
      )}
      <Columns of="1.35fr 1fr" from="lg">
        <Stack>
          <Sheet
            title={say('label.face')}
            aside={
              <Toggle
                small
                label={say('label.zoom')}
                value={zoom}
                of={[
                  ['1', say('label.zoom.true')],
                  ['1.6', say('label.zoom.large')],
                ]}
                onPick={setZoom}
              />
            }
          >
            {(sizes.length > 1 || lots.length > 1) && (
              <Cells gap={1.5} mt={0} sx={{ mb: 2 }}>
                {sizes.length > 1 && (
                  <Switcher
                    label={say('label.jar')}
                    value={size}
                    of={sizes.map(s => [s, jarSize(s).name] as const)}
                    onPick={pickSize}
                  />
                )}
                {lots.length > 1 && (
                  <Switcher label={say('label.lot')} value={lot ?? ''} of={lots} onPick={setLot} />
                )}
              </Cells>
            )}
            {place && <Faults faults={[{ path: '', code: 'place', ...place }]} />}
            {content.ok ? null : <Faults faults={content.faults} />}
            {codes && !codes.ok && <Faults faults={codes.faults} />}
            <Faults faults={unfit} />
            {!fitsJar(stock, containerOf(setup, size)) && (
              <Caution>{say('label.notFlat', { size: jarSize(size).name })}</Caution>
            )}
            {made?.ok && (
              <LabelPreview
                pieces={made.pieces}
                tools={tools}
                look={setup.look}
                zoom={Number(zoom)}
                pointed={rules.find(r => r.what === pointed)?.at ?? null}
              />
            )}
            {made?.ok && (
              <Line mt={1.5}>
                <Soft>{say('label.one')}</Soft>
                <Button size="small" variant="outlined" onClick={() => void out('png')}>
                  PNG
                </Button>
                <Button size="small" variant="outlined" onClick={() => void out('svg')}>
                  SVG
                </Button>
              </Line>
            )}
          </Sheet>
          {released.length > 0 && mayPrint && content.ok && !wasRead && (
            <ReadFirst label={content.label} state={state} size={size} read={reads} onRead={setReads} />
          )}
          {released.length > 0 && mayPrint && (
            <Sheet
              title={say('label.print')}
              aside={say('label.print.aside', { jars: jarCountText(jars.length, size) })}
            >
              <Cells gap={1.5} mt={0}>
                <Count
                  label={say('label.spares')}
                  value={spares}
                  min={0}
                  max={SPARES_MOST}
                  onCount={setSpares}
                />
                {each > 1 && (
                  <Count
                    label={say('label.start')}
                    value={gone}
                    min={0}
                    max={each - 1}
                    onCount={setStart}
                    helperText={say('label.start.hint', { of: each })}
                  />
                )}
              </Cells>
              <Faults faults={faults} />
              {!read.ok && <Faults faults={[read.faults[0] as Fault]} />}
              <Button
                fullWidth
                size="large"
                variant="contained"
                sx={{ mt: 2 }}
                disabled={batch.busy || place !== null || !made?.ok || !read.ok}
                onClick={() => void print()}
              >
                {count}
              </Button>
            </Sheet>
          )}
          <LidList batch={batch} />
          <SheetsMade
            batch={batch}
            now={(of, on) => {
              const today = labelContent(state, kitchen, from.setup, of, on);
              return today.ok ? today.label : null;
            }}
          />
          {mayPrint && (
            <form noValidate onSubmit={save}>
              <Sheet title={say('label.how')} aside={say('label.how.aside', { name: started.recipe.name })}>
                <SetupFields
                  form={form}
                  recipeId={started.recipeId}
                  stocks={stocks}
                  paged={settings.page !== null}
                  onOwnStock={() => setOwnStock(true)}
                />
                <Faults faults={form.faults} />
                <Line mt={2}>
                  <Button type="submit" variant="outlined" disabled={form.busy || !form.dirty}>
                    {say('label.how.save')}
                  </Button>
                  {form.dirty && (
                    <Button variant="outlined" onClick={() => fill(from)}>
                      {say('label.how.back')}
                    </Button>
                  )}
                </Line>
              </Sheet>
            </form>
          )}
        </Stack>
        <Requirements rules={rules} pointed={pointed} onPoint={setPointed} />
      </Columns>
      {ownStock && (
        <StockDialog
          settings={settings}
          start={stock}
          onClose={stockId => {
            setOwnStock(false);
            if (stockId) form.set('stockId', stockId);
          }}
        />
      )}
    </>
  );
}
