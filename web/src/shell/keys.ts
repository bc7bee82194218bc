import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { burst } from './burst.ts';
import { STOPS } from './stops.ts';

const OFF = 'cocotte.keys-off';

export const keysAreOff = () => localStorage.getItem(OFF) === 'yes';
export const setKeysOff = (off: boolean) => localStorage.setItem(OFF, off ? 'yes' : '');

/**
 * Single keys, outside fields only: 1-8 go to a stop, `/` finds, `n` starts a batch, `?` lists the keys. What a code scanner
 * types is looked for.
 */
export function useKeys(open: { find: (code?: string) => void; help: () => void }): void {
  const navigate = useNavigate();
  const { find, help } = open;
  useEffect(() => {
    const act = (key: string) => {
      const stop = STOPS.find(s => s.key === key);
      if (keysAreOff()) return;
      if (stop) void navigate(stop.path);
      else if (key === 'n') void navigate('/recipes');
    };
    const scanner = burst(act, find);
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const target = e.target as HTMLElement;
      if (
        target.closest(
          'input, textarea, select, [contenteditable], [role=combobox], [role=listbox], [role=dialog], [role=menu], [role=slider]',
        )
      )
        return;
      if (e.key === '/' && !keysAreOff()) find();
      else if (e.key === '?' && !keysAreOff()) help();
      else if (!scanner.take(e.key)) return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => {
      scanner.stop();
      window.removeEventListener('keydown', onKey);
    };
  }, [navigate, find, help]);
}
