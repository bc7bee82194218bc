import { changeKitchen, listPeople } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import { dayText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Figure, Money, Pick, Text, Tick } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Cells, Columns } from '../kit/layout.tsx';
import { LeaveAsked } from '../kit/leaving.tsx';
import { Waiting } from '../kit/Loaded.tsx';
import { NewerAsked } from '../kit/NewerAsked.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { Saved } from '../kit/Saved.tsx';
import { CallError, call } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { HabitFields } from './HabitFields.tsx';
import { CostFields } from './CostFields.tsx';
import { PlaceSheet } from './PlaceSheet.tsx';
import { EquipmentFields } from './EquipmentFields.tsx';
import { settingsOf, settingsShape, settingsTexts } from './settings-form.ts';

type People = { personId: string; name: string }[];

/** The kitchen's settings: where it stands, how it reads figures, who it is on a label. */
export function KitchenPage() {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  const { data } = useQuery({ queryKey: ['people'], queryFn: () => call(listPeople), enabled: owner });
  if (owner && !data) return <Waiting />;
  return <KitchenForm kitchen={kitchen} people={data?.people ?? []} />;
}

function KitchenForm({ kitchen, people }: { kitchen: Kitchen; people: People }) {
  const owner = useMay('owner');
  const client = useQueryClient();
  const [saved, setSaved] = useState(0);
  const textsOf = (k: Kitchen) =>
    settingsTexts(
      k,
      people.map(p => p.personId),
    );
  /** What the fields were filled from: a newer one by somebody else does not take away what is typed. */
  const [from, setFrom] = useState(kitchen);
  const form = useTyped(textsOf(from), () => settingsShape(from));
  const { at } = form;
  const fill = (k: Kitchen) => {
    setFrom(k);
    form.again(textsOf(k));
  };
  const newer = kitchen.version > from.version && !form.busy ? kitchen : null;
  if (newer && !form.dirty) fill(newer);
  const save = form.submit(async v => {
    try {
      const body = settingsOf(v, form.form.getValues(), from, kitchenNow());
      const next = await call(changeKitchen, { body: { ...body, version: from.version } });
      fill(next);
      client.setQueryData(['kitchen'], next);
      void client.invalidateQueries({ queryKey: ['session'] });
      setSaved(n => n + 1);
    } catch (error) {
      if (!(error instanceof CallError) || !error.newer) throw error;
      client.setQueryData(['kitchen'], error.newer);
    }
  });
  return (
    <form noValidate onSubmit={save}>
      <LeaveAsked dirty={form.dirty && !form.busy} />
      <ViewHead
        title="Kitchen settings"
        detail={
          owner
            ? 'Batches already started keep the values they were started with.'
            : 'Only an owner can change these.'
        }
      >
        {owner && (
          <Button type="submit" variant="contained" disabled={form.busy}>
            Save the settings
          </Button>
        )}
      </ViewHead>
      <Saved times={saved} />
      <Faults faults={form.faults} />
      {newer && (
        <NewerAsked onTake={() => fill(newer)} onKeep={() => setFrom({ ...from, version: newer.version })}>
          It is now: {newer.name}, {newer.makerName}, {newer.makerAddress}.
        </NewerAsked>
      )}
      <Box component="fieldset" disabled={!owner} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
        <Columns from="lg">
          <Sheet title="Where it stands">
            <Cells>
              <Text at={at('name')} label="Name of the kitchen" />
              <Figure
                at={at('altitude_m')}
                label="Altitude"
                unit={from.altitude === 'ft' ? 'feet' : 'metres'}
              />
              <Text at={at('zone')} label="Time zone" />
              <Figure
                at={at('thermometerError_C')}
                label="Jam thermometer reads high by"
                unit={`°${from.temperature}`}
                hint="Check it in boiling water; minus when it reads low"
              />
              <Figure
                at={at('phAct')}
                label="Acts above pH"
                hint="A second, tightest jar is read above it; the limit stays 4.6"
              />
            </Cells>
          </Sheet>
          <Sheet title="How it reads figures">
            <Cells>
              <Text at={at('locale')} label="Locale" hint="en-US, en-GB, de-DE" />
              <Pick at={at('currency')} label="Currency" of={Intl.supportedValuesOf('currency')} />
              <Pick
                at={at('temperature')}
                label="Temperature"
                of={[
                  ['F', 'Fahrenheit'],
                  ['C', 'Celsius'],
                ]}
              />
              <Pick
                at={at('altitude')}
                label="Altitude"
                of={[
                  ['ft', 'Feet'],
                  ['m', 'Metres'],
                ]}
              />
              <Pick
                at={at('measures')}
                label="Lengths, volumes, weights"
                of={[
                  ['US', 'Inches, quarts, pounds'],
                  ['metric', 'Centimetres, litres, kilograms'],
                ]}
              />
              <HabitFields at={at} />
              <Money at={at('hourlyRate')} label="An hour of work costs" />
            </Cells>
          </Sheet>
          <EquipmentFields form={form} kitchen={from} />
          <CostFields form={form} people={people} kitchen={from} />
          <Sheet title="On the label">
            <Cells>
              <Text at={at('makerName')} label="Maker" />
              <Text at={at('makerAddress')} label="Address" />
              <Text
                at={at('number')}
                label="Registration number"
                hint="As it is to stand on a label, where your place asks for one"
              />
            </Cells>
            <Box sx={{ mt: 2 }}>
              <Soft>
                Rules differ by place. Ask your local authority, and enter its sentence word for word.
              </Soft>
              <Cells wide="1fr">
                <Text at={at('jurisdiction')} label="Place and rule" />
                <Text at={at('source')} label="Where it was read" />
              </Cells>
              <Text
                at={at('statement')}
                label="Sentence on each label"
                multiline
                minRows={2}
                sx={{ mt: 2 }}
              />
              <Tick
                at={at('confirmed')}
                sx={{ mt: 1 }}
                label={`I have checked this with the authority${from.jurisdiction.confirmedOn ? ` (${dayText(from.jurisdiction.confirmedOn, from)})` : ''}; an empty sentence means none is asked for`}
              />
            </Box>
          </Sheet>
          <PlaceSheet kitchen={kitchen} />
        </Columns>
      </Box>
    </form>
  );
}
