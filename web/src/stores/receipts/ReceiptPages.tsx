import { type ReceiptView, takeBackReceipt } from '@cocotte/contract';
import { type Fault, UNITS, dayText, moneyText } from '@cocotte/core/measure';
import {
  Box,
  Button,
  Link as MuiLink,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link, useParams } from 'react-router';
import { call, faultsOf } from '../../shell/call.ts';
import { Faults, Nothing, Sheet, ShowMore, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { ReasonDialog } from '../../shell/ReasonDialog.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Waiting } from '../../shell/Shell.tsx';
import { useItems, useReceipt, useReceipts, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { unitCostText } from '../words.ts';

/** Every receipt, newest first. */
export function ReceiptList() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [search, setSearch] = useState('');
  const list = useReceipts(useDeferredValue(search.trim()));
  const { data } = list;
  const rows = data?.pages.flatMap(p => p.receipts) ?? [];
  return (
    <>
      <ViewHead title="Receipts" detail="What was bought, and what it cost in the end.">
        {mayAdd && (
          <Button component={Link} to="/stores/receipts/import" variant="outlined">
            Bring in a file
          </Button>
        )}
        {mayAdd && (
          <Button component={Link} to="/stores/receipts/new" variant="contained">
            Record a receipt
          </Button>
        )}
      </ViewHead>
      <StoresNav />
      <Sheet>
        <TextField
          label="Supplier or number"
          value={search}
          onChange={e => setSearch(e.target.value)}
          sx={{ width: 260, mb: 1 }}
        />
        {rows.length > 0 ? (
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Supplier</TableCell>
                <TableCell>Day</TableCell>
                <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>Number</TableCell>
                <TableCell align="right">Lines</TableCell>
                <TableCell align="right">Total</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map(r => (
                <TableRow key={r.id}>
                  <TableCell>
                    <MuiLink component={Link} to={`/stores/receipts/${r.id}`} sx={{ fontWeight: 650 }}>
                      {r.supplier || 'no supplier'}
                    </MuiLink>{' '}
                    {r.takenBack && <Tag tone="live">taken back</Tag>}
                  </TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>{dayText(r.day, kitchen)}</TableCell>
                  <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>{r.number}</TableCell>
                  <TableCell align="right">{r.lines}</TableCell>
                  <TableCell align="right">{moneyText(r.total, kitchen)}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        ) : (
          data && <Nothing>{search ? 'No receipt has these words.' : 'No receipt is recorded yet.'}</Nothing>
        )}
        <ShowMore list={list} />
      </Sheet>
    </>
  );
}

/** One receipt as it was recorded, with what each line cost in the end. */
export function ReceiptPage() {
  const { receiptId = '' } = useParams();
  const { data, error } = useReceipt(receiptId);
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  return <Opened view={data} />;
}

function Opened({ view }: { view: ReceiptView }) {
  const { kitchen } = useHere();
  const mayChange = useMay('cook');
  const { data } = useItems();
  const changed = useStockChanged();
  const [asking, setAsking] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const { receipt, landed } = view;
  const takeBack = async (reason: string) => {
    setAsking(false);
    try {
      await call(takeBackReceipt, { params: { receiptId: receipt.id }, body: { reason } });
      setFaults([]);
    } catch (error) {
      setFaults(faultsOf(error));
    }
    await changed();
  };
  const spread = [
    ['Discount', receipt.discount, '−'],
    ['Tax', receipt.tax, ''],
    ['Delivery', receipt.delivery, ''],
  ].filter(([, amount]) => Number(amount) > 0);
  return (
    <>
      <ViewHead
        title={receipt.supplier || 'Receipt'}
        detail={
          <>
            {dayText(receipt.day, kitchen)}
            {receipt.number && ` · number ${receipt.number}`}
          </>
        }
      >
        {mayChange && view.takenBack === '' && (
          <Button variant="outlined" onClick={() => setAsking(true)}>
            Take it back
          </Button>
        )}
      </ViewHead>
      <StoresNav />
      <Faults faults={faults} />
      {view.takenBack !== '' && (
        <Sheet tone="live" sx={{ mb: 2 }}>
          Taken back: {view.takenBack}
        </Sheet>
      )}
      <Sheet sx={{ overflowX: 'auto' }}>
        <Table size="small" aria-label="Lines of the receipt" sx={{ minWidth: 560 }}>
          <TableHead>
            <TableRow>
              <TableCell>Item</TableCell>
              <TableCell>Lot</TableCell>
              <TableCell>Came</TableCell>
              <TableCell align="right">Goods</TableCell>
              <TableCell align="right">In the end</TableCell>
              <TableCell align="right">Cost</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {receipt.lines.map((line, i) => {
              const item = data?.items.find(x => x.id === line.itemId);
              const land = landed[i];
              return (
                <TableRow key={line.id}>
                  <TableCell sx={{ fontWeight: 650 }}>{item?.name ?? ''}</TableCell>
                  <TableCell>
                    <MuiLink component={Link} to={`/stores/lots/${line.lotId}`}>
                      {line.label}
                    </MuiLink>
                    {line.facts.supplierLot && (
                      <Box>
                        <Soft>theirs: {line.facts.supplierLot}</Soft>
                      </Box>
                    )}
                  </TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>
                    {line.packages !== '1' && `${line.packages} × `}
                    {line.quantity} {line.unit === 'each' ? '' : UNITS[line.unit].symbol || line.unit}
                  </TableCell>
                  <TableCell align="right">{land && moneyText(land.goods, kitchen)}</TableCell>
                  <TableCell align="right" sx={{ fontWeight: 650 }}>
                    {land && moneyText(land.landed, kitchen)}
                  </TableCell>
                  <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                    {land && item && unitCostText(land.unitCost, item, kitchen)}
                  </TableCell>
                </TableRow>
              );
            })}
            {spread.map(([name, amount, sign]) => (
              <TableRow key={name}>
                <TableCell colSpan={3} sx={{ color: 'text.secondary' }}>
                  {name}, spread over the lines
                </TableCell>
                <TableCell align="right" sx={{ color: 'text.secondary' }}>
                  {sign}
                  {moneyText(amount as string, kitchen)}
                </TableCell>
                <TableCell colSpan={2} />
              </TableRow>
            ))}
            <TableRow>
              <TableCell colSpan={4} sx={{ fontWeight: 700 }}>
                Total
              </TableCell>
              <TableCell align="right" sx={{ fontWeight: 700 }}>
                {moneyText(view.total, kitchen)}
              </TableCell>
              <TableCell />
            </TableRow>
          </TableBody>
        </Table>
      </Sheet>
      {asking && (
        <ReasonDialog
          title="Why is this receipt taken back?"
          action="Take it back"
          onClose={() => setAsking(false)}
          onReason={reason => void takeBack(reason)}
        />
      )}
    </>
  );
}
