import type { Canner, Kitchen, Pot } from '@cocotte/core/kitchen';
import { type Fault, MM_PER_INCH, UNITS, fieldText, readNumber, ofNames } from '@cocotte/core/measure';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { v7 } from 'uuid';
import { faultText } from '../shell/entry.ts';
import { Sheet, Soft } from '../shell/parts.tsx';

/** A pot while it is typed: quarts or litres, inches or centimetres, as the kitchen measures. */
export interface PotTexts {
  id: string;
  name: string;
  capacity: string;
  width: string;
  boilOff: string;
}
export interface CannerTexts {
  id: string;
  name: string;
  kind: Canner['kind'];
  holds: Partial<Record<JarSizeId, string>>;
}
export interface EquipmentTexts {
  pots: PotTexts[];
  canners: CannerTexts[];
}

const ML_PER_QUART = UNITS.quart.factor.valueOf();
const inFeet = (kitchen: Pick<Kitchen, 'altitude'>) => kitchen.altitude === 'ft';

export function equipmentTexts(kitchen: Kitchen): EquipmentTexts {
  const plain = (value: number) => fieldText(value, kitchen.locale, 2);
  return {
    pots: kitchen.pots.map(p => ({
      id: p.id,
      name: p.name,
      capacity: plain(inFeet(kitchen) ? p.capacity_mL / ML_PER_QUART : p.capacity_mL / 1000),
      width: plain(inFeet(kitchen) ? p.diameter_mm / MM_PER_INCH : p.diameter_mm / 10),
      boilOff: plain(p.boilOff_gPerMin),
    })),
    canners: kitchen.canners.map(c => ({
      id: c.id,
      name: c.name,
      kind: c.kind,
      holds: ofNames(Object.entries(c.holds).map(([size, n]) => [size, String(n)])),
    })),
  };
}

/** Reads pots and canners, or every fault by its path. */
export function readEquipment(
  texts: EquipmentTexts,
  kitchen: Kitchen,
): { pots: Pot[]; canners: Canner[]; faults: Fault[] } {
  const faults: Fault[] = [];
  const number = (path: string, text: string, name: string, min: number, max: number, whole = false) => {
    const read = readNumber(text, kitchen.locale, { name, min, max, whole });
    if (read.ok) return read.value;
    faults.push({ ...read.fault, path });
    return min;
  };
  const must = (path: string, text: string) => {
    if (text.trim() === '')
      faults.push({
        path,
        code: 'missing',
        what: 'The name is empty.',
        why: 'It is chosen by it.',
        next: 'Fill it in.',
      });
    return text.trim();
  };
  const feet = inFeet(kitchen);
  const pots = texts.pots.map((p, i) => ({
    id: p.id,
    name: must(`pots[${i}].name`, p.name),
    capacity_mL:
      number(`pots[${i}].capacity_mL`, p.capacity, 'The capacity', 0.5, 200) * (feet ? ML_PER_QUART : 1000),
    diameter_mm:
      number(`pots[${i}].diameter_mm`, p.width, 'The width', feet ? 4 : 10, feet ? 47 : 120) *
      (feet ? MM_PER_INCH : 10),
    boilOff_gPerMin: number(`pots[${i}].boilOff_gPerMin`, p.boilOff || '0', 'The water boiled off', 0, 500),
  }));
  const canners = texts.canners.map((c, i) => ({
    id: c.id,
    name: must(`canners[${i}].name`, c.name),
    kind: c.kind,
    holds: ofNames(
      Object.entries(c.holds).flatMap(([size, text]) =>
        text.trim() === '' || text.trim() === '0'
          ? []
          : [[size, number(`canners[${i}].holds.${size}`, text, 'The jars it holds', 1, 200, true)]],
      ),
    ),
  }));
  return { pots, canners, faults };
}

/** Pots with what they boil off, and canners with what they hold: what a forecast and whole loads rest on. */
export function EquipmentFields({
  texts,
  set,
  faults,
  kitchen,
}: {
  texts: EquipmentTexts;
  set: (next: EquipmentTexts) => void;
  faults: Fault[];
  kitchen: Kitchen;
}) {
  const feet = inFeet(kitchen);
  const at = (path: string) => {
    const fault = faults.find(f => f.path === path);
    return { error: fault !== undefined, helperText: fault ? faultText(fault) : undefined };
  };
  const pot = (i: number, part: Partial<PotTexts>) =>
    set({ ...texts, pots: texts.pots.map((p, k) => (k === i ? { ...p, ...part } : p)) });
  const canner = (i: number, part: Partial<CannerTexts>) =>
    set({ ...texts, canners: texts.canners.map((c, k) => (k === i ? { ...c, ...part } : c)) });
  return (
    <>
      <Sheet title="Pots">
        <Soft>
          To find what a pot boils off: weigh it with water, boil it hard for ten minutes, weigh it again,
          divide by ten.
        </Soft>
        {texts.pots.map((p, i) => (
          <Box
            key={p.id}
            role="group"
            aria-label={`Pot ${i + 1}`}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr 1fr', sm: '1fr 1fr 1fr auto' },
              gap: 1.5,
              mt: 2.5,
            }}
          >
            <TextField
              sx={{ gridColumn: '1 / -1' }}

              label="Pot"
              value={p.name}
              onChange={e => pot(i, { name: e.target.value })}
              {...at(`pots[${i}].name`)}
            />
            <TextField
              label={feet ? 'Holds, quarts' : 'Holds, litres'}
              value={p.capacity}
              onChange={e => pot(i, { capacity: e.target.value })}
              {...at(`pots[${i}].capacity_mL`)}
            />
            <TextField
              label={feet ? 'Wide, inches' : 'Wide, cm'}
              value={p.width}
              onChange={e => pot(i, { width: e.target.value })}
              {...at(`pots[${i}].diameter_mm`)}
            />
            <TextField
              label="Boils off, g a minute"
              value={p.boilOff}
              onChange={e => pot(i, { boilOff: e.target.value })}
              {...at(`pots[${i}].boilOff_gPerMin`)}
            />
            <Button
              variant="outlined"
              aria-label={`Remove pot ${i + 1}`}
              onClick={() => set({ ...texts, pots: texts.pots.filter(x => x.id !== p.id) })}
            >
              Remove
            </Button>
          </Box>
        ))}
        <Button
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() =>
            set({
              ...texts,
              pots: [...texts.pots, { id: v7(), name: '', capacity: '', width: '', boilOff: '' }],
            })
          }
        >
          Add a pot
        </Button>
      </Sheet>
      <Sheet title="Canners">
        <Soft>How many jars of each size stand in it at once, on the rack and not touching.</Soft>
        {texts.canners.map((c, i) => (
          <Box key={c.id} role="group" aria-label={`Canner ${i + 1}`} sx={{ mt: 1.5 }}>
            <Box
              sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: '2fr 1.2fr auto' }, gap: 1.5 }}
            >
              <TextField
                label="Canner"
                value={c.name}
                onChange={e => canner(i, { name: e.target.value })}
                {...at(`canners[${i}].name`)}
              />
              <TextField
                select
                label="Heats with"
                value={c.kind}
                onChange={e => canner(i, { kind: e.target.value as Canner['kind'] })}
              >
                <MenuItem value="boiling water">boiling water</MenuItem>
                <MenuItem value="steam">atmospheric steam</MenuItem>
              </TextField>
              <Button
                variant="outlined"
                aria-label={`Remove canner ${i + 1}`}
                onClick={() => set({ ...texts, canners: texts.canners.filter(x => x.id !== c.id) })}
              >
                Remove
              </Button>
            </Box>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fill, minmax(160px, 1fr))',
                gap: 1,
                mt: 1,
              }}
            >
              {JAR_SIZES.map(s => (
                <TextField
                  key={s.id}
                  label={s.plural}
                  value={c.holds[s.id] ?? ''}
                  onChange={e => canner(i, { holds: { ...c.holds, [s.id]: e.target.value } })}
                  {...at(`canners[${i}].holds.${s.id}`)}
                />
              ))}
            </Box>
          </Box>
        ))}
        <Button
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() =>
            set({
              ...texts,
              canners: [...texts.canners, { id: v7(), name: '', kind: 'boiling water', holds: {} }],
            })
          }
        >
          Add a canner
        </Button>
      </Sheet>
    </>
  );
}
