import { ENDINGS, type Ended } from '@cocotte/core/batches';
import { temperatureText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { OneOf, Temperature } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Caution } from '../kit/parts.tsx';
import { orNone, useRead } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { Fact, OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

/** How a target is usually seen to be reached. */
const USUAL: { [K in Step['target']['kind']]: Ended } = {
  'gel point': 'thermometer',
  temperature: 'thermometer',
  time: 'time',
  volume: 'volume or depth',
  depth: 'volume or depth',
  reduced: 'volume or depth',
  look: 'look',
  none: 'look',
};

/** "Done" of a cook step asks how it ended, while it can still be read; only the whole pot proves anything. */
export function EndedDialog({
  batch,
  step,
  outOfOrder,
  potId,
  when,
  unproven,
  onClose,
}: {
  batch: OpenBatch;
  step: Step;
  outOfOrder: string;
  /** Of which pot; null for all of them. */
  potId: string | null;
  when: When;
  /** An own spread whose solids nothing has shown yet. */
  unproven: boolean;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const read = useRead();
  const form = useTyped({ ended: USUAL[step.target.kind], temp_C: '' }, () => ({
    temp_C: orNone(read.temperature_C({ name: 'The temperature', min: -5, max: 130 })),
  }));
  const { at } = form;
  const ended = form.typed('ended');
  const done = form.submit(async v => {
    const facts: Fact[] = [];
    if (v.ended === 'thermometer' && v.temp_C !== null)
      facts.push(['temperature.read', { where: 'pot', potId, part: step.part, temp_C: v.temp_C }]);
    facts.push(['step.done', { stepId: step.id, potId, ended: v.ended, outOfOrder }]);
    if (await batch.enter(facts, when)) onClose();
  });
  const gel = temperatureText(batch.state.started?.gelPoint_C ?? 0, kitchen);
  return (
    <FormDialog
      title={say(step.part ? 'ended.ask.part' : 'ended.ask', { part: step.part })}
      action={say('ended.done')}
      form={{ ...form, dirty: false }}
      onClose={onClose}
      onSubmit={done}
    >
      <OneOf at={at('ended')} label={say('ended.by')} hiddenLabel of={ENDINGS} />
      {ended === 'thermometer' && <Temperature at={at('temp_C')} label={say('ended.read')} />}
      {unproven && step.part === '' && ended !== 'thermometer' && (
        <Caution>{say('ended.unproven', { gel })}</Caution>
      )}
      {step.part !== '' && <Caution>{say('ended.part', { part: step.part })}</Caution>}
    </FormDialog>
  );
}
