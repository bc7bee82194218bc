import { PH_LIMIT } from '@cocotte/core/acid';
import {
  type AcidityAsk,
  type AcidityForecast,
  type AcidityMover,
  acidityAsk,
  BIN_FROM_PH,
  BIN_PH,
  type OnTheWay,
} from '@cocotte/core/forecast';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Fault, numberText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { Box, Typography } from '@mui/material';
import * as comlink from 'comlink';
import { memo, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { Chart, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Count } from '../../kit/controls.tsx';
import { List } from '../../kit/List.tsx';
import { Faults, Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { faultsOf } from '../../shell/call.ts';
import { say } from '../../words/views.ts';
import type { AcidityWorker } from '../acidity.worker.ts';
import type { Foreseen } from './plan.ts';

/** A share that is small enough. The other side of nine jars in ten, and half of it. */
const RARE = 0.05;

/** Movers that are told. */
const TOLD = 5;

/** What the jars are likely to read at equilibrium: a forecast, which says so, and opens no gate. */
export function AcidityForecastPanel({
  recipe,
  foreseen,
  kitchen,
}: {
  recipe: Recipe;
  foreseen: Foreseen;
  kitchen: Kitchen;
}) {
  const { made } = foreseen;
  const ask = useMemo(
    () => (made ? acidityAsk(made.process, made.made, recipe.method.cut) : null),
    [made, recipe.method.cut],
  );
  const [piece, setPiece] = useState<number | null>(null);
  const piece_mm = piece ?? ask?.piece_mm ?? 0;
  const { forecast, way, faults } = useAcidity(ask, kitchen.phAct, piece_mm);
  if (!ask || ask.water_g[0] <= 0) return null;
  const ph = (value: number) => numberText(value, kitchen, 2);
  return (
    <Sheet title={say('foresee.title')} aside={say('foresee.aside')}>
      <Faults faults={faults} />
      {!forecast && faults.length === 0 && <Soft>{say('foresee.reckoning')}</Soft>}
      {forecast && (
        <>
          <Typography sx={{ fontSize: '1.3rem' }}>
            <strong>pH {ph(forecast.average.mid)}</strong>{' '}
            {say('foresee.range', { low: ph(forecast.average.low), high: ph(forecast.average.high) })}
          </Typography>
          {Math.abs(forecast.tightest.mid - forecast.loosest) > 0.005 && (
            <Box>
              {say('foresee.packs', { tight: ph(forecast.tightest.mid), loose: ph(forecast.loosest) })}
            </Box>
          )}
          <Box sx={{ my: 1, display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
            <span>{say('foresee.inTightest')}</span>
            {(
              [
                [kitchen.phAct, forecast.tightest.aboveAct, 'live'],
                [PH_LIMIT, forecast.tightest.aboveLimit, 'ox'],
              ] as const
            ).map(([limit, of, tone]) => (
              <Tag key={limit} tone={of > RARE ? tone : 'leaf'}>
                {say('foresee.above', { limit: numberText(limit, kitchen), share: share(of, kitchen) })}
              </Tag>
            ))}
          </Box>
          <Distribution forecast={forecast} kitchen={kitchen} />
          <Typography component="h3" sx={{ fontWeight: 650, mt: 2 }}>
            {say('foresee.movers')}
          </Typography>
          <List
            label={say('foresee.movers')}
            rows={forecast.movers.slice(0, TOLD)}
            keyOf={m => `${m.what} ${m.id}`}
            columns={[
              { head: say('foresee.mover'), row: true, cell: m => moverWords(m) },
              { head: say('foresee.from'), figure: true, cell: m => ph(m.from_ph) },
              { head: say('foresee.to'), figure: true, cell: m => ph(m.to_ph) },
            ]}
          />
          <Box sx={{ mt: 1.5 }}>
            {forecast.moreAcid !== null && forecast.moreAcid > 1.005 && (
              <Box>
                {say('foresee.more', {
                  times: numberText(forecast.moreAcid, kitchen, 2),
                  act: numberText(kitchen.phAct, kitchen),
                })}
              </Box>
            )}
            {forecast.moreAcid === 1 && (
              <Box>{say('foresee.enough', { act: numberText(kitchen.phAct, kitchen) })}</Box>
            )}
            {forecast.swaps.map(s => (
              <Box key={s.to}>
                {say(
                  `foresee.swap.${s.to === 'bottled juice' ? 'juice' : s.to === 'citric acid' ? 'citric' : 'vinegar'}`,
                  {
                    ph: ph(s.ph),
                  },
                )}
              </Box>
            ))}
            {forecast.guessed.length > 0 && (
              <Soft>{say('foresee.guessed', { names: forecast.guessed.join(', ') })}</Soft>
            )}
          </Box>
          {way.length > 0 && <Way way={way} piece_mm={piece_mm} onPiece={setPiece} kitchen={kitchen} />}
          <Soft sx={{ mt: 1.5 }}>{say('foresee.proves')}</Soft>
        </>
      )}
    </Sheet>
  );
}

const share = (of: number, kitchen: Kitchen) =>
  of === 0
    ? `${numberText(0, kitchen, 0)} %`
    : of < 0.001
      ? `< ${numberText(0.1, kitchen, 1)} %`
      : `${numberText(of * 100, kitchen, of < 0.1 ? 1 : 0)} %`;

const moverWords = (m: AcidityMover) =>
  m.what === 'water' || m.what === 'pack'
    ? say(`foresee.moves.${m.what}`)
    : say(`foresee.moves.${m.what}`, { name: m.name });

/** The worker, once it was asked something. */
interface Reckoner {
  api: comlink.Remote<AcidityWorker>;
  end: () => void;
}
function apiOf(worker: RefObject<Reckoner | null>) {
  if (!worker.current) {
    const made = new Worker(new URL('../acidity.worker.ts', import.meta.url), { type: 'module' });
    worker.current = { api: comlink.wrap<AcidityWorker>(made), end: () => made.terminate() };
  }
  return worker.current.api;
}

/** Reckons in a worker, each thing anew where what it hangs on changes; an answer that comes late is not shown. */
function useAcidity(ask: AcidityAsk | null, act: number, piece_mm: number) {
  const [forecast, setForecast] = useState<AcidityForecast | null>(null);
  const [way, setWay] = useState<OnTheWay[]>([]);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const worker = useRef<Reckoner | null>(null);
  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  // What is asked stands in its text: the same recipe is not reckoned twice.
  const asked = ask && ask.water_g[0] > 0 ? JSON.stringify(ask) : null;
  useEffect(() => {
    if (asked === null) return;
    let late = false;
    apiOf(worker)
      .forecast(JSON.parse(asked) as AcidityAsk, { limit: PH_LIMIT, act })
      .then(
        found => void (late || (setForecast(found), setFaults([]))),
        (error: unknown) => void (late || setFaults(faultsOf(error))),
      );
    return () => {
      late = true;
    };
  }, [asked, act]);
  useEffect(() => {
    if (asked === null) return;
    let late = false;
    apiOf(worker)
      .way(JSON.parse(asked) as AcidityAsk, piece_mm)
      .then(
        found => void (late || setWay(found)),
        (error: unknown) => void (late || setFaults(faultsOf(error))),
      );
    return () => {
      late = true;
    };
  }, [asked, piece_mm]);
  return { forecast, way, faults };
}

/** Draws of the average and the tightest jar against the limit and what the kitchen acts at. */
const Distribution = memo(function Distribution({
  forecast,
  kitchen,
}: {
  forecast: AcidityForecast;
  kitchen: Kitchen;
}) {
  const { palette } = useInk();
  const { average, tightest } = forecast.bins;
  const used = average.map((v, i) => v + (tightest[i] ?? 0) > 0.0005);
  // From one fifth of a pH to another, so that the figures beneath are round.
  const fifth = Math.round(0.2 / BIN_PH);
  const least = Math.min(used.indexOf(true), Math.round((kitchen.phAct - BIN_FROM_PH) / BIN_PH) - 2);
  const most = Math.max(used.lastIndexOf(true), Math.round((PH_LIMIT - BIN_FROM_PH) / BIN_PH) + 4);
  const from = Math.max(0, Math.floor(least / fifth) * fifth);
  const to = Math.ceil((most + 1) / fifth) * fifth;
  const points = (of: number[]) =>
    of.slice(from, to).map((y, i) => ({
      x: Number((BIN_FROM_PH + (from + i + 0.5) * BIN_PH).toFixed(3)),
      y: Number((y * 100).toFixed(2)),
    }));
  const packed = average.some((v, i) => Math.abs(v - (tightest[i] ?? 0)) > 1e-9);
  const line = (x: number, text: string, color: string) => ({
    x,
    borderColor: color,
    strokeDashArray: 0,
    label: {
      text,
      orientation: 'horizontal' as const,
      borderWidth: 0,
      style: { background: 'transparent', color: palette.text.primary },
    },
  });
  return (
    <Box aria-hidden="true">
      <Chart
        type="area"
        height={190}
        series={[
          { name: say('foresee.average'), data: points(average) },
          ...(packed ? [{ name: say('foresee.tightest'), data: points(tightest) }] : []),
        ]}
        options={{
          chart: PLAIN_CHART,
          colors: [palette.leaf.main, palette.live.main],
          stroke: { width: 2, curve: 'smooth' },
          fill: { type: 'solid', opacity: 0.18 },
          dataLabels: { enabled: false },
          legend: { labels: { colors: palette.text.primary } },
          grid: { borderColor: palette.divider },
          tooltip: { enabled: false },
          xaxis: {
            type: 'numeric',
            min: BIN_FROM_PH + from * BIN_PH,
            max: BIN_FROM_PH + to * BIN_PH,
            tickAmount: (to - from) / fifth,
            labels: {
              style: { colors: palette.text.secondary },
              formatter: v => numberText(Number(v), kitchen, 1),
            },
          },
          yaxis: { labels: { show: false } },
          annotations: {
            xaxis: [
              line(kitchen.phAct, numberText(kitchen.phAct, kitchen), palette.rule.strong),
              line(PH_LIMIT, numberText(PH_LIMIT, kitchen), palette.ox.main),
            ],
          },
        }}
      />
    </Box>
  );
});

/** From filling to equilibrium: how long the middle of a piece takes. */
function Way({
  way,
  piece_mm,
  onPiece,
  kitchen,
}: {
  way: readonly OnTheWay[];
  piece_mm: number;
  onPiece: (mm: number) => void;
  kitchen: Kitchen;
}) {
  const ph = (value: number) => numberText(value, kitchen, 2);
  const there = way.find(w => Math.abs(w.centre_ph - w.liquid_ph) < 0.1);
  return (
    <Box sx={{ mt: 2 }}>
      <Typography component="h3" sx={{ fontWeight: 650 }}>
        {say('foresee.way')}
      </Typography>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', my: 1 }}>
        <Count
          label={say('foresee.piece')}
          value={piece_mm}
          min={1}
          max={80}
          onCount={onPiece}
          sx={{ width: 170 }}
        />
        <Box>
          {there
            ? say('foresee.there', { h: there.hours })
            : say('foresee.notThere', { h: way.at(-1)?.hours ?? 0 })}
        </Box>
      </Box>
      <Box component="details">
        <summary>{say('foresee.byHour')}</summary>
        <List
          label={say('foresee.way')}
          rows={way}
          keyOf={w => w.hours}
          columns={[
            { head: say('foresee.hours'), figure: true, row: true, cell: w => w.hours },
            { head: say('foresee.centre'), figure: true, cell: w => ph(w.centre_ph) },
            { head: say('foresee.pieces'), figure: true, cell: w => ph(w.pieces_ph) },
            { head: say('foresee.liquid'), figure: true, cell: w => ph(w.liquid_ph) },
          ]}
        />
      </Box>
    </Box>
  );
}
