import { useTyped } from '../../kit/form.ts';
import { Text } from '../../kit/fields.tsx';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Caution } from '../../kit/parts.tsx';
import { say } from '../../words/views.ts';
import { jarsAmong } from '../AllBut.tsx';
import type { Fact, OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** Glass broke: the jar itself is counted, and whatever stood open nearby is thrown away and counted too. */
export function GlassDialog({ batch, when, onClose }: { batch: OpenBatch; when: When; onClose: () => void }) {
  const standing = batch.state.jars.filter(j => !j.setAside).map(j => j.number);
  const among = jarsAmong(standing);
  const form = useTyped({ broken: '', near: '' }, ({ broken }) => ({
    broken: among,
    near: (text: string) => {
      const near = among(text);
      const own = among(broken);
      return near.ok && own.ok
        ? { ok: true as const, value: near.value.filter(n => !own.value.includes(n)) }
        : near;
    },
  }));
  const enter = form.submit(async ({ broken, near }) => {
    const facts: Fact[] = [
      ...(broken.length > 0 ? [['jars.set_aside', { jars: broken, why: 'broken' }] as Fact] : []),
      ...(near.length > 0 ? [['jars.set_aside', { jars: near, why: 'near broken glass' }] as Fact] : []),
      ['note.written', { text: say('glass.note') }],
    ];
    if (await batch.enter(facts, when)) onClose();
  });
  return (
    <FormDialog
      title={say('glass.title')}
      action={say('glass.enter')}
      form={form}
      onClose={onClose}
      onSubmit={enter}
    >
      <Caution>{say('glass.why')}</Caution>
      <Text
        at={form.at('broken')}
        label={say('glass.broken')}
        placeholder={say('glass.none')}
        sx={{ mt: 1 }}
      />
      <Text at={form.at('near')} label={say('glass.near')} placeholder={say('glass.none')} />
    </FormDialog>
  );
}
