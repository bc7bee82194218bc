/** The stops of the work in their order. Sell is stop 7 and appears when it does something. */
export interface Stop {
  key: string;
  path: string;
  name: string;
  counts?: 'cook' | 'check' | 'label';
}

export const STOPS: readonly Stop[] = [
  { key: '1', path: '/', name: 'Today' },
  { key: '2', path: '/recipes', name: 'Recipes' },
  { key: '3', path: '/stores', name: 'Stores' },
  { key: '4', path: '/cook', name: 'Cook', counts: 'cook' },
  { key: '5', path: '/check', name: 'Check', counts: 'check' },
  { key: '6', path: '/label', name: 'Label', counts: 'label' },
  { key: '8', path: '/records', name: 'Records' },
];

/** Which stop a path belongs to; none for the settings and the people of a kitchen. */
export function stopOf(path: string): Stop | undefined {
  return STOPS.find(s => (s.path === '/' ? path === '/' : path.startsWith(s.path)));
}
