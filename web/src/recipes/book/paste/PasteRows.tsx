import { type AmountQuestion, depthText } from '@cocotte/core/measure';
import type { Pasted, PastedLine, PastedStep } from '@cocotte/core/exchange';
import { type Recipe, targetWords, windowText } from '@cocotte/core/recipes';
import { Autocomplete, Box, Button, TextField } from '@mui/material';
import type { ReactNode } from 'react';
import { FreeText, Toggle } from '../../../kit/controls.tsx';
import { Line, Stack } from '../../../kit/layout.tsx';
import { List } from '../../../kit/List.tsx';
import { Sheet, Soft, Tag } from '../../../kit/parts.tsx';
import { faultText } from '../../../kit/readers.ts';
import { useHere } from '../../../shell/session.tsx';
import { say } from '../../../words/views.ts';
import { useLibrary } from '../../library.ts';
import { type Choices, type LineChoice, lineKey, stepKey } from './settle.ts';

interface Row {
  number: number;
  text: string;
  lines: PastedLine[];
  steps: PastedStep[];
}

const IS = {
  title: 'paste.is.title',
  yield: 'paste.is.yield',
  heading: 'paste.is.heading',
  line: 'paste.is.line',
  step: 'paste.is.step',
  unread: 'paste.is.unread',
} as const;

/** The text row by row, and beside each what was read of it. */
export function PasteRows({
  text,
  read,
  lines,
  steps,
  recipe,
  choices,
  onChoose,
}: {
  text: string;
  read: Pasted;
  lines: PastedLine[];
  steps: PastedStep[];
  /** What the text gives so far, for what goes in at each step. */
  recipe: Recipe;
  choices: Choices;
  onChoose: (part: Partial<Choices>) => void;
}) {
  const { kitchen } = useHere();
  const rows = text.split(/\r\n|\r|\n/).flatMap((row, i): Row[] => {
    const number = i + 1;
    if (row.trim() === '') return [];
    return [
      {
        number,
        text: row,
        lines: lines.filter(l => l.number === number),
        steps: steps.filter(s => s.number === number),
      },
    ];
  });
  const names = new Map(recipe.lines.map(l => [l.id, l.name.toLowerCase()]));
  const goesIn = (step: PastedStep) =>
    (recipe.steps.find(s => s.id === step.step.id)?.adds ?? [])
      .map(a => `${a.share === '1' ? '' : `${a.share} `}${names.get(a.lineId) ?? ''}`)
      .join(', ');
  /** Minutes and headspace that the text says, where it says them: they are kept as a note. */
  const saidOf = (number: number, { step }: PastedStep) => {
    const { headspace_mm, minutes } = read.facts;
    const own = minutes.filter(m => m.number === number);
    if (step.kind === 'process' && own.length > 0)
      return say('paste.minutes', { minutes: [...new Set(own.map(m => m.minutes))].join(', ') });
    return step.kind === 'fill' && headspace_mm.number === number && headspace_mm.value !== null
      ? say('paste.headspace', { depth: depthText(headspace_mm.value, kitchen) })
      : '';
  };
  const unread = (row: Row) => read.unread.some(u => u.number === row.number);
  const plain = (row: Row): ReactNode => {
    const kind = read.rows.get(row.number);
    if (!kind) return <Soft>{say('paste.goesOn')}</Soft>;
    if (kind === 'title') return <Soft>{say('paste.isName', { name: read.title })}</Soft>;
    return <Soft>{say(IS[kind])}</Soft>;
  };
  return (
    <Sheet title={say('paste.rows')} aside={read.title || undefined}>
      <List
        label={say('paste.rows')}
        rows={rows}
        keyOf={r => r.number}
        columns={[
          { head: say('paste.rowNo'), figure: true, from: 'sm', cell: r => <Soft>{r.number}</Soft> },
          { head: say('paste.asItStands'), sx: { width: '34%' }, cell: r => r.text.trim() },
          {
            head: say('paste.readAs'),
            cell: r => (
              <Stack gap={1}>
                {r.lines.map(l => (
                  <LineRead
                    key={lineKey(l)}
                    line={l}
                    choice={choices.lines[lineKey(l)] ?? {}}
                    onChoose={part =>
                      onChoose({
                        lines: { ...choices.lines, [lineKey(l)]: { ...choices.lines[lineKey(l)], ...part } },
                      })
                    }
                  />
                ))}
                {r.steps.map(s => (
                  <Box key={stepKey(s)}>
                    <Tag tone="plain">{s.step.kind}</Tag>{' '}
                    {[
                      targetWords(s.step.target, kitchen),
                      s.step.window ? windowText(s.step.window, kitchen) : '',
                      saidOf(r.number, s),
                      goesIn(s) && say('paste.goesIn', { what: goesIn(s) }),
                    ]
                      .filter(Boolean)
                      .join(' · ')}
                    {r.steps.length > 1 && <Soft> {s.step.text}</Soft>}
                    {s.doubts.slice(0, 1).map(d => (
                      <Box key={d.what} role="group" aria-label={d.what} sx={{ mt: 0.5, color: 'live.main' }}>
                        {d.what}
                        <Line mt={0.5}>
                          <Button
                            size="small"
                            variant="outlined"
                            onClick={() => onChoose({ steps: { ...choices.steps, [stepKey(s)]: -1 } })}
                          >
                            {say('paste.right')}
                          </Button>
                          {d.others.map((o, i) => (
                            <Button
                              key={o.label}
                              size="small"
                              variant="outlined"
                              onClick={() => onChoose({ steps: { ...choices.steps, [stepKey(s)]: i } })}
                            >
                              {o.label}
                            </Button>
                          ))}
                        </Line>
                      </Box>
                    ))}
                  </Box>
                ))}
                {r.lines.length + r.steps.length === 0 &&
                  (unread(r) && !choices.seen.includes(r.text) ? (
                    <Box sx={{ color: 'live.main' }}>
                      {say('paste.is.unread')}{' '}
                      <Button
                        size="small"
                        variant="outlined"
                        aria-label={say('paste.seenRow', { row: r.number })}
                        onClick={() => onChoose({ seen: [...choices.seen, r.text] })}
                      >
                        {say('paste.seen')}
                      </Button>
                    </Box>
                  ) : (
                    plain(r)
                  ))}
              </Stack>
            ),
          },
        ]}
      />
    </Sheet>
  );
}

/** One ingredient as it was read: its amount and what it is, each to be put right in place. */
function LineRead({
  line: l,
  choice,
  onChoose,
}: {
  line: PastedLine;
  choice: LineChoice;
  onChoose: (part: LineChoice) => void;
}) {
  const library = useLibrary();
  const more = [
    l.line.preparation,
    l.line.where === 'pot' ? '' : l.line.where,
    l.line.ratio ? say('paste.forEach', { per: l.line.ratio.per.text, of: l.ratioOf }) : '',
    l.line.minStrength_pct === null ? '' : `${l.line.minStrength_pct} %`,
  ].filter(Boolean);
  return (
    <Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '9rem 1fr' }, gap: 1 }}>
        <FreeText
          size="small"
          value={choice.amount ?? l.line.amount.text}
          onText={amount => onChoose({ amount })}
          slotProps={{ htmlInput: { 'aria-label': `Amount of line ${l.number}` } }}
        />
        <Autocomplete
          size="small"
          options={library.all}
          getOptionLabel={o => o.name}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          value={l.line.ingredientId ? (library.byId.get(l.line.ingredientId) ?? null) : null}
          onChange={(_, o) => onChoose({ ingredientId: o?.id ?? '' })}
          renderInput={params => <TextField {...params} label={`Ingredient of line ${l.number}`} />}
        />
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, alignItems: 'center', flexWrap: 'wrap' }}>
        {l.line.trimYield < 0.999 && (
          <Toggle
            label={`The amount of line ${l.number} means`}
            value={l.line.basis}
            of={['prepared', 'as bought']}
            onPick={basis => onChoose({ basis })}
            small
          />
        )}
        {more.length > 0 && <Soft sx={{ fontSize: '0.88rem' }}>{more.join(', ')}</Soft>}
      </Box>
      {l.line.ratio && (
        <FreeText
          size="small"
          label={say('paste.expects', { of: l.ratioOf })}
          value={choice.expects ?? ''}
          onText={expects => onChoose({ expects })}
          placeholder="4 cups"
          hint={say('paste.expectsWhy')}
          sx={{ mt: 1, maxWidth: 320 }}
        />
      )}
      {l.ask && <Ask ask={l.ask} chosen={choice.unit} onPick={unit => onChoose({ unit })} />}
      {l.which.length > 0 && (
        <Box role="group" aria-label={say('paste.which', { name: l.line.name })} sx={{ my: 0.5 }}>
          <Soft sx={{ fontSize: '0.85rem' }}>{say('paste.which', { name: l.line.name })}</Soft>
          <br />
          {l.which.map(i => (
            <Button
              key={i.id}
              size="small"
              variant="outlined"
              onClick={() => onChoose({ ingredientId: i.id })}
              sx={{ mr: 0.5, mt: 0.5 }}
            >
              {i.name}
            </Button>
          ))}
        </Box>
      )}
      {l.unread && (
        <Box sx={{ color: 'live.main', fontSize: '0.88rem' }}>
          {say('paste.unreadWords', { words: l.unread })}
        </Box>
      )}
      {l.faults.map(f => (
        <Box key={f.code} sx={{ color: 'ox.main', fontSize: '0.88rem' }}>
          {faultText(f)}
        </Box>
      ))}
    </Box>
  );
}

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
