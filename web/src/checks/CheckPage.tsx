import { needsReading } from '@cocotte/core/checks';
import { Box, Button } from '@mui/material';
import { Link, useParams } from 'react-router';
import { NewerEntries } from '../batches/NewerEntries.tsx';
import { type OpenBatch, useBatch } from '../batches/open-batch.ts';
import { useWhen } from '../batches/when.ts';
import { WhenFields } from '../batches/WhenFields.tsx';
import { Columns, Stack } from '../kit/layout.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { ViewHead } from '../kit/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { CostPanel } from '../stores/costs/CostPanel.tsx';
import { AcidityPanel } from './bench/AcidityPanel.tsx';
import { BookPanel, DeviationPanel } from './Deviations.tsx';
import { GatePanel } from './GatePanel.tsx';
import { MarketPanel } from './MarketPanel.tsx';
import { NetsPanel } from './NetsPanel.tsx';
import { WithdrawPanel } from './WithdrawPanel.tsx';
import { LookPanel } from './LookPanel.tsx';
import { PressPanel } from './PressPanel.tsx';
import { TakeJars } from './TakeJars.tsx';

/** One batch between held and released. */
export function CheckPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Checking batch={open} />}</Loaded>;
}

function Checking({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCook = useMay('cook');
  const when = useWhen(kitchen);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  return (
    <>
      <ViewHead
        title={started.recipe.name}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> · for {started.purpose}
          </>
        }
      >
        <Button component={Link} to={`/cook/${batch.id}`} variant="outlined">
          Cook
        </Button>
        <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
          Record
        </Button>
      </ViewHead>
      <NewerEntries batch={batch} />
      {mayCook && (
        <Box sx={{ mb: 1.5 }}>
          <WhenFields when={when} />
        </Box>
      )}
      <Columns>
        <Box component="fieldset" disabled={!mayCook} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
          <Stack>
            <PressPanel batch={batch} when={when} />
            <LookPanel batch={batch} when={when} />
            <NetsPanel batch={batch} when={when} />
            <MarketPanel batch={batch} when={when} />
            {needsReading(started.recipe.foodClass) && <AcidityPanel batch={batch} when={when} />}
            <DeviationPanel batch={batch} when={when} />
            <BookPanel batch={batch} />
            {!needsReading(started.recipe.foodClass) && <AcidityPanel batch={batch} when={when} />}
          </Stack>
        </Box>
        <Stack>
          <GatePanel batch={batch} mayCook={mayCook} when={when} />
          <WithdrawPanel batch={batch} when={when} />
          <CostPanel batch={batch} />
          {mayCook && <TakeJars batch={batch} />}
        </Stack>
      </Columns>
    </>
  );
}
