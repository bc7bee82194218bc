import { type ReceiptView, takeBackReceipt } from '@cocotte/contract';
import { type Fault, UNITS, dayText, moneyText, numberText } from '@cocotte/core/measure';
import { Button, Link as MuiLink, TableCell, TableRow } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link, useParams } from 'react-router';
import { call, faultsOf } from '../../shell/call.ts';
import { Search } from '../../kit/controls.tsx';
import { List, pagesOf } from '../../kit/List.tsx';
import { Faults, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { ReasonDialog } from '../../kit/ReasonDialog.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Loaded } from '../../kit/Loaded.tsx';
import { useItems, useReceipt, useReceipts, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { unitCostText } from '../words.ts';

/** Every receipt, newest first. */
export function ReceiptList() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [search, setSearch] = useState('');
  const list = useReceipts(useDeferredValue(search.trim()));
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
        <List
          label="Receipts"
          {...pagesOf(list, p => p.receipts)}
          find={
            <Search label="Supplier or number" value={search} onText={setSearch} sx={{ width: 260, mb: 1 }} />
          }
          keyOf={r => r.id}
          nothing={search ? 'No receipt has these words.' : 'No receipt is recorded yet.'}
          columns={[
            {
              head: 'Supplier',
              order: r => r.supplier,
              cell: r => (
                <>
                  <MuiLink component={Link} to={`/stores/receipts/${r.id}`} sx={{ fontWeight: 650 }}>
                    {r.supplier || 'no supplier'}
                  </MuiLink>{' '}
                  {r.takenBack && <Tag tone="live">taken back</Tag>}
                </>
              ),
            },
            { head: 'Day', whole: true, order: r => r.day, cell: r => dayText(r.day, kitchen) },
            { head: 'Number', from: 'sm', cell: r => r.number },
            { head: 'Lines', figure: true, cell: r => r.lines },
            {
              head: 'Total',
              figure: true,
              order: r => Number(r.total),
              cell: r => moneyText(r.total, kitchen),
            },
          ]}
        />
      </Sheet>
    </>
  );
}

/** One receipt as it was recorded, with what each line cost in the end. */
export function ReceiptPage() {
  const { receiptId = '' } = useParams();
  return <Loaded query={useReceipt(receiptId)}>{view => <Opened view={view} />}</Loaded>;
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
  const lines = receipt.lines.map((line, i) => ({
    line,
    item: data?.items.find(x => x.id === line.itemId),
    land: landed[i],
  }));
  const plain = (figure: string) => numberText(Number(figure), kitchen);
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
      <Sheet>
        <List
          label="Lines of the receipt"
          minWidth={560}
          rows={lines}
          keyOf={l => l.line.id}
          columns={[
            { head: 'Item', sx: { fontWeight: 650 }, cell: l => l.item?.name ?? '' },
            {
              head: 'Lot',
              cell: ({ line }) => (
                <>
                  <MuiLink component={Link} to={`/stores/lots/${line.lotId}`}>
                    {line.label}
                  </MuiLink>
                  {line.facts.supplierLot && (
                    <Soft sx={{ display: 'block' }}>theirs: {line.facts.supplierLot}</Soft>
                  )}
                </>
              ),
            },
            {
              head: 'Came',
              whole: true,
              cell: ({ line }) =>
                `${line.packages === '1' ? '' : `${plain(line.packages)} × `}${plain(line.quantity)} ${line.unit === 'each' ? '' : UNITS[line.unit].symbol || line.unit}`,
            },
            { head: 'Goods', figure: true, cell: ({ land }) => land && moneyText(land.goods, kitchen) },
            {
              head: 'In the end',
              figure: true,
              sx: { fontWeight: 650 },
              cell: ({ land }) => land && moneyText(land.landed, kitchen),
            },
            {
              head: 'Cost',
              figure: true,
              cell: ({ land, item }) => land && item && unitCostText(land.unitCost, item, kitchen),
            },
          ]}
          foot={
            <>
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
              <TableRow sx={{ '& td': { fontWeight: 700 } }}>
                <TableCell colSpan={4}>Total</TableCell>
                <TableCell align="right">{moneyText(view.total, kitchen)}</TableCell>
                <TableCell />
              </TableRow>
            </>
          }
        />
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
