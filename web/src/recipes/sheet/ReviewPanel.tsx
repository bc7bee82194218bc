import type { Kitchen } from '@cocotte/core/kitchen';
import { numberText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { type Review, type ReviewFault, type TrialReading, dossier, review } from '@cocotte/core/review';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';

const TONE: Record<ReviewFault['level'], 'ox' | 'live' | 'plain'> = {
  refused: 'ox',
  mend: 'live',
  note: 'plain',
};
const LEVEL: Record<ReviewFault['level'], string> = {
  refused: 'refused',
  mend: 'to mend before sale',
  note: 'good to know',
};

/** The review beside a recipe: its class, what is refused or to be mended, what a change did to its authority, its name. */
export function ReviewPanel({
  recipe,
  solids_pct = null,
  readings = [],
}: {
  recipe: Recipe;
  solids_pct?: number | null;
  /** Acidity read in its batches, for the list a process authority asks for. */
  readings?: TrialReading[];
}) {
  const { kitchen } = useHere();
  const [asking, setAsking] = useState(false);
  const found = useMemo(() => review(recipe, kitchen, solids_pct), [recipe, kitchen, solids_pct]);
  const needsLetter = !found.route.open && recipe.lines.length > 0 && found.foodClass !== 'refused';
  return (
    <Sheet
      title="Review"
      aside={<Tag tone={found.foodClass === 'refused' ? 'ox' : 'plain'}>{found.foodClass}</Tag>}
    >
      <Typography sx={{ color: 'text.secondary' }}>{found.classWhy}</Typography>
      {(['refused', 'mend'] as const).map(level =>
        found.faults
          .filter(f => f.level === level)
          .map(f => <Finding key={f.code + (f.lineId ?? '')} fault={f} />),
      )}
      <Changes found={found} />
      <NameCheck found={found} recipe={recipe} />
      <Balance found={found} />
      {found.faults
        .filter(f => f.level === 'note')
        .map(f => (
          <Finding key={f.code + (f.lineId ?? '')} fault={f} />
        ))}
      {needsLetter && (
        <Button variant="outlined" size="small" sx={{ mt: 2 }} onClick={() => setAsking(true)}>
          What a process authority will ask for
        </Button>
      )}
      {asking && (
        <Dossier recipe={recipe} kitchen={kitchen} readings={readings} onClose={() => setAsking(false)} />
      )}
    </Sheet>
  );
}

function Finding({ fault }: { fault: ReviewFault }) {
  return (
    <Box
      role={fault.level === 'note' ? undefined : 'note'}
      sx={{
        mt: 1.5,
        pl: 1.5,
        borderLeft: 4,
        borderColor:
          fault.level === 'refused' ? 'ox.main' : fault.level === 'mend' ? 'live.fill' : 'rule.main',
      }}
    >
      <Box sx={{ mb: 0.25 }}>
        <Tag tone={TONE[fault.level]}>{LEVEL[fault.level]}</Tag>
      </Box>
      <strong>{fault.what}</strong> {fault.why} {fault.next}{' '}
      <Soft sx={{ fontSize: '0.88rem' }}>{fault.source}</Soft>
    </Box>
  );
}

function Changes({ found }: { found: Review }) {
  if (found.changes.length === 0) return null;
  const breaking = found.changes.filter(c => c.breaks);
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">
        {breaking.length > 0 ? 'Its authority no longer covers it' : 'Changed, and still covered'}
      </Typography>
      <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5, '& li': { mb: 0.75 } }}>
        {[...breaking, ...found.changes.filter(c => !c.breaks)].map(c => (
          <li key={c.code + c.what}>
            <strong>{c.what}</strong> {c.why}{' '}
            {c.breaks ? (
              <Box component="span" sx={{ color: 'ox.main' }}>
                {c.next}
              </Box>
            ) : (
              <Soft>Free.</Soft>
            )}
          </li>
        ))}
      </Box>
    </Box>
  );
}

function NameCheck({ found, recipe }: { found: Review; recipe: Recipe }) {
  const { identity } = found;
  if (identity.needed === null) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">
        {identity.meets ? `May be called ${recipe.product}` : `May not be called ${recipe.product}`}
      </Typography>
      <Typography sx={{ color: identity.meets ? 'text.secondary' : 'ox.main' }}>
        {identity.why} {identity.next}
      </Typography>
      {identity.instead.length > 0 && <Typography>Instead: {identity.instead.join(', ')}.</Typography>}
      <Soft sx={{ fontSize: '0.88rem' }}>{identity.source}</Soft>
    </Box>
  );
}

function Balance({ found }: { found: Review }) {
  const { kitchen } = useHere();
  const { balance } = found;
  if (balance.lowAcid_g === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">Low-acid share</Typography>
      <Typography>
        {numberText(balance.lowAcidShare * 100, kitchen, 0)} % of the fruit and produce is not safely acid
        (dried counted as fresh)
        {balance.barrierPer100_g !== null &&
          `; ${numberText(balance.barrierPer100_g, kitchen, 2)} g of acid, as acetic, for each 100 g of it in the jar`}
        .
      </Typography>
    </Box>
  );
}

/** The list a process authority will ask for, ready to send. */
function Dossier({
  recipe,
  kitchen,
  readings,
  onClose,
}: {
  recipe: Recipe;
  kitchen: Kitchen;
  readings: TrialReading[];
  onClose: () => void;
}) {
  const text = useMemo(() => dossier(recipe, kitchen, readings), [recipe, kitchen, readings]);
  const [copied, setCopied] = useState(false);
  // Only a page that came over TLS, or from this machine, may write to the clipboard.
  const mayCopy = window.isSecureContext;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="dossier-title">
      <DialogTitle id="dossier-title" variant="h2">
        For a process authority
      </DialogTitle>
      <DialogContent>
        <Box
          component="pre"
          tabIndex={0}
          sx={{ whiteSpace: 'pre-wrap', fontFamily: 'inherit', m: 0, fontSize: '0.98rem' }}
        >
          {text}
        </Box>
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button
          variant="outlined"
          component="a"
          href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
          download={`${recipe.code || 'recipe'}-for-a-process-authority.txt`}
        >
          Save as a text file
        </Button>
        {mayCopy && (
          <Button
            variant="outlined"
            onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
          >
            {copied ? 'Copied' : 'Copy it'}
          </Button>
        )}
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
