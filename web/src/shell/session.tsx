import {
  type AtCounter,
  type Membership,
  type SessionView,
  readKitchen,
  readSession,
} from '@cocotte/contract';
import type { Kitchen, Role } from '@cocotte/core/kitchen';
import { mayAct } from '@cocotte/core/kitchen';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, use } from 'react';
import { call } from './call.ts';
import { orKept, whileKept } from './here-kept.ts';
import { enterTabKitchen, tabKitchen } from './tab-kitchen.ts';

/** Who is signed in and in which kitchen: known to every view inside the shell. */
export interface Here {
  /** Who acts: whoever was tapped last at a device that several use, else whoever is signed in. */
  person: { id: string; name: string };
  /** Who stands at this device, whoever acts among them. */
  atCounter: AtCounter[];
  /** Several people use this device: signing takes a PIN. */
  shared: boolean;
  role: Role;
  /** May release jars and sign. */
  maySign: boolean;
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

/** Whether the person may release jars and sign. */
export function useMaySign(): boolean {
  return useHere().maySign;
}

/**
 * The kitchen this tab is in: the one it was in if the person still belongs to it, else the one they were in last.
 * Settles it for every call of this tab.
 */
export function kitchenOfTab(session: SessionView): Membership | null {
  const wanted = tabKitchen();
  const found =
    session.kitchens.find(k => k.id === wanted) ?? session.kitchens.find(k => k.id === session.kitchenId);
  if ((found?.id ?? null) !== wanted) enterTabKitchen(found?.id ?? null);
  return found ?? null;
}

export const useSession = () =>
  useQuery({
    queryKey: ['session'],
    queryFn: () =>
      orKept(
        'session',
        () => call(readSession),
        told => told.person !== null,
      ),
    staleTime: 60_000,
    refetchInterval: whileKept,
  });
export const useKitchen = (kitchenId: string | null) =>
  useQuery({
    queryKey: ['kitchen'],
    queryFn: () => orKept(`kitchen.${kitchenId}`, () => call(readKitchen)),
    enabled: kitchenId !== null,
    staleTime: 60_000,
    refetchInterval: whileKept,
  });

/** Takes a new session in, in the kitchen it begins in: everything known of the last one is forgotten. */
export function useTakeSession(): (session: SessionView) => void {
  const client = useQueryClient();
  return session => {
    enterTabKitchen(session.kitchenId);
    client.removeQueries({ predicate: query => query.queryKey[0] !== 'session' });
    client.setQueryData(['session'], session);
  };
}
