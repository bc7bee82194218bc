// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useEffect } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { Amount } from '../../src/kit/Amount.tsx';
import {
  Day,
  Figure,
  Money,
  OneOf,
  Pick,
  Suggested,
  Temperature,
  Text,
  Tick,
} from '../../src/kit/fields.tsx';
import { useReadForm, useRows, useTyped } from '../../src/kit/form.ts';
import { anyWords, orNone, rows, useRead, words, wordsOrNone } from '../../src/kit/readers.ts';
import { CallError } from '../../src/shell/call.ts';
import { kitchenOf } from '../browser.ts';
import { show } from './room.tsx';

type Work = (value: unknown) => Promise<void> | void;
const START = {
  name: '',
  kind: 'jar',
  weight: '',
  price: '',
  note: '',
  packages: [{ name: 'case', quantity: '12' }],
};

function Sample({ work, start = START }: { work: Work; start?: typeof START }) {
  const read = useRead();
  const form = useTyped(start, ({ kind }) => ({
    name: words('The name'),
    weight: kind === 'jar' ? orNone(read.figure({ name: 'The weight', min: 0, max: 500 })) : anyWords,
    price: orNone(read.decimal({ name: 'The price', min: 0, max: 100 })),
    note: wordsOrNone,
    packages: rows(() => ({ quantity: read.figure({ name: 'It holds', min: 1, max: 99, whole: true }) })),
  }));
  const packages = useRows(form.form.control, 'packages');
  const { at } = form;
  return (
    <form noValidate onSubmit={form.submit(async v => work(v))}>
      <Text at={at('name')} label="Name" />
      <Pick at={at('kind')} label="Kind" of={['jar', ['lid', 'a lid']]} />
      {form.typed('kind') === 'jar' && <Figure at={at('weight')} label="Empty" unit="g" />}
      <Money at={at('price')} label="Price" hint="what was paid" />
      {packages.fields.map((p, i) => (
        <Figure key={p.key} at={at(`packages.${i}.quantity`)} label={`Package ${i + 1} holds`} />
      ))}
      <button type="button" onClick={() => packages.append({ name: '', quantity: '' })}>
        More
      </button>
      <output>{form.faults.map(f => f.what).join(' ')}</output>
      <p>{form.dirty ? 'changed' : 'as it was'}</p>
      <button type="submit">Keep</button>
      <button type="button" onClick={() => form.again({ name: 'New' })}>
        Again
      </button>
    </form>
  );
}
const field = (name: string) => screen.getByRole('textbox', { name });
const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep' }));
const fault = (path: string, what: string) => ({ path, code: 'x', what, why: 'Because.', next: 'Mend it.' });

describe('a form', () => {
  it('reads each field by its reader, rows too, and gives the rest as it stands', async () => {
    const work = vi.fn<Work>();
    show(<Sample work={work} />);
    await userEvent.type(field('Name'), ' Quart jars ');
    await userEvent.type(field('Empty, g'), '412.5');
    await keep();
    expect(work).toHaveBeenCalledWith({
      name: 'Quart jars',
      kind: 'jar',
      weight: 412.5,
      price: null,
      note: null,
      packages: [{ name: 'case', quantity: 12 }],
    });
  });

  it('shows what, why and what next beside each field, the cursor in the first; nothing typed is lost', async () => {
    const work = vi.fn<Work>();
    show(<Sample work={work} />);
    await userEvent.type(field('Empty, g'), 'heavy');
    await userEvent.click(screen.getByRole('button', { name: 'More' }));
    await keep();
    expect(work).not.toHaveBeenCalled();
    await waitFor(() => expect(document.activeElement).toBe(field('Name')));
    expect(field('Name').getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByText('The name is empty. It is needed to go on. Fill it in.')).toBeTruthy();
    expect((field('Empty, g') as HTMLInputElement).value).toBe('heavy');
    expect(field('Package 1 holds').getAttribute('aria-invalid')).toBe('false');
    expect(field('Package 2 holds').getAttribute('aria-invalid')).toBe('true');
    // The hint comes back once the fault is gone; a fault goes as soon as the field can be read.
    await userEvent.type(field('Name'), 'x');
    await waitFor(() => expect(field('Name').getAttribute('aria-invalid')).toBe('false'));
  });

  it('places what the server finds by its path, however much longer it is, and says the rest above', async () => {
    const work = vi
      .fn<Work>()
      .mockRejectedValue(
        new CallError(422, 'no', [
          fault('item.packages[0].quantity', 'Too many.'),
          fault('item.name', 'Taken.'),
          fault('nowhere', 'The shelf is full.'),
        ]),
      );
    show(<Sample work={work} />);
    await userEvent.type(field('Name'), 'Jars');
    await keep();
    await screen.findByText('Taken. Because. Mend it.');
    expect(screen.getByText('Too many. Because. Mend it.')).toBeTruthy();
    expect(screen.getByRole('status').textContent).toBe('The shelf is full.');
    expect(document.activeElement).toBe(field('Package 1 holds'));
  });

  it('says above what is wrong with a field that is not on the screen', async () => {
    const work = vi.fn<Work>().mockRejectedValue(new CallError(422, 'no', [fault('weight', 'Too heavy.')]));
    show(<Sample work={work} start={{ ...START, name: 'Lids', kind: 'lid' }} />);
    await keep();
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Too heavy.'));
  });

  it('knows whether something was typed, and begins again with what it is given', async () => {
    show(<Sample work={vi.fn<Work>()} />);
    expect(screen.getByText('as it was')).toBeTruthy();
    await userEvent.type(field('Name'), 'J');
    expect(screen.getByText('changed')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Again' }));
    expect((field('Name') as HTMLInputElement).value).toBe('New');
    expect((field('Price, USD') as HTMLInputElement).value).toBe('');
  });

  it('that broke while reading says so, instead of doing nothing', async () => {
    const work = vi.fn<Work>();
    function Broken() {
      const form = useReadForm<{ a: string }, { a: string }>({ a: '' }, () => {
        throw new Error('a table is missing');
      });
      return (
        <form onSubmit={form.submit(work)}>
          <button type="submit">Keep</button>
          <output>{form.faults.map(f => `${f.what} ${f.why}`).join()}</output>
        </form>
      );
    }
    show(<Broken />);
    await keep();
    await waitFor(() => expect(screen.getByRole('status').textContent).toContain('a table is missing'));
    expect(work).not.toHaveBeenCalled();
  });

  it('that answers while one types complains of what is wrong, not of what is still empty', async () => {
    function Live() {
      const read = useRead();
      const form = useTyped(
        { price: '', weight: '' },
        () => ({
          price: read.figure({ name: 'The price', min: 1 }),
          weight: read.figure({ name: 'The weight', min: 1 }),
        }),
        { live: true },
      );
      const now = form.now();
      return (
        <>
          <Figure at={form.at('price')} label="Price" />
          <Figure at={form.at('weight')} label="Weight" />
          <output>{now.price.ok && now.weight.ok ? now.price.value / now.weight.value : 'open'}</output>
        </>
      );
    }
    show(<Live />);
    await userEvent.type(field('Price'), '0');
    await screen.findByText(/The price must be at least 1/);
    expect(field('Weight').getAttribute('aria-invalid')).toBe('false');
    await userEvent.clear(field('Price'));
    await waitFor(() => expect(field('Price').getAttribute('aria-invalid')).toBe('false'));
    await userEvent.type(field('Price'), '9');
    await userEvent.type(field('Weight'), '4');
    expect(screen.getByRole('status').textContent).toBe('2.25');
  });
});

describe('the fields', () => {
  const START_ALL = {
    temp: '',
    day: '2026-05-01',
    tick: false,
    how: 'hot',
    amount: '',
    unit: '',
    what: '',
    group: '',
  };
  const seen = vi.fn<(typed: typeof START_ALL) => void>();
  const typed = () => seen.mock.lastCall?.[0];
  function Fields({ onPick = () => undefined }: { onPick?: (one: { id: string } | null) => void }) {
    const form = useTyped(START_ALL, () => ({}));
    const { at } = form;
    const all = form.all();
    useEffect(() => seen(all), [all]);
    return (
      <>
        <Temperature at={at('temp')} label="Sample" />
        <Day at={at('day')} label="Came" />
        <Tick at={at('tick')} label="Taxed" />
        <OneOf at={at('how')} label="Pack" of={['hot', 'raw']} closed={['raw']} />
        <Amount
          at={at('amount')}
          unitAt={at('unit')}
          label="Amount"
          knowing={{ liquid: true }}
          reading="weighed"
          hint="such as 2 c"
        />
        <Suggested
          at={at('what')}
          label="What"
          of={[
            { id: 'p', name: 'Plum' },
            { id: 'q', name: 'Quince' },
          ]}
          nameOf={o => o.name}
          onPick={onPick}
        />
        <Pick at={at('group')} label="Group" of={[['', 'none'], 'I', 'II']} />
      </>
    );
  }

  it('say their unit with their name, in the habits of the kitchen', () => {
    show(<Fields />, kitchenOf('de-DE', false));
    expect(screen.getByRole('textbox', { name: 'Sample, °C' })).toBeTruthy();
  });

  it('keep what is chosen, and do not let through what may not be', async () => {
    show(<Fields />);
    await userEvent.click(screen.getByRole('checkbox', { name: 'Taxed' }));
    expect(screen.getByRole<HTMLInputElement>('radio', { name: 'raw' }).disabled).toBe(true);
    await userEvent.click(screen.getByRole('combobox', { name: 'Group' }));
    await userEvent.click(screen.getByRole('option', { name: 'II' }));
    expect(typed()).toMatchObject({ tick: true, how: 'hot', group: 'II', day: '2026-05-01' });
  });

  it('an amount shows what it reads as, and asks where it can mean two things', async () => {
    show(<Fields />);
    expect(screen.getByText('such as 2 c')).toBeTruthy();
    await userEvent.type(field('Amount'), '12 oz');
    const ask = await screen.findByRole('group', { name: /ounce/i });
    const [first] = [...ask.querySelectorAll('button')];
    if (!first) throw new Error('nothing is asked');
    await userEvent.click(first);
    expect(first.getAttribute('aria-pressed')).toBe('true');
    expect(['oz', 'floz']).toContain(typed()?.unit);
    await userEvent.clear(field('Amount'));
    await userEvent.type(field('Amount'), '2 frobs');
    await screen.findByText(/frobs/);
  });

  it('a suggestion may be taken or typed over, and the caller hears of both', async () => {
    const heard = vi.fn<(one: { id: string } | null) => void>();
    show(<Fields onPick={heard} />);
    const what = screen.getByRole('combobox', { name: 'What' });
    await userEvent.type(what, 'Qui');
    await userEvent.click(await screen.findByRole('option', { name: /Quince/ }));
    expect(heard).toHaveBeenLastCalledWith({ id: 'q', name: 'Quince' });
    expect(typed()?.what).toBe('Quince');
    await userEvent.type(what, ' jelly');
    expect(typed()?.what).toBe('Quince jelly');
  });
});
