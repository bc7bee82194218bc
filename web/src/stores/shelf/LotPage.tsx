import { type LotRow, type LotView, type MoveLot, moveLot } from '@cocotte/contract';
import { type Fault, dayText, instantText, numberText, readDecimal } from '@cocotte/core/measure';
import { contentsOf, unitSign } from '@cocotte/core/stores';
import {
  Box,
  Button,
  Link as MuiLink,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { type FormEvent, Fragment, type ReactNode, useState } from 'react';
import { Link, useParams } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { useEntry, words } from '../../shell/entry.ts';
import { Faults, Sheet, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Waiting } from '../../shell/Shell.tsx';
import { useLot, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { REASON_WORDS, SOURCE_WORDS, stockText, unitCostText } from '../words.ts';

/** One lot: what it says of itself, every movement, and where it came from and went. */
export function LotPage() {
  const { lotId = '' } = useParams();
  const { data, error } = useLot(lotId);
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  return <Opened key={lotId} view={data} />;
}

function Opened({ view }: { view: LotView }) {
  const { kitchen } = useHere();
  const mayMove = useMay('cook');
  const { lot, item, movements } = view;
  const contents = contentsOf(item, lot.facts);
  const facts: [string, ReactNode][] = [
    ['Left', stockText(lot.onHand, item, kitchen)],
    ['Cost', unitCostText(lot.unitCost, item, kitchen)],
    ['How it came', SOURCE_WORDS[lot.facts.source]],
    ['Valued by', lot.facts.value === 'paid' ? 'what was paid' : lot.facts.value],
    ['From', lot.supplier],
    ['Their lot', lot.facts.supplierLot],
    ['Came', dayText(lot.receivedOn, kitchen)],
    ['Best by', lot.bestBy && dayText(lot.bestBy, kitchen)],
    ['Opened', lot.openedOn && dayText(lot.openedOn, kitchen)],
    ['Strength', lot.strength_pct !== null && `${lot.strength_pct} %`],
    ['Kind', lot.facts.salt ?? lot.facts.juice],
    ['Condition', lot.facts.condition],
    ['Picked', lot.facts.pickedOn && dayText(lot.facts.pickedOn, kitchen)],
    ['Highest pH', lot.facts.ph],
    ['Made of', contents.subIngredients],
    ['Allergens', contents.allergens.join(', ')],
    ['Note', lot.facts.note],
    [
      'Receipt',
      lot.receiptId && (
        <MuiLink key="receipt" component={Link} to={`/stores/receipts/${lot.receiptId}`}>
          the receipt it came with
        </MuiLink>
      ),
    ],
  ];
  return (
    <>
      <ViewHead
        title={`Lot ${lot.label}`}
        detail={
          <>
            <MuiLink component={Link} to={`/stores/items/${item.id}`}>
              {item.name}
            </MuiLink>
            {lot.facts.source === 'jars' && !lot.facts.released && (
              <>
                {' '}
                <Tag tone="ox">not for batches that are sold</Tag>
              </>
            )}
          </>
        }
      />
      <StoresNav />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 360px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          <Sheet title="Movements" aside="never edited, only added" sx={{ overflowX: 'auto' }}>
            <Table size="small" sx={{ minWidth: 480 }}>
              <TableHead>
                <TableRow>
                  <TableCell>When</TableCell>
                  <TableCell>What</TableCell>
                  <TableCell align="right">Change</TableCell>
                  <TableCell sx={{ pl: 4 }}>Who</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {movements.map(m => (
                  <TableRow key={m.id}>
                    <TableCell sx={{ whiteSpace: 'nowrap' }}>
                      {instantText(Date.parse(m.at), kitchen)}
                    </TableCell>
                    <TableCell>
                      {REASON_WORDS[m.reason]}{' '}
                      {m.batchId && (
                        <MuiLink component={Link} to={`/records/${m.batchId}`}>
                          {m.lotCode}
                        </MuiLink>
                      )}
                      {m.note && (
                        <Box>
                          <Soft>{m.note}</Soft>
                        </Box>
                      )}
                    </TableCell>
                    <TableCell align="right" sx={{ whiteSpace: 'nowrap', fontWeight: 650 }}>
                      {Number(m.quantity) > 0 ? '+' : '−'}
                      {numberText(Math.abs(Number(m.quantity)), kitchen, item.unit === 'each' ? 0 : 1)}{' '}
                      {unitSign(item.unit)}
                    </TableCell>
                    <TableCell sx={{ pl: 4 }}>{m.person}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Sheet>
          <TraceSheet view={view} />
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          <Sheet title="What it says">
            <Box
              component="dl"
              sx={{
                display: 'grid',
                gridTemplateColumns: '110px 1fr',
                gap: 0.75,
                m: 0,
                '& dt': { color: 'text.secondary' },
                '& dd': { m: 0 },
              }}
            >
              {facts
                .filter(([, v]) => v !== null && v !== '' && v !== false)
                .map(([k, v]) => (
                  <Fragment key={k}>
                    <dt>{k}</dt>
                    <dd>{v}</dd>
                  </Fragment>
                ))}
            </Box>
          </Sheet>
          {mayMove && <MoveSheet view={view} usedUp={movements[0]?.reason === 'used up'} />}
        </Box>
      </Box>
    </>
  );
}

function TraceSheet({ view: { lot, item, trace } }: { view: LotView }) {
  const { kitchen } = useHere();
  const jars = lot.facts.from.filter(p => p.kind === 'jars');
  if (trace.from.length + trace.into.length + trace.batches.length + jars.length === 0) return null;
  const lots = (rows: LotRow[]) =>
    rows.map(({ lot: l, item: of }) => (
      <li key={l.id}>
        <MuiLink component={Link} to={`/stores/lots/${l.id}`}>
          {of.name}, lot {l.label}
        </MuiLink>{' '}
        <Soft>{l.supplier}</Soft>
      </li>
    ));
  const list = { m: 0, pl: 2.5 };
  return (
    <Sheet title="Trace">
      {(trace.from.length > 0 || jars.length > 0) && (
        <>
          <Soft>Came out of</Soft>
          <Box component="ul" sx={list}>
            {jars.map(p => (
              <li key={p.batchId}>
                <MuiLink component={Link} to={`/records/${p.batchId}`}>
                  {p.name}, lot {p.lotCode}
                </MuiLink>{' '}
                <Soft>jars {p.jars.join(', ')}</Soft>
              </li>
            ))}
            {lots(trace.from)}
          </Box>
        </>
      )}
      {trace.into.length > 0 && (
        <>
          <Soft>Went into lots</Soft>
          <Box component="ul" sx={list}>
            {lots(trace.into)}
          </Box>
        </>
      )}
      {trace.batches.length > 0 && (
        <>
          <Soft>Went into batches</Soft>
          <Box component="ul" sx={list}>
            {trace.batches.map(b => (
              <li key={b.batchId}>
                <MuiLink component={Link} to={`/records/${b.batchId}`}>
                  {b.name}, lot {b.lotCode}
                </MuiLink>{' '}
                <Soft>{stockText(b.quantity, item, kitchen)}</Soft>
              </li>
            ))}
          </Box>
        </>
      )}
    </Sheet>
  );
}

const KINDS: Partial<Record<MoveLot['kind'], string>> = {
  count: 'Counted: there is',
  loss: 'Lost or thrown out',
  'to supplier': 'Back to the supplier',
};

function MoveSheet({ view: { lot, item }, usedUp }: { view: LotView; usedUp: boolean }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const [id, setId] = useState(() => v7());
  const [kind, setKind] = useState<MoveLot['kind']>('count');
  const [faults, setFaults] = useState<Fault[]>([]);
  const form = useEntry({
    quantity: t =>
      readDecimal(t, kitchen.locale, { name: 'The quantity', min: 0, above: kind !== 'count', max: 1e7 }),
    reason: words('The reason'),
  });
  const send = async (body: Omit<MoveLot, 'id'>) => {
    try {
      await call(moveLot, { params: { lotId: lot.id }, body: { id, ...body } });
      setFaults([]);
      form.clear();
      setId(v7());
      await changed();
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const v = form.read();
    if (v) void send({ kind, ...v });
  };
  return (
    <Sheet title="Put it right">
      {usedUp && (
        <Button
          variant="contained"
          sx={{ mb: 2 }}
          onClick={() => void send({ kind: 'undo used up', quantity: '0', reason: 'It was not empty.' })}
        >
          It was not empty: take that back
        </Button>
      )}
      <Box component="form" noValidate onSubmit={submit} sx={{ display: 'grid', gap: 1.5 }}>
        <TextField
          select
          label="What happened"
          value={kind}
          onChange={e => setKind(e.target.value as MoveLot['kind'])}
        >
          {Object.entries(KINDS).map(([k, w]) => (
            <MenuItem key={k} value={k}>
              {w}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label={`How much${item.unit === 'each' ? '' : `, ${item.unit}`}`}
          inputMode="decimal"
          {...form.field('quantity')}
        />
        <TextField label="Why" {...form.field('reason')} />
        <Button type="submit" variant="outlined">
          Add the movement
        </Button>
      </Box>
      <Faults faults={faults} />
    </Sheet>
  );
}
