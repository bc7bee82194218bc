import { JarShelf } from '../kit/jars.tsx';
import { Columns, Stack } from '../kit/layout.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import type { OpenBatch } from './open-batch.ts';
import { ColdJars } from './ColdJars.tsx';
import { AlongEntry } from './filling/AlongEntry.tsx';
import { BoiledEntry } from './filling/BoiledEntry.tsx';
import { DoseRow } from './filling/DoseRow.tsx';
import { FillEntry } from './filling/FillEntry.tsx';
import { LeftOver } from './filling/LeftOver.tsx';
import { LeftoverBack } from './filling/LeftoverBack.tsx';
import { WeighJars } from './WeighJars.tsx';
import { LoadEntry, LoadList } from './LoadPanel.tsx';
import type { When } from './when.ts';

/** Filling, dosing and loading: by count and by "all but". */
export function JarPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const forms = new Map(batch.standing.forms.map(f => [f.number, f.form]));
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const shelf = batch.state.jars.map(j => ({
    number: j.number,
    size: j.size,
    form: forms.get(j.number) ?? ('filled' as const),
  }));
  const planned = started.jars.reduce((n, j) => n + j.count, 0);
  return (
    <Stack>
      <Sheet title="Jars" aside={`${batch.state.jars.length} of ${planned} filled`}>
        {shelf.length > 0 ? <JarShelf jars={shelf} /> : <Soft>No jar is filled yet.</Soft>}
      </Sheet>
      <Columns>
        <Stack>
          <BoiledEntry batch={batch} when={when} />
          <LeftoverBack batch={batch} when={when} />
          <FillEntry batch={batch} when={when} />
          {started.recipe.lines
            .filter(l => l.where === 'each jar')
            .map(line => (
              <DoseRow key={line.id} batch={batch} line={line} when={when} />
            ))}
        </Stack>
        <Stack>
          <LoadEntry batch={batch} when={when} />
          <LeftOver batch={batch} when={when} />
          <ColdJars batch={batch} />
          <AlongEntry batch={batch} when={when} />
          <WeighJars batch={batch} when={when} />
        </Stack>
      </Columns>
      <LoadList batch={batch} />
    </Stack>
  );
}
