import { COSTING_METHODS, type Kitchen } from '@cocotte/core/kitchen';
import { Button } from '@mui/material';
import { v7 } from 'uuid';
import { Figure, Money, Pick, Text } from '../kit/fields.tsx';
import { type Typed, useRows } from '../kit/form.ts';
import { Cells } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { type SettingsTexts, newBurner, type settingsShape } from './settings-form.ts';

/** What costs are reckoned with: people's rates, burners, overhead, the market, and how stock is valued. */
export function CostFields({
  form,
  people,
  kitchen,
}: {
  form: Typed<SettingsTexts, ReturnType<typeof settingsShape>>;
  people: { personId: string; name: string }[];
  kitchen: Kitchen;
}) {
  const { at } = form;
  const burners = useRows(form.form.control, 'burners');
  const kinds = form.typed('burners');
  return (
    <>
      <Sheet title="What costs are reckoned with">
        <Cells mt={1.5}>
          <Pick
            at={at('method')}
            label="What leaves stock costs"
            of={COSTING_METHODS.map(m => [
              m,
              m === 'weighted average' ? 'the weighted average' : 'its lot: first in, first out',
            ])}
          />
          {people.map((p, i) => (
            <Money
              key={p.personId}
              at={at(`rates.${i}.hourlyRate`)}
              label={`An hour of ${p.name}`}
              placeholder={kitchen.hourlyRate}
            />
          ))}
          <Money at={at('perBatch')} label="Overhead of a batch" />
          <Money at={at('perJar')} label="Overhead of a jar" />
          <Money at={at('perMonth')} label="Overhead of a month" />
          <Figure at={at('batchesPerMonth')} label="Batches in a month" />
          <Money at={at('fee')} label="Fee of one market" />
          <Figure at={at('jars')} label="Jars sold at one market" />
          <Figure at={at('markup_pct')} label="Usual markup" unit="%" />
          <Figure at={at('margin_pct')} label="Usual margin" unit="%" />
          <Figure at={at('wholesale_pct')} label="Wholesale" unit="% of retail" />
        </Cells>
      </Sheet>
      <Sheet title="Burners">
        <Soft>An electric one costs by its power and time; gas is weighed and drawn from its bottle.</Soft>
        {burners.fields.map((b, i) => (
          <Cells
            key={b.key}
            role="group"
            aria-label={`Burner ${i + 1}`}
            narrow="1fr 1fr"
            wide="1fr 1fr auto"
            gap={1.5}
            mt={2}
          >
            <Text at={at(`burners.${i}.name`)} label="Burner" sx={{ gridColumn: '1 / -1' }} />
            <Pick
              at={at(`burners.${i}.kind`)}
              label="Runs on"
              of={[
                ['electric', 'electricity'],
                ['gas', 'gas'],
              ]}
            />
            <Figure
              at={at(`burners.${i}.use`)}
              label="Takes"
              unit={kinds[i]?.kind === 'gas' ? 'g an hour' : 'W'}
            />
            <Button
              variant="outlined"
              aria-label={`Remove burner ${i + 1}`}
              onClick={() => burners.remove(i)}
            >
              Remove
            </Button>
          </Cells>
        ))}
        <Cells mt={1.5} sx={{ alignItems: 'center' }}>
          <Button variant="outlined" onClick={() => burners.append(newBurner(v7()))}>
            Add a burner
          </Button>
          <Money at={at('electricity')} label="A kilowatt-hour costs" />
        </Cells>
      </Sheet>
    </>
  );
}
