import { startedOf, USUAL_LOT_PATTERN } from '@cocotte/core/batches';
import { jarCountText } from '@cocotte/core/jars';
import { clockText, dayOf, Fraction } from '@cocotte/core/measure';
import { type Scene, SCENES } from '@cocotte/devices';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { Link, useParams } from 'react-router';
import { Switcher, Toggle } from '../../kit/controls.tsx';
import { Line, Stack } from '../../kit/layout.tsx';
import { Waiting } from '../../kit/Loaded.tsx';
import { Caution, Faults, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { InstrumentsContext } from '../../kit/TakeReading.tsx';
import { useRecipe } from '../../recipes/api.ts';
import { firstWanted, planOf } from '../../recipes/sheet/plan.ts';
import { faultsOf } from '../../shell/call.ts';
import { ClockContext, kitchenNow, useNow } from '../../shell/clock.ts';
import { HereContext, useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { Cooking } from '../Cooking.tsx';
import { keepRehearsal, keptRehearsal, Rehearsal, SPEEDS, type Speed } from './rehearsal.ts';
import { StandIns } from './StandIns.tsx';

/** What can be chosen to go wrong: nothing, one thing, or something that is not told before. */
type Chosen = Scene | 'surprise' | 'nothing';

const SCENE_WORDS = {
  surprise: 'dry.scene.surprise',
  nothing: 'dry.scene.nothing',
  'boil lost': 'dry.scene.boil',
  'low water': 'dry.scene.water',
  'probe on the bottom': 'dry.scene.bottom',
  'scale creeping': 'dry.scene.creep',
  'rubbish on the line': 'dry.scene.rubbish',
} as const satisfies { readonly [K in Chosen]: string };

/** A recipe cooked dry: with the counter's own panels, beside stand-ins, outside the record and the stock. */
export function RehearsalPage() {
  const { recipeId = '' } = useParams();
  const { data, error } = useRecipe(recipeId);
  const [rehearsal, setRehearsal] = useState(() => keptRehearsal(recipeId));
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  const keep = (next: Rehearsal | null) => {
    keepRehearsal(recipeId, next);
    setRehearsal(next);
  };
  return rehearsal ? (
    <Rehearsing rehearsal={rehearsal} recipeId={recipeId} onAgain={() => keep(null)} />
  ) : (
    <Setup data={data} onBegin={keep} />
  );
}

function Setup({
  data: { recipe, recipeId, number },
  onBegin,
}: {
  data: NonNullable<ReturnType<typeof useRecipe>['data']>;
  onBegin: (rehearsal: Rehearsal) => void;
}) {
  const { kitchen, person } = useHere();
  const [chosen, setChosen] = useState<Chosen>('surprise');
  const [speed, setSpeed] = useState<Speed>(5);
  const plan = useMemo(
    () =>
      recipe.sketch
        ? { factor: new Fraction(1), jars: [recipe.makes], pot: null }
        : planOf(recipe, firstWanted(recipe, kitchen), kitchen),
    [recipe, kitchen],
  );
  const begin = () => {
    const scene =
      chosen === 'nothing'
        ? null
        : chosen === 'surprise'
          ? (SCENES[Math.floor(Math.random() * SCENES.length)] as Scene)
          : chosen;
    const at_ms = kitchenNow();
    const started = startedOf({
      recipeId,
      recipeVersion: number,
      recipe,
      factor: plan.factor,
      jars: plan.jars,
      purpose: 'trial',
      heat: 'boiling water',
      pot: plan.pot,
      doublePectin: false,
      lotCode: say('dry.tag'),
      lotPattern: USUAL_LOT_PATTERN,
      madeOn: dayOf(at_ms, kitchen.zone),
      kitchen,
      confirmations: [],
    });
    const made = new Rehearsal(started, person.id, kitchen, scene, at_ms);
    made.set({ speed });
    onBegin(made);
  };
  return (
    <>
      <ViewHead title={say('dry.title', { name: recipe.name })} detail={say('dry.detail')} />
      <Sheet sx={{ maxWidth: 640 }}>
        <Typography sx={{ fontSize: '1.15rem', mb: 2 }}>
          {say('dry.what', { jars: plan.jars.map(j => jarCountText(j.count, j.size)).join(', ') })}
        </Typography>
        <Switcher
          label={say('dry.scene')}
          value={chosen}
          of={(['surprise', 'nothing', ...SCENES] as const).map(s => [s, say(SCENE_WORDS[s])] as const)}
          onPick={setChosen}
          fullWidth
          sx={{ mb: 2 }}
        />
        <SpeedToggle speed={speed} onPick={setSpeed} />
        {!kitchen.placed && <Caution>{say('dry.noPlace')}</Caution>}
        <Button
          variant="contained"
          fullWidth
          sx={{ minHeight: 72, fontSize: '1.2rem', mt: 2.5 }}
          disabled={!kitchen.placed}
          onClick={begin}
        >
          {say('dry.begin')}
        </Button>
      </Sheet>
    </>
  );
}

function SpeedToggle({ speed, onPick }: { speed: Speed; onPick: (speed: Speed) => void }) {
  return (
    <Toggle
      label={say('dry.speed')}
      value={String(speed)}
      of={SPEEDS.map(s => [String(s), say('dry.times', { n: s })] as const)}
      onPick={s => onPick(Number(s) as Speed)}
    />
  );
}

function Rehearsing({
  rehearsal,
  recipeId,
  onAgain,
}: {
  rehearsal: Rehearsal;
  recipeId: string;
  onAgain: () => void;
}) {
  const here = useHere();
  useSyncExternalStore(rehearsal.subscribe, rehearsal.seen);
  useEffect(() => rehearsal.run(), [rehearsal]);
  // Whoever learns cooks as a cook here, whatever they may do in the kitchen's own record.
  const cook = useMemo(() => ({ ...here, role: 'cook' as const, shared: false }), [here]);
  return (
    <HereContext value={cook}>
      <ClockContext value={rehearsal.clock}>
        <InstrumentsContext value={rehearsal.instruments()}>
          <Box sx={{ border: '3px dashed', borderColor: 'live.fill', borderRadius: 1, p: { xs: 1, sm: 2 } }}>
            <Strip rehearsal={rehearsal} />
            {rehearsal.over ? (
              <Debriefed rehearsal={rehearsal} recipeId={recipeId} onAgain={onAgain} />
            ) : (
              <>
                <StandIns rehearsal={rehearsal} />
                <Cooking batch={rehearsal.batch()} />
              </>
            )}
          </Box>
        </InstrumentsContext>
      </ClockContext>
    </HereContext>
  );
}

const HOUR_MS = 3_600_000;

/** Says throughout that this is a rehearsal, with its clock. */
function Strip({ rehearsal }: { rehearsal: Rehearsal }) {
  const { kitchen } = useHere();
  const now_ms = useNow();
  return (
    <>
      <Box
        role="region"
        aria-label={say('dry.tag')}
        sx={{
          position: 'sticky',
          top: 0,
          zIndex: 2,
          bgcolor: 'background.paper',
          border: 1,
          borderColor: 'live.fill',
          borderLeftWidth: 8,
          borderRadius: 1,
          px: 2,
          py: 0.75,
          mb: 1,
          display: 'flex',
          gap: 1.5,
          alignItems: 'center',
        }}
      >
        <Box sx={{ flex: 1 }}>
          <strong>{say('dry.tag')}</strong> <Soft>{say('dry.nothing')}</Soft>
        </Box>
        <Box sx={{ fontSize: '1.3rem', fontWeight: 700, whiteSpace: 'nowrap' }}>
          {clockText(now_ms, kitchen, true)}
        </Box>
      </Box>
      <Line sx={{ mb: 2 }}>
        {rehearsal.over ? (
          <Button variant="outlined" sx={{ minHeight: 48 }} onClick={() => rehearsal.set({ over: false })}>
            {say('dry.goOn')}
          </Button>
        ) : (
          <>
            <SpeedToggle speed={rehearsal.speed} onPick={speed => rehearsal.set({ speed })} />
            <Button variant="outlined" sx={{ minHeight: 48 }} onClick={() => rehearsal.pass(HOUR_MS)}>
              {say('dry.hour')}
            </Button>
            <Button variant="contained" sx={{ minHeight: 48 }} onClick={() => rehearsal.set({ over: true })}>
              {say('dry.end')}
            </Button>
          </>
        )}
      </Line>
    </>
  );
}

/** What was missed, and what was done well. */
function Debriefed({
  rehearsal,
  recipeId,
  onAgain,
}: {
  rehearsal: Rehearsal;
  recipeId: string;
  onAgain: () => void;
}) {
  const found = useMemo(() => rehearsal.debrief(), [rehearsal]);
  const missed = found.filter(f => !f.well);
  const { scene } = rehearsal.dry;
  const title = missed.length === 0 ? say('dry.clean') : say('dry.missed', { n: missed.length });
  return (
    <>
      <ViewHead
        title={title}
        detail={
          scene === null
            ? say('dry.wasNothing')
            : say(rehearsal.dry.happened.length > 0 ? 'dry.was' : 'dry.wasNot', {
                scene: say(SCENE_WORDS[scene]),
              })
        }
      />
      <Stack>
        {found.map(f => (
          <Sheet key={`${f.code} ${f.what}`}>
            <Line>
              <Tag tone={f.well ? 'leaf' : 'ox'}>{say(f.well ? 'dry.well' : 'dry.miss')}</Tag>
              <Box sx={{ fontSize: '1.15rem', flex: 1 }}>{f.what}</Box>
            </Line>
            {f.why && <Soft>{f.why}</Soft>}
          </Sheet>
        ))}
      </Stack>
      <Line mt={2}>
        <Button variant="contained" sx={{ minHeight: 56 }} onClick={onAgain}>
          {say('dry.again')}
        </Button>
        <Button component={Link} to={`/recipes/${recipeId}`} variant="outlined" sx={{ minHeight: 56 }}>
          {say('dry.back')}
        </Button>
      </Line>
    </>
  );
}
