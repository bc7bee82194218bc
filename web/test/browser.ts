import { type Kitchen, noPlace, plainCosts } from '@cocotte/core/kitchen';

/** What a browser has and Node has not, as little of it as the interface's own units ask for. */
export function standInStorage(): Map<string, string> {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
  for (const name of ['localStorage', 'sessionStorage'])
    Object.defineProperty(globalThis, name, { value: storage, configurable: true });
  return kept;
}

/** A kitchen's settings for one locale, imperial or metric. */
export const kitchenOf = (locale: string, imperial: boolean, over: Partial<Kitchen> = {}): Kitchen => ({
  id: 'k',
  name: 'Kitchen',
  altitude_m: 0,
  thermometerIce_C: null,
  placed: true,
  demo: false,
  hourlyRate: '0',
  makerName: '',
  makerAddress: '',
  jurisdiction: noPlace(),
  thermometerError_C: 0,
  thermometerCheckedOn: null,
  phAct: 4.2,
  pots: [],
  canners: [],
  costs: plainCosts,
  version: 1,
  locale,
  currency: 'USD',
  zone: 'UTC',
  temperature: imperial ? 'F' : 'C',
  altitude: imperial ? 'ft' : 'm',
  measures: imperial ? 'US' : 'metric',
  paper: imperial ? 'letter' : 'A4',
  ...over,
});
