import { say } from '../words/index.ts';
import { Bar } from './Bar.tsx';
import { useHere, useMay } from './session.tsx';

/** Says, on every view, that nobody has entered where this kitchen stands, and where an owner does. */
export function NotSetUp() {
  const { kitchen } = useHere();
  const owner = useMay('owner');
  if (kitchen.placed) return null;
  return (
    <Bar tone="live" role="status" action={owner && say('notSetUp.enter')} to="/kitchen">
      <strong>{say('notSetUp.what')}</strong> {say('notSetUp.why')} {!owner && say('notSetUp.owner')}
    </Bar>
  );
}
