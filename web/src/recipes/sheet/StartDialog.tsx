import { startBatch } from '@cocotte/contract';
import { PURPOSES, type Purpose } from '@cocotte/core/batches';
import type { Pot } from '@cocotte/core/kitchen';
import { jarCountText } from '@cocotte/core/jars';
import type { JarsWanted, Recipe } from '@cocotte/core/recipes';
import {
  type Confirmation,
  type RouteToSale,
  coldText,
  confirmationOf,
  pageOf,
  processFor,
  purposeFaults,
} from '@cocotte/core/review';
import { dayOf } from '@cocotte/core/measure';
import { steamFault } from '@cocotte/core/times';
import { Box, FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material';
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
import { Waiting } from '../../kit/Loaded.tsx';
import { Caution, Soft, Tag } from '../../kit/parts.tsx';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useConfirmations } from '../api.ts';
import { LastBatches } from './LastBatches.tsx';

const WORDS: Record<Purpose, string> = {
  sale: 'For sale',
  home: 'For home',
  gift: 'As a gift',
  trial: 'A trial: tasted and compared, never released',
};

const CLOSED: Record<Purpose, string> = {
  sale: 'for sale',
  home: 'for home',
  gift: 'as a gift',
  trial: 'as a trial',
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
  const faults = purposeFaults(recipe, {
    kitchen,
    sizes: jars.map(j => j.size),
    confirmations: confirmed?.confirmations ?? [],
    today: dayOf(kitchenNow(), kitchen.zone),
  });
  const possible = PURPOSES.filter(p => faults[p] === null);
  const form = useTyped(
    {
      purpose: '' as Purpose | '',
      heat: 'boiling water' as 'boiling water' | 'steam',
    },
    () => ({}),
  );
  const { at } = form;
  /** What is chosen, or the first that is possible: for sale where both keys turn. */
  const typed = form.typed('purpose');
  const purpose: Purpose = typed !== '' && possible.includes(typed) ? typed : (possible[0] ?? 'trial');
  const hotFill = times.some(t => t.method === 'hot-fill-hold');
  const steamFaults = times.map(steamFault);
  const someInSteam = steamFaults.includes(null);
  const noSteam =
    steamFaults.find(f => f !== null) ?? (times.length === 0 ? 'There is no time to run in steam.' : null);
  const when = useWhen(kitchen);
  const [batchId] = useState(() => planId ?? v7());
  const client = useQueryClient();
  const navigate = useNavigate();
  const start = form.submit(async ({ heat }) => {
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
      disabled={!confirmed || possible.length === 0}
      onClose={onClose}
      onSubmit={start}
    >
      <Typography sx={{ mb: 1, color: 'text.secondary' }}>
        The purpose stays with the jars. They get a lot code at once.
      </Typography>
      {confirmed ? (
        <>
          <RadioGroup
            aria-label="Purpose"
            value={purpose}
            onChange={(_, value) => form.set('purpose', value as Purpose)}
          >
            {possible.map(p => (
              <FormControlLabel
                key={p}
                value={p}
                control={<Radio />}
                label={WORDS[p]}
                sx={{ minHeight: 46 }}
              />
            ))}
          </RadioGroup>
          {purpose === 'sale' && (
            <Keys recipe={recipe} route={route} confirmations={confirmed.confirmations} />
          )}
          {times.length === 0 && (
            <Caution>
              {coldText(
                recipe,
                jars.map(j => j.size),
                dayOf(kitchenNow(), kitchen.zone),
                kitchen,
              )}
            </Caution>
          )}
          <Closed faults={faults} />
        </>
      ) : (
        <Waiting />
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
      <LastBatches recipeId={recipeId} />
      <Box sx={{ mt: 2 }}>
        <WhenFields when={when} />
      </Box>
    </FormDialog>
  );
}

/** The two keys of a batch for sale, each with its proof. */
function Keys({
  recipe,
  route,
  confirmations,
}: {
  recipe: Recipe;
  route: RouteToSale;
  confirmations: readonly Confirmation[];
}) {
  const { kitchen } = useHere();
  const page = pageOf(recipe, kitchen.altitude_m, kitchen);
  const read = page && confirmationOf(page, confirmations);
  const { rules } = kitchen.jurisdiction;
  const food = recipe.foodClass === 'refused' ? null : rules?.foods[recipe.foodClass];
  return (
    <Box component="ul" sx={{ m: 0, mt: 1, mb: 1.5, pl: 0, listStyle: 'none', '& li': { mb: 1 } }}>
      <li>
        <Tag tone="leaf">{say('key.process')}</Tag> {route.what}{' '}
        {read && (
          <Soft>
            {say(read.demo ? 'page.demo' : 'page.confirmed')}: {read.edition}, {read.page}.
          </Soft>
        )}
      </li>
      <li>
        <Tag tone="leaf">{say('key.place')}</Tag> {rules?.name}. <Soft>{food?.why}</Soft>
      </li>
    </Box>
  );
}

/** Purposes that are not possible, each with its reason, said once. */
function Closed({ faults }: { faults: ReturnType<typeof purposeFaults> }) {
  const groups = new Map<string, Purpose[]>();
  for (const p of PURPOSES) {
    const what = faults[p]?.what;
    if (what !== undefined) groups.set(what, [...(groups.get(what) ?? []), p]);
  }
  return [...groups].map(([what, purposes]) => {
    const fault = faults[purposes[0] as Purpose];
    return (
      <Box key={what} role="note" sx={{ mt: 1, pl: 1.5, borderLeft: 4, borderColor: 'live.fill' }}>
        <Soft>{say('purpose.closed', { which: purposes.map(p => CLOSED[p]).join(', ') })}</Soft>{' '}
        <strong>{what}</strong> {fault?.why} {fault?.next}
      </Box>
    );
  });
}
