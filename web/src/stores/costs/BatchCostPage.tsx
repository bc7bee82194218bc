import { dayText } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../../batches/open-batch.ts';
import { faultsOf } from '../../shell/call.ts';
import { Columns } from '../../kit/layout.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Loaded } from '../../kit/Loaded.tsx';
import { useBatchCost } from '../api.ts';
import { CostTable, PerJar } from './CostTable.tsx';
import { PricePanel } from './PricePanel.tsx';

/** What one batch cost: from the lots that were drawn and the minutes that were worked. */
export function BatchCostPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Opened batch={open} />}</Loaded>;
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
        <Columns>
          <Sheet title="What it cost" aside={sheet.bySize.length > 0 && <PerJar sheet={sheet} />}>
            {sheet.lines.length === 0 ? (
              <Soft>Nothing is drawn and no minute is entered yet.</Soft>
            ) : (
              <CostTable sheet={sheet} label="Cost of the batch" />
            )}
          </Sheet>
          {sheet.bySize.length > 0 && <PricePanel sheet={sheet} />}
        </Columns>
      )}
    </>
  );
}
