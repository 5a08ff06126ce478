import { useShop } from '../api/shop';
import { createStore, useStore } from '../state/store';
import type { DistanceUnit, Habits } from '@emery/core/quantity';
import { DEFAULT_HABITS, type LengthUnit, readHabits, setHabits } from '@emery/core/quantity';

/** Where they are kept: for each person who is signed in at this device, and for the device itself. */
const KEPT = 'emery habits';

const keyOf = (person: string | null): string => (person === null ? KEPT : `${KEPT} of ${person}`);

function kept(person: string | null): Habits {
  try {
    const own = localStorage.getItem(keyOf(person)) ?? localStorage.getItem(KEPT);
    return readHabits(own === null ? null : (JSON.parse(own) as unknown));
  } catch {
    return DEFAULT_HABITS;
  }
}

let whose: string | null = null;
const store = createStore<Habits>(kept(null));
setHabits(store.get());

/** Takes the habits of whoever is signed in at this device; null for the device's own. */
export function habitsOf(person: string | null): void {
  whose = person;
  take(kept(person));
}

/** Changes some of them, and keeps them. */
export function changeHabits(change: Partial<Habits>): void {
  take({ ...store.get(), ...change });
  try {
    localStorage.setItem(keyOf(whose), JSON.stringify(store.get()));
  } catch {
    // They hold as long as the page does.
  }
}

function take(next: Habits): void {
  setHabits(next);
  store.set(next);
}

export const useHabits = (): Habits => useStore(store);

/** The unit that lengths come in first: the person's, else the shop's. */
export function useUnit(): LengthUnit {
  const { unit } = useHabits();
  const shop = useShop().data?.unit;
  return unit ?? shop ?? 'in';
}

/** The unit that a new vehicle's odometer counts in. */
export const useDistanceUnit = (): DistanceUnit => useHabits().distance;
