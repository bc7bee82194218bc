import { GEL_RISE_C, boilingRise_C, brixAtRise, gelPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { durationText, massText, numberText, temperatureText } from '@cocotte/core/measure';
import type { SeenYield, PackedForecast, PotForecast } from '@cocotte/core/forecast';
import { jarCountText, jarSize, pintsOf } from '@cocotte/core/jars';
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
  const faults = foreseen.pot?.faults ?? foreseen.packed?.faults ?? [];
  return (
    <Sheet
      title="What it will make"
      aside={
        correction
          ? `corrected by ${correction.batches} past ${correction.batches === 1 ? 'batch' : 'batches'}`
          : 'not yet corrected by a batch'
      }
    >
      {faults.map(f => (
        <Box key={f.what} role="note" sx={{ mb: 1.5, borderLeft: 4, borderColor: 'ox.main', pl: 1.5 }}>
          <strong>{f.what}</strong> {f.why} {f.next}
        </Box>
      ))}
      {foreseen.pot && (
        <PotFigures
          recipe={recipe}
          pot={foreseen.pot}
          plan={plan}
          correction={correction}
          kitchen={kitchen}
        />
      )}
      {foreseen.packed && <PackFigures packed={foreseen.packed} correction={correction} kitchen={kitchen} />}
      {!foreseen.pot && !foreseen.packed && (
        <Soft>Nothing can be foreseen while a line cannot be weighed.</Soft>
      )}
    </Sheet>
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
  pot,
  plan,
  correction,
  kitchen,
}: {
  recipe: Recipe;
  pot: PotForecast;
  plan: Plan;
  correction: SeenYield | null;
  kitchen: Kitchen;
}) {
  const [chart, setChart] = useState(false);
  const judged = pot.cooks.length === 0 || pot.waterOff_g <= 0;
  const filled = pot.jars.jars.map(j => jarCountText(j.count, j.size)).join(', ') || 'no whole jar';
  const pints =
    pintsOf(pot.jars.jars).valueOf() +
    (pot.jars.part ? pot.jars.part.share * jarSize(pot.jars.part.size).pints.valueOf() : 0);
  const gel = recipe.steps.some(s => s.target.kind === 'gel point');
  const last = pot.cooks.at(-1);
  return (
    <>
      <Typography sx={{ fontSize: '1.15rem', mb: 1.5 }}>
        <strong>{judged ? plan.jars.map(j => jarCountText(j.count, j.size)).join(', ') : filled}</strong>
        {!judged && pot.jars.part && (
          <>
            {' '}
            and {Math.round(pot.jars.part.share * 100)} % of one more {jarSize(pot.jars.part.size).name}, for
            the refrigerator
          </>
        )}
        {judged && (
          <Soft> as written: the end of cooking is judged by eye, so only past batches can say more</Soft>
        )}
        {!judged && correction && pints > 0 && (
          <>
            . Past batches gave {Math.round(correction.share * 100)} % of what was foreseen
            {correction.batches > 1 &&
              `, between ${Math.round(correction.low * 100)} and ${Math.round(correction.high * 100)} %`}
            : about {numberText((pints * correction.share) / smallestPints(pot), kitchen, 1)}{' '}
            {jarSize(smallest(pot)).plural}
          </>
        )}
        .
      </Typography>
      <Figures
        items={[
          [massText(pot.input_g, kitchen), 'goes into the pot'],
          ...(judged
            ? []
            : ([[massText(pot.waterOff_g, kitchen), 'of water to drive off']] as [string, string][])),
          [massText(pot.final_g, kitchen), 'when it is done'],
          [`${numberText(pot.volume_mL / 1000, kitchen, 2)} L`, 'volume, cold'],
          [`${numberText(pot.solids_pct, kitchen, 0)} °Brix`, 'soluble solids'],
          [
            pot.minutes === null
              ? 'by eye'
              : `about ${durationText(Math.max(1, Math.round(pot.minutes)) * 60)}`,
            pot.minutes === null
              ? 'cooking, judged by eye'
              : [
                  plan.pot ? `cooking in the ${plan.pot.name.toLowerCase()}` : 'cooking',
                  pot.untimed > 0
                    ? `and ${pot.untimed === 1 ? 'one step' : `${pot.untimed} steps`} by eye`
                    : '',
                ]
                  .filter(Boolean)
                  .join(', '),
          ],
          ...(last && pot.solids_pct > 10
            ? ([[temperatureText(last.end_C, kitchen), 'boils at, when done, on your thermometer']] as [
                string,
                string,
              ][])
            : []),
          ...(gel
            ? ([
                [
                  temperatureText(gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C), kitchen),
                  `gel point here, ${numberText(brixAtRise(GEL_RISE_C, kitchen.altitude_m), kitchen, 0)} °Brix`,
                ],
              ] as [string, string][])
            : []),
        ]}
      />
      {pot.outlets.length > 0 && (
        <Box component="ul" sx={{ m: 0, mt: 1.5, pl: 2.5 }}>
          {pot.outlets.map(o => {
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
              reach_pct={pot.solids_pct}
              riseAt={b => boilingRise_C(b, kitchen.altitude_m)}
            />
          </Suspense>
        )}
      </Box>
    </>
  );
}

const smallest = (pot: PotForecast) => pot.jars.jars.at(-1)?.size ?? pot.jars.perJar_g.at(-1)?.size ?? 'pint';
const smallestPints = (pot: PotForecast) => jarSize(smallest(pot)).pints.valueOf();

function PackFigures({
  packed,
  correction,
  kitchen,
}: {
  packed: PackedForecast;
  correction: SeenYield | null;
  kitchen: Kitchen;
}) {
  const filled = packed.jars.map(j => jarCountText(j.count, j.size)).join(', ');
  return (
    <>
      <Typography sx={{ fontSize: '1.15rem', mb: 1.5 }}>
        <strong>{filled}</strong>
        {packed.part &&
          ` and pieces for ${Math.round(packed.part.share * 100)} % of one more ${jarSize(packed.part.size).name}`}
        {correction && `. Past batches filled ${Math.round(correction.share * 100)} % of what was foreseen`}.
      </Typography>
      <Figures
        items={[
          [massText(packed.pieces_g, kitchen), 'of pieces'],
          ...packed.perJar.flatMap((j): [string, string][] => [
            [massText(j.pieces_g, kitchen), `pieces in a ${jarSize(j.size).name}`],
            [`${numberText(Math.max(0, j.gap_mL), kitchen, 0)} mL`, `of liquid in a ${jarSize(j.size).name}`],
          ]),
          [`${numberText(packed.liquidNeeded_mL / 1000, kitchen, 2)} L`, 'liquid needed, with its spare'],
          [`${numberText(packed.liquidMade_mL / 1000, kitchen, 2)} L`, 'liquid made'],
          [
            `${numberText(Math.abs(packed.leftover_mL) / 1000, kitchen, 2)} L`,
            packed.leftover_mL >= 0 ? 'left over, for a refrigerator jar' : 'short: make more liquid',
          ],
          ...(packed.jarsPerBushel === null
            ? []
            : ([[numberText(packed.jarsPerBushel, kitchen, 0), 'jars from a bushel']] as [string, string][])),
        ]}
      />
      {packed.leftover_mL < 0 && (
        <Box role="note" sx={{ mt: 1.5, borderLeft: 4, borderColor: 'live.fill', pl: 1.5 }}>
          The liquid runs short by {numberText(-packed.leftover_mL / 1000, kitchen, 2)} L. Running out half
          way is common, and a pot on the boil cannot wait.
        </Box>
      )}
    </>
  );
}
