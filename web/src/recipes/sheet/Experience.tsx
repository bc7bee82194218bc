import { addTasting } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Fault, dayText, numberText } from '@cocotte/core/measure';
import {
  Box,
  Button,
  Link as MuiLink,
  Rating,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { Faults, Nothing, Sheet, Soft } from '../../shell/parts.tsx';
import { useMay } from '../../shell/session.tsx';
import { NO_FILTER, useHistory, useRecipes, useTastings, useVersions } from '../api.ts';

/** Past batches of the recipe: what was foreseen, what came out, and why. */
export function HistoryPanel({ recipeId, kitchen }: { recipeId: string; kitchen: Kitchen }) {
  const { data } = useHistory(recipeId);
  const batches = data?.batches ?? [];
  return (
    <Sheet
      title="History"
      aside={batches.length > 0 ? 'pints foreseen and filled' : undefined}
      sx={{ overflowX: 'auto' }}
    >
      {batches.length === 0 ? (
        <Nothing>Not cooked yet. Each batch will show here what came out against what was foreseen.</Nothing>
      ) : (
        <Table size="small" aria-label="Past batches">
          <TableHead>
            <TableRow>
              <TableCell>Batch</TableCell>
              <TableCell align="right">Foreseen</TableCell>
              <TableCell align="right">Filled</TableCell>
              <TableCell align="right">Share</TableCell>
              <TableCell>Why</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {batches.slice(0, 12).map(b => (
              <TableRow key={b.batchId}>
                <TableCell>
                  <MuiLink component={Link} to={`/records/${b.batchId}`} sx={{ whiteSpace: 'nowrap' }}>
                    {b.lotCode}
                  </MuiLink>
                  <br />
                  <Soft sx={{ fontSize: '0.88rem' }}>
                    {dayText(b.madeOn, kitchen)} · version {b.version} · {b.purpose}
                  </Soft>
                </TableCell>
                <TableCell align="right">{pints(b.expected_pints, kitchen)}</TableCell>
                <TableCell align="right">{pints(b.actual_pints, kitchen)}</TableCell>
                <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                  {b.expected_pints && b.actual_pints !== null
                    ? `${Math.round((b.actual_pints / b.expected_pints) * 100)} %`
                    : ''}
                </TableCell>
                <TableCell sx={{ color: 'text.secondary' }}>
                  {b.jars === 0 ? 'No jar is filled yet.' : b.reasons.join(' ')}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Sheet>
  );
}

const pints = (value: number | null, kitchen: Kitchen) =>
  value === null ? '' : numberText(value, kitchen, 2);

/** Notes and a rating after tasting. */
export function TastingPanel({ recipeId, kitchen }: { recipeId: string; kitchen: Kitchen }) {
  const { data } = useTastings(recipeId);
  const mayCook = useMay('cook');
  const client = useQueryClient();
  const [rating, setRating] = useState<number | null>(null);
  const [notes, setNotes] = useState('');
  const [lotCode, setLotCode] = useState('');
  const [id, setId] = useState(() => v7());
  const [faults, setFaults] = useState<Fault[]>([]);
  const onSubmit = async (e: FormEvent) => {
    e.preventDefault();
    if (rating === null) {
      setFaults([
        {
          path: 'rating',
          code: 'missing',
          what: 'No rating is given.',
          why: 'Recipes are compared by it.',
          next: 'Choose one to five.',
        },
      ]);
      return;
    }
    try {
      await call(addTasting, {
        params: { recipeId },
        body: { id, rating, notes: notes.trim(), lotCode: lotCode.trim() },
      });
      setId(v7());
      setRating(null);
      setNotes('');
      setLotCode('');
      setFaults([]);
      void client.invalidateQueries({ queryKey: ['recipe', recipeId, 'tastings'] });
      void client.invalidateQueries({ queryKey: ['recipes'] });
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const tastings = data?.tastings ?? [];
  return (
    <Sheet title="After tasting">
      {mayCook && (
        <Box component="form" noValidate onSubmit={e => void onSubmit(e)} sx={{ display: 'grid', gap: 1.25 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
            <Rating
              name="tasting"
              value={rating}
              onChange={(_, v) => setRating(v)}
              getLabelText={n => `${n} of 5`}
              sx={{ color: 'live.fill', '& .MuiRating-iconEmpty': { color: 'rule.strong' } }}
            />
            <Soft>{rating === null ? 'not rated' : `${rating} of 5`}</Soft>
          </Box>
          <TextField
            label="Set, taste, what to do otherwise"
            multiline
            minRows={2}
            value={notes}
            onChange={e => setNotes(e.target.value)}
          />
          <Box sx={{ display: 'flex', gap: 1.25 }}>
            <TextField
              label="Lot tasted, if known"
              value={lotCode}
              onChange={e => setLotCode(e.target.value)}
            />
            <Button type="submit" variant="outlined" sx={{ flex: 'none' }}>
              Note it
            </Button>
          </Box>
          <Faults faults={faults} />
        </Box>
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
