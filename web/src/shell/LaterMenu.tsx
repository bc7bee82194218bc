import { Suspense, lazy, useState } from 'react';
import type { MenuEntry } from './MenuOf.tsx';

const MenuOf = lazy(async () => ({ default: (await import('./MenuOf.tsx')).MenuOf }));

/** A menu that is fetched when it is opened first, and stays from then on. */
export function LaterMenu(props: {
  anchor: HTMLElement | null;
  entries: readonly MenuEntry[];
  onClose: () => void;
}) {
  const [opened, setOpened] = useState(false);
  if (props.anchor && !opened) setOpened(true);
  return <Suspense>{opened && <MenuOf {...props} />}</Suspense>;
}
