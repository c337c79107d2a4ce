'use client';
import { useRouter } from 'next/navigation';
import { createContext, use, useCallback, useEffect, useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { displayUnits, displayUnitSets, type DisplayUnits } from '@/core/wording/display';
import { keepText, keptText, onStoreChange } from './browser-store';
import { changedElsewhere } from './shown-version';
import { UnkeptNotice } from './unkept-notice';

interface Shop {
  readonly shopName: string;
  /** Time zone by which the shop's days begin, and today by it (ISO date). */
  readonly zone: string;
  readonly today: string;
  readonly people: readonly { readonly id: string; readonly name: string; readonly role: string }[];
  /** Who is at this screen. */
  readonly person: string;
  readonly setPerson: (name: string) => void;
  readonly units: DisplayUnits;
  readonly nextUnits: () => void;
}

const ShopContext = createContext<Shop | null>(null);

/** A string that this browser remembers; `fallback` on the server and where nothing is stored. */
export function useStored(key: string, fallback: string): [string, (value: string) => void] {
  const value = useSyncExternalStore(
    onStoreChange,
    () => keptText(key) ?? fallback,
    () => fallback,
  );
  const set = useCallback((next: string) => keepText(key, next), [key]);
  return [value, set];
}

interface Props {
  readonly shopName: string;
  readonly zone: string;
  readonly today: string;
  readonly people: Shop['people'];
  readonly children: ReactNode;
}

/** What every screen needs: who is here and which measurement units are shown. */
export function ShopProvider({ shopName, zone, today, people, children }: Props) {
  const [stored, setPerson] = useStored('hard-pedal-person', people[0]?.name ?? 'Technician');
  // Who is on the list no more, or under another name, is asked who he is: a screen never becomes somebody else by itself.
  const person = stored;
  const [unitsId, setUnitsId] = useStored('hard-pedal-units', displayUnitSets[0].id);
  const shop = useMemo<Shop>(() => {
    const at = displayUnitSets.findIndex((set) => set.id === unitsId);
    return {
      shopName,
      zone,
      today,
      people,
      person,
      setPerson,
      units: displayUnits(unitsId),
      nextUnits: () => setUnitsId(displayUnitSets[(at + 1) % displayUnitSets.length].id),
    };
  }, [shopName, zone, today, people, person, setPerson, unitsId, setUnitsId]);
  const router = useRouter();
  useEffect(() => {
    const anew = () => router.refresh();
    window.addEventListener(changedElsewhere, anew);
    return () => window.removeEventListener(changedElsewhere, anew);
  }, [router]);
  return (
    <ShopContext value={shop}>
      {children}
      <UnkeptNotice />
    </ShopContext>
  );
}

export function useShop(): Shop {
  const shop = use(ShopContext);
  if (!shop) throw new Error('useShop outside ShopProvider');
  return shop;
}
