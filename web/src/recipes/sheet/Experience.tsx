import { addTasting, type PastBatch } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import { cookingFrom } from '@cocotte/core/forecast';
import { dayText, massText, numberText } from '@cocotte/core/measure';
import { Box, Button, Link as MuiLink, Rating } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Line } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { call } from '../../shell/call.ts';
import { anyWords, missing } from '../../kit/readers.ts';
import { Nothing, Sheet, Soft } from '../../kit/parts.tsx';
import { useMay } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { NO_FILTER, useHistory, useRecipes, useTastings, useVersions } from '../api.ts';

/** Past batches of the recipe: what was foreseen, what came out, and why. */
export function HistoryPanel({ recipeId, kitchen }: { recipeId: string; kitchen: Kitchen }) {
  const { data, error } = useHistory(recipeId);
  const batches = data?.batches ?? [];
  const seen = cookingFrom(batches.map(b => b.learned));
  return (
    <Sheet title="History" aside={batches.length > 0 ? 'pints foreseen and filled' : undefined}>
      <List
        label="Past batches"
        rows={data && batches.slice(0, 12)}
        error={error}
        keyOf={b => b.batchId}
        nothing="Not cooked yet. Each batch will show here what came out against what was foreseen."
        columns={[
          {
            head: 'Batch',
            order: b => b.madeOn,
            cell: b => (
              <>
                <MuiLink component={Link} to={`/records/${b.batchId}`} sx={{ whiteSpace: 'nowrap' }}>
                  {b.lotCode}
                </MuiLink>
                <Soft sx={{ fontSize: '0.88rem', display: 'block' }}>
                  {dayText(b.madeOn, kitchen)} · version {b.version} · {b.purpose}
                </Soft>
              </>
            ),
          },
          { head: 'Foreseen', figure: true, cell: b => pints(b.expected_pints, kitchen) },
          { head: 'Filled', figure: true, cell: b => pints(b.actual_pints, kitchen) },
          {
            head: 'Share',
            figure: true,
            order: b =>
              b.expected_pints && b.actual_pints !== null ? b.actual_pints / b.expected_pints : null,
            cell: b =>
              b.expected_pints && b.actual_pints !== null
                ? `${Math.round((b.actual_pints / b.expected_pints) * 100)} %`
                : '',
          },
          {
            head: say('history.cooked'),
            figure: true,
            order: b => b.learned.cook_min,
            cell: b => (b.learned.cook_min === null ? '' : `${b.learned.cook_min} min`),
          },
          {
            head: say('history.learned'),
            sx: { color: 'text.secondary' },
            cell: b => (b.jars === 0 ? 'No jar is filled yet.' : learnedText(b)),
          },
        ]}
      />
      {seen && (
        <Soft sx={{ display: 'block', mt: 1 }}>
          {say('history.seen', { n: seen.batches, least: seen.least_min, most: seen.most_min })}{' '}
          {seen.boilOff_gPerMin !== null &&
            say('history.boiled', { off: massText(seen.boilOff_gPerMin, kitchen) })}
        </Soft>
      )}
    </Sheet>
  );
}

/** Why it came out as it did, how it set, and what was found in its jars. */
function learnedText({ reasons, learned }: PastBatch): string {
  const seen = [
    ...(learned.set === null ? [] : [say('look.setWords', { set: learned.set.replaceAll(' ', '') })]),
    ...learned.found.map(f =>
      say('last.faultIn', { fault: say('look.fault', { fault: f.fault }), n: f.jars }),
    ),
  ].join(', ');
  return [...reasons, ...(seen === '' ? [] : [`${seen}.`]), ...learned.said].join(' ');
}

const pints = (value: number | null, kitchen: Kitchen) =>
  value === null ? '' : numberText(value, kitchen, 2);

/** Notes and a rating after tasting. */
export function TastingPanel({ recipeId, kitchen }: { recipeId: string; kitchen: Kitchen }) {
  const { data } = useTastings(recipeId);
  const mayCook = useMay('cook');
  const client = useQueryClient();
  const [id, setId] = useState(() => v7());
  const form = useTyped({ rating: null as number | null, notes: '', lotCode: '' }, () => ({
    rating: (stars: number | null) =>
      stars === null
        ? {
            ok: false as const,
            fault: missing('No rating is given.', 'Recipes are compared by it.', 'Choose one to five.'),
          }
        : { ok: true as const, value: stars },
    notes: anyWords,
    lotCode: anyWords,
  }));
  const note = form.submit(async v => {
    await call(addTasting, { params: { recipeId }, body: { id, ...v } });
    setId(v7());
    form.again();
    void client.invalidateQueries({ queryKey: ['recipe', recipeId, 'tastings'] });
    void client.invalidateQueries({ queryKey: ['recipes'] });
  });
  const rating = form.typed('rating');
  const tastings = data?.tastings ?? [];
  return (
    <Sheet title="After tasting">
      {mayCook && (
        <EntryForm form={form} action="Note it" onSubmit={note} mt={0}>
          <Line>
            <Rating
              name="tasting"
              value={rating}
              onChange={(_, v) => form.set('rating', v)}
              getLabelText={n => `${n} of 5`}
              sx={{ color: 'live.fill', '& .MuiRating-iconEmpty': { color: 'rule.strong' } }}
            />
            <Soft>{rating === null ? 'not rated' : `${rating} of 5`}</Soft>
          </Line>
          <Text at={form.at('notes')} label="Set, taste, what to do otherwise" multiline minRows={2} />
          <Text at={form.at('lotCode')} label="Lot tasted, if known" />
        </EntryForm>
      )}
      {tastings.map(t => (
        <Box key={t.id} sx={{ mt: 1.5, pt: 1, borderTop: 1, borderColor: 'rule.main' }}>
          <strong>{t.rating} of 5</strong> {t.notes}
          <br />
          <Soft sx={{ fontSize: '0.88rem' }}>
            {t.person}, {dayText(t.day, kitchen)}
            {t.lotCode && `, lot ${t.lotCode}`}
          </Soft>
        </Box>
      ))}
      {tastings.length === 0 && !mayCook && <Nothing>Nobody has noted a tasting.</Nothing>}
    </Sheet>
  );
}

/** Versions of the recipe, and the recipes that vary it. */
export function VersionPanel({
  recipeId,
  variantOf,
  number,
  kitchen,
}: {
  recipeId: string;
  variantOf: string | null;
  number: number;
  kitchen: Kitchen;
}) {
  const { data } = useVersions(recipeId);
  const root = variantOf ?? recipeId;
  const family = useRecipes({ ...NO_FILTER, variantOf: root }).data?.pages.flatMap(p => p.recipes) ?? [];
  const versions = data?.versions ?? [];
  return (
    <Sheet title="Versions and variants">
      {versions.map(v => (
        <Box key={v.number} sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', py: 0.5 }}>
          <strong>Version {v.number}</strong>
          <Soft sx={{ flex: 1 }}>
            {dayText(v.createdAt.slice(0, 10), kitchen)}
            {v.frozen ? ', cooked from: it stays as it is' : ', not yet cooked from'}
          </Soft>
          {v.number > 1 && (
            <MuiLink
              component={Link}
              to={`/recipes/${recipeId}/difference?from=${v.number - 1}&to=${v.number}`}
            >
              what changed
            </MuiLink>
          )}
        </Box>
      ))}
      {versions.length > 2 && (
        <MuiLink component={Link} to={`/recipes/${recipeId}/difference?from=1&to=${number}`}>
          From the first to the newest
        </MuiLink>
      )}
      {family.length > 1 && (
        <Box sx={{ mt: 1.5, pt: 1, borderTop: 1, borderColor: 'rule.main' }}>
          {family.map(r => (
            <Box key={r.id}>
              {r.id === recipeId ? (
                <strong>{r.name}</strong>
              ) : (
                <MuiLink component={Link} to={`/recipes/${r.id}`}>
                  {r.name}
                </MuiLink>
              )}
              {r.variantOf === null && <Soft> · the first of them</Soft>}
            </Box>
          ))}
          <Box sx={{ mt: 1 }}>
            <Button component={Link} to={`/recipes/${root}/variants`} size="small" variant="outlined">
              Side by side
            </Button>
          </Box>
        </Box>
      )}
    </Sheet>
  );
}
