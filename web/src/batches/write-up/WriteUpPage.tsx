import {
  type BatchEvent,
  batchStepText,
  complete,
  lineMasses,
  type WrittenFact,
} from '@cocotte/core/batches';
import type { Condition } from '@cocotte/core/checks';
import { jarSize } from '@cocotte/core/jars';
import { clockOf, dayText, instantText, massText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { eventWords } from '@cocotte/core/records';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Day, Figure, Temperature, Text, Tick } from '../../kit/fields.tsx';
import { useReadForm, useRows } from '../../kit/form.ts';
import { Cells, Line, Stack } from '../../kit/layout.tsx';
import { Loaded } from '../../kit/Loaded.tsx';
import { Caution, Faults, Fractions, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere, useMaySign } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { Pictures } from '../Pictures.tsx';
import { type OpenBatch, useBatch } from '../open-batch.ts';
import { wouldProve } from './proves.ts';
import { emptyLoad, emptySheet, readSheet, type TypedSheet } from './typed.ts';

/** A finished day, typed in from its sheet on a page that looks like it. */
export function WriteUpPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <WriteUp batch={open} />}</Loaded>;
}

/** One row of the sheet: what is printed on it, and its boxes. */
function Row({ text, boxes, children }: { text: ReactNode; boxes: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: `1fr ${boxes}` },
        gap: 1.5,
        alignItems: 'center',
        py: 1,
        borderBottom: 1,
        borderColor: 'rule.main',
      }}
    >
      <Box>{text}</Box>
      {children}
    </Box>
  );
}

function WriteUp({ batch }: { batch: OpenBatch }) {
  const { kitchen, person } = useHere();
  const maySign = useMaySign();
  const navigate = useNavigate();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const { recipe } = started;
  const form = useReadForm<TypedSheet, { facts: WrittenFact[] }>(emptySheet(batch), typed =>
    readSheet(typed, batch, kitchen),
  );
  const { at } = form;
  const typed = form.all();
  const loads = useRows(form.form.control, 'loads');
  const masses = new Map(lineMasses(batch.state).map(m => [m.line.id, m]));
  const [ready, setReady] = useState<WrittenFact[] | null>(null);
  const hint = clockOf(kitchen.locale) === 'h12' ? '7:34 PM' : '19:34';
  const check = form.submit(({ facts }) => Promise.resolve(setReady(facts)));
  const enter = async (facts: readonly WrittenFact[]) => {
    setReady(null);
    for (const f of facts) await batch.enter([[f.type, f.body] as never], f.at_ms);
    await navigate(`/records/${batch.id}`);
  };
  const lineOf = (id: string) => recipe.lines.find(l => l.id === id);
  return (
    <>
      <ViewHead
        title={say('writeUp.title', { name: recipe.name })}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> · {dayText(started.madeOn, kitchen)}
          </>
        }
      />
      <form noValidate onSubmit={check}>
        <Stack>
          <Sheet>
            <Soft>{say('writeUp.why', { time: hint })}</Soft>
            <Cells wide="220px 1fr" mt={2}>
              <Day at={at('day')} label={say('writeUp.day')} />
            </Cells>
          </Sheet>
          <Sheet title={say('writeUp.into')}>
            {typed.weighed.map((w, i) => (
              <Row
                key={w.lineId}
                boxes="170px"
                text={
                  <>
                    {lineOf(w.lineId)?.name}{' '}
                    <Soft>{massText(masses.get(w.lineId)?.planned_g ?? 0, kitchen)}</Soft>
                  </>
                }
              >
                <Figure at={at(`weighed.${i}.mass_g`)} label={say('writeUp.weight')} unit="g" />
              </Row>
            ))}
          </Sheet>
          <Sheet title={say('writeUp.steps')}>
            {typed.steps.map((s, i) => {
              const step = recipe.steps.find(x => x.id === s.stepId);
              if (!step) return null;
              const cooks = step.kind === 'cook';
              return (
                <Row
                  key={s.stepId}
                  boxes={cooks ? '130px 140px' : '130px'}
                  text={
                    <>
                      <strong>{recipe.steps.indexOf(step) + 1}</strong>{' '}
                      <Fractions text={batchStepText(batch.state, step, kitchen)} />
                    </>
                  }
                >
                  <Text at={at(`steps.${i}.at`)} label={say('writeUp.at')} placeholder={hint} />
                  {cooks && <Temperature at={at(`steps.${i}.temp`)} label={say('writeUp.temp')} />}
                </Row>
              );
            })}
          </Sheet>
          <Sheet title={say('writeUp.jars')}>
            {typed.jars.map((j, i) => (
              <Row key={j.size} boxes="130px" text={jarSize(j.size).plural}>
                <Figure at={at(`jars.${i}.count`)} label={say('writeUp.count')} />
              </Row>
            ))}
            {typed.doses.map((d, i) => (
              <Row
                key={d.lineId}
                boxes="150px"
                text={
                  <Tick
                    at={at(`doses.${i}.given`)}
                    label={say('writeUp.given', { name: lineOf(d.lineId)?.name ?? '' })}
                  />
                }
              >
                <Text
                  at={at(`doses.${i}.without`)}
                  label={say('writeUp.allBut')}
                  placeholder={say('glass.none')}
                />
              </Row>
            ))}
          </Sheet>
          <Sheet title={say('writeUp.loads')}>
            {loads.fields.map((l, i) => (
              <Row
                key={l.key}
                boxes="110px 130px 130px 130px"
                text={<strong>{say('writeUp.load', { n: batch.state.loads.length + i + 1 })}</strong>}
              >
                <Text at={at(`loads.${i}.jars`)} label={say('writeUp.jars')} placeholder="1-7" />
                <Text at={at(`loads.${i}.boiling`)} label={say('writeUp.boiling')} placeholder={hint} />
                <Text at={at(`loads.${i}.off`)} label={say('writeUp.off')} placeholder={hint} />
                <Text at={at(`loads.${i}.lifted`)} label={say('writeUp.lifted')} placeholder={hint} />
              </Row>
            ))}
            <Line mt={1}>
              <Button variant="outlined" onClick={() => loads.append(emptyLoad())}>
                {say('writeUp.more')}
              </Button>
              {loads.fields.length > 1 && (
                <Button onClick={() => loads.remove(loads.fields.length - 1)}>{say('writeUp.less')}</Button>
              )}
            </Line>
            <Caution>{say('writeUp.lost')}</Caution>
          </Sheet>
          <Sheet title={say('writeUp.next')}>
            <Cells wide="200px 130px 1fr 150px" narrow="1fr" gap={1.5}>
              <Day at={at('pressedDay')} label={say('writeUp.pressedDay')} />
              <Text at={at('pressedAt')} label={say('writeUp.pressedAt')} placeholder={hint} />
              <Text at={at('failed')} label={say('writeUp.failed')} placeholder={say('glass.none')} />
              <Figure at={at('minutes')} label={say('writeUp.minutes')} />
            </Cells>
          </Sheet>
          <Faults faults={form.faults} />
          <Button type="submit" variant="contained" size="large" disabled={form.busy} sx={{ minHeight: 64 }}>
            {say('writeUp.check')}
          </Button>
        </Stack>
      </form>
      <Box sx={{ mt: 2 }}>
        <Pictures batch={batch} />
      </Box>
      {ready && (
        <Proves
          {...wouldProve(batch, ready, { id: person.id, signs: maySign }, kitchenNow())}
          facts={ready}
          recipe={recipe}
          onEnter={() => void enter(ready)}
          onClose={() => setReady(null)}
        />
      )}
    </>
  );
}

/** What the written day would show and what it leaves open, said before it is sent. */
function Proves({
  shown,
  open,
  facts,
  recipe,
  onEnter,
  onClose,
}: {
  shown: Condition[];
  open: Condition[];
  facts: readonly WrittenFact[];
  recipe: Recipe;
  onEnter: () => void;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const list = (conditions: Condition[]) => (
    <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
      {conditions.map(c => (
        <li key={c.code}>
          <strong>{c.title}.</strong> <Soft>{c.evidence}</Soft>
        </li>
      ))}
    </Box>
  );
  return (
    <Dialog open onClose={onClose} aria-labelledby="proves-title" fullWidth maxWidth="md">
      <DialogTitle id="proves-title" variant="h2">
        {say('writeUp.proves', { n: facts.length })}
      </DialogTitle>
      <DialogContent>
        <Caution>{say('writeUp.proves.why')}</Caution>
        <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, my: 1 }}>
          {facts.map((f, i) => (
            // Entries of one sheet have no id yet, and keep their order.
            // oxlint-disable-next-line react/no-array-index-key
            <li key={i}>
              <strong>{instantText(f.at_ms, kitchen)}</strong>{' '}
              {eventWords(
                { type: f.type, body: complete(f.type, f.body as never) } as BatchEvent,
                recipe,
                kitchen,
              )}
            </li>
          ))}
        </Box>
        {open.length > 0 && (
          <>
            <Box sx={{ fontWeight: 700, mt: 1 }}>{say('writeUp.proves.open')}</Box>
            {list(open)}
          </>
        )}
        {shown.length > 0 && (
          <>
            <Box sx={{ fontWeight: 700, mt: 1 }}>{say('writeUp.proves.shown')}</Box>
            {list(shown)}
          </>
        )}
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button variant="outlined" onClick={onClose} sx={{ minHeight: 56 }}>
          {say('writeUp.back')}
        </Button>
        <Button variant="contained" onClick={onEnter} sx={{ minHeight: 56 }}>
          {say('writeUp.enter')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
