import { type LotRow, drawLots, listLots, reverseDraw } from '@cocotte/contract';
import { Decimal, type Fault, Fraction, moneyText, readDecimal } from '@cocotte/core/measure';
import { type Line, jarSize, scaleRecipe } from '@cocotte/core/recipes';
import { drawFault } from '@cocotte/core/stores';
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
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../shell/call.ts';
import { faultText } from '../shell/entry.ts';
import { Faults, Sheet, Soft } from '../shell/parts.tsx';
import { ReasonDialog } from '../shell/ReasonDialog.tsx';
import { useHere } from '../shell/session.tsx';
import type { OpenBatch } from './api.ts';
import type { When } from './when.ts';

/** Something the batch needs from a lot: a recipe line, a size of jar, or lids. */
interface Need {
  key: string;
  title: string;
  line: Line | null;
  search: string;
  fits: (row: LotRow) => boolean;
  wanted: (row: LotRow) => string;
}

const MASS_PLACES = 1;

function needsOf(batch: OpenBatch): Need[] {
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const scaled = scaleRecipe(started.recipe, new Fraction(started.factor), started.jars);
  const lines = started.recipe.lines
    .filter(l => l.role !== 'water')
    .map((line): Need => {
      const asBought_g = scaled.lines.find(l => l.lineId === line.id)?.asBought_g ?? 0;
      return {
        key: line.id,
        title: line.name,
        line,
        search: line.labelName,
        fits: row => row.item.kind === 'ingredient',
        wanted: row => {
          const quantity = new Decimal(asBought_g).div(row.item.unit_g ?? 1);
          return row.item.unit === 'each'
            ? quantity.minus('0.000001').ceil().toFixed()
            : quantity.toDecimalPlaces(MASS_PLACES, Decimal.ROUND_UP).toFixed();
        },
      };
    });
  const total = started.jars.reduce((n, j) => n + j.count, 0);
  const jars = started.jars.map((j): Need => ({
    key: `jar ${j.size}`,
    title: `Jars, ${jarSize(j.size).name}`,
    line: null,
    search: `${jarSize(j.size).name}`,
    fits: row => row.item.kind === 'jar' && row.item.jarSize === j.size,
    wanted: () => String(j.count),
  }));
  return [
    ...lines,
    ...jars,
    {
      key: 'lids',
      title: 'Lids',
      line: null,
      search: 'lid',
      fits: row => row.item.kind === 'lid',
      wanted: () => String(total),
    },
  ];
}

/** Draws ingredient, jar and lid lots into the batch: proposed, to be changed, and drawn all at once. */
export function DrawPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const needs = needsOf(batch);
  const lots = useQueries({
    queries: needs.map(n => ({
      queryKey: ['lots', n.search],
      queryFn: () => call(listLots, { query: { search: n.search } }),
    })),
  });
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [faults, setFaults] = useState<Record<string, Fault>>({});
  const [rest, setRest] = useState<Fault[]>([]);
  const drawnFor = (need: Need) =>
    batch.state.draws
      .flatMap(d => d.lots)
      .filter(l =>
        need.line
          ? l.lineId === need.line.id
          : need.key === 'lids'
            ? l.kind === 'lid'
            : l.kind === 'jar' && `jar ${l.jarSize}` === need.key,
      );
  const rows = needs.map((need, i) => {
    const options = (lots[i]?.data?.lots ?? []).filter(need.fits).toReversed();
    const good =
      options.find(o => !drawFault(o.item, o.lot, need.line, need.wanted(o), o.lot.onHand)) ??
      options.find(o => drawFault(o.item, o.lot, need.line, '0.1', o.lot.onHand)?.code !== 'too-weak') ??
      options[0];
    const done = drawnFor(need);
    // What was drawn already is not proposed again; a further draw is chosen by hand.
    const lotId = chosen[need.key] ?? (done.length > 0 ? '' : (good?.lot.id ?? ''));
    const row = options.find(o => o.lot.id === lotId);
    return { need, options, row, lotId, text: typed[need.key] ?? (row ? need.wanted(row) : ''), done };
  });
  const draw = async () => {
    const found: Record<string, Fault> = {};
    const wanted = rows
      .filter(r => r.row)
      .map(r => {
        const reading = readDecimal(r.text, kitchen.locale, {
          name: 'The quantity',
          min: 0,
          above: true,
          max: 1e9,
        });
        if (!reading.ok) found[r.need.key] = reading.fault;
        return {
          key: r.need.key,
          lotId: r.lotId,
          lineId: r.need.line?.id ?? null,
          quantity: reading.ok ? reading.value : '',
        };
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
    const placed: Record<string, Fault> = {};
    const others: Fault[] = [];
    for (const fault of back) {
      const index = /^lots\[(\d+)\]/.exec(fault.path)?.[1];
      const at = index === undefined ? undefined : wanted[Number(index)];
      if (at) placed[at.key] = fault;
      else others.push(fault);
    }
    setFaults(placed);
    setRest(others);
    if (back.length === 0) {
      setChosen({});
      setTyped({});
    }
  };
  const [puttingBack, setPuttingBack] = useState<string | null>(null);
  const putBack = async (drawId: string, reason: string) => {
    setPuttingBack(null);
    setRest(
      await batch.decide(stamp =>
        call(reverseDraw, { params: { batchId: batch.id, drawId }, body: { reason, stamp } }),
      ),
    );
  };
  const cost = batch.state.draws
    .flatMap(d => d.lots)
    .reduce((sum, l) => sum.plus(new Decimal(l.quantity).times(l.unitCost)), new Decimal(0));
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
      <Sheet title="Draw lots" aside="A jar is traced to where its contents came from">
        <Box sx={{ overflowX: 'auto' }}>
          <Table size="small" sx={{ minWidth: 620 }}>
            <TableHead>
              <TableRow>
                <TableCell sx={{ width: '24%' }}>For</TableCell>
                <TableCell>Lot</TableCell>
                <TableCell sx={{ width: 190 }}>Quantity</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map(r => (
                <TableRow key={r.need.key}>
                  <TableCell sx={{ fontWeight: 600, pt: '16px !important' }}>
                    {r.need.title}
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
                      select
                      slotProps={{
                        select: { SelectDisplayProps: { 'aria-label': `Lot of ${r.need.title}` } },
                      }}
                      value={r.lotId}
                      onChange={e => {
                        setChosen(c => ({ ...c, [r.need.key]: e.target.value }));
                        setTyped(({ [r.need.key]: _gone, ...t }) => t);
                      }}
                    >
                      <MenuItem value="">none</MenuItem>
                      {r.options.map(o => (
                        <MenuItem key={o.lot.id} value={o.lot.id}>
                          {o.item.name}, lot {o.lot.label}
                          {o.lot.strength_pct === null ? '' : `, ${o.lot.strength_pct} %`} ({o.lot.onHand}{' '}
                          {o.item.unit === 'each' ? 'left' : `${o.item.unit} left`})
                        </MenuItem>
                      ))}
                    </TextField>
                  </TableCell>
                  <TableCell>
                    <TextField
                      value={r.text}
                      disabled={!r.row}
                      error={faults[r.need.key] !== undefined}
                      helperText={faults[r.need.key] && faultText(faults[r.need.key] as Fault)}
                      onChange={e => {
                        setTyped(t => ({ ...t, [r.need.key]: e.target.value }));
                        setFaults(({ [r.need.key]: _gone, ...f }) => f);
                      }}
                      slotProps={{
                        htmlInput: { 'aria-label': `Quantity of ${r.need.title}`, inputMode: 'decimal' },
                        input: {
                          endAdornment: (
                            <Soft>{r.row && r.row.item.unit !== 'each' ? r.row.item.unit : ''}</Soft>
                          ),
                        },
                      }}
                    />
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
            disabled={batch.busy || lots.some(l => l.isPending) || rows.every(r => !r.row)}
            onClick={() => void draw()}
          >
            Draw these lots
          </Button>
        </Box>
      </Sheet>
      {batch.state.draws.length > 0 && (
        <Sheet title="Drawn">
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
        </Sheet>
      )}
      {puttingBack && (
        <ReasonDialog
          title="Why is this draw put back?"
          action="Put it back"
          onClose={() => setPuttingBack(null)}
          onReason={reason => void putBack(puttingBack, reason)}
        />
      )}
    </Box>
  );
}
