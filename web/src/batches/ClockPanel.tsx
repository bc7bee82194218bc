import type { LoadState } from '@cocotte/core/batches';
import { REST_MINUTES } from '@cocotte/core/checks';
import { altitudeText, clockText, countdownText, depthText, durationText } from '@cocotte/core/measure';
import { jarCountText, USUAL_HOLDS } from '@cocotte/core/jars';
import { waterCover_mm } from '@cocotte/core/times';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useState } from 'react';
import { useNow } from '../shell/clock.ts';
import { Cells } from '../kit/layout.tsx';
import { CannerGlyph } from '../kit/jars.tsx';
import { Caution, Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { LidMarks } from './LidMarks.tsx';
import type { OpenBatch } from './open-batch.ts';
import { BrokenDialog, HeatOffDialog, TroubleDialog } from './ClockDialogs.tsx';
import { useTaps } from './taps.ts';
import type { When } from './when.ts';
import { say } from '../words/views.ts';

/** One load in the canner: waiting for the boil, timed, or resting. One strong action at a time. */
export function ClockPanel({
  batch,
  load,
  when,
  mayCook,
}: {
  batch: OpenBatch;
  load: LoadState;
  when: When;
  mayCook: boolean;
}) {
  const { kitchen } = useHere();
  const now = useNow();
  const [broken, setBroken] = useState(false);
  const [trouble, setTrouble] = useState(false);
  const [early, setEarly] = useState(false);
  const [forgotten, setForgotten] = useState(false);
  const required_s = load.required_s;
  const minutes = required_s === null ? null : required_s / 60;
  const steam = load.heat === 'steam';
  const since_ms = load.boilingSince?.at_ms ?? null;
  const elapsed_s = since_ms === null ? 0 : (now - since_ms) / 1000;
  const left_s = required_s === null ? 0 : required_s - elapsed_s;
  const boiling = load.phase === 'boiling';
  // What was asked because time was left is moot once none is.
  if (early && left_s <= 0) setEarly(false);
  const resting = load.heatOff !== null;
  const jars = batch.state.jars.filter(j => load.jars.includes(j.number));
  const sizes = [...new Set(jars.map(j => j.size))];
  const canner = kitchen.canners.find(c => c.id === load.cannerId) ?? null;
  const taps = useTaps(`${load.phase} ${load.voided_s.length} ${load.heatOff?.eventId ?? ''}`);
  const enter = (type: 'load.boiling' | 'load.boil_lost' | 'load.heat_off' | 'load.lifted') =>
    taps.once(() => batch.enter([[type, { loadId: load.id }]], when));
  const rest_s = load.heatOff ? REST_MINUTES * 60 - (now - load.heatOff.at_ms) / 1000 : 0;
  const heatOff = () =>
    left_s > 0 && !when.typed ? taps.unlessStill(() => setEarly(true)) : enter('load.heat_off');
  const big = { minHeight: 76, fontSize: '1.2rem' } as const;
  return (
    <Sheet tone="live" sx={{ mb: 2 }}>
      <Box
        component="section"
        aria-label={`Load ${load.number}`}
        sx={{ display: 'flex', gap: { xs: 1.5, sm: 3 }, alignItems: 'center' }}
      >
        <Box sx={{ width: { xs: 84, sm: 230 }, flex: 'none' }}>
          <CannerGlyph
            jars={jars}
            holds={canner?.holds ?? USUAL_HOLDS}
            share={boiling && required_s ? elapsed_s / required_s : null}
          />
        </Box>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ fontSize: '1.1rem', color: 'text.secondary' }}>
            Load {load.number} ·{' '}
            {sizes.map(s => jarCountText(jars.filter(j => j.size === s).length, s)).join(' and ')}
            {canner && <> · {canner.name}</>}
            {boiling && since_ms !== null && <> · full boil since {clockText(since_ms, kitchen, true)}</>}
          </Box>
          {boiling && required_s !== null && (
            <>
              <Box
                role="timer"
                aria-label={`Load ${load.number}`}
                sx={{
                  fontSize: { xs: 'min(4.2rem, 17vw)', sm: '6.6rem' },
                  fontWeight: 720,
                  lineHeight: 1.03,
                  letterSpacing: '-0.03em',
                  color: left_s <= 0 ? 'live.main' : 'text.primary',
                }}
              >
                {left_s > 0 ? countdownText(left_s) : `+${countdownText(-left_s)}`}
              </Box>
              <Box sx={{ fontSize: '1.2rem' }}>
                {left_s > 0 ? (
                  <>
                    of <strong>{minutes} minutes</strong> at{' '}
                    {altitudeText(batch.state.started?.kitchen.altitude_m ?? 0, kitchen)}, unbroken
                  </>
                ) : (
                  <strong>Time. Heat off, lid off.</strong>
                )}
              </Box>
              <Soft>
                {steam
                  ? 'Just hold the steam in its zone; the lid stays on.'
                  : `Just hold the boil. Water ${depthText(waterCover_mm(minutes ?? 0), kitchen)} over the lids.`}
              </Soft>
            </>
          )}
          {resting && (
            <>
              <Box
                role="timer"
                aria-label={`Load ${load.number} rests`}
                sx={{
                  fontSize: { xs: 'min(3.4rem, 15vw)', sm: '4.6rem' },
                  fontWeight: 720,
                  lineHeight: 1.05,
                }}
              >
                {rest_s > 0 ? countdownText(rest_s) : 'Lift'}
              </Box>
              <Box sx={{ fontSize: '1.15rem' }}>
                {load.time_s === null ? '' : `${durationText(load.time_s)} at the boil.`} Heat off: the jars
                stand {REST_MINUTES} minutes, then come out.
              </Box>
            </>
          )}
          {!boiling && !resting && (
            <>
              <Typography variant="h2" sx={{ fontSize: '1.7rem', my: 0.5 }}>
                {load.phase === 'boil lost' ? 'Bring it back to a full boil' : 'Waiting for the full boil'}
              </Typography>
              <Box sx={{ fontSize: '1.1rem' }}>
                {minutes === null
                  ? 'There is no processing time for these jars: they will not be released.'
                  : load.phase === 'boil lost'
                    ? `${load.voided_s.map(s => durationText(s)).join(' and ')} do not count. The ${minutes} minutes start again from zero.`
                    : steam
                      ? 'Vent it. The clock starts when the dial stands in the zone for this altitude and a full column of steam comes, not when the jars go in.'
                      : `The clock starts when stirring cannot stop the boil, not when the jars go in. Water ${depthText(waterCover_mm(minutes), kitchen)} over the lids.`}
              </Box>
            </>
          )}
        </Box>
      </Box>
      {mayCook && (
        <Cells wide="1fr 1fr" gap={1.75} mt={2}>
          {!boiling && !resting && (
            <Button {...taps.button} variant="contained" sx={big} onClick={() => enter('load.boiling')}>
              {minutes === null ? 'It boils' : `Start the ${minutes} minutes`}
            </Button>
          )}
          {boiling && (
            <Button
              {...taps.button}
              variant={left_s > 0 && !when.typed ? 'outlined' : 'contained'}
              sx={big}
              onClick={heatOff}
            >
              Heat off
            </Button>
          )}
          {boiling && (
            <Button
              {...taps.button}
              variant="outlined"
              color="error"
              sx={{ ...big, color: 'ox.main', borderColor: 'ox.main' }}
              onClick={() => enter('load.boil_lost')}
            >
              The boil was lost
            </Button>
          )}
          {boiling && left_s > 0 && (
            <Button variant="outlined" sx={big} onClick={() => setTrouble(true)}>
              {say(steam ? 'trouble.steam' : 'trouble.water')}
            </Button>
          )}
          {boiling && left_s <= 0 && (
            <Button variant="outlined" sx={big} onClick={() => setForgotten(true)}>
              {say('lifted.already')}
            </Button>
          )}
          {resting && (
            <Button {...taps.button} variant="contained" sx={big} onClick={() => enter('load.lifted')}>
              Jars lifted
            </Button>
          )}
          <Button variant="outlined" sx={big} onClick={() => setBroken(true)}>
            A jar broke or leaks
          </Button>
        </Cells>
      )}
      {resting && (
        <>
          <LidMarks batch={batch} load={load} />
          <Caution>Lift straight up, never tilted; set them on a cloth out of the draught.</Caution>
        </>
      )}
      {trouble && <TroubleDialog batch={batch} load={load} when={when} onClose={() => setTrouble(false)} />}
      {forgotten && <HeatOffDialog batch={batch} load={load} onClose={() => setForgotten(false)} />}
      {broken && <BrokenDialog batch={batch} load={load} when={when} onClose={() => setBroken(false)} />}
      <Dialog open={early} onClose={() => setEarly(false)} aria-labelledby="early-title">
        <DialogTitle id="early-title" variant="h2">
          The time is not up
        </DialogTitle>
        <DialogContent>
          <Typography>
            {countdownText(left_s)} are left. With the heat off now the load counts as short: its jars are
            held and never released unless they are processed again with new lids within 24 hours.
          </Typography>
        </DialogContent>
        <DialogActions sx={{ p: 2, flexWrap: 'wrap', gap: 1 }}>
          <Button
            variant="outlined"
            color="error"
            onClick={() => {
              setEarly(false);
              enter('load.heat_off');
            }}
          >
            Heat is off, record it short
          </Button>
          <Button variant="contained" autoFocus onClick={() => setEarly(false)}>
            Keep boiling
          </Button>
        </DialogActions>
      </Dialog>
    </Sheet>
  );
}
