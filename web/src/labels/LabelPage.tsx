import type { JarSizeId } from '@cocotte/core/jars';
import { fillingOf } from '@cocotte/core/batches';
import { labelSheet, printLabels } from '@cocotte/contract';
import type { LabelContent } from '@cocotte/core/batches';
import {
  FIGURE_OVER_SIZE,
  type LabelStock,
  LABEL_STOCKS,
  labelContent,
  netFigures_mm,
  stockFor,
} from '@cocotte/core/labels';
import { type Fault, dayText, instantText, rangesText } from '@cocotte/core/measure';
import { jarCountText, jarSize } from '@cocotte/core/jars';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/open-batch.ts';
import { addressOf, call } from '../shell/call.ts';
import { Switcher } from '../kit/controls.tsx';
import { Cells, Columns, Line, Stack } from '../kit/layout.tsx';
import { CheckMark, CrossMark, Faults, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { say } from '../words/views.ts';

/** The label beside the list of what the rules want and where it is met. */
export function LabelPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Labelling batch={open} />}</Loaded>;
}

function Labelling({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayPrint = useMay('cook');
  const released = batch.state.jars.filter(j => batch.standing.released.includes(j.number));
  const sizes = [...new Set(released.map(j => j.size))];
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const [sizeChosen, setSize] = useState(sizes[0]);
  const size = sizeChosen ?? sizes[0] ?? started.recipe.makes.size;
  const [stockId, setStock] = useState(() => stockFor(kitchen.paper).id);
  const [faults, setFaults] = useState<Fault[]>([]);
  const labelled = new Set(batch.state.labels.flatMap(l => l.jars));
  const ofAll = released.filter(j => j.size === size).map(j => j.number);
  const lots = [...new Set(ofAll.map(n => fillingOf(batch.state, n)?.lotCode ?? started.lotCode))];
  const [lotChosen, setLot] = useState('');
  const lot = lots.includes(lotChosen) ? lotChosen : lots[0];
  const ofSize = ofAll.filter(n => lots.length < 2 || fillingOf(batch.state, n)?.lotCode === lot);
  const unlabelled = ofSize.filter(n => !labelled.has(n));
  const jars = unlabelled.length > 0 ? unlabelled : ofSize;
  const content = labelContent(batch.state, kitchen, size, jars);
  const stock = LABEL_STOCKS.find(s => s.id === stockId) as LabelStock;
  const print = async () => {
    const back = await batch.decide('labels.printed', stamp =>
      call(printLabels, { params: { batchId: batch.id }, body: { jars, size, stock: stockId, stamp } }),
    );
    setFaults(back);
  };
  return (
    <>
      <ViewHead
        title={`Labels: ${started.recipe.name}`}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> ·{' '}
            {released.length === 0 ? 'no jar is released' : `${released.length} released`}
          </>
        }
      >
        <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
          Record
        </Button>
      </ViewHead>
      {released.length === 0 && (
        <Sheet tone="ox" sx={{ mb: 2 }}>
          Labels are printed for released jars only.{' '}
          <MuiLink component={Link} to={`/check/${batch.id}`}>
            See what holds this batch
          </MuiLink>
          .
        </Sheet>
      )}
      <Columns of="1.2fr 1fr">
        <Stack>
          <Sheet title="The label" aside="about its true size">
            {content.ok ? (
              <LabelFace label={content.label} stock={stock} size={size} />
            ) : (
              <Faults faults={content.faults} />
            )}
            <Cells wide="1fr 1.6fr" gap={1.5} mt={2.5}>
              <Switcher
                label="Jar"
                value={size}
                of={(sizes.length > 0 ? sizes : [size]).map(s => [s, jarSize(s).name] as const)}
                onPick={setSize}
              />
              {lots.length > 1 && <Switcher label="Lot" value={lot ?? ''} of={lots} onPick={setLot} />}
              <Switcher
                label="Label sheet"
                value={stockId}
                of={LABEL_STOCKS.map(s => [s.id, s.name] as const)}
                onPick={setStock}
              />
            </Cells>
            <Faults faults={faults} />
            {released.length > 0 && mayPrint && (
              <Button
                fullWidth
                size="large"
                variant="contained"
                sx={{ mt: 2 }}
                disabled={batch.busy || !content.ok}
                onClick={() => void print()}
              >
                {unlabelled.length > 0 ? `Make ${jars.length} labels` : `Make ${jars.length} labels again`}
              </Button>
            )}
          </Sheet>
          {batch.state.labels.length > 0 && (
            <Sheet title="Sheets made" aside="print at 100 %, not fitted to the page">
              {batch.state.labels.toReversed().map(l => (
                <Line key={l.eventId} sx={{ py: 1 }}>
                  <Box sx={{ flex: 1 }}>
                    {jarCountText(
                      l.jars.length,
                      batch.state.jars.find(j => j.number === l.jars[0])?.size ?? size,
                    )}
                    : jars {rangesText(l.jars)} <Soft>{instantText(l.by.at_ms, kitchen)}</Soft>
                  </Box>
                  {l.jars.every(n => batch.standing.released.includes(n)) ? (
                    <Button
                      component="a"
                      href={addressOf(labelSheet, { batchId: batch.id, printId: l.eventId })}
                      target="_blank"
                      variant="outlined"
                    >
                      Open the sheet to print
                    </Button>
                  ) : (
                    <Soft>{say('label.heldAgain')}</Soft>
                  )}
                </Line>
              ))}
            </Sheet>
          )}
        </Stack>
        <Sheet title="What the rules want">
          {content.rules.map(r => (
            <Box
              key={r.what}
              sx={{
                display: 'flex',
                gap: 1.5,
                py: 1,
                borderBottom: 1,
                borderColor: 'rule.main',
                '&:last-of-type': { borderBottom: 0 },
              }}
            >
              <Box sx={{ mt: 0.25, color: r.met ? 'leaf.main' : 'ox.main' }}>
                {r.met ? <CheckMark /> : <CrossMark />}
              </Box>
              <Box sx={{ minWidth: 0 }}>
                <strong>{r.what}</strong> <Soft sx={{ fontSize: '0.9rem' }}>{r.rule}</Soft>
                <Box sx={{ overflowWrap: 'anywhere' }}>{r.met ? r.shown : r.next}</Box>
              </Box>
            </Box>
          ))}
          <Typography sx={{ mt: 1.5, color: 'text.secondary', fontSize: '0.92rem' }}>
            Rules recalled from memory: hold them against your jurisdiction's own.
          </Typography>
        </Sheet>
      </Columns>
    </>
  );
}

/** The label as it will be printed, in outline: the PDF is the one at true size. */
function LabelFace({ label, stock, size }: { label: LabelContent; stock: LabelStock; size: JarSizeId }) {
  const { kitchen } = useHere();
  return (
    <Box
      sx={{
        width: `${stock.label_mm.width}mm`,
        maxWidth: '100%',
        minHeight: `${stock.label_mm.height}mm`,
        bgcolor: '#fff',
        color: '#2A211D',
        border: '1px dashed',
        borderColor: 'rule.strong',
        p: '3mm',
        display: 'flex',
        flexDirection: 'column',
        fontSize: '8.5pt',
        lineHeight: 1.2,
      }}
    >
      <Box sx={{ fontFamily: "'Fraunces Variable', serif", fontWeight: 600, fontSize: '17pt' }}>
        {label.statementOfIdentity}
      </Box>
      {label.notForSale && <strong>Not for sale</strong>}
      <span>Ingredients: {label.ingredients}.</span>
      {label.contains && <strong>Contains: {label.contains}.</strong>}
      {label.directions && <span>{label.directions}</span>}
      {label.statement && <span>{label.statement}</span>}
      <Box
        sx={{
          mt: 'auto',
          pt: 1,
          display: 'flex',
          gap: 1,
          alignItems: 'flex-end',
          justifyContent: 'space-between',
        }}
      >
        <Box>
          {label.maker}, {label.address}
          <br />
          <strong>Lot {label.lotCode}</strong>
          <br />
          Made {dayText(label.madeOn, kitchen)} · Best by {dayText(label.bestBy, kitchen)}
          {label.readyFrom && (
            <>
              <br />
              Best from {dayText(label.readyFrom, kitchen)}
            </>
          )}
          <Box
            sx={{
              fontSize: `${netFigures_mm(size) / FIGURE_OVER_SIZE}mm`,
              fontWeight: 700,
              lineHeight: 1.15,
            }}
          >
            {label.netContents}
          </Box>
        </Box>
        <Box
          sx={{
            flex: 'none',
            width: '19mm',
            height: '19mm',
            border: '1px solid #2A211D',
            display: 'grid',
            placeItems: 'center',
            textAlign: 'center',
            fontSize: '7pt',
          }}
        >
          2D code of the lot, on the sheet
        </Box>
      </Box>
    </Box>
  );
}
