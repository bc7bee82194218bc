import { type AmountQuestion, readAmount } from '@cocotte/core/measure';
import { type Pasted, type PastedLine, missingWeight, readPasted } from '@cocotte/core/exchange';
import type { Ingredient } from '@cocotte/core/ingredients';
import { basisFor, emptyRecipe, factsOf } from '@cocotte/core/recipes';
import { Autocomplete, Box, Button, TextField, Typography } from '@mui/material';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { FreeText, Toggle } from '../../kit/controls.tsx';
import { Columns, Stack } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { faultText } from '../../kit/readers.ts';
import { Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useLibrary } from '../library.ts';

/** What a person settled about one pasted line; by its line number and text, so that editing the text keeps the rest. */
type Settled = Record<
  string,
  { amount?: string; unit?: string; ingredientId?: string; basis?: 'prepared' | 'as bought' }
>;

/** Paste a recipe as plain text, confirm what was read, settle what was not, and go on in the editor. */
export function PastePage() {
  const { kitchen } = useHere();
  const library = useLibrary();
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [settled, setSettled] = useState<Settled>({});
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const deferred = useDeferredValue(text);
  const read = useMemo(
    (): Pasted => readPasted(deferred, kitchen.locale, library.index, v7),
    [deferred, kitchen.locale, library],
  );
  const lines = read.lines.map(l => settle(l, settled[keyOf(l)], kitchen.locale, library.byId));
  // Without its amount a line would go on as one piece of it.
  const noAmount = lines.some(l => !l.line.amount.toTaste && l.faults.some(f => f.path === 'amount'));
  const asks = noAmount || lines.some(l => l.ask !== null || l.which.length > 0);
  const open = lines.filter(
    l => l.faults.length > 0 || l.ask !== null || l.which.length > 0 || l.unread !== '',
  ).length;
  const unread = read.unread.filter(u => !dropped.has(`${u.number} ${u.text}`));
  const put = (line: PastedLine, part: Settled[string]) =>
    setSettled(s => ({ ...s, [keyOf(line)]: { ...s[keyOf(line)], ...part } }));
  const [asked, setAsked] = useState(false);
  const goOn = () => {
    if (asks) {
      setAsked(true);
      return;
    }
    const recipe = {
      ...emptyRecipe(),
      name: read.title.slice(0, 80),
      statementOfIdentity: read.title.slice(0, 80),
      lines: lines.map(l => l.line),
      steps: read.steps.map(s => s.step),
      notes: [read.yieldText, ...read.unread.map(u => u.text)].filter(Boolean).join('\n').slice(0, 4000),
    };
    void navigate('/recipes/new', { state: { recipe } });
  };
  return (
    <>
      <ViewHead
        title="Paste a recipe"
        detail="As plain text: a title, the ingredients one to a line, then what is done."
      >
        <Button variant="contained" size="large" disabled={lines.length === 0} onClick={goOn}>
          Go on with these
        </Button>
      </ViewHead>
      {asked && asks && (
        <Box role="alert" sx={{ color: 'ox.main', fontWeight: 600, mb: 1.5 }}>
          {say(noAmount ? 'paste.amount' : 'paste.ask')}
        </Box>
      )}
      <Columns of="2fr 3fr">
        <Sheet title="The text">
          <FreeText
            label="Pasted recipe"
            multiline
            minRows={18}
            maxRows={40}
            value={text}
            onText={setText}
            placeholder={
              'Plum jam\n\nIngredients\n4 1/2 lb red plums, stoned\n7 c sugar\n\nMethod\nBoil to the gel point.'
            }
          />
        </Sheet>
        <Stack>
          <Sheet
            title={read.title || 'What was read'}
            aside={
              lines.length === 0
                ? undefined
                : open === 0
                  ? `${lines.length} lines read`
                  : `${lines.length} lines, ${open} to look at`
            }
          >
            {lines.length === 0 ? (
              <Soft>
                Each line shows here as it is read. Nothing is dropped: what cannot be read is listed.
              </Soft>
            ) : (
              <List
                label="Lines read"
                rows={lines}
                keyOf={keyOf}
                columns={[
                  {
                    head: 'As pasted',
                    sx: { width: '30%' },
                    cell: l => (
                      <>
                        {l.text}
                        {l.unread && (
                          <Box sx={{ color: 'live.main', fontSize: '0.88rem' }}>
                            not understood, kept in the name: {l.unread}
                          </Box>
                        )}
                        {l.faults.map(f => (
                          <Box key={f.code} sx={{ color: 'ox.main', fontSize: '0.88rem' }}>
                            {faultText(f)}
                          </Box>
                        ))}
                      </>
                    ),
                  },
                  {
                    head: 'Amount',
                    sx: { width: '26%' },
                    cell: l => (
                      <Stack gap={0.5}>
                        <FreeText
                          value={settled[keyOf(l)]?.amount ?? l.line.amount.text}
                          onText={amount => put(l, { amount })}
                          slotProps={{ htmlInput: { 'aria-label': `Amount of line ${l.number}` } }}
                        />
                        {l.ask && (
                          <Ask
                            ask={l.ask}
                            chosen={settled[keyOf(l)]?.unit}
                            onPick={unit => put(l, { unit })}
                          />
                        )}
                        <Toggle
                          label={`The amount of line ${l.number} means`}
                          value={l.line.basis}
                          of={['prepared', 'as bought']}
                          onPick={basis => put(l, { basis })}
                          small
                        />
                      </Stack>
                    ),
                  },
                  {
                    head: 'Ingredient',
                    cell: l => (
                      <>
                        <Autocomplete
                          size="small"
                          options={library.all}
                          getOptionLabel={o => o.name}
                          isOptionEqualToValue={(a, b) => a.id === b.id}
                          value={l.line.ingredientId ? (library.byId.get(l.line.ingredientId) ?? null) : null}
                          onChange={(_, o) => put(l, { ingredientId: o?.id ?? '' })}
                          renderInput={params => (
                            <TextField {...params} label={`Ingredient of line ${l.number}`} />
                          )}
                        />
                        {l.which.length > 0 && (
                          <Box
                            role="group"
                            aria-label={say('paste.which', { name: l.line.name })}
                            sx={{ my: 0.5 }}
                          >
                            <Soft sx={{ fontSize: '0.85rem' }}>
                              {say('paste.which', { name: l.line.name })}
                            </Soft>
                            <br />
                            {l.which.map(i => (
                              <Button
                                key={i.id}
                                size="small"
                                variant="outlined"
                                onClick={() => put(l, { ingredientId: i.id })}
                                sx={{ mr: 0.5, mt: 0.5 }}
                              >
                                {i.name}
                              </Button>
                            ))}
                          </Box>
                        )}
                        <Soft sx={{ fontSize: '0.88rem' }}>
                          {[l.line.name, l.line.preparation, l.line.where === 'pot' ? '' : l.line.where]
                            .filter(Boolean)
                            .join(', ')}
                        </Soft>
                      </>
                    ),
                  },
                ]}
              />
            )}
          </Sheet>
          {unread.length > 0 && (
            <Sheet title="Not read" tone="live">
              <Typography sx={{ mb: 1 }}>
                These were taken for neither an ingredient nor a step. They go into the notes.
              </Typography>
              {unread.map(u => (
                <Box
                  key={`${u.number} ${u.text}`}
                  sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', py: 0.5 }}
                >
                  <Soft sx={{ flex: 'none' }}>line {u.number}</Soft>
                  <Box sx={{ flex: 1 }}>{u.text}</Box>
                  <Button
                    size="small"
                    variant="outlined"
                    onClick={() => setDropped(d => new Set([...d, `${u.number} ${u.text}`]))}
                    aria-label={`Seen: line ${u.number}`}
                  >
                    Seen
                  </Button>
                </Box>
              ))}
            </Sheet>
          )}
          {read.steps.length > 0 && (
            <Sheet title="Steps">
              <Box component="ol" sx={{ m: 0, pl: 3, '& li': { mb: 0.75 } }}>
                {read.steps.map(s => (
                  <li key={`${s.number} ${s.text}`}>
                    {s.step.text} <Tag tone="plain">{s.step.kind}</Tag>
                  </li>
                ))}
              </Box>
            </Sheet>
          )}
        </Stack>
      </Columns>
    </>
  );
}

const keyOf = (line: PastedLine) => `${line.number} ${line.text}`;

function Ask({
  ask,
  chosen,
  onPick,
}: {
  ask: AmountQuestion;
  chosen: string | undefined;
  onPick: (unit: string) => void;
}) {
  return (
    <Box role="group" aria-label={ask.what} sx={{ mt: 0.5 }}>
      <Soft sx={{ fontSize: '0.85rem' }}>{ask.what}</Soft>
      {ask.choices.map(c => (
        <Button
          key={c.amount.unit}
          size="small"
          variant={chosen === c.amount.unit ? 'contained' : 'outlined'}
          onClick={() => onPick(c.amount.unit)}
          sx={{ mr: 0.5, mt: 0.5 }}
        >
          {c.label}
        </Button>
      ))}
    </Box>
  );
}

/** A pasted line with what the person settled put in. */
function settle(
  read: PastedLine,
  by: Settled[string] | undefined,
  locale: string,
  byId: ReadonlyMap<string, Ingredient>,
): PastedLine {
  if (!by) return read;
  let { line, faults, ask, unread, which } = read;
  const typed = by.amount === undefined ? null : readAmount(by.amount, locale);
  if (typed) {
    faults = faults.filter(f => f.path !== 'amount');
    if (typed.ok) line = { ...line, amount: typed.value };
    else faults = [...faults, { ...typed.fault, path: 'amount' }];
  }
  const chosen = by.ingredientId === undefined ? undefined : byId.get(by.ingredientId);
  if (chosen) {
    unread = '';
    which = [];
  }
  const ingredient = chosen ?? byId.get(line.ingredientId ?? '');
  if (ingredient && (chosen || typed?.ok)) {
    // What one weighs, and which weight is meant, hang on the unit as on the thing.
    const facts = factsOf(ingredient, line.amount, `${line.name} ${line.preparation}`);
    line = { ...line, ...facts, basis: basisFor(line.amount, line.name, facts.trimYield < 0.999) };
    const inAmount = faults.filter(f => f.path === 'amount');
    faults = inAmount.length > 0 ? inAmount : missingWeight(line);
  }
  const choice = ask?.choices.find(c => c.amount.unit === by.unit);
  if (choice) {
    line = { ...line, amount: { ...line.amount, unit: choice.amount.unit } };
    ask = null;
  }
  if (by.basis) line = { ...line, basis: by.basis };
  return { ...read, line, faults, ask, unread, which };
}
