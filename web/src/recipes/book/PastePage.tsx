import { type PastedLine, readPasted, recipeFromText, textTrouble } from '@cocotte/core/exchange';
import { type Amount, dayOf, readAmount } from '@cocotte/core/measure';
import { authorityOf, review } from '@cocotte/core/review';
import { processEntry } from '@cocotte/core/times';
import { Box, Button } from '@mui/material';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { FreeText } from '../../kit/controls.tsx';
import { Columns, Stack } from '../../kit/layout.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { Handed } from '../editor/RecipeEditor.tsx';
import { useLibrary } from '../library.ts';
import { ReviewPanel } from '../sheet/ReviewPanel.tsx';
import { keepText, NO_TEXT, readKeptText } from './paste/kept.ts';
import { PasteFacts } from './paste/PasteFacts.tsx';
import { PasteRows } from './paste/PasteRows.tsx';
import { type Choices, lineKey, settledFacts, settledLine, settledStep, stepKey } from './paste/settle.ts';

/** What is expected of a measure that lines are so much of. */
function expected(lines: readonly PastedLine[], choices: Choices, locale: string): Amount | null {
  for (const line of lines) {
    const typed = choices.lines[lineKey(line)]?.expects ?? '';
    const read = typed === '' ? null : readAmount(typed, locale);
    if (read?.ok) return read.value;
  }
  return null;
}

/** Paste a recipe as plain text, see row by row what was read, settle what was not, and go on in the editor. */
export function PastePage() {
  const { kitchen } = useHere();
  const library = useLibrary();
  const navigate = useNavigate();
  const [{ text, choices }, setKept] = useState(() => readKeptText(kitchen.id));
  const put = (part: Partial<{ text: string; choices: Choices }>) =>
    setKept(before => {
      const now = { ...before, ...part };
      keepText(kitchen.id, now);
      return now;
    });
  const onChoose = (part: Partial<Choices>) => put({ choices: { ...choices, ...part } });
  const deferred = useDeferredValue(text);
  const read = useMemo(
    () => readPasted(deferred, kitchen.locale, library.index, v7),
    [deferred, kitchen.locale, library],
  );
  // What was read and settled, once for each text and choice: the review beside it weighs all of it.
  const { lines, steps, facts, recipe } = useMemo(() => {
    const settled = {
      lines: read.lines.map(l => settledLine(l, choices.lines[lineKey(l)], kitchen.locale, library.byId)),
      steps: read.steps.map(s => settledStep(s, choices.steps[stepKey(s)])),
      facts: settledFacts(read, choices.facts),
    };
    const entry = choices.entryId === '' ? undefined : processEntry(choices.entryId);
    const own = recipeFromText(
      read,
      {
        lines: settled.lines.map(l => l.line),
        steps: settled.steps.map(s => s.step),
        facts: settled.facts,
        expects: expected(settled.lines, choices, kitchen.locale),
      },
      v7,
    );
    const followed = entry && authorityOf(entry, dayOf(kitchenNow(), kitchen.zone));
    return { ...settled, recipe: followed ? { ...own, authority: followed } : own };
  }, [read, choices, kitchen.locale, kitchen.zone, library]);
  // Without its amount a line would go on as one piece of it.
  const noAmount = lines.some(l => !l.line.amount.toTaste && l.faults.some(f => f.path === 'amount'));
  const asks = noAmount || lines.some(l => l.ask !== null || l.which.length > 0);
  const open =
    lines.filter(l => l.faults.length > 0 || l.ask !== null || l.which.length > 0 || l.unread !== '').length +
    steps.filter(s => s.doubts.length > 0).length;
  const trouble = textTrouble(deferred, read);
  const [asked, setAsked] = useState(false);
  const goOn = () => {
    if (asks) {
      setAsked(true);
      return;
    }
    const handed: Handed = { recipe: { ...recipe, foodClass: review(recipe, kitchen, null).foodClass } };
    void navigate('/recipes/new', { state: handed });
  };
  return (
    <>
      <ViewHead title="Paste a recipe" detail={say('paste.how')}>
        <Button variant="contained" size="large" disabled={lines.length === 0} onClick={goOn}>
          {say('paste.goOn')}
        </Button>
      </ViewHead>
      {asked && asks && (
        <Box role="alert" sx={{ color: 'ox.main', fontWeight: 600, mb: 1.5 }}>
          {say(noAmount ? 'paste.amount' : 'paste.ask')}
        </Box>
      )}
      <Columns of="1fr 2fr" from="lg">
        <Stack>
          <Sheet title={say('paste.text')}>
            <FreeText
              label="Pasted recipe"
              multiline
              fullWidth
              minRows={lines.length === 0 ? 14 : 6}
              maxRows={lines.length === 0 ? 30 : 14}
              value={text}
              onText={typed => put({ text: typed })}
              placeholder={
                'Plum jam\nMakes 7 half-pints\n\nIngredients\n4 1/2 lb red plums, stoned\n7 c sugar\n\nMethod\nBoil to the gel point.'
              }
            />
            {text !== '' && (
              <Button size="small" variant="outlined" sx={{ mt: 1 }} onClick={() => put(NO_TEXT)}>
                {say('paste.anew')}
              </Button>
            )}
            {trouble && <Faults faults={[trouble]} />}
          </Sheet>
          {lines.length > 0 && <PasteFacts read={read} facts={facts} choices={choices} onChoose={onChoose} />}
        </Stack>
        {lines.length === 0 && read.steps.length === 0 ? (
          <Sheet title={say('paste.rows')}>
            <Soft>{say('paste.nothingYet')}</Soft>
          </Sheet>
        ) : (
          <Stack>
            {open > 0 && <Box role="status">{say('paste.open', { n: open })}</Box>}
            <PasteRows
              text={deferred}
              read={read}
              lines={lines}
              steps={steps}
              recipe={recipe}
              choices={choices}
              onChoose={onChoose}
            />
            {lines.length > 0 && <ReviewPanel recipe={recipe} />}
          </Stack>
        )}
      </Columns>
    </>
  );
}
