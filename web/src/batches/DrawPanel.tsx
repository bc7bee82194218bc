import { useWorseLids } from '../checks/history.ts';
import { drawLots } from '@cocotte/contract';
import { Decimal, dayOf, moneyText } from '@cocotte/core/measure';
import { avoiding, type Need, type ShelfItem, unitSign, type Wanted, wantedOf } from '@cocotte/core/stores';
import { Box, Button } from '@mui/material';
import { type ReactNode, useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { Figure, Pick } from '../kit/fields.tsx';
import { useRows, useTyped } from '../kit/form.ts';
import { Line, Stack } from '../kit/layout.tsx';
import { List } from '../kit/List.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { Faults, Sheet, Soft } from '../kit/parts.tsx';
import { rows as rowsOf } from '../kit/readers.ts';
import { records } from '../device/index.ts';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { useLibrary } from '../recipes/library.ts';
import { TakeInDialog } from '../stores/planning/TakeInDialog.tsx';
import { useShelf, useStockChanged } from '../stores/api.ts';
import type { Fact, OpenBatch } from './open-batch.ts';
import { Drawn } from './Drawn.tsx';
import { autoWords, lotsToChoose } from './draw-words.ts';
import { batchNeeds, drawingOf, needBy, needText, othersFor } from './draws.ts';
import { Used } from './Used.tsx';
import type { When } from './when.ts';
import { quantityText } from '../stores/words.ts';
import { say } from '../words/views.ts';

/** On a phone each need stands over its quantity and its lot; from a tablet on they are columns. */
const stacked = {
  display: { xs: 'grid', sm: 'table-row' },
  gridTemplateColumns: '128px minmax(0, 1fr)',
  borderBottom: { xs: 1, sm: 0 },
  borderColor: { xs: 'rule.main', sm: 'rule.main' },
  '& td': { borderBottom: { xs: 0, sm: 1 }, borderColor: { sm: 'rule.main' } },
  '& td:first-of-type': { gridColumn: '1 / -1', pb: { xs: 0, sm: 1 } },
};

/** Draws what the batch needs out of the open containers: nothing is chosen unless somebody wants to. */
export function DrawPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const worse = useWorseLids();
  const shelf = useShelf();
  const query = {
    ...shelf,
    data: shelf.data && { ...shelf.data, shelf: avoiding(shelf.data.shelf, worse.ids) },
  };
  return (
    <Loaded query={query}>
      {view => (
        <Stack>
          {worse.words.map(words => (
            <Box key={words} sx={{ borderLeft: 4, borderColor: 'live.main', pl: 1.5 }}>
              {words}
            </Box>
          ))}
          {/* After a draw the rest is proposed anew. */}
          <Needs
            key={[
              ...batch.state.draws.map(d => d.drawId),
              ...batch.state.used.map(u => u.by.eventId),
              ...batchNeeds(batch.state, view.shelf).map(n => n.shelf?.item.id ?? ''),
            ].join()}
            batch={batch}
            when={when}
            view={view}
          />
          <Used batch={batch} view={view} />
          {batch.state.draws.length > 0 && <Drawn batch={batch} />}
        </Stack>
      )}
    </Loaded>
  );
}

function Needs({ batch, when, view }: { batch: OpenBatch; when: When; view: { shelf: ShelfItem[] } }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  /** To draw is the kitchen's to decide: without it, what is taken is a fact. */
  const unreached = !useSyncExternalStore(records.subscribe, records.view).reached;
  const [unanswered, setUnanswered] = useState(false);
  const away = unreached || unanswered;
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const use = {
    line: null,
    recipe: started.recipe,
    purpose: started.purpose,
    today: dayOf(kitchenNow(), kitchen.zone),
  };
  const drawn = batch.state.draws.flatMap(d => d.lots);
  const used = new Set(batch.state.used.flatMap(u => (u.drawn ? [] : [u.lineId ?? u.lotId])));
  const needs = batchNeeds(batch.state, view.shelf).map(need => ({
    need,
    done: drawn.filter(l =>
      need.line
        ? l.lineId === need.line.id
        : l.kind === need.kind && (need.size === null || l.jarSize === need.size),
    ),
  }));
  const others = needs.map(({ need }) => othersFor(need, view.shelf, use, kitchen));
  /** The need as the lot serves it that was chosen: of its own item, or of another one that may. */
  const servedBy = (of: number, lotId: string): Need | undefined => {
    const need = needs[of]?.need;
    const other = others[of]?.find(s => s.lots.some(l => l.id === lotId));
    return need && other ? needBy(need, other) : need;
  };
  const draws = (of: number, text: string, lotId: string) => {
    const need = servedBy(of, lotId);
    return need?.shelf && text.trim() !== '' ? drawingOf(need, text, kitchen, use, lotId, away) : null;
  };
  const form = useTyped(
    {
      needs: needs.map(({ need, done }, of) => ({
        of,
        // What was drawn already is not proposed again; a further draw is typed by hand.
        quantity:
          done.length > 0 || used.has(need.line?.id ?? '') || need.shelf?.lots.some(l => used.has(l.id))
            ? ''
            : needText(need, kitchen.locale),
        lotId: '',
      })),
    },
    () => ({
      needs: rowsOf(({ of, lotId }: { of: number; lotId: string }) => ({
        quantity: (text: string) => draws(of, text, lotId) ?? { ok: true as const, value: null },
      })),
    }),
  );
  const typed = form.typed('needs');
  const parts = useRows(form.form.control, 'needs');
  const rows = typed.flatMap(({ of, quantity, lotId }, i) => {
    const row = needs[of];
    const need = servedBy(of, lotId);
    return row && need ? [{ ...row, need, of, i, lotId, drawing: draws(of, quantity, lotId) }] : [];
  });
  const rowAt = (i: number) => rows.find(r => r.i === i);
  const addPart = (of: number) => {
    // The part stands below what it is a part of.
    const last = typed.findLastIndex(t => t.of === of);
    const free = [...(needs[of]?.need.shelf?.lots ?? []), ...(others[of] ?? []).flatMap(s => s.lots)].find(
      l =>
        !typed.some(t => t.of === of && t.lotId === l.id) &&
        (typed[last]?.lotId !== '' || l.itemId !== needs[of]?.need.shelf?.item.id),
    );
    parts.insert(last + 1, { of, quantity: '', lotId: free?.id ?? '' });
  };
  /** Another item serves it: what was proposed is proposed in its unit. */
  const choose = (i: number, of: number, lotId: string) => {
    const now = typed[i];
    const before = now && servedBy(of, now.lotId);
    const after = servedBy(of, lotId);
    if (now && before && after && now.quantity === needText(before, kitchen.locale))
      form.set(`needs.${i}.quantity`, needText(after, kitchen.locale));
  };
  const library = useLibrary();
  const [taking, setTaking] = useState<Wanted[] | null>(null);
  const lacking = needs.filter(n => n.done.length === 0 && !n.need.shelf && n.need.kind !== 'band').length;
  const draw = form.submit(async v => {
    const wanted = v.needs.flatMap(({ quantity }, i) =>
      (quantity?.lots ?? []).map(l => ({
        i,
        lot: { lotId: l.lotId, lineId: rowAt(i)?.need.line?.id ?? null, quantity: l.quantity },
      })),
    );
    if (wanted.length === 0) return [];
    if (away) {
      const facts = wanted.map(({ i, lot }): Fact => [
        'lot.used',
        {
          ...lot,
          quantity: Number(lot.quantity),
          unit: rowAt(i)?.need.shelf?.item.unit ?? 'each',
        },
      ]);
      await batch.enter(facts, when);
      return [];
    }
    const back = await batch.decide(
      'lot.drawn',
      stamp =>
        call(drawLots, {
          params: { batchId: batch.id },
          body: { lots: wanted.map(w => w.lot), stamp },
        }),
      when,
    );
    setUnanswered(back.some(f => f.code === 'no-answer'));
    await changed();
    // A need may be drawn out of several lots: what the server says of one of them stands at the need.
    return back.map(f => ({
      ...f,
      path: f.path.replace(/^lots\[(\d+)\].*/, (_, k: string) => `needs.${wanted[Number(k)]?.i}.quantity`),
    }));
  });
  const cost = drawn.reduce((sum, l) => sum.plus(new Decimal(l.quantity).times(l.unitCost)), new Decimal(0));
  return (
    <Sheet title="Draw lots" aside="Out of the open container, then the oldest">
      <form noValidate onSubmit={draw}>
        <List
          label="What the batch needs"
          rows={rows}
          keyOf={r => `${r.need.key} ${r.i}`}
          rowSx={() => stacked}
          headFrom="sm"
          columns={[
            {
              head: 'For',
              sx: { width: { sm: '30%' }, fontWeight: 600, '&.MuiTableCell-body': { pt: 2 } },
              cell: r => (
                <>
                  {r.need.title}
                  {r.need.shelf && r.need.line && r.need.shelf.item.name !== r.need.title && (
                    <Small>out of {r.need.shelf.item.name}</Small>
                  )}
                  {typed.findIndex(t => t.of === r.of) === r.i ? (
                    (others[r.of]?.length ?? 0) + (r.need.shelf?.lots.length ?? 0) > 1 && (
                      <Box>
                        <Button
                          size="small"
                          sx={{ ml: -1 }}
                          aria-label={say('draw.also', { name: r.need.title })}
                          onClick={() => addPart(r.of)}
                        >
                          {say('draw.alsoShort')}
                        </Button>
                      </Box>
                    )
                  ) : (
                    <Box>
                      <Button size="small" sx={{ ml: -1 }} onClick={() => parts.remove(r.i)}>
                        {say('draw.notAlso')}
                      </Button>
                    </Box>
                  )}
                  {r.done.length > 0 && (
                    <Small>
                      drawn:{' '}
                      {r.done
                        .map(d => `${quantityText(d.quantity, d, kitchen)} from ${d.lotLabel}`)
                        .join(', ')}
                    </Small>
                  )}
                </>
              ),
            },
            {
              head: 'Quantity',
              sx: { width: { sm: 190 } },
              cell: r => (
                <Figure
                  at={form.at(`needs.${r.i}.quantity`)}
                  label={`Quantity of ${r.need.title}`}
                  hiddenLabel
                  unit={r.need.shelf ? unitSign(r.need.shelf.item.unit) : ''}
                  disabled={!r.need.shelf}
                />
              ),
            },
            {
              head: 'Out of',
              cell: r =>
                r.need.shelf || (others[r.of]?.length ?? 0) > 0 ? (
                  <>
                    <Pick
                      at={form.at(`needs.${r.i}.lotId`)}
                      label={`Lot of ${r.need.title}`}
                      hiddenLabel
                      onPick={lotId => choose(r.i, r.of, lotId)}
                      of={[
                        [
                          '',
                          needs[r.of]?.need.shelf
                            ? autoWords({ ...r, need: needs[r.of]!.need })
                            : say('draw.none'),
                        ],
                        ...lotsToChoose(needs[r.of]?.need.shelf, 'only lot', kitchen),
                        ...(others[r.of] ?? []).flatMap(s => lotsToChoose(s, s.item.name, kitchen)),
                      ]}
                    />
                    {r.drawing?.ok && !r.lotId && r.drawing.value.skipped.length > 0 && (
                      <Small>
                        passed over: {r.drawing.value.skipped.map(s => `${s.label} (${s.why})`).join(' ')}
                      </Small>
                    )}
                  </>
                ) : (
                  <Soft>no such item on the shelf</Soft>
                ),
            },
          ]}
        />
        <Faults faults={form.faults} />
        {away && (
          <Box role="status" sx={{ mt: 2 }}>
            {say('used.what')}
          </Box>
        )}
        {lacking > 0 && !away && (
          <Line mt={2}>
            <Box sx={{ flex: '1 1 260px' }}>{say('draw.lacking', { n: lacking })}</Box>
            <Button
              variant="outlined"
              onClick={() => setTaking(wantedOf(batchNeeds(batch.state, view.shelf), library.byId, v7))}
            >
              {say('draw.takeIn')}
            </Button>
          </Line>
        )}
        {taking && <TakeInDialog wanted={taking} onClose={() => setTaking(null)} />}
        <Line mt={2} sx={{ justifyContent: 'space-between' }}>
          <Soft>{cost.isZero() ? 'Nothing is drawn yet.' : `Drawn so far: ${moneyText(cost, kitchen)}`}</Soft>
          <Button
            type="submit"
            variant="contained"
            size="large"
            disabled={batch.busy || rows.every(r => r.drawing === null)}
          >
            {away ? say('used.action') : 'Draw these lots'}
          </Button>
        </Line>
      </form>
    </Sheet>
  );
}

function Small({ children }: { children: ReactNode }) {
  return <Soft sx={{ display: 'block', fontWeight: 400, fontSize: '0.92rem' }}>{children}</Soft>;
}
