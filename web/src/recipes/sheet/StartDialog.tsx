import { startBatch } from '@cocotte/contract';
import { PURPOSES, type Purpose } from '@cocotte/core/batches';
import type { Pot } from '@cocotte/core/kitchen';
import { jarCountText } from '@cocotte/core/jars';
import type { JarsWanted, Recipe } from '@cocotte/core/recipes';
import { type RouteToSale, processFor, reviewFaults, unprovenFault } from '@cocotte/core/review';
import { steamFault } from '@cocotte/core/times';
import { Box, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { useWhen } from '../../batches/when.ts';
import { WhenFields } from '../../batches/WhenFields.tsx';
import { records } from '../../device/index.ts';
import { drawCount, makeStamp } from '../../outbox/index.ts';
import { call } from '../../shell/call.ts';
import { OneOf } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { useHere } from '../../shell/session.tsx';
import { useConfirmations } from '../api.ts';

const WORDS: Record<Purpose, string> = {
  sale: 'For sale',
  home: 'For home',
  gift: 'As a gift',
  trial: 'A trial: tasted and compared, never released',
};

/** Starts a batch for a purpose. The purpose stays: a jar never moves from home or trial to sale. */
export function StartDialog({
  recipe,
  recipeId,
  version,
  factor,
  jars,
  route,
  pot,
  doublePectin,
  planId,
  onClose,
}: {
  recipe: Recipe;
  recipeId: string;
  version: number;
  factor: string;
  jars: JarsWanted[];
  route: RouteToSale;
  pot: Pot | null;
  doublePectin: boolean;
  /** The plan this batch was; it is started under its id. */
  planId: string | null;
  onClose: () => void;
}) {
  const { person, kitchen } = useHere();
  const { data: confirmed } = useConfirmations();
  const times = jars
    .map(j => processFor(recipe, j.size, kitchen.altitude_m, kitchen))
    .flatMap(a => (a.ok ? [a.time] : []));
  /** Why it may not be sold, in the order of the keys: the authority, then the page. */
  const notForSale = !route.open
    ? route
    : confirmed
      ? unprovenFault(recipe, kitchen, times, confirmed.confirmations)
      : null;
  const form = useTyped(
    {
      purpose: (route.open ? 'sale' : 'trial') as Purpose,
      heat: 'boiling water' as 'boiling water' | 'steam',
    },
    () => ({}),
  );
  const { at } = form;
  const refusal = reviewFaults(recipe, kitchen).find(f => f.level === 'refused');
  const hotFill = times.some(t => t.method === 'hot-fill-hold');
  const steamFaults = times.map(steamFault);
  const someInSteam = steamFaults.includes(null);
  const noSteam =
    steamFaults.find(f => f !== null) ?? (times.length === 0 ? 'There is no time to run in steam.' : null);
  const when = useWhen(kitchen);
  const [batchId] = useState(() => planId ?? v7());
  const client = useQueryClient();
  const navigate = useNavigate();
  const start = form.submit(async ({ purpose, heat }) => {
    const happened = await when.read();
    if (!happened) return;
    const view = await call(startBatch, {
      body: {
        batchId,
        recipeId,
        recipeVersion: version,
        purpose,
        factor,
        jars,
        heat,
        potId: pot?.id ?? null,
        doublePectin,
        stamp: makeStamp('batch.started', person.id, happened.typedAt_ms, 0, await drawCount()),
      },
    });
    await records.hold(view);
    for (const key of ['recipes', 'plans', 'shopping', 'shelf'])
      void client.invalidateQueries({ queryKey: [key] });
    void navigate(`/cook/${batchId}`);
  });
  return (
    <FormDialog
      title={`Start ${jars.map(j => jarCountText(j.count, j.size)).join(' and ')} of ${recipe.name}`}
      action="Start the batch"
      // A choice of one tap is not something typed that could be lost.
      form={{ ...form, dirty: false }}
      disabled={refusal !== undefined}
      onClose={onClose}
      onSubmit={start}
    >
      <Typography sx={{ mb: 1, color: 'text.secondary' }}>
        The purpose stays with the jars. They get a lot code at once.
      </Typography>
      <OneOf
        at={at('purpose')}
        label="Purpose"
        hiddenLabel
        of={PURPOSES.map(p => [p, WORDS[p]] as const)}
        closed={notForSale ? ['sale'] : []}
      />
      {refusal && (
        <Typography sx={{ color: 'ox.main' }}>
          {refusal.what} {refusal.why} {refusal.next}
        </Typography>
      )}
      {times.length > 0 && !hotFill && (
        <Box sx={{ mt: 1 }}>
          <OneOf
            at={at('heat')}
            label="The jars are processed in"
            row
            of={['boiling water', ['steam', 'atmospheric steam']]}
            closed={someInSteam ? [] : ['steam']}
          />
          {noSteam && (
            <Typography sx={{ color: 'text.secondary' }}>
              {someInSteam ? 'Not for every jar; each load says in what: ' : 'No steam: '}
              {noSteam}
            </Typography>
          )}
        </Box>
      )}
      {notForSale && !refusal && (
        <Typography sx={{ color: 'ox.main' }}>
          Not for sale: {notForSale.what} {notForSale.why} {notForSale.next}
        </Typography>
      )}
      <Box sx={{ mt: 2 }}>
        <WhenFields when={when} />
      </Box>
    </FormDialog>
  );
}
