import { drawLots, returnLots, reverseDraw } from '@cocotte/contract';
import {
  Decimal,
  type Fault,
  dayOf,
  moneyText,
  readDecimal,
  type Names,
  byName,
} from '@cocotte/core/measure';
import { unitSign } from '@cocotte/core/stores';
import {
  Box,
  Button,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useState } from 'react';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { faultText } from '../shell/entry.ts';
import { Faults, Sheet, Soft } from '../shell/parts.tsx';
import { ReasonDialog } from '../shell/ReasonDialog.tsx';
import { useHere } from '../shell/session.tsx';
import { useShelf, useStockChanged } from '../stores/api.ts';
import type { OpenBatch } from './api.ts';
import { batchNeeds, drawingOf, needText } from './draws.ts';
import type { When } from './when.ts';

/** On a phone each need stands over its quantity and its lot; from a tablet on they are columns. */
const stacked = {
  display: { xs: 'grid', sm: 'table-row' },
  gridTemplateColumns: '128px minmax(0, 1fr)',
  borderBottom: { xs: 1, sm: 0 },
  borderColor: { xs: 'rule.main', sm: 'rule.main' },
  '& td': { borderBottom: { xs: 0, sm: 1 }, borderColor: { sm: 'rule.main' } },
  '& td:first-of-type': { gridColumn: '1 / -1', pb: { xs: 0, sm: 1 } },
};

/** Draws what the batch needs out of the open containers: nothing is chosen unless somebody wants to. */
export function DrawPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const { data, isPending } = useShelf();
  const changed = useStockChanged();
  const [chosen, setChosen] = useState<Names<string>>(() => byName());
  const [typed, setTyped] = useState<Names<string>>(() => byName());
  const [faults, setFaults] = useState<Names<Fault>>(() => byName());
  const [rest, setRest] = useState<Fault[]>([]);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const use = {
    line: null,
    recipe: started.recipe,
    purpose: started.purpose,
    today: dayOf(kitchenNow(), kitchen.zone),
  };
  const drawn = batch.state.draws.flatMap(d => d.lots);
  const rows = batchNeeds(batch.state, data?.shelf ?? []).map(need => {
    const done = drawn.filter(l =>
      need.line
        ? l.lineId === need.line.id
        : l.kind === need.kind && (need.size === null || l.jarSize === need.size),
    );
    // What was drawn already is not proposed again; a further draw is typed by hand.
    const text = typed[need.key] ?? (done.length > 0 ? '' : needText(need));
    const lotId = chosen[need.key] ?? '';
    return {
      need,
      done,
      text,
      lotId,
      drawing: text.trim() === '' ? null : drawingOf(need, text, kitchen.locale, use, lotId),
    };
  });
  const draw = async () => {
    const found = byName<Fault>();
    const wanted = rows.flatMap(r => {
      if (r.drawing === null || !r.need.shelf) return [];
      if (!r.drawing.ok) {
        found[r.need.key] = r.drawing.fault;
        return [];
      }
      return r.drawing.value.lots.map(l => ({
        key: r.need.key,
        lotId: l.lotId,
        lineId: r.need.line?.id ?? null,
        quantity: l.quantity,
      }));
    });
    setFaults(found);
    setRest([]);
    if (Object.keys(found).length > 0 || wanted.length === 0) return;
    const back = await batch.decide(
      stamp =>
        call(drawLots, {
          params: { batchId: batch.id },
          body: { lots: wanted.map(({ lotId, lineId, quantity }) => ({ lotId, lineId, quantity })), stamp },
        }),
      when,
    );
    const placed = byName<Fault>();
    const others: Fault[] = [];
    for (const fault of back) {
      const index = /^lots\[(\d+)\]/.exec(fault.path)?.[1];
      const at = index === undefined ? undefined : wanted[Number(index)];
      if (at) placed[at.key] = fault;
      else others.push(fault);
    }
    setFaults(placed);
    setRest(others);
    await changed();
    if (back.length === 0) {
      setChosen(byName());
      setTyped(byName());
    }
  };
  const nothingToDraw = rows.every(r => r.drawing === null || !r.need.shelf);
  const cost = drawn.reduce((sum, l) => sum.plus(new Decimal(l.quantity).times(l.unitCost)), new Decimal(0));
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
      <Sheet title="Draw lots" aside="Out of the open container, then the oldest">
        <Box>
          <Table size="small">
            <TableHead sx={{ display: { xs: 'none', sm: 'table-header-group' } }}>
              <TableRow>
                <TableCell sx={{ width: '30%' }}>For</TableCell>
                <TableCell sx={{ width: 170 }}>Quantity</TableCell>
                <TableCell>Out of</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map(r => (
                <TableRow key={r.need.key} sx={stacked}>
                  <TableCell sx={{ fontWeight: 600, pt: '16px !important' }}>
                    {r.need.title}
                    {r.need.shelf && r.need.line && r.need.shelf.item.name !== r.need.title && (
                      <Box>
                        <Soft sx={{ fontWeight: 400 }}>out of {r.need.shelf.item.name}</Soft>
                      </Box>
                    )}
                    {r.done.length > 0 && (
                      <Box>
                        <Soft sx={{ fontWeight: 400 }}>
                          drawn:{' '}
                          {r.done
                            .map(
                              d => `${d.quantity}${d.unit === 'each' ? '' : ` ${d.unit}`} from ${d.lotLabel}`,
                            )
                            .join(', ')}
                        </Soft>
                      </Box>
                    )}
                  </TableCell>
                  <TableCell>
                    <TextField
                      value={r.text}
                      disabled={!r.need.shelf}
                      error={faults[r.need.key] !== undefined}
                      helperText={faults[r.need.key] && faultText(faults[r.need.key] as Fault)}
                      onChange={e => {
                        setTyped(t => ({ ...t, [r.need.key]: e.target.value }));
                        setFaults(({ [r.need.key]: _gone, ...f }) => f);
                      }}
                      slotProps={{
                        htmlInput: { 'aria-label': `Quantity of ${r.need.title}`, inputMode: 'decimal' },
                        input: {
                          endAdornment: <Soft>{r.need.shelf ? unitSign(r.need.shelf.item.unit) : ''}</Soft>,
                        },
                      }}
                    />
                  </TableCell>
                  <TableCell>
                    {r.need.shelf ? (
                      <TextField
                        select
                        slotProps={{
                          select: {
                            displayEmpty: true,
                            SelectDisplayProps: { 'aria-label': `Lot of ${r.need.title}` },
                          },
                        }}
                        value={r.lotId}
                        onChange={e => setChosen(c => ({ ...c, [r.need.key]: e.target.value }))}
                      >
                        <MenuItem value="">{autoWords(r)}</MenuItem>
                        {r.need.shelf.lots.map(lot => (
                          <MenuItem key={lot.id} value={lot.id}>
                            only lot {lot.label}
                            {lot.strength_pct === null ? '' : `, ${lot.strength_pct} %`} ({lot.onHand}{' '}
                            {r.need.shelf?.item.unit === 'each' ? 'left' : `${r.need.shelf?.item.unit} left`})
                          </MenuItem>
                        ))}
                      </TextField>
                    ) : (
                      <Soft>no such item on the shelf</Soft>
                    )}
                    {r.drawing?.ok && !r.lotId && r.drawing.value.skipped.length > 0 && (
                      <Box sx={{ mt: 0.5 }}>
                        <Soft sx={{ fontSize: '0.92rem' }}>
                          passed over: {r.drawing.value.skipped.map(s => `${s.label} (${s.why})`).join(' ')}
                        </Soft>
                      </Box>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
        <Faults faults={rest} />
        <Box
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            alignItems: 'center',
            mt: 2,
            gap: 2,
            flexWrap: 'wrap',
          }}
        >
          <Soft>{cost.isZero() ? 'Nothing is drawn yet.' : `Drawn so far: ${moneyText(cost, kitchen)}`}</Soft>
          <Button
            variant="contained"
            size="large"
            disabled={batch.busy || isPending || nothingToDraw}
            onClick={() => void draw()}
          >
            Draw these lots
          </Button>
        </Box>
      </Sheet>
      {batch.state.draws.length > 0 && <Drawn batch={batch} onFaults={setRest} />}
    </Box>
  );
}

/** In words, which lots a quantity comes from. */
function autoWords({
  need,
  drawing,
}: {
  need: { shelf: { lots: { label: string; openedOn: string | null }[] } | undefined };
  drawing: ReturnType<typeof drawingOf> | null;
}): string {
  if (drawing?.ok && drawing.value.lots.length > 0) {
    const open = new Set(need.shelf?.lots.filter(l => l.openedOn !== null).map(l => l.label));
    return drawing.value.lots.map(l => `${l.label}${open.has(l.label) ? ' (open)' : ''}`).join(', then ');
  }
  const first = need.shelf?.lots[0];
  return first ? `${first.label}${first.openedOn === null ? '' : ' (open)'}` : 'nothing left';
}

/** What was drawn: put back as a whole, or part of it that did not go into the pot. */
function Drawn({ batch, onFaults }: { batch: OpenBatch; onFaults: (faults: Fault[]) => void }) {
  const changed = useStockChanged();
  const [puttingBack, setPuttingBack] = useState<string | null>(null);
  const [returning, setReturning] = useState(false);
  const bands = batch.state.draws
    .flatMap(d => d.lots)
    .filter(l => l.kind !== 'ingredient' && l.kind !== 'lid');
  const putBack = async (drawId: string, reason: string) => {
    setPuttingBack(null);
    onFaults(
      await batch.decide(stamp =>
        call(reverseDraw, { params: { batchId: batch.id, drawId }, body: { reason, stamp } }),
      ),
    );
    await changed();
  };
  return (
    <Sheet
      title="Drawn"
      aside={
        bands.length > 0 && (
          <Button size="small" variant="outlined" onClick={() => setReturning(true)}>
            Something came back
          </Button>
        )
      }
    >
      {batch.state.draws.map(d => (
        <Box key={d.drawId} sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 1 }}>
          <Box sx={{ flex: 1 }}>
            {d.lots
              .map(l => `${l.quantity}${l.unit === 'each' ? '' : ` ${l.unit}`} ${l.name} (${l.lotLabel})`)
              .join('; ')}
          </Box>
          <Button size="small" variant="outlined" onClick={() => setPuttingBack(d.drawId)}>
            Put back
          </Button>
        </Box>
      ))}
      {batch.state.returns.map(r => (
        <Box key={r.by.eventId} sx={{ py: 0.5 }}>
          <Soft>
            Came back:{' '}
            {r.lots
              .map(l => `${l.quantity} ${bands.find(b => b.lotId === l.lotId)?.name ?? 'of a lot'}`)
              .join(', ')}
            . {r.reason}
          </Soft>
        </Box>
      ))}
      {puttingBack && (
        <ReasonDialog
          title="Why is this draw put back?"
          action="Put it back"
          onClose={() => setPuttingBack(null)}
          onReason={reason => void putBack(puttingBack, reason)}
        />
      )}
      {returning && <ReturnForm batch={batch} onDone={() => setReturning(false)} />}
    </Sheet>
  );
}

function ReturnForm({ batch, onDone }: { batch: OpenBatch; onDone: () => void }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const lots = [
    ...new Map(
      batch.state.draws
        .flatMap(d => d.lots)
        .filter(l => l.kind !== 'ingredient' && l.kind !== 'lid')
        .map(l => [l.lotId, l]),
    ).values(),
  ];
  const [lotId, setLotId] = useState(lots.find(l => l.kind === 'band')?.lotId ?? lots[0]?.lotId ?? '');
  const [count, setCount] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [asking, setAsking] = useState(false);
  const send = async (reason: string) => {
    setAsking(false);
    const read = readDecimal(count, kitchen.locale, { name: 'How many', min: 0, above: true, max: 1e6 });
    if (!read.ok) return setFaults([read.fault]);
    const back = await batch.decide(stamp =>
      call(returnLots, {
        params: { batchId: batch.id },
        body: { lots: [{ lotId, quantity: read.value }], reason, stamp },
      }),
    );
    setFaults(back);
    await changed();
    if (back.length === 0) onDone();
  };
  return (
    <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5, alignItems: 'center' }}>
      <TextField
        select
        label="What came back"
        value={lotId}
        onChange={e => setLotId(e.target.value)}
        sx={{ width: 240 }}
      >
        {lots.map(l => (
          <MenuItem key={l.lotId} value={l.lotId}>
            {l.name}, lot {l.lotLabel}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="How many"
        value={count}
        onChange={e => setCount(e.target.value)}
        slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        sx={{ width: 120 }}
      />
      <Button variant="outlined" disabled={count.trim() === ''} onClick={() => setAsking(true)}>
        Put on the shelf
      </Button>
      <Button onClick={onDone}>Not now</Button>
      <Faults faults={faults} />
      {asking && (
        <ReasonDialog
          title="Why did it come back?"
          action="Put it on the shelf"
          onClose={() => setAsking(false)}
          onReason={reason => void send(reason)}
        />
      )}
    </Box>
  );
}
