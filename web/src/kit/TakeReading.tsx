import { readInstruments } from '@cocotte/contract';
import type { ByInstrument } from '@cocotte/core/batches';
import type { Instrument, InstrumentKind } from '@cocotte/core/kitchen';
import { dayOf, dayText, massText, numberText, temperatureText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { createContext, use, useEffect, useState } from 'react';
import { call } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { Soft } from './parts.tsx';

const EVERY_MS = 1000;

/** Instruments that views read in the place of those beside the kitchen's server; null for those. */
export const InstrumentsContext = createContext<readonly Instrument[] | null>(null);

/** Instruments of a kind beside the kitchen's server, read each second while there are any; nothing is asked where there are none. */
export function useInstruments(kind: InstrumentKind): Instrument[] {
  const own = use(InstrumentsContext);
  const { data } = useQuery({
    enabled: own === null,
    queryKey: ['instruments'],
    queryFn: () => call(readInstruments),
    refetchInterval: q => (q.state.data?.instruments.length ? EVERY_MS : false),
    staleTime: EVERY_MS,
    retry: false,
  });
  return (own ?? data?.instruments ?? []).filter(i => i.kind === kind);
}

/**
 * By what the text in a field was read: by the instrument it was taken from, as long as nobody typed over it.
 */
export function useTaken() {
  const [taken, setTaken] = useState<{ text: string; by: ByInstrument } | null>(null);
  return {
    take: (text: string, by: ByInstrument): void => setTaken({ text, by }),
    /** It was entered: the same figure typed afterwards is read by eye. */
    entered: (): void => setTaken(null),
    by: (text: string): ByInstrument =>
      taken !== null && taken.text !== '' && taken.text === text
        ? taken.by
        : { instrumentId: null, checked: null },
  };
}

/** What an instrument shows just now, and one tap that puts it into the field, which then follows until it is held. */
export function TakeReading({
  kind,
  onTake,
}: {
  kind: InstrumentKind;
  /** Puts a value, in the unit of the kind, into its field. */
  onTake: (value: number, by: ByInstrument) => void;
}) {
  const all = useInstruments(kind);
  return all.map(one => <One key={one.id} one={one} onTake={onTake} />);
}

function One({ one, onTake }: { one: Instrument; onTake: (value: number, by: ByInstrument) => void }) {
  const { kitchen } = useHere();
  const [follows, setFollows] = useState(false);
  const { id, kind, value } = one;
  useEffect(() => {
    if (follows && value !== null) onTake(value, { instrumentId: id, checked: one.calibrated });
    // Only what it shows moves the field: the way to it is made anew with every drawing.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [follows, value, id]);
  const words = (v: number, difference = false) =>
    kind === 'thermometer'
      ? difference && kitchen.temperature === 'F'
        ? `${numberText(v * 1.8, kitchen, 1)} °F`
        : difference
          ? `${numberText(v, kitchen, 1)} °C`
          : temperatureText(v, kitchen)
      : kind === 'scale'
        ? massText(v, kitchen)
        : kind === 'refractometer'
          ? `${numberText(v, kitchen, 1)} °Brix`
          : numberText(v, kitchen, 2);
  return (
    <Box
      role="group"
      aria-label={one.name}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 1.5,
        alignItems: 'center',
        border: 1,
        borderColor: follows ? 'live.fill' : 'rule.strong',
        bgcolor: follows ? 'live.tint' : 'transparent',
        borderRadius: 1,
        p: 1.25,
        mb: 1.5,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 180 }}>
        <Soft>{one.name}</Soft>
        {value === null ? (
          <Box sx={{ color: 'ox.main' }}>
            {say(one.state === 'rubbish' ? 'instrument.rubbish' : 'instrument.silent')}
          </Box>
        ) : (
          <Box sx={{ fontSize: '1.7rem', fontWeight: 700, lineHeight: 1.2 }}>
            {words(value)}{' '}
            <Box component="span" sx={{ fontSize: '1rem', fontWeight: 400 }}>
              {say(one.steady ? 'instrument.steady' : 'instrument.moving')}
            </Box>
          </Box>
        )}
        <Soft>
          {one.calibrated
            ? say('instrument.checked', {
                day: dayText(dayOf(Date.parse(one.calibrated.at), kitchen.zone), kitchen),
                off: words(one.calibrated.off, true),
              })
            : say('instrument.never')}
        </Soft>
      </Box>
      <Button
        variant="outlined"
        sx={{ minHeight: 56 }}
        disabled={value === null}
        onClick={() => setFollows(!follows)}
      >
        {say(follows ? 'instrument.hold' : 'instrument.take')}
      </Button>
    </Box>
  );
}
