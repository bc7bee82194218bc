import { type SessionView, readKitchen, readSession } from '@cocotte/contract';
import type { Kitchen, Role } from '@cocotte/core/kitchen';
import { mayAct } from '@cocotte/core/kitchen';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, use } from 'react';
import { call } from './call.ts';

/** Who is signed in and in which kitchen: known to every view inside the shell. */
export interface Here {
  person: { id: string; name: string; email: string };
  role: Role;
  kitchen: Kitchen;
  session: SessionView;
}

export const HereContext = createContext<Here | null>(null);

/** @throws Error outside the shell */
export function useHere(): Here {
  const here = use(HereContext);
  if (!here) throw new Error('useHere is for views inside the shell.');
  return here;
}

/** Whether the person may do what takes this role. */
export function useMay(role: Role): boolean {
  return mayAct(useHere().role, role);
}

export const useSession = () =>
  useQuery({ queryKey: ['session'], queryFn: () => call(readSession), staleTime: 60_000 });
export const useKitchen = (enabled: boolean) =>
  useQuery({ queryKey: ['kitchen'], queryFn: () => call(readKitchen), enabled, staleTime: 60_000 });

/** Takes a new session in: everything known of the last one is forgotten. */
export function useTakeSession(): (session: SessionView) => void {
  const client = useQueryClient();
  return session => {
    client.removeQueries({ predicate: query => query.queryKey[0] !== 'session' });
    client.setQueryData(['session'], session);
  };
}
