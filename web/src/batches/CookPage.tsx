import { useParams } from 'react-router';
import { faultsOf } from '../shell/call.ts';
import { Faults } from '../kit/parts.tsx';
import { Waiting } from '../kit/Loaded.tsx';
import { Cooking } from './Cooking.tsx';
import { useBatch } from './open-batch.ts';

/** The batch on the go. */
export function CookPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  if (error && !batch) return <Faults faults={faultsOf(error)} />;
  if (!batch) return <Waiting />;
  return <Cooking batch={batch} />;
}
