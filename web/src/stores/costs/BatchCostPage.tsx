import { dayText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../../batches/api.ts';
import { faultsOf } from '../../shell/call.ts';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Waiting } from '../../kit/Loaded.tsx';
import { useBatchCost } from '../api.ts';
import { CostTable, PerJar } from './CostTable.tsx';
import { PricePanel } from './PricePanel.tsx';

/** What one batch cost: from the lots that were drawn and the minutes that were worked. */
export function BatchCostPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  if (error && !batch) return <Faults faults={faultsOf(error)} />;
  if (!batch) return <Waiting />;
  return <Opened batch={batch} />;
}

function Opened({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const { data: sheet, error } = useBatchCost(batch.id, batch.view.lastSeq);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  return (
    <>
      <ViewHead
        title={`Cost: ${started.recipe.name}`}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> · {dayText(started.madeOn, kitchen)}
          </>
        }
      >
        <Button component={Link} to={`/recipes/${started.recipeId}/cost`} variant="outlined">
          Cost of the recipe
        </Button>
        <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
          Record
        </Button>
      </ViewHead>
      {error && <Faults faults={faultsOf(error)} />}
      {sheet && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
            gap: 2,
            alignItems: 'start',
          }}
        >
          <Sheet title="What it cost" aside={sheet.bySize.length > 0 && <PerJar sheet={sheet} />}>
            {sheet.lines.length === 0 ? (
              <Soft>Nothing is drawn and no minute is entered yet.</Soft>
            ) : (
              <CostTable sheet={sheet} label="Cost of the batch" />
            )}
          </Sheet>
          {sheet.bySize.length > 0 && <PricePanel sheet={sheet} />}
        </Box>
      )}
    </>
  );
}

/** The cost of a batch beside its checks. */
export function CostPanel({ batch }: { batch: OpenBatch }) {
  const { data: sheet } = useBatchCost(batch.id, batch.view.lastSeq);
  if (!sheet || sheet.lines.length === 0) return null;
  return (
    <Sheet title="Cost" aside={sheet.bySize.length > 0 && <PerJar sheet={sheet} />}>
      <CostTable sheet={sheet} label="Cost of the batch" />
      <Button component={Link} to={`/costs/${batch.id}`} size="small" variant="outlined" sx={{ mt: 1 }}>
        Price it
      </Button>
    </Sheet>
  );
}
