import { finishReceiptImport, putMapping, receiptImportPart, removeMapping } from '@cocotte/contract';
import { type Fault, dayOf, numberText, byName } from '@cocotte/core/measure';
import {
  BUYING_UNITS,
  type CsvMapping,
  type CsvReceipts,
  CSV_FIELDS,
  emptyMapping,
} from '@cocotte/core/stores';
import { Box, Button, LinearProgress, MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import * as comlink from 'comlink';
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { v7 } from 'uuid';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { Faults, Sheet, Soft, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useItems, useMappings, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { lineWords, partsOf } from './import-parts.ts';
import { LinesNotTaken } from './LinesNotTaken.tsx';
import type { CsvGlance, ReceiptReader } from './receipts.worker.ts';

const DELIMITERS = byName<string>({ ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' });
const NEEDED = ['day', 'item', 'quantity', 'price'] as const;

interface Outcome {
  receipts: number;
  lots: number;
  known: number;
}

/** Receipts out of a file: what each column means, what can be taken, and a report of the lines that cannot. */
export function ImportPage() {
  const { kitchen } = useHere();
  const { data } = useItems();
  const { data: saved } = useMappings();
  const client = useQueryClient();
  const changed = useStockChanged();
  const worker = useRef<{ api: comlink.Remote<ReceiptReader>; end: () => void } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const [glance, setGlance] = useState<CsvGlance | null>(null);
  const [mapping, setMapping] = useState<CsvMapping>({ ...emptyMapping });
  const [mappingName, setMappingName] = useState('');
  const [reading, setReading] = useState<CsvReceipts | null>(null);
  const [progress, setProgress] = useState<{ words: string; share: number } | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [again, setAgain] = useState(false);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  useEffect(() => () => worker.current?.end(), []);
  const api = () => {
    if (!worker.current) {
      const w = new Worker(new URL('./receipts.worker.ts', import.meta.url), { type: 'module' });
      worker.current = { api: comlink.wrap<ReceiptReader>(w), end: () => w.terminate() };
    }
    return worker.current.api;
  };
  const open = async (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    if (!file) return;
    setOutcome(null);
    setReading(null);
    setFaults([]);
    setProgress({ words: 'Reading the file', share: 0 });
    const seen = await api().open(new Uint8Array(await file.arrayBuffer()));
    setGlance(seen);
    setMapping(m => ({ ...m, columns: seen.columns }));
    setProgress(null);
  };
  const change = (part: Partial<CsvMapping>) => {
    setMapping(m => ({ ...m, ...part }));
    setReading(null);
  };
  const read = async (next = mapping) => {
    setFaults([]);
    setOutcome(null);
    setProgress({ words: 'Reading lines', share: 0 });
    const today = dayOf(kitchenNow(), kitchen.zone);
    const result = await api().read(
      next,
      data?.items ?? [],
      today,
      comlink.proxy((done: number, of: number) =>
        // The last word of the worker may come after its answer: then there is nothing to wait for.
        setProgress(p => p && { words: 'Reading lines', share: of === 0 ? 1 : done / of }),
      ),
    );
    setReading(result);
    setProgress(null);
  };
  const take = async () => {
    if (!reading) return;
    setFaults([]);
    const importId = v7();
    const parts = partsOf(reading.receipts);
    let sent = 0;
    try {
      for (const part of parts) {
        await call(receiptImportPart, { params: { importId }, body: part });
        sent += part.receipts.length;
        setProgress({ words: 'Checking at the kitchen', share: sent / reading.receipts.length });
      }
      setProgress({ words: 'Putting it on the shelf', share: 1 });
      setOutcome(
        await call(finishReceiptImport, {
          params: { importId },
          body: { count: reading.receipts.length, again },
        }),
      );
      await changed();
    } catch (error) {
      const from = error instanceof CallError ? sent : 0;
      setFaults(faultsOf(error).map(f => ({ ...f, what: `${lineWords(f.path, from, reading)}${f.what}` })));
    } finally {
      setProgress(null);
    }
  };
  const save = async () => {
    const id = saved?.mappings.find(m => m.name === mappingName.trim())?.id ?? v7();
    try {
      await call(putMapping, { params: { mappingId: id }, body: { id, name: mappingName.trim(), mapping } });
      await client.invalidateQueries({ queryKey: ['mappings'] });
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const forget = async (mappingId: string) => {
    await call(removeMapping, { params: { mappingId } });
    await client.invalidateQueries({ queryKey: ['mappings'] });
  };
  const missing = NEEDED.filter(f => mapping.columns[f] === undefined);
  return (
    <>
      <ViewHead
        title="Receipts from a file"
        detail="A delimited text file, one line for each thing bought."
      />
      <StoresNav />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
        <Sheet title="The file">
          <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
            <Button variant={glance ? 'outlined' : 'contained'} onClick={() => input.current?.click()}>
              Choose a file
            </Button>
            <input
              ref={input}
              type="file"
              accept=".csv,.tsv,.txt,text/csv"
              hidden
              onChange={e => void open(e)}
              aria-label="File of receipts"
            />
            {glance && (
              <Soft>
                {numberText(glance.rows, kitchen, 0)} lines, {glance.encoding}, divided by{' '}
                {DELIMITERS[glance.delimiter] ?? glance.delimiter}
              </Soft>
            )}
            {saved && saved.mappings.length > 0 && (
              <TextField
                select
                label="Read it as before"
                value=""
                sx={{ width: 220 }}
                onChange={e => {
                  const m = saved.mappings.find(x => x.id === e.target.value);
                  if (!m) return;
                  change(m.mapping);
                  setMappingName(m.name);
                }}
              >
                {saved.mappings.map(m => (
                  <MenuItem key={m.id} value={m.id}>
                    {m.name}
                  </MenuItem>
                ))}
              </TextField>
            )}
          </Box>
          {progress && (
            <Box sx={{ mt: 2 }} role="status">
              {progress.words}
              <LinearProgress
                variant="determinate"
                value={progress.share * 100}
                aria-label={progress.words}
                sx={{ mt: 0.5 }}
              />
            </Box>
          )}
        </Sheet>
        {glance && (
          <Sheet title="What the columns mean">
            <Box
              sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(190px, 1fr))', gap: 1.5 }}
            >
              {CSV_FIELDS.map(field => (
                <TextField
                  key={field}
                  select
                  label={`${field[0]?.toUpperCase()}${field.slice(1)}${(NEEDED as readonly string[]).includes(field) ? ' (needed)' : ''}`}
                  value={mapping.columns[field] ?? ''}
                  onChange={e => {
                    const { [field]: _gone, ...rest } = mapping.columns;
                    change({ columns: e.target.value === '' ? rest : { ...rest, [field]: e.target.value } });
                  }}
                >
                  <MenuItem value="">not in the file</MenuItem>
                  {[...new Set(glance.headings)].filter(Boolean).map(h => (
                    <MenuItem key={h} value={h}>
                      {h} <Soft sx={{ ml: 1 }}>{glance.sample[0]?.[glance.headings.indexOf(h)]}</Soft>
                    </MenuItem>
                  ))}
                </TextField>
              ))}
              <TextField
                select
                label="Days are written"
                value={mapping.dayOrder}
                onChange={e => change({ dayOrder: e.target.value as CsvMapping['dayOrder'] })}
              >
                {['year first', 'month first', 'day first'].map(o => (
                  <MenuItem key={o} value={o}>
                    {o}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                select
                label="Decimals begin with"
                value={mapping.decimalMark}
                onChange={e => change({ decimalMark: e.target.value as '.' | ',' })}
              >
                <MenuItem value=".">a point</MenuItem>
                <MenuItem value=",">a comma</MenuItem>
              </TextField>
              <TextField
                select
                label="The price is"
                value={mapping.pricedBy}
                onChange={e => change({ pricedBy: e.target.value as CsvMapping['pricedBy'] })}
              >
                <MenuItem value="line">for the line</MenuItem>
                <MenuItem value="package">for a package</MenuItem>
                <MenuItem value="unit">for a unit</MenuItem>
              </TextField>
              <TextField
                select
                label="Where no unit is written"
                value={mapping.unit}
                onChange={e => change({ unit: e.target.value as CsvMapping['unit'] })}
              >
                <MenuItem value="">the line is at fault</MenuItem>
                {BUYING_UNITS.map(u => (
                  <MenuItem key={u} value={u}>
                    it is {u === 'each' ? 'pieces' : u}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                label="Where no supplier is written"
                value={mapping.supplier}
                onChange={e => change({ supplier: e.target.value })}
              />
            </Box>
            <Box sx={{ display: 'flex', gap: 1.5, mt: 2, flexWrap: 'wrap', alignItems: 'center' }}>
              <Button
                variant="contained"
                disabled={missing.length > 0 || progress !== null}
                onClick={() => void read()}
              >
                Read the lines
              </Button>
              {missing.length > 0 && <Soft>Still to say: which column is {missing.join(', ')}.</Soft>}
              <Box sx={{ flex: 1 }} />
              <TextField
                label="Keep this reading as"
                value={mappingName}
                onChange={e => setMappingName(e.target.value)}
                sx={{ width: 200 }}
              />
              <Button variant="outlined" disabled={mappingName.trim() === ''} onClick={() => void save()}>
                Keep
              </Button>
              {saved?.mappings.some(m => m.name === mappingName.trim()) && (
                <Button
                  onClick={() =>
                    void forget(saved.mappings.find(m => m.name === mappingName.trim())?.id as string)
                  }
                >
                  Forget
                </Button>
              )}
            </Box>
          </Sheet>
        )}
        <Faults faults={faults} />
        {reading && reading.unknownNames.length > 0 && (
          <Sheet title="Names that stand for no item yet" aside="kept with the reading">
            <Box
              sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(240px, 1fr))', gap: 1.5 }}
            >
              {reading.unknownNames.slice(0, 60).map(name => (
                <TextField
                  key={name}
                  select
                  label={name}
                  value={mapping.names[name.toLowerCase()] ?? ''}
                  onChange={e =>
                    setMapping(m => ({ ...m, names: { ...m.names, [name.toLowerCase()]: e.target.value } }))
                  }
                >
                  {(data?.items ?? [])
                    .filter(i => i.kind !== 'tool')
                    .map(i => (
                      <MenuItem key={i.id} value={i.id}>
                        {i.name}
                      </MenuItem>
                    ))}
                </TextField>
              ))}
            </Box>
            <Button variant="outlined" sx={{ mt: 1.5 }} onClick={() => void read(mapping)}>
              Read the lines again
            </Button>
          </Sheet>
        )}
        {reading && !outcome && (
          <Sheet
            title={`${numberText(reading.receipts.length, kitchen, 0)} ${reading.receipts.length === 1 ? 'receipt' : 'receipts'} can be taken`}
            aside={`${numberText(
              reading.receipts.reduce((n, r) => n + r.lines.length, 0),
              kitchen,
              0,
            )} of ${numberText(reading.rows, kitchen, 0)} lines`}
          >
            <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
              <Button
                variant="contained"
                disabled={reading.receipts.length === 0 || progress !== null}
                onClick={() => void take()}
              >
                Put them on the shelf
              </Button>
              <TextField
                select
                label="Receipts that are there already"
                value={again ? 'again' : 'leave'}
                onChange={e => setAgain(e.target.value === 'again')}
                sx={{ width: 240 }}
              >
                <MenuItem value="leave">leave out</MenuItem>
                <MenuItem value="again">take again</MenuItem>
              </TextField>
              <Soft>All of them or none.</Soft>
            </Box>
          </Sheet>
        )}
        {outcome && (
          <Sheet tone="live">
            <Box role="status">
              {numberText(outcome.receipts, kitchen, 0)} receipts are on the shelf,{' '}
              {numberText(outcome.lots, kitchen, 0)} lots.
              {outcome.known > 0 &&
                ` ${numberText(outcome.known, kitchen, 0)} were there already and were left out.`}
            </Box>
          </Sheet>
        )}
        {reading && reading.faults.length > 0 && (
          <LinesNotTaken faults={reading.faults} leftOut={reading.leftOut} />
        )}
      </Box>
    </>
  );
}
