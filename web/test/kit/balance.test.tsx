// @vitest-environment jsdom
import { balance, massIn, pictureOf, plan } from '@cocotte/core/balance';
import { Fraction } from '@cocotte/core/measure';
import { currantJelly, plumJam, waxBeans } from '@cocotte/demo/recipes';
import { fireEvent, screen, within } from '@testing-library/react';
import { beforeAll, describe, expect, it } from 'vitest';
import { BalancePanel } from '../../src/kit/balance/BalancePanel.tsx';
import { placeName } from '../../src/kit/balance/words.ts';
import { kitchenOf } from '../browser.ts';
import { show } from './room.tsx';

const US = kitchenOf('en-US', true);
const METRIC = kitchenOf('de-DE', false);
const ANYWHERE = { altitude_m: 0, thermometerError_C: 0, pot: null, pots: 1, headspace_mm: 12.7 };
const of = (recipe: typeof plumJam) => {
  const process = plan(recipe, new Fraction(1), [recipe.makes], ANYWHERE);
  return { process, made: balance(process) };
};
const panel = (recipe: typeof plumJam, kitchen = US) =>
  show(<BalancePanel title="Where everything goes" {...of(recipe)} kitchen={kitchen} />, kitchen);

beforeAll(() => {
  // A page without a layout: the picture is as wide as it is told to be.
  globalThis.ResizeObserver = class {
    constructor(private readonly seen: ResizeObserverCallback) {}
    observe() {
      this.seen([{ contentRect: { width: 900 } } as ResizeObserverEntry], this as never);
    }
    unobserve() {}
    disconnect() {}
  } as never;
});

describe('where everything goes', () => {
  it('is a table on a narrow screen: each band of the picture is a row, and says its weight', () => {
    panel(waxBeans);
    const { process, made } = of(waxBeans);
    const picture = pictureOf(process, made);
    const rows = within(screen.getByRole('table', { name: 'Where everything goes' })).getAllByRole('row');
    expect(rows.length - 1).toBe(picture.flows.length);
    expect(rows.some(r => /Brine.*8 pints.*acid/.test(r.textContent ?? ''))).toBe(true);
    expect(rows.some(r => /Brine left over/.test(r.textContent ?? ''))).toBe(true);
  });

  it('is a picture that is told in words, with a bar and a name for every place', () => {
    const { container } = panel(waxBeans);
    fireEvent.click(screen.getByRole('button', { name: 'picture' }));
    const drawn = screen.getByRole('img', {
      name: /^Where everything goes: .*8 pints .*The table says the same/,
    });
    const { process, made } = of(waxBeans);
    const { places, flows } = pictureOf(process, made);
    expect(drawn.querySelectorAll('rect')).toHaveLength(places.length);
    expect(drawn.querySelectorAll('path')).toHaveLength(flows.length);
    for (const place of places) {
      const name = placeName(place, process, made);
      expect(name).not.toBe('');
      expect(container.textContent).toContain(name.slice(0, 12));
    }
    // Widths go by weight: jars take most.
    const heights = [...drawn.querySelectorAll('rect')].map(r => Number(r.getAttribute('height')));
    expect(Math.max(...heights)).toBe(heights[places.findIndex(p => p.vessel === 'jars')]);
  });

  it('says what is in a jar, its acid, the tightest jar, and that a plan proves nothing', () => {
    panel(waxBeans);
    expect(screen.getByText(/^1\.\d\d g in 100 g$|1\.\d\d g in 100 g/)).toBeDefined();
    expect(screen.getByText(/tightest jar 1\.\d\d g/)).toBeDefined();
    expect(screen.getByText(/nothing of it is proof/)).toBeDefined();
  });

  it('writes figures and weights as the kitchen does', () => {
    panel(plumJam, METRIC);
    const net = massIn(of(plumJam).made.jars[0]?.each ?? new Map());
    expect(screen.getByText(new RegExp(`^${Math.round(net)} g`))).toBeDefined();
    expect(screen.getByText(/^6\d °Brix/)).toBeDefined();
  });

  it('tells what a cloth held back, and what steamed away', () => {
    panel(currantJelly);
    expect(screen.getAllByText('Stays in the cloth').length).toBeGreaterThan(0);
    expect(screen.getAllByText('Steam').length).toBeGreaterThan(0);
  });
});
