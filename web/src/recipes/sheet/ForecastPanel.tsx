import { boilingRise_C, gelPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { durationText, massText, numberText, temperatureText } from '@cocotte/core/measure';
import {
  corrected,
  type Forecast,
  OWN_RANGE,
  type PackForecast,
  type SeenYield,
} from '@cocotte/core/forecast';
import { jarCountText, jarSize, type JarSizeId } from '@cocotte/core/jars';
import type { Recipe } from '@cocotte/core/recipes';
import { Box, Button, Typography } from '@mui/material';
import { Suspense, lazy, useState } from 'react';
import { Sheet, Soft } from '../../kit/parts.tsx';
import type { Foreseen, Plan } from './plan.ts';

const SugarChart = lazy(async () => ({ default: (await import('./SugarChart.tsx')).SugarChart }));

/** What the pot or the pack will do and give, with what past batches say of it. */
export function ForecastPanel({
  recipe,
  plan,
  foreseen,
  correction,
  kitchen,
}: {
  recipe: Recipe;
  plan: Plan;
  foreseen: Foreseen;
  correction: SeenYield | null;
  kitchen: Kitchen;
}) {
  const { made } = foreseen;
  return (
    <Sheet
      title="What it will make"
      aside={
        correction
          ? `corrected by ${correction.batches} past ${correction.batches === 1 ? 'batch' : 'batches'}`
          : 'not yet corrected by a batch'
      }
    >
      {made?.faults.map(f => (
        <Box key={f.what} role="note" sx={{ mb: 1.5, borderLeft: 4, borderColor: 'ox.main', pl: 1.5 }}>
          <strong>{f.what}</strong> {f.why} {f.next}
        </Box>
      ))}
      {made && <Made recipe={recipe} made={made} plan={plan} correction={correction} kitchen={kitchen} />}
      {made?.pack && <PackFigures pack={made.pack} kitchen={kitchen} />}
      {made && !made.pack && <PotFigures recipe={recipe} made={made} plan={plan} kitchen={kitchen} />}
      {!made && <Soft>Nothing can be foreseen while a line cannot be weighed.</Soft>}
    </Sheet>
  );
}

/** How many jars it fills, and between what. */
function Made({
  recipe,
  made,
  plan,
  correction,
  kitchen,
}: {
  recipe: Recipe;
  made: Forecast;
  plan: Plan;
  correction: SeenYield | null;
  kitchen: Kitchen;
}) {
  const said = (jars: Forecast['jars']) => jars.map(j => jarCountText(j.count, j.size)).join(', ');
  const size: JarSizeId = made.jars.at(-1)?.size ?? plan.jars.at(-1)?.size ?? recipe.makes.size;
  const each = jarSize(size).pints.valueOf();
  const range = corrected(made.pints, correction);
  const n = (pints: number) => numberText(pints / each, kitchen, 1);
  return (
    <Typography sx={{ fontSize: '1.15rem', mb: 1.5 }}>
      <strong>{made.byEye ? said(plan.jars) : said(made.jars) || 'no whole jar'}</strong>
      {!made.byEye && made.part && (
        <>
          {' '}
          and {Math.round(made.part.share * 100)} % of one more {jarSize(made.part.size).name}, for the
          refrigerator
        </>
      )}
      {made.byEye && <Soft> as written: the end of cooking is judged by eye</Soft>}
      {correction && (
        <>
          . Past batches gave {Math.round(correction.share * 100)} % of what was foreseen: about{' '}
          {n(range.mid)} {jarSize(size).plural}
        </>
      )}
      . Eight times in ten between {n(range.low)} and {n(range.high)} {jarSize(size).plural}
      {correction && correction.batches >= OWN_RANGE
        ? `, by your last ${correction.batches} batches.`
        : ', by how far yields of the trade scatter.'}
    </Typography>
  );
}

/** Figures in a row, each with its words underneath. */
function Figures({ items }: { items: [figure: string, words: string][] }) {
  return (
    <Box
      component="dl"
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(130px, 1fr))', gap: 2, m: 0 }}
    >
      {items.map(([figure, words]) => (
        <Box
          key={words}
          sx={{ display: 'flex', flexDirection: 'column-reverse', justifyContent: 'flex-end' }}
        >
          <Box component="dt" sx={{ color: 'text.secondary', fontSize: '0.92rem', lineHeight: 1.25 }}>
            {words}
          </Box>
          <Box component="dd" sx={{ m: 0, fontSize: '1.35rem', fontWeight: 700, lineHeight: 1.25 }}>
            {figure}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function PotFigures({
  recipe,
  made,
  plan,
  kitchen,
}: {
  recipe: Recipe;
  made: Forecast;
  plan: Plan;
  kitchen: Kitchen;
}) {
  const [chart, setChart] = useState(false);
  const gel = recipe.steps.some(s => s.target.kind === 'gel point');
  const last = made.cooks.findLast(c => c.part === '');
  return (
    <>
      <Figures
        items={[
          [massText(made.input_g, kitchen), 'goes into the pot'],
          ...(made.waterOff_g <= 0
            ? []
            : ([[massText(made.waterOff_g, kitchen), 'of water to drive off']] as [string, string][])),
          [massText(made.final_g, kitchen), 'when it is done'],
          [`${numberText(made.volume_mL / 1000, kitchen, 2)} L`, 'volume, cold'],
          [`${numberText(made.solids_pct, kitchen, 0)} °Brix`, 'soluble solids, give or take 2'],
          [
            made.minutes === null
              ? 'by eye'
              : `about ${durationText(Math.max(1, Math.round(made.minutes)) * 60)}`,
            made.minutes === null
              ? 'cooking, judged by eye'
              : [
                  plan.pot ? `cooking in the ${plan.pot.name.toLowerCase()}` : 'cooking',
                  made.untimed > 0
                    ? `and ${made.untimed === 1 ? 'one step' : `${made.untimed} steps`} by eye`
                    : '',
                ]
                  .filter(Boolean)
                  .join(', '),
          ],
          ...(last && made.solids_pct > 10
            ? ([[temperatureText(last.end_C, kitchen), 'boils at, when done, on your thermometer']] as [
                string,
                string,
              ][])
            : []),
          ...(gel
            ? ([
                [
                  temperatureText(gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C), kitchen),
                  'gel point here, on your thermometer',
                ],
              ] as [string, string][])
            : []),
        ]}
      />
      {made.outlets.length > 0 && (
        <Box component="ul" sx={{ m: 0, mt: 1.5, pl: 2.5 }}>
          {made.outlets.map(o => {
            const outlet = recipe.outlets.find(x => x.id === o.id);
            return (
              <li key={o.id}>
                {massText(o.mass_g, kitchen)} of it as {outlet?.name},{' '}
                {outlet?.use === 'jars'
                  ? `into ${jarSize(outlet.jarSize ?? 'pint').plural}`
                  : outlet?.use === 'refrigerator'
                    ? 'for the refrigerator'
                    : 'back to stores'}
              </li>
            );
          })}
        </Box>
      )}
      <Box sx={{ mt: 1.5 }}>
        <Button size="small" variant="outlined" onClick={() => setChart(c => !c)} aria-expanded={chart}>
          {chart ? 'Put the curve away' : 'Temperature against °Brix'}
        </Button>
        {chart && (
          <Suspense fallback={<Soft>The curve is coming.</Soft>}>
            <SugarChart
              kitchen={kitchen}
              reach_pct={made.solids_pct}
              riseAt={b => boilingRise_C(b, kitchen.altitude_m)}
            />
          </Suspense>
        )}
      </Box>
    </>
  );
}

function PackFigures({ pack, kitchen }: { pack: PackForecast; kitchen: Kitchen }) {
  return (
    <>
      <Figures
        items={[
          [massText(pack.pieces_g, kitchen), 'of pieces'],
          ...pack.perJar.flatMap((j): [string, string][] => [
            [massText(j.pieces_g, kitchen), `pieces in a ${jarSize(j.size).name}`],
            [`${numberText(Math.max(0, j.gap_mL), kitchen, 0)} mL`, `of liquid in a ${jarSize(j.size).name}`],
          ]),
          [`${numberText(pack.liquidNeeded_mL / 1000, kitchen, 2)} L`, 'liquid needed, with its spare'],
          [`${numberText(pack.liquidMade_mL / 1000, kitchen, 2)} L`, 'liquid made'],
          [
            `${numberText(Math.abs(pack.leftover_mL) / 1000, kitchen, 2)} L`,
            pack.leftover_mL >= 0 ? 'left over, for a refrigerator jar' : 'short: make more liquid',
          ],
          ...(pack.jarsPerBushel === null
            ? []
            : ([[numberText(pack.jarsPerBushel, kitchen, 0), 'jars from a bushel']] as [string, string][])),
        ]}
      />
      {pack.leftover_mL < 0 && (
        <Box role="note" sx={{ mt: 1.5, borderLeft: 4, borderColor: 'live.fill', pl: 1.5 }}>
          The liquid runs short by {numberText(-pack.leftover_mL / 1000, kitchen, 2)} L. Running out half way
          is common, and a pot on the boil cannot wait.
        </Box>
      )}
    </>
  );
}
