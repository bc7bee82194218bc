import {
  finishReceiptImport,
  listItems,
  putMapping,
  receiptImportPart,
  removeMapping,
  takeIn,
} from '@cocotte/contract';
import { type Fault, dayOf, numberText, byName } from '@cocotte/core/measure';
import {
  type CsvMapping,
  type CsvReceipts,
  emptyMapping,
  type FileAnswers,
  type Item,
  itemNamed,
} from '@cocotte/core/stores';
import { Box, Button, LinearProgress } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import * as comlink from 'comlink';
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { v7 } from 'uuid';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { Line, Stack } from '../../kit/layout.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useLibrary } from '../../recipes/library.ts';
import { say } from '../../words/views.ts';
import { useItems, useMappings, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { lineWords, partsOf } from './import-parts.ts';
import { Switcher } from '../../kit/controls.tsx';
import { MappingSheet } from './MappingSheet.tsx';
import { LinesNotTaken } from './LinesNotTaken.tsx';
import { Unsaid } from './Unsaid.tsx';
import type { CsvGlance, ReceiptReader } from './receipts.worker.ts';

const DELIMITERS = byName<string>({ ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' });

/** Items that one request makes. */
const MAKE_AT_ONCE = 100;

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
  const library = useLibrary();
  const client = useQueryClient();
  const changed = useStockChanged();
  const worker = useRef<{ api: comlink.Remote<ReceiptReader>; end: () => void } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const [glance, setGlance] = useState<CsvGlance | null>(null);
  const [mapping, setMapping] = useState<CsvMapping>({ ...emptyMapping });
  const [mappingName, setMappingName] = useState('');
  const [reading, setReading] = useState<CsvReceipts | null>(null);
  const [answers, setAnswers] = useState<FileAnswers>({});
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
    setAnswers({});
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
  const read = async (next = mapping, items = data?.items ?? []) => {
    setFaults([]);
    setOutcome(null);
    setProgress({ words: 'Reading lines', share: 0 });
    const today = dayOf(kitchenNow(), kitchen.zone);
    const result = await api().read(
      next,
      items,
      today,
      answers,
      comlink.proxy((done: number, of: number) =>
        // The last word of the worker may come after its answer: then there is nothing to wait for.
        setProgress(p => p && { words: 'Reading lines', share: of === 0 ? 1 : done / of }),
      ),
    );
    setReading(result);
    setProgress(null);
  };
  /** Makes an item of every name that stands for none, with what the library knows of it, and reads the lines again. */
  const makeAll = async (names: readonly string[]) => {
    setFaults([]);
    const open = names.filter(name => !mapping.names[name.toLowerCase()]);
    try {
      const made: Item[] = [];
      for (let at = 0; at < open.length; at += MAKE_AT_ONCE) {
        const some = open.slice(at, at + MAKE_AT_ONCE);
        const items = some.map(name => itemNamed(v7(), name, library.index));
        made.push(...(await call(takeIn, { body: { items, lots: [] } })).items);
      }
      const next = {
        ...mapping,
        names: {
          ...mapping.names,
          ...byName(open.map((name, i) => [name.toLowerCase(), made[i]?.id ?? ''])),
        },
      };
      setMapping(next);
      await changed();
      const { items } = await client.fetchQuery({ queryKey: ['items'], queryFn: () => call(listItems) });
      await read(next, items);
    } catch (error) {
      setFaults(faultsOf(error));
    }
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
  return (
    <>
      <ViewHead
        title="Receipts from a file"
        detail="A delimited text file, one line for each thing bought."
      />
      <StoresNav />
      <Stack>
        <Sheet title="The file">
          <Line>
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
            {/* What a file's columns are called comes with the file, and would overwrite a reading chosen before. */}
            {glance && saved && saved.mappings.length > 0 && (
              <Switcher
                label="Read it as before"
                value=""
                sx={{ width: 220 }}
                of={saved.mappings.map(m => [m.id, m.name] as const)}
                onPick={(id: string) => {
                  const m = saved.mappings.find(x => x.id === id);
                  if (!m) return;
                  change(m.mapping);
                  setMappingName(m.name);
                }}
              />
            )}
          </Line>
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
          <MappingSheet
            glance={glance}
            mapping={mapping}
            name={mappingName}
            setName={setMappingName}
            kept={saved?.mappings.find(m => m.name === mappingName.trim())}
            busy={progress !== null}
            onChange={change}
            onRead={() => void read()}
            onKeep={() => void save()}
            onForget={id => void forget(id)}
          />
        )}
        <Faults faults={faults} />
        {reading && reading.unknownNames.length > 0 && (
          <Sheet title="Names that stand for no item yet" aside="kept with the reading">
            <Box
              sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(240px, 1fr))', gap: 1.5 }}
            >
              {reading.unknownNames.slice(0, 60).map(name => (
                <Switcher
                  key={name}
                  label={name}
                  value={mapping.names[name.toLowerCase()] ?? ''}
                  of={(data?.items ?? []).filter(i => i.kind !== 'tool').map(i => [i.id, i.name] as const)}
                  onPick={itemId =>
                    setMapping(m => ({ ...m, names: { ...m.names, [name.toLowerCase()]: itemId } }))
                  }
                />
              ))}
            </Box>
            <Line mt={1.5}>
              <Button variant="outlined" onClick={() => void read(mapping)}>
                Read the lines again
              </Button>
              <Button variant="contained" onClick={() => void makeAll(reading.unknownNames)}>
                {say('import.makeAll', {
                  n: reading.unknownNames.filter(name => !mapping.names[name.toLowerCase()]).length,
                })}
              </Button>
              <Soft>{say('import.makeWhy')}</Soft>
            </Line>
          </Sheet>
        )}
        {reading && reading.unsaid.length > 0 && (
          <Unsaid
            uses={reading.unsaid}
            answers={answers}
            onAnswer={(use, kind) => setAnswers(a => ({ ...a, [use]: kind }))}
            onRead={() => void read()}
          />
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
            <Line>
              <Button
                variant="contained"
                disabled={reading.receipts.length === 0 || progress !== null}
                onClick={() => void take()}
              >
                Put them on the shelf
              </Button>
              <Switcher
                label="Receipts that are there already"
                value={again ? 'again' : 'leave'}
                of={[
                  ['leave', 'leave out'],
                  ['again', 'take again'],
                ]}
                onPick={picked => setAgain(picked === 'again')}
                sx={{ width: 240 }}
              />
              <Soft>All of them or none.</Soft>
            </Line>
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
      </Stack>
    </>
  );
}
