import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { STOPS } from './stops.ts';

const OFF = 'cocotte.keys-off';

export const keysAreOff = () => localStorage.getItem(OFF) === 'yes';
export const setKeysOff = (off: boolean) => localStorage.setItem(OFF, off ? 'yes' : '');

/** Single keys, outside fields only: 1-8 go to a stop, `/` finds, `n` starts a batch, `?` lists the keys. */
export function useKeys(open: { find: () => void; help: () => void }): void {
  const navigate = useNavigate();
  const { find, help } = open;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || keysAreOff()) return;
      const target = e.target as HTMLElement;
      if (
        target.closest(
          'input, textarea, select, [contenteditable], [role=combobox], [role=listbox], [role=dialog], [role=menu], [role=slider]',
        )
      )
        return;
      const stop = STOPS.find(s => s.key === e.key);
      if (stop) void navigate(stop.path);
      else if (e.key === '/') find();
      else if (e.key === 'n') void navigate('/recipes');
      else if (e.key === '?') help();
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, find, help]);
}
