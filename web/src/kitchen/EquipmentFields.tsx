import type { Kitchen } from '@cocotte/core/kitchen';
import { JAR_SIZES } from '@cocotte/core/jars';
import { kitchenUnits } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { v7 } from 'uuid';
import { Figure, Pick, Text } from '../kit/fields.tsx';
import { type Typed, useRows } from '../kit/form.ts';
import { Cells } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { type SettingsTexts, newCanner, newPot, type settingsShape } from './settings-form.ts';

/** Pots with what they boil off, and canners with what they hold: what a forecast and whole loads rest on. */
export function EquipmentFields({
  form,
  kitchen,
}: {
  form: Typed<SettingsTexts, ReturnType<typeof settingsShape>>;
  kitchen: Kitchen;
}) {
  const { at } = form;
  const pots = useRows(form.form.control, 'pots');
  const canners = useRows(form.form.control, 'canners');
  const { volume, length } = kitchenUnits(kitchen);
  return (
    <>
      <Sheet title="Pots">
        <Soft>
          To find what a pot boils off: weigh it with water, boil it hard for ten minutes, weigh it again,
          divide by ten.
        </Soft>
        {pots.fields.map((p, i) => (
          <Cells
            key={p.key}
            role="group"
            aria-label={`Pot ${i + 1}`}
            narrow="1fr 1fr"
            wide="1fr 1fr 1.1fr auto"
            gap={1.5}
            mt={2.5}
          >
            <Text at={at(`pots.${i}.name`)} label="Pot" sx={{ gridColumn: '1 / -1' }} />
            <Figure at={at(`pots.${i}.capacity_mL`)} label="Holds" unit={volume.sign} />
            <Figure at={at(`pots.${i}.diameter_mm`)} label="Wide" unit={length.sign} />
            <Figure at={at(`pots.${i}.boilOff_gPerMin`)} label="Boils off" unit="g a minute" />
            <Button variant="outlined" aria-label={`Remove pot ${i + 1}`} onClick={() => pots.remove(i)}>
              Remove
            </Button>
          </Cells>
        ))}
        <Button variant="outlined" sx={{ mt: 1.5 }} onClick={() => pots.append(newPot(v7()))}>
          Add a pot
        </Button>
      </Sheet>
      <Sheet title="Canners">
        <Soft>How many jars of each size stand in it at once, on the rack and not touching.</Soft>
        {canners.fields.map((c, i) => (
          <Box key={c.key} role="group" aria-label={`Canner ${i + 1}`} sx={{ mt: 1.5 }}>
            <Cells narrow="1fr 1fr" wide="2fr 1.2fr auto" gap={1.5}>
              <Text at={at(`canners.${i}.name`)} label="Canner" />
              <Pick
                at={at(`canners.${i}.kind`)}
                label="Heats with"
                of={['boiling water', ['steam', 'atmospheric steam']]}
              />
              <Button
                variant="outlined"
                aria-label={`Remove canner ${i + 1}`}
                onClick={() => canners.remove(i)}
              >
                Remove
              </Button>
            </Cells>
            <Cells
              narrow="repeat(auto-fill, minmax(160px, 1fr))"
              wide="repeat(auto-fill, minmax(160px, 1fr))"
              gap={1}
            >
              {JAR_SIZES.map(s => (
                <Figure key={s.id} at={at(`canners.${i}.holds.${s.id}`)} label={s.plural} />
              ))}
            </Cells>
          </Box>
        ))}
        <Button variant="outlined" sx={{ mt: 1.5 }} onClick={() => canners.append(newCanner(v7()))}>
          Add a canner
        </Button>
      </Sheet>
    </>
  );
}
