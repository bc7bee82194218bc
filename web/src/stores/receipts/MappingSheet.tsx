import { type CsvMapping, BUYING_UNITS, CSV_FIELDS } from '@cocotte/core/stores';
import { Box, Button } from '@mui/material';
import { FreeText, Switcher } from '../../kit/controls.tsx';
import { Cells, Line } from '../../kit/layout.tsx';
import { Sheet, Soft } from '../../kit/parts.tsx';
import type { CsvGlance } from './receipts.worker.ts';

const NEEDED: readonly string[] = ['day', 'item', 'quantity', 'price'];
const COLUMNS = 'repeat(auto-fill, minmax(190px, 1fr))';

/** What each column of a file means, how its figures are written, and the readings that are kept by name. */
export function MappingSheet({
  glance,
  mapping,
  name,
  setName,
  kept,
  busy,
  onChange,
  onRead,
  onKeep,
  onForget,
}: {
  glance: CsvGlance;
  mapping: CsvMapping;
  name: string;
  setName: (name: string) => void;
  /** The kept reading of this name. */
  kept: { id: string } | undefined;
  busy: boolean;
  onChange: (part: Partial<CsvMapping>) => void;
  onRead: () => void;
  onKeep: () => void;
  onForget: (id: string) => void;
}) {
  const open = NEEDED.filter(f => mapping.columns[f as keyof CsvMapping['columns']] === undefined);
  const headings = [...new Set(glance.headings)].filter(Boolean).map(h => {
    const example = glance.sample[0]?.[glance.headings.indexOf(h)];
    return [h, example ? `${h} (${example})` : h] as const;
  });
  return (
    <Sheet title="What the columns mean">
      <Cells wide={COLUMNS} narrow={COLUMNS} gap={1.5} mt={0}>
        {CSV_FIELDS.map(field => (
          <Switcher
            key={field}
            label={`${field[0]?.toUpperCase()}${field.slice(1)}${NEEDED.includes(field) ? ' (needed)' : ''}`}
            value={mapping.columns[field] ?? ''}
            of={[['', 'not in the file'], ...headings]}
            onPick={(heading: string) => {
              const { [field]: _gone, ...rest } = mapping.columns;
              onChange({ columns: heading === '' ? rest : { ...rest, [field]: heading } });
            }}
          />
        ))}
        <Switcher
          label="Days are written"
          value={mapping.dayOrder}
          of={['year first', 'month first', 'day first']}
          onPick={dayOrder => onChange({ dayOrder })}
        />
        <Switcher
          label="Decimals begin with"
          value={mapping.decimalMark}
          of={[
            ['.', 'a point'],
            [',', 'a comma'],
          ]}
          onPick={decimalMark => onChange({ decimalMark })}
        />
        <Switcher
          label="The price is"
          value={mapping.pricedBy}
          of={[
            ['line', 'for the line'],
            ['package', 'for a package'],
            ['unit', 'for a unit'],
          ]}
          onPick={pricedBy => onChange({ pricedBy })}
        />
        <Switcher
          label="Where no unit is written"
          value={mapping.unit}
          of={[
            ['', 'the line is at fault'],
            ...BUYING_UNITS.map(u => [u, `it is ${u === 'each' ? 'pieces' : u}`] as const),
          ]}
          onPick={unit => onChange({ unit })}
        />
        <FreeText
          label="Where no supplier is written"
          value={mapping.supplier}
          onText={supplier => onChange({ supplier })}
        />
      </Cells>
      <Line mt={2}>
        <Button variant="contained" disabled={open.length > 0 || busy} onClick={onRead}>
          Read the lines
        </Button>
        {open.length > 0 && <Soft>Still to say: which column is {open.join(', ')}.</Soft>}
        <Box sx={{ flex: 1 }} />
        <FreeText label="Keep this reading as" value={name} onText={setName} sx={{ width: 200 }} />
        <Button variant="outlined" disabled={name.trim() === ''} onClick={onKeep}>
          Keep
        </Button>
        {kept && <Button onClick={() => onForget(kept.id)}>Forget</Button>}
      </Line>
    </Sheet>
  );
}
