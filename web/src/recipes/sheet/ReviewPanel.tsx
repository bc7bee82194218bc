import type { Kitchen } from '@cocotte/core/kitchen';
import { numberText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import {
  type Review,
  type ReviewFault,
  type TrialReading,
  claimOf,
  dossier,
  review,
  withName,
} from '@cocotte/core/review';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { Line } from '../../kit/layout.tsx';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

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
  onCall,
}: {
  recipe: Recipe;
  solids_pct?: number | null;
  /** Acidity read in its batches, for the list a process authority asks for. */
  readings?: TrialReading[];
  /** Gives it one of its truthful names, where it is being written. */
  onCall?: (statement: string) => void;
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
      <Names found={found} recipe={recipe} onCall={onCall} />
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

/** Which names are truthful, with the figure that decides; chosen before anything is cooked, where it can be. */
function Names({
  found,
  recipe,
  onCall,
}: {
  found: Review;
  recipe: Recipe;
  onCall: ((statement: string) => void) | undefined;
}) {
  const { choices, weigh } = found.names;
  const claim = claimOf(recipe);
  const claimed = choices.find(c => c.name === claim?.name);
  const others = choices.filter(c => c !== claimed);
  const truthful = others.filter(c => c.truthful);
  if (choices.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">
        {claimed
          ? say(claimed.truthful ? 'names.may' : 'names.mayNot', { name: claimed.name })
          : say('names.title')}
      </Typography>
      {claimed && (
        <Typography sx={{ color: claimed.truthful ? 'text.secondary' : 'text.primary' }}>
          {claimed.near === 'amounts' && <Tag tone="live">{say('names.near')}</Tag>} {claimed.why}{' '}
          <Soft sx={{ fontSize: '0.88rem' }}>{claimed.source}</Soft>
        </Typography>
      )}
      {weigh.length > 0 && <Typography>{say('names.weigh', { what: weigh.join(', ') })}</Typography>}
      {truthful.length > 0 && (
        <Box sx={{ mt: 0.5 }}>
          {onCall ? (
            <Line mt={0.5}>
              <Soft>{say('names.callIt')}</Soft>
              {truthful.map(c => (
                <Button
                  key={c.name}
                  size="small"
                  variant="outlined"
                  onClick={() => onCall(withName(recipe, c.name))}
                >
                  {c.name}
                </Button>
              ))}
            </Line>
          ) : (
            say('names.also', { names: truthful.map(c => c.name).join(', ') })
          )}
        </Box>
      )}
      <Box component="details" sx={{ mt: 0.5, '& summary': { cursor: 'pointer' } }}>
        <summary>{say('names.figures')}</summary>
        <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5, '& li': { mb: 0.5 } }}>
          {others.map(c => (
            <li key={c.name}>
              <strong>{c.name}</strong> {say(c.truthful ? 'names.true' : 'names.notTrue')}: {c.why}{' '}
              <Soft sx={{ fontSize: '0.88rem' }}>{c.source}</Soft>
            </li>
          ))}
        </Box>
      </Box>
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
