import { confirmPage } from '@cocotte/contract';
import { dayOf, dayText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { type Page, confirmationOf, pageFault, pageOf } from '@cocotte/core/review';
import { Box, Button, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Figure, Text, Tick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Papers, usePapers } from '../../kit/Papers.tsx';
import { Soft, Tag } from '../../kit/parts.tsx';
import { type Shape, rows, useRead, words } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';
import { useHere, useMay } from '../../shell/session.tsx';
import { misread, say } from '../../words/views.ts';
import { useConfirmations } from '../api.ts';

/** Whether somebody read the page this recipe stands on, and the way to do it. */
export function PageProof({
  recipe,
  recipeId,
  number,
}: {
  recipe: Recipe;
  recipeId: string;
  number: number;
}) {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  const { data } = useConfirmations();
  const { data: papers } = usePapers();
  const [open, setOpen] = useState(false);
  const page = pageOf(recipe, kitchen.altitude_m, kitchen);
  if (!page || !data) return null;
  const fault = pageFault(
    page,
    page.figures.flatMap(f => (f.key.startsWith('minutes:') ? [f.key.slice('minutes:'.length)] : [])),
    data.confirmations,
    kitchen,
  );
  const newest = confirmationOf(page, data.confirmations);
  const confirmed = fault ? null : newest;
  // A letter is attached before it is read back: nothing else is asked for meanwhile.
  const lacksLetter =
    page.asksPaper && !kitchen.demo && !papers?.papers.some(p => p.subject === page.subject);
  const by = data.confirmations.find(c => c.id === confirmed?.id)?.person ?? '';
  return (
    <Box sx={{ mt: 1.5, pt: 1.5, borderTop: 1, borderColor: 'rule.main' }}>
      {confirmed ? (
        <Typography>
          <Tag tone="leaf">{say(confirmed.demo ? 'page.demo' : 'page.confirmed')}</Tag>{' '}
          <Soft>
            {confirmed.edition}, {confirmed.page}; {by},{' '}
            {dayText(dayOf(Date.parse(confirmed.confirmedAt), kitchen.zone), kitchen)}
          </Soft>
        </Typography>
      ) : (
        <Typography>
          <Tag tone="live">{say('page.open')}</Tag> {newest ? fault?.what : say('page.open.why')}
        </Typography>
      )}
      {lacksLetter && <Soft>{say('papers.letterFirst')}</Soft>}
      <Papers subject={page.subject} what={`${page.title}, ${page.part}`} first={lacksLetter} />
      {owner ? (
        <Button
          variant={confirmed || lacksLetter ? 'outlined' : 'contained'}
          size="small"
          sx={{ mt: 1 }}
          onClick={() => setOpen(true)}
        >
          {say(confirmed ? 'page.again' : 'page.confirm')}
        </Button>
      ) : (
        !confirmed && <Soft>{say('page.owner')}</Soft>
      )}
      {open && (
        <ConfirmDialog page={page} recipeId={recipeId} number={number} onClose={() => setOpen(false)} />
      )}
    </Box>
  );
}

/** Words of the letter are there, or the letter says something else. */
const found = (there: boolean) => (there ? { ok: true as const, value: true } : misread('not-there'));

/** Edition, page and the figures that count here, typed from the open book: what is from memory stays hidden until then. */
function ConfirmDialog({
  page,
  recipeId,
  number,
  onClose,
}: {
  page: Page;
  recipeId: string;
  number: number;
  onClose: () => void;
}) {
  const read = useRead();
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [id] = useState(() => v7());
  const form = useTyped(
    { edition: '', page: '', figures: page.figures.map(f => ({ value: '', there: false, key: f.key })) },
    () => ({
      edition: words('The edition', 'Another edition may print another figure.'),
      page: words('The page', 'It is found again by it.'),
      figures: rows((row: { value: string; there: boolean; key: string }): Shape => {
        const asked = page.figures.find(f => f.key === row.key);
        return asked?.words == null
          ? { value: read.figure({ name: asked?.label ?? '', min: 0, max: 100_000 }) }
          : { value: () => ({ ok: true as const, value: 1 }), there: found };
      }),
    }),
  );
  const save = form.submit(async v => {
    const figures = v.figures.map(({ key, value }) => ({ key, value: Number(value) }));
    await call(confirmPage, { params: { recipeId }, body: { id, number, ...v, figures } });
    await client.invalidateQueries({ queryKey: ['confirmations'] });
    onClose();
  });
  return (
    <FormDialog
      title={say('page.title')}
      action={say('page.do')}
      form={form}
      onClose={onClose}
      onSubmit={save}
    >
      <Typography sx={{ mb: 0.5 }}>
        <strong>{page.title}</strong>, {page.part}
      </Typography>
      <Typography sx={{ mb: 2, color: 'text.secondary' }}>
        {say(page.subject.startsWith('letter:') ? 'page.how.letter' : 'page.how')}
      </Typography>
      <Cells wide="1fr 1fr" narrow="1fr" gap={1.5} mt={0}>
        <Text
          at={form.at('edition')}
          label="Edition"
          hint={page.edition && say('page.edition', { edition: page.edition })}
        />
        <Text at={form.at('page')} label="Page" />
        {page.figures.map(
          (f, i) =>
            f.words === null && (
              <Figure
                key={f.key}
                at={form.at(`figures.${i}.value`)}
                label={f.label.charAt(0).toUpperCase() + f.label.slice(1)}
                unit={f.unit}
              />
            ),
        )}
      </Cells>
      {page.figures.some(f => f.words !== null) && (
        <Box sx={{ mt: 2 }}>
          <Soft>
            {say('page.words', { name: kitchen.makerName || kitchen.name, address: kitchen.makerAddress })}
          </Soft>
          {page.figures.map(
            (f, i) =>
              f.words !== null && (
                <Box key={f.key}>
                  <Tick
                    at={form.at(`figures.${i}.there`)}
                    label={say('letter.says', { what: f.label, words: f.words })}
                  />
                </Box>
              ),
          )}
        </Box>
      )}
    </FormDialog>
  );
}
