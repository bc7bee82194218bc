import { changeKitchen } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import {
  type Fault,
  dayOf,
  fahrenheit,
  feetFromMetres,
  fieldText,
  metresFromFeet,
  readDecimal,
  readNumber,
} from '@cocotte/core/measure';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { CallError, call, faultsOf } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { anyWords, useEntry, words } from '../shell/entry.ts';
import { Faults, Sheet, Soft, ViewHead } from '../shell/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { CostFields } from './CostFields.tsx';
import { costTexts, readCosts } from './cost-texts.ts';
import { EquipmentFields, equipmentTexts, readEquipment } from './EquipmentFields.tsx';

/** The kitchen's settings: where it stands, how it reads figures, who it is on a label. */
export function KitchenPage() {
  const { kitchen } = useHere();
  return <KitchenForm key={kitchen.version} kitchen={kitchen} />;
}

function KitchenForm({ kitchen }: { kitchen: Kitchen }) {
  const owner = useMay('owner');
  const client = useQueryClient();
  const inFeet = kitchen.altitude === 'ft';
  const inF = kitchen.temperature === 'F';
  const plain = (n: number) => fieldText(n, kitchen.locale, 2);
  const form = useEntry(
    {
      name: words('The name'),
      zone: words('The time zone'),
      locale: words('The locale'),
      altitude_m: t =>
        readNumber(t, kitchen.locale, {
          name: 'The altitude',
          min: inFeet ? -300 : -90,
          max: inFeet ? 10_000 : 3048,
          unit: inFeet ? ' ft' : ' m',
          why: 'The published tables end at 10,000 ft.',
        }),
      thermometerError_C: t =>
        readNumber(t === '' ? '0' : t, kitchen.locale, { name: 'The error', min: -9, max: 9 }),
      hourlyRate: t => readDecimal(t, kitchen.locale, { name: 'The hourly rate', min: 0, max: 1000 }, 2),
      makerName: anyWords,
      makerAddress: anyWords,
      statement: anyWords,
      jurisdiction: anyWords,
      source: anyWords,
    },
    {
      name: kitchen.name,
      // Where nobody has entered it, nothing stands there that could be saved by mistake.
      zone: kitchen.placed ? kitchen.zone : Intl.DateTimeFormat().resolvedOptions().timeZone,
      locale: kitchen.locale,
      altitude_m: kitchen.placed
        ? plain(inFeet ? feetFromMetres(kitchen.altitude_m) : kitchen.altitude_m)
        : '',
      thermometerError_C: plain(
        inF ? fahrenheit(kitchen.thermometerError_C) - 32 : kitchen.thermometerError_C,
      ),
      hourlyRate: kitchen.hourlyRate,
      makerName: kitchen.makerName,
      makerAddress: kitchen.makerAddress,
      statement: kitchen.jurisdiction.statement,
      jurisdiction: kitchen.jurisdiction.name,
      source: kitchen.jurisdiction.source,
    },
  );
  const [habits, setHabits] = useState({
    temperature: kitchen.temperature,
    altitude: kitchen.altitude,
    currency: kitchen.currency,
  });
  const [equipment, setEquipment] = useState(() => equipmentTexts(kitchen));
  const [costs, setCosts] = useState(() => costTexts(kitchen));
  const [costFaults, setCostFaults] = useState<Fault[]>([]);
  const [equipmentFaults, setEquipmentFaults] = useState<Fault[]>([]);
  const [confirmed, setConfirmed] = useState(kitchen.jurisdiction.confirmedOn !== null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [newer, setNewer] = useState<Kitchen | null>(null);
  const [saved, setSaved] = useState(false);
  const save = async (version: number) => {
    const v = form.read();
    const { pots, canners, faults: found } = readEquipment(equipment, kitchen);
    setEquipmentFaults(found);
    const reckoned = readCosts(costs, kitchen.costs, kitchen.locale);
    setCostFaults(reckoned.faults);
    if (!v || found.length > 0 || reckoned.faults.length > 0) return;
    setFaults([]);
    try {
      const next = await call(changeKitchen, {
        body: {
          version,
          name: v.name,
          zone: v.zone,
          locale: v.locale,
          ...habits,
          pots,
          canners,
          costs: reckoned.costs,
          hourlyRate: v.hourlyRate,
          makerName: v.makerName,
          makerAddress: v.makerAddress,
          altitude_m: inFeet ? metresFromFeet(v.altitude_m) : v.altitude_m,
          thermometerError_C: inF ? (v.thermometerError_C * 5) / 9 : v.thermometerError_C,
          jurisdiction: {
            name: v.jurisdiction,
            statement: v.statement,
            source: v.source,
            confirmedOn: confirmed ? (kitchen.jurisdiction.confirmedOn ?? dayOf(kitchenNow(), v.zone)) : null,
          },
        },
      });
      setNewer(null);
      setSaved(true);
      client.setQueryData(['kitchen'], next);
      void client.invalidateQueries({ queryKey: ['session'] });
    } catch (error) {
      if (error instanceof CallError && error.newer) setNewer(error.newer as Kitchen);
      setFaults(form.place(faultsOf(error)));
    }
  };
  const two = {
    display: 'grid',
    gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
    gap: 2,
    alignItems: 'start',
    mt: 1,
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        void save(kitchen.version);
      }}
    >
      <ViewHead
        title="Kitchen settings"
        detail={
          owner
            ? 'Batches already started keep the values they were started with.'
            : 'Only an owner can change these.'
        }
      >
        {owner && (
          <Button type="submit" variant="contained">
            Save the settings
          </Button>
        )}
      </ViewHead>
      {saved && (
        <Box role="status" sx={{ mb: 1, color: 'leaf.main', fontWeight: 600 }}>
          Saved.
        </Box>
      )}
      <Faults faults={faults} />
      {newer && (
        <Sheet tone="live" sx={{ mb: 2 }}>
          Meanwhile it was changed to: {newer.name}, {newer.makerName}, {newer.makerAddress}.{' '}
          <Button size="small" variant="outlined" onClick={() => client.setQueryData(['kitchen'], newer)}>
            Take theirs
          </Button>{' '}
          <Button size="small" variant="outlined" onClick={() => void save(newer.version)}>
            Keep mine
          </Button>
        </Sheet>
      )}
      <Box
        component="fieldset"
        disabled={!owner}
        sx={{
          border: 0,
          p: 0,
          m: 0,
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', lg: '1fr 1fr' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sheet title="Where it stands">
          <Box sx={two}>
            <TextField label="Name of the kitchen" {...form.field('name')} />
            <TextField
              label={`Altitude in ${inFeet ? 'feet' : 'metres'}`}
              inputMode="decimal"
              {...form.field('altitude_m')}
            />
            <TextField label="Time zone" {...form.field('zone')} />
            <TextField
              label={`Jam thermometer reads high by, °${kitchen.temperature}`}
              inputMode="decimal"
              {...form.field('thermometerError_C')}
              helperText={
                form.field('thermometerError_C').helperText ??
                'Check it in boiling water; minus when it reads low'
              }
            />
          </Box>
        </Sheet>
        <Sheet title="How it reads figures">
          <Box sx={two}>
            <TextField
              label="Locale"
              {...form.field('locale')}
              helperText={form.field('locale').helperText ?? 'en-US, en-GB, de-DE'}
            />
            <TextField
              select
              label="Currency"
              value={habits.currency}
              onChange={e => setHabits({ ...habits, currency: e.target.value })}
            >
              {['USD', 'CAD', 'EUR', 'GBP', 'AUD', 'NZD'].map(c => (
                <MenuItem key={c} value={c}>
                  {c}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              label="Temperature"
              value={habits.temperature}
              onChange={e => setHabits({ ...habits, temperature: e.target.value as 'F' | 'C' })}
            >
              <MenuItem value="F">Fahrenheit</MenuItem>
              <MenuItem value="C">Celsius</MenuItem>
            </TextField>
            <TextField
              select
              label="Altitude"
              value={habits.altitude}
              onChange={e => setHabits({ ...habits, altitude: e.target.value as 'ft' | 'm' })}
            >
              <MenuItem value="ft">Feet</MenuItem>
              <MenuItem value="m">Metres</MenuItem>
            </TextField>
            <TextField
              label={`An hour of work costs, ${kitchen.currency}`}
              inputMode="decimal"
              {...form.field('hourlyRate')}
            />
          </Box>
        </Sheet>
        <EquipmentFields texts={equipment} set={setEquipment} faults={equipmentFaults} kitchen={kitchen} />
        <CostFields texts={costs} set={setCosts} faults={costFaults} />
        <Sheet title="On the label">
          <Box sx={two}>
            <TextField label="Maker" {...form.field('makerName')} />
            <TextField label="Address" {...form.field('makerAddress')} />
          </Box>
        </Sheet>
        <Sheet title="What the jurisdiction asks for">
          <Soft>Rules differ by place. Ask your local authority, and enter its sentence word for word.</Soft>
          <Box sx={two}>
            <TextField label="Place and rule" {...form.field('jurisdiction')} />
            <TextField label="Where it was read" {...form.field('source')} />
          </Box>
          <TextField
            sx={{ mt: 2 }}
            label="Sentence on each label"
            multiline
            minRows={2}
            {...form.field('statement')}
          />
          <FormControlLabel
            sx={{ mt: 1 }}
            control={<Checkbox checked={confirmed} onChange={(_, on) => setConfirmed(on)} />}
            label={`I have checked this with the authority${kitchen.jurisdiction.confirmedOn ? ` (${kitchen.jurisdiction.confirmedOn})` : ''}; an empty sentence means none is asked for`}
          />
        </Sheet>
      </Box>
    </Box>
  );
}
