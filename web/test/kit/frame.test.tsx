// @vitest-environment jsdom
import { act, fireEvent, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useTaps } from '../../src/batches/taps.ts';
import { Text } from '../../src/kit/fields.tsx';
import { useTyped } from '../../src/kit/form.ts';
import { FormDialog } from '../../src/kit/FormDialog.tsx';
import { LeaveAsked } from '../../src/kit/leaving.tsx';
import { type Listed, List, pagesOf } from '../../src/kit/List.tsx';
import { Loaded } from '../../src/kit/Loaded.tsx';
import { ReasonDialog } from '../../src/kit/ReasonDialog.tsx';
import { words } from '../../src/kit/readers.ts';
import { say } from '../../src/words/views.ts';
import { show } from './room.tsx';

interface Row {
  id: string;
  name: string;
  jars: number | null;
}
const ROWS: Row[] = [
  { id: 'a', name: 'Jar 10', jars: 4 },
  { id: 'b', name: 'jar 9', jars: null },
  { id: 'c', name: 'Beans', jars: -2 },
];
const Sample = (listed: Partial<Listed<Row>>) => (
  <List<Row>
    label="Batches"
    rows={ROWS}
    {...listed}
    keyOf={r => r.id}
    nothing="No batch yet."
    columns={[
      { head: 'Name', order: r => r.name, cell: r => <a href={`#${r.id}`}>{r.name}</a> },
      false,
      { head: 'Jars', figure: true, order: r => r.jars, cell: r => r.jars },
      { head: 'Open', action: true, cell: r => <button type="button">Open {r.id}</button> },
    ]}
  />
);
const order = () => screen.getAllByRole('link').map(a => a.textContent);

describe('a list', () => {
  it('is put in order by its heads: up, down, and as it came; nothing stands last', async () => {
    show(<Sample />);
    const head = (name: string) => screen.getByRole('button', { name });
    await userEvent.click(head('Name'));
    expect(order()).toEqual(['Beans', 'jar 9', 'Jar 10']);
    expect(screen.getByRole('columnheader', { name: 'Name' }).getAttribute('aria-sort')).toBe('ascending');
    await userEvent.click(head('Name'));
    expect(order()).toEqual(['Jar 10', 'jar 9', 'Beans']);
    await userEvent.click(head('Name'));
    expect(order()).toEqual(['Jar 10', 'jar 9', 'Beans']);
    await userEvent.click(head('Jars'));
    expect(order()).toEqual(['Beans', 'Jar 10', 'jar 9']);
  });

  it('of which only a part is here is not put in order, and offers the rest', async () => {
    const more = vi.fn();
    show(<Sample more={more} />);
    expect(screen.queryByRole('button', { name: 'Name' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Show more' }));
    expect(more).toHaveBeenCalledOnce();
  });

  it('is walked with the arrow keys, past its ends nowhere, and not out of a field', () => {
    show(<Sample />);
    const links = screen.getAllByRole('link');
    links[0]?.focus();
    fireEvent.keyDown(links[0] as Element, { key: 'ArrowDown' });
    expect(document.activeElement).toBe(links[1]);
    fireEvent.keyDown(links[1] as Element, { key: 'ArrowUp' });
    fireEvent.keyDown(links[0] as Element, { key: 'ArrowUp' });
    expect(document.activeElement).toBe(links[0]);
    fireEvent.keyDown(links[0] as Element, { key: 'End' });
    expect(document.activeElement).toBe(links[0]);
  });

  it('says when it is empty, on its way, or failed', () => {
    const { unmount } = show(<Sample rows={[]} />);
    expect(screen.getByText('No batch yet.')).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
    unmount();
    const waiting = show(<Sample rows={undefined} />);
    expect(screen.getByRole('status').textContent).toBe('One moment.');
    waiting.unmount();
    show(<Sample rows={ROWS} error={new Error('the wire is cut')} />);
    expect(screen.getByRole('alert').textContent).toContain('the wire is cut');
    expect(screen.queryByRole('table')).toBeNull();
  });

  it('of pages has the rows of all of them, and a way on while there is one', () => {
    const query = { error: null, hasNextPage: true, fetchNextPage: async () => undefined };
    const listed = pagesOf({ ...query, data: { pages: [[1, 2], [3]] } }, p => p);
    expect(listed.rows).toEqual([1, 2, 3]);
    expect(listed.more).toBeTypeOf('function');
    expect(pagesOf({ ...query, hasNextPage: false, data: undefined }, (p: number[]) => p)).toEqual({
      rows: undefined,
      error: null,
      more: undefined,
    });
  });
});

describe('what is fetched', () => {
  it('stays when a later look fails', () => {
    const { rerender } = show(<Loaded query={{ error: new Error('gone') }}>{() => 'here'}</Loaded>);
    expect(screen.getByRole('alert').textContent).toContain('gone');
    rerender(<Loaded query={{ data: 'x', error: new Error('gone') }}>{d => <p>{d} is here</p>}</Loaded>);
    expect(screen.getByText('x is here')).toBeTruthy();
  });
});

function Dialog({ onClose, onSave }: { onClose: () => void; onSave: () => void }) {
  const form = useTyped({ name: '' }, () => ({ name: words('The name') }));
  return (
    <FormDialog title="A thing" action="Keep it" form={form} onClose={onClose} onSubmit={form.submit(onSave)}>
      <Text at={form.at('name')} label="Name" />
    </FormDialog>
  );
}

describe('a form in a dialog', () => {
  const open = () => {
    const onClose = vi.fn();
    const onSave = vi.fn();
    show(<Dialog onClose={onClose} onSave={onSave} />);
    return { onClose, onSave };
  };

  it('untouched, closes by a stray key', async () => {
    const { onClose } = open();
    await userEvent.keyboard('{Escape}');
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('typed in, asks first; going on keeps what was typed and saves nothing by itself', async () => {
    const { onClose, onSave } = open();
    await userEvent.type(screen.getByRole('textbox', { name: 'Name' }), 'Plum');
    await userEvent.keyboard('{Escape}');
    expect(onClose).not.toHaveBeenCalled();
    // The button to keep it must not come under the finger that goes on typing.
    await userEvent.click(screen.getByRole('button', { name: 'Go on typing' }));
    expect(onSave).not.toHaveBeenCalled();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Plum');
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('is left at once by the button that says so', async () => {
    const { onClose } = open();
    await userEvent.type(screen.getByRole('textbox', { name: 'Name' }), 'Plum');
    await userEvent.click(screen.getByRole('button', { name: 'Not now' }));
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('asks for a reason that says something', async () => {
    const onReason = vi.fn();
    show(<ReasonDialog title="Why?" action="Take it back" onReason={onReason} onClose={vi.fn()} />);
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason' }), 'no');
    await userEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(await screen.findByText(/The reason is too short/)).toBeTruthy();
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason' }), ' such jar ');
    await userEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(onReason).toHaveBeenCalledWith('no such jar');
  });
});

describe('leaving a view with something typed', () => {
  const leaving = (dirty: boolean) => show(<LeaveAsked dirty={dirty} />).router;
  const closing = () => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event.defaultPrevented;
  };

  it('is asked about, by another address and by closing the page', async () => {
    const router = leaving(true);
    expect(closing()).toBe(true);
    await act(() => router.navigate('/elsewhere'));
    const dialog = within(screen.getByRole('dialog', { name: 'Leave what you typed?' }));
    await userEvent.click(dialog.getByRole('button', { name: 'Go on typing' }));
    expect(router.state.location.pathname).toBe('/');
    await act(() => router.navigate('/elsewhere'));
    await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(router.state.location.pathname).toBe('/elsewhere');
  });

  it('is not, where nothing was', async () => {
    const router = leaving(false);
    expect(closing()).toBe(false);
    await act(() => router.navigate('/elsewhere'));
    expect(screen.getByRole('heading', { name: 'Elsewhere' })).toBeTruthy();
  });
});

describe('the buttons of a clock', () => {
  afterEach(() => vi.useRealTimers());
  function Clock({ stage, work }: { stage: string; work: () => Promise<unknown> }) {
    const taps = useTaps(stage);
    return (
      <button type="button" {...taps.button} onClick={() => taps.once(work)}>
        {stage}
      </button>
    );
  }
  const tap = () => fireEvent.click(screen.getByRole('button'));
  const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

  it('take one tap for each stage, and none while the thumb may still be there', async () => {
    vi.useFakeTimers();
    const work = vi.fn(async () => ['id']);
    const { rerender } = show(<p />);
    rerender(<Clock stage="packed" work={work} />);
    tap();
    expect(work).not.toHaveBeenCalled();
    await pass(700);
    tap();
    tap();
    expect(work).toHaveBeenCalledOnce();
    rerender(<Clock stage="boiling" work={work} />);
    tap();
    expect(work).toHaveBeenCalledOnce();
    await pass(700);
    tap();
    expect(work).toHaveBeenCalledTimes(2);
  });

  it('wait for another tap where the first entered nothing', async () => {
    vi.useFakeTimers();
    const work = vi.fn(async (): Promise<null> => null);
    show(<Clock stage="packed" work={work} />);
    await pass(700);
    tap();
    await pass(0);
    tap();
    expect(work).toHaveBeenCalledTimes(2);
  });
});

describe('a sentence with figures', () => {
  it('is written as the language has it', () => {
    expect(say('form.marked', { n: 1 })).toBe('One field is marked below.');
    expect(say('form.marked', { n: 12 })).toBe('12 fields are marked below.');
    expect(say('outbox.kept', { n: 1200 })).toContain('1,200 entries are kept');
    expect(say('outbox.refused', { entry: '{n, plural' })).toContain('({n, plural)');
  });
});
