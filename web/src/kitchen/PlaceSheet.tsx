import { changeKitchen } from '@cocotte/contract';
import {
  changedPoints,
  editedPlace,
  type Jurisdiction,
  JURISDICTIONS,
  KEPT_POINTS,
  type Kitchen,
  PLACE_FOODS,
  placeSubject,
  type PlacePoint,
  POINT_WORDS,
  pointsOf,
} from '@cocotte/core/kitchen';
import { canonicalJson, dayOf, dayText, moneyText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Switcher } from '../kit/controls.tsx';
import { Day, Tick } from '../kit/fields.tsx';
import { Folded } from '../kit/Folded.tsx';
import { useReadForm } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Cells } from '../kit/layout.tsx';
import { Papers } from '../kit/Papers.tsx';
import { Sheet, Soft, Tag } from '../kit/parts.tsx';
import { orNone, type Readings, readShape, rows, wordsOrNone } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { misread, say } from '../words/views.ts';
import { PlaceEdit, placeFrom, placeShape, placeTexts } from './PlaceEdit.tsx';
import { TouchedLots } from './TouchedLots.tsx';

/** Points of which a paper is given out: a certificate, a permit. */
const PAPER_POINTS = new Set<PlacePoint>(['training', 'registration', ...KEPT_POINTS]);
/** Points of a place, and the papers a kitchen may keep beside them. */
const allPoints = (rules: Jurisdiction): PlacePoint[] => [...pointsOf(rules), ...KEPT_POINTS];
const TONE = { allowed: 'leaf', 'approved process': 'live', 'not allowed': 'ox' } as const;

/** What a place says of one of its points, in its words. */
function saidOf(rules: Jurisdiction, point: PlacePoint, kitchen: Kitchen): string {
  switch (point) {
    case 'foods':
      return say('place.foods');
    case 'outlets':
      return rules.outlets.join(', ');
    case 'ceiling':
      return rules.ceiling
        ? say('place.ceiling', {
            amount: moneyText(rules.ceiling.amount, { ...kitchen, currency: rules.ceiling.currency }),
          })
        : '';
    case 'training':
      return rules.training;
    case 'registration':
      return [rules.registration, ...(rules.label.number ? [say('place.asks.number')] : [])].join('; ');
    case 'statement':
      return [
        rules.statement === '' ? say('place.noStatement') : `"${rules.statement}"`,
        ...(rules.label.statement_pt === null
          ? []
          : [say('place.asks.points', { points: rules.label.statement_pt })]),
        ...(rules.label.madeOn ? [say('place.asks.madeOn')] : []),
        say(`place.rules.${rules.label.rules}`),
      ].join('; ');
    case 'water':
      return say('place.water');
    case 'insurance':
      return say('place.insurance');
  }
}

/** Under whose rules the kitchen sells: what they allow, and what of them its owner has ticked. */
export function PlaceSheet({ kitchen }: { kitchen: Kitchen }) {
  const owner = useMay('owner');
  const [open, setOpen] = useState(false);
  const { rules, points } = kitchen.jurisdiction;
  const today = dayOf(kitchenNow(), kitchen.zone);
  return (
    <Sheet
      title={say('place.title')}
      aside={rules && say(rules.edited ? 'place.version.own' : 'place.version', { version: rules.version })}
    >
      {rules ? (
        <>
          <Typography>
            <strong>{rules.name}</strong>{' '}
            <Soft>
              {rules.source}
              {rules.fromMemory && ` (${say('place.memory')})`}
            </Soft>
          </Typography>
          <Foods rules={rules} />
          {[...pointsOf(rules), ...KEPT_POINTS.filter(p => points.some(t => t.point === p))].map(point => {
            const ticked = points.find(t => t.point === point);
            const over = ticked?.renewsOn != null && ticked.renewsOn < today;
            return (
              <Box key={point} sx={{ mt: 1, pt: 1, borderTop: 1, borderColor: 'rule.main' }}>
                <Tag tone={!ticked ? 'live' : over ? 'ox' : 'leaf'}>
                  {!ticked ? say('place.open') : over ? say('place.over') : say('place.ticked')}
                </Tag>{' '}
                {saidOf(rules, point, kitchen)}{' '}
                {ticked && (
                  <Soft>
                    {dayText(ticked.tickedOn, kitchen)}
                    {ticked.renewsOn && `, ${say('place.until', { day: dayText(ticked.renewsOn, kitchen) })}`}
                  </Soft>
                )}
                {PAPER_POINTS.has(point) && (
                  <Papers subject={placeSubject(rules.id, point)} what={POINT_WORDS[point]} />
                )}
              </Box>
            );
          })}
        </>
      ) : (
        <Typography>{say('place.none')}</Typography>
      )}
      {rules && (
        <Folded summary={say('place.touched')} key={`${rules.id} ${rules.version}`}>
          {() => <TouchedLots />}
        </Folded>
      )}
      {owner && (
        <Button variant={rules ? 'outlined' : 'contained'} sx={{ mt: 2 }} onClick={() => setOpen(true)}>
          {say(rules ? 'place.change' : 'place.choose')}
        </Button>
      )}
      {open && <PlaceDialog kitchen={kitchen} onClose={() => setOpen(false)} />}
    </Sheet>
  );
}

function Foods({ rules }: { rules: Jurisdiction }) {
  return (
    <Box component="ul" sx={{ m: 0, mt: 1, pl: 0, listStyle: 'none', '& li': { mb: 0.75 } }}>
      {PLACE_FOODS.map(food => (
        <li key={food}>
          <Tag tone={TONE[rules.foods[food].rule]}>{rules.foods[food].rule}</Tag> <strong>{food}</strong>{' '}
          <Soft>{rules.foods[food].why}</Soft>
        </li>
      ))}
    </Box>
  );
}

type Ticks = { point: PlacePoint; ticked: boolean; tickedOn: string; renewsOn: string }[];

/** Chooses the place, changes what it says by the authority's words, and ticks its points one by one with their day. */
function PlaceDialog({ kitchen, onClose }: { kitchen: Kitchen; onClose: () => void }) {
  const { kitchen: now } = useHere();
  const client = useQueryClient();
  const [rules, setRules] = useState<Jurisdiction | null>(kitchen.jurisdiction.rules);
  const today = dayOf(kitchenNow(), kitchen.zone);
  const ticksOf = (of: Jurisdiction | null) =>
    (of ? allPoints(of) : []).map(point => {
      const was =
        of?.id === kitchen.jurisdiction.rules?.id
          ? kitchen.jurisdiction.points.find(t => t.point === point)
          : undefined;
      return {
        point,
        ticked: was !== undefined,
        tickedOn: was?.tickedOn ?? today,
        renewsOn: was?.renewsOn ?? '',
      };
    });
  const textsOf = (of: Jurisdiction | null) => placeTexts(of ?? (JURISDICTIONS[0] as Jurisdiction), kitchen);
  const form = useReadForm(
    { points: ticksOf(rules), said: textsOf(rules) },
    (typed): Readings<{ points: Ticks; said: ReturnType<typeof placeFrom> }> => {
      const points = rows((_row: Ticks[number]) => ({ renewsOn: orNone(wordsOrNone) }))(typed.points);
      const said = readShape(placeShape(kitchen), typed.said);
      if (!points.ok || !said.ok)
        return {
          ok: false,
          faults: [
            ...(points.ok ? [] : points.faults.map(f => ({ ...f, path: `points.${f.path}` }))),
            ...(said.ok ? [] : said.faults.map(f => ({ ...f, path: `said.${f.path}` }))),
          ],
        };
      return {
        ok: true,
        value: {
          points: points.value as Ticks,
          said: placeFrom(
            { ...typed.said, ...said.value },
            rules ?? (JURISDICTIONS[0] as Jurisdiction),
            kitchen.currency,
          ),
        },
      };
    },
    { opens: name => name.startsWith('said.') },
  );
  const choose = (id: string) => {
    const found = JURISDICTIONS.find(j => j.id === id) ?? null;
    setRules(found);
    form.again({ points: ticksOf(found), said: textsOf(found) });
  };
  const save = form.submit(async v => {
    if (!rules) return [];
    const edited = { ...rules, ...v.said };
    const changed = canonicalJson(edited) !== canonicalJson(rules);
    const place = changed ? editedPlace(rules, v.said) : rules;
    // What the place now says otherwise was not asked before.
    const anew = changed ? changedPoints(rules, place) : [];
    const stale = v.points.flatMap((p, i) =>
      p.ticked && anew.includes(p.point) && p.tickedOn < today
        ? [{ ...misread('tick-anew', { point: POINT_WORDS[p.point] }).fault, path: `points.${i}.tickedOn` }]
        : [],
    );
    if (stale.length > 0) return stale;
    const { id: _id, placed: _placed, demo: _demo, version, ...settings } = now;
    const fresh = rules.id !== kitchen.jurisdiction.rules?.id;
    const statement = v.points.find(p => p.point === 'statement' && p.ticked);
    const next = await call(changeKitchen, {
      body: {
        ...settings,
        version,
        jurisdiction: {
          ...settings.jurisdiction,
          ...((fresh || changed) && {
            name: place.name,
            source: place.source.slice(0, 200),
            statement: place.statement,
          }),
          confirmedOn: statement ? statement.tickedOn : null,
          rules: place,
          points: v.points
            .filter(p => p.ticked)
            .map(({ point, tickedOn, renewsOn }) => ({ point, tickedOn, renewsOn })),
        },
      },
    });
    client.setQueryData(['kitchen'], next);
    await client.invalidateQueries({ queryKey: ['session'] });
    onClose();
    return [];
  });
  return (
    <FormDialog
      title={say('place.title')}
      action={say('place.save')}
      form={form}
      width="md"
      disabled={!rules}
      onClose={onClose}
      onSubmit={save}
    >
      <Typography sx={{ mb: 2, color: 'text.secondary' }}>{say('place.how')}</Typography>
      <Switcher
        label={say('place.which')}
        value={rules?.id ?? ''}
        of={[['', say('place.notYet')], ...JURISDICTIONS.map(j => [j.id, j.name] as const)]}
        onPick={choose}
        fullWidth
      />
      {rules && (
        <>
          <Soft>
            {rules.source}
            {rules.fromMemory && ` (${say('place.memory')})`}
          </Soft>
          <Foods rules={rules} />
          <Folded summary={say('place.edit')}>
            {() => <PlaceEdit at={name => form.at(`said.${name}`)} />}
          </Folded>
          {allPoints(rules).map((point, i) => (
            <Cells key={`${rules.id} ${point}`} wide="2.4fr 1fr 1fr" narrow="1fr" gap={1.5} mt={1}>
              <Tick
                at={form.at(`points.${i}.ticked`)}
                label={`${POINT_WORDS[point]}: ${saidOf(rules, point, kitchen)}`}
              />
              <Day at={form.at(`points.${i}.tickedOn`)} label={say('place.asked')} />
              <Day at={form.at(`points.${i}.renewsOn`)} label={say('place.renews')} />
            </Cells>
          ))}
        </>
      )}
    </FormDialog>
  );
}
