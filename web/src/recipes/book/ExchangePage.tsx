import {
  IMPORT_PART,
  type ImportPart,
  exportRecipes,
  finishImport,
  importPart,
  listIngredients,
} from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import type { ExchangeFormat, FileFault } from '@cocotte/core/exchange';
import type { Recipe } from '@cocotte/core/recipes';
import { Box, Button, Checkbox, FormControlLabel, LinearProgress, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import * as comlink from 'comlink';
import { type ChangeEvent, useRef, useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { Toggle } from '../../kit/controls.tsx';
import { Columns } from '../../kit/layout.tsx';
import { giveOut } from '../../kit/give-out.ts';
import { List } from '../../kit/List.tsx';
import { faultText } from '../../kit/readers.ts';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import type { Checked, Exchange } from './exchange.worker.ts';
import { misread } from '../../words/views.ts';

const FORMATS: Record<ExchangeFormat, { name: string; ending: string; type: string }> = {
  json: { name: 'JSON', ending: 'json', type: 'application/json' },
  csv: { name: 'CSV', ending: 'csv', type: 'text/csv' },
  jsonld: { name: 'schema.org (JSON-LD)', ending: 'jsonld', type: 'application/ld+json' },
};

/** The worker that reads and writes files, for as long as one job takes. */
async function withWorker<T>(job: (exchange: comlink.Remote<Exchange>) => Promise<T>): Promise<T> {
  const worker = new Worker(new URL('./exchange.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await job(comlink.wrap<Exchange>(worker));
  } finally {
    worker.terminate();
  }
}

interface Progress {
  doing: string;
  done: number;
  all: number;
}

/** Recipes in and out as files: open formats, nothing lost, and nothing taken by halves. */
export function ExchangePage() {
  const mayAdd = useMay('cook');
  return (
    <>
      <ViewHead
        title="Bring in, take out"
        detail="Recipes as JSON, CSV or schema.org. What goes out comes back whole."
      />
      <Columns of="3fr 2fr">
        {mayAdd && <BringIn />}
        <TakeOut />
      </Columns>
    </>
  );
}

function Running({ progress }: { progress: Progress }) {
  return (
    <Box role="status" sx={{ mt: 2 }}>
      <Typography sx={{ mb: 0.5 }}>
        {progress.doing} {progress.done} of {progress.all}
      </Typography>
      <LinearProgress
        variant="determinate"
        value={progress.all === 0 ? 0 : (progress.done / progress.all) * 100}
        aria-label={progress.doing}
      />
    </Box>
  );
}

function BringIn() {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [newCodes, setNewCodes] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [fileFaults, setFileFaults] = useState<{ faults: FileFault[]; more: number } | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [done, setDone] = useState<{ added: number; recoded: number; notes: string[] } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const take = async (file: File) => {
    setFileFaults(null);
    setFaults([]);
    setDone(null);
    const format: ExchangeFormat = /\.csv$/i.test(file.name)
      ? 'csv'
      : /\.jsonld$/i.test(file.name)
        ? 'jsonld'
        : 'json';
    try {
      const text = await file.text();
      const own = (await call(listIngredients)).ingredients.map(o => o.ingredient);
      setProgress({ doing: 'Checked', done: 0, all: 1 });
      const chosen = format === 'json' && /"@context"/.test(text.slice(0, 2000)) ? 'jsonld' : format;
      const read = await withWorker<Checked>(async x =>
        x.read(
          chosen,
          text,
          kitchen.locale,
          own,
          comlink.proxy((n, all) => setProgress({ doing: 'Checked', done: n, all })),
        ),
      );
      if (!read.ok) {
        setFileFaults(read);
        return;
      }
      if (read.recipes.length === 0) {
        setFaults([misread('no-recipe').fault]);
        return;
      }
      const result = await bringIn(read, newCodes, setProgress);
      setDone({ ...result, notes: read.notes });
      void client.invalidateQueries({ queryKey: ['recipes'] });
    } catch (error) {
      setFaults(
        faultsOf(error).map(f => ({ ...f, what: f.path ? `${placeOf(f.path)}: ${f.what}` : f.what })),
      );
    } finally {
      setProgress(null);
    }
  };
  const onFile = (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = '';
    if (file) void take(file);
  };
  return (
    <Sheet title="Bring in a file">
      <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>
        The whole file is checked before anything is taken; a file with a fault adds nothing, and each fault
        is named by its line and field.
      </Typography>
      <FormControlLabel
        control={<Checkbox checked={newCodes} onChange={(_, on) => setNewCodes(on)} />}
        label="Give a new code to a recipe whose code is taken or missing"
      />
      <Box sx={{ mt: 1 }}>
        <Button variant="contained" disabled={progress !== null} onClick={() => input.current?.click()}>
          Choose a file
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,.csv,.jsonld,application/json,text/csv"
          hidden
          onChange={onFile}
          aria-label="File to bring in"
        />
      </Box>
      {progress && <Running progress={progress} />}
      <Faults faults={faults} />
      {fileFaults && (
        <Box role="alert" sx={{ mt: 2 }}>
          <Typography sx={{ color: 'ox.main', fontWeight: 700 }}>
            Nothing was taken: {fileFaults.faults.length + fileFaults.more}{' '}
            {fileFaults.faults.length + fileFaults.more === 1 ? 'fault' : 'faults'} in the file.
          </Typography>
          <List
            label="Faults in the file"
            rows={fileFaults.faults}
            keyOf={f => `${f.line} ${f.path} ${f.code}`}
            columns={[
              { head: 'Line', cell: f => f.line, order: f => f.line },
              { head: 'Field', cell: f => f.path, order: f => f.path },
              { head: 'What is wrong', cell: f => faultText(f) },
            ]}
          />
          {fileFaults.more > 0 && <Soft>and {fileFaults.more} more</Soft>}
        </Box>
      )}
      {done && (
        <Box role="status" sx={{ mt: 2 }}>
          <strong>
            {done.added} {done.added === 1 ? 'recipe is' : 'recipes are'} in the book.
          </strong>{' '}
          {done.recoded > 0 && `${done.recoded} got a new code. `}
          <Link to="/recipes">Open the book</Link>
          {done.notes.length > 0 && (
            <Box component="ul" sx={{ pl: 2.5, mt: 1 }}>
              {done.notes.slice(0, 100).map(n => (
                <li key={n}>{n}</li>
              ))}
            </Box>
          )}
        </Box>
      )}
    </Sheet>
  );
}

const placeOf = (path: string) => {
  const place = /recipes\[(\d+)\]\.?(.*)/.exec(path);
  return place ? `Recipe ${Number(place[1]) + 1}${place[2] ? `, ${place[2]}` : ''}` : path;
};

/** Sends a checked import part by part, then puts it into the book in one piece. */
async function bringIn(
  { recipes, variantOf }: { recipes: Recipe[]; variantOf: (string | null)[] },
  newCodes: boolean,
  onProgress: (p: Progress) => void,
) {
  const importId = v7();
  const parts: ImportPart[] = [];
  let size = 0;
  for (const [i, recipe] of recipes.entries()) {
    const bytes = JSON.stringify(recipe).length;
    const last = parts.at(-1);
    // A part stays under the size one call may have.
    if (last && last.recipes.length < IMPORT_PART && size + bytes < PART_BYTES) {
      last.recipes.push(recipe);
      last.variantOf.push(variantOf[i] ?? null);
      size += bytes;
    } else {
      parts.push({ from: i, recipes: [recipe], variantOf: [variantOf[i] ?? null] });
      size = bytes;
    }
  }
  let sent = 0;
  const waiting = [...parts];
  const sendNext = async (): Promise<void> => {
    for (let part = waiting.shift(); part; part = waiting.shift()) {
      await call(importPart, { params: { importId }, body: part });
      sent += part.recipes.length;
      onProgress({ doing: 'Sent', done: sent, all: recipes.length });
    }
  };
  // Two on their way at once: one is read while the other is written.
  await Promise.all([sendNext(), sendNext()]);
  return call(finishImport, { params: { importId }, body: { count: recipes.length, newCodes } });
}
const PART_BYTES = 800_000;

function TakeOut() {
  const [format, setFormat] = useState<ExchangeFormat>('json');
  const [progress, setProgress] = useState<Progress | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const write = async () => {
    setFaults([]);
    try {
      const recipes: Recipe[] = [];
      let after = '';
      do {
        const page = await call(exportRecipes, { query: { after } });
        recipes.push(...page.recipes.map((r, i) => ({ ...r, variantOf: page.variantOf[i] ?? null })));
        setProgress({ doing: 'Read', done: recipes.length, all: page.total });
        after = page.next ?? '';
      } while (after !== '');
      const text = await withWorker(x => x.write(format, recipes));
      const { ending, type } = FORMATS[format];
      giveOut(new Blob([text], { type }), `recipes.${ending}`);
    } catch (error) {
      setFaults(faultsOf(error));
    } finally {
      setProgress(null);
    }
  };
  return (
    <Sheet title="Take out the book">
      <Toggle
        label="Format"
        value={format}
        of={(Object.keys(FORMATS) as ExchangeFormat[]).map(f => [f, FORMATS[f].name] as const)}
        onPick={setFormat}
      />
      <Box sx={{ mt: 2 }}>
        <Button variant="outlined" onClick={() => void write()} disabled={progress !== null}>
          Write the file
        </Button>
      </Box>
      {progress && <Running progress={progress} />}
      <Faults faults={faults} />
      <Typography sx={{ mt: 2, color: 'text.secondary', fontSize: '0.95rem' }}>
        The newest version of every recipe. The formats are written down in docs/exchange.md.
      </Typography>
    </Sheet>
  );
}
