import { useHabits, useUnit as useOwnUnit } from '../habits/habits';
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { useShop } from '../api/shop';
import { type AskedTexts, searchOf, textsOf } from './asked-texts';
import type { LengthUnit } from '@emery/core/quantity';

/** The address follows what is written after this, ms: browsers take no more than a few changes a second. */
const LATER_MS = 300;

interface Asked {
  texts: AskedTexts;
  put: (texts: AskedTexts) => void;
  /** What a bare figure is read in: as the link says it that was followed, else as the shop works. */
  unit: LengthUnit;
  /** All of it as an address carries it, with the unit it was written in. */
  search: string;
}

const AskedContext = createContext<Asked | null>(null);

/** Keeps what is asked, and the address with it. */
export function AskedProvider({ children }: { children: ReactNode }) {
  const { search, pathname } = useLocation();
  const [texts, setTexts] = useState(() => textsOf(search));
  const [came, setCame] = useState(search);
  // Back, forward and a link bring other questions than those that were written here.
  if (came !== search) {
    setCame(search);
    setTexts(textsOf(search));
  }
  const shop = useShop();
  const own = useOwnUnit();
  const chosen = useHabits().unit !== null;
  const asked = texts['unit'];
  const unit = asked === 'mm' || asked === 'in' ? asked : own;
  // Before the shop has said what it works in, nothing is written in any unit.
  const said = !shop.isPending || chosen || asked !== undefined;
  const now = searchOf(said && searchOf(texts) !== '' ? { ...texts, unit } : texts);
  const put = useCallback((change: AskedTexts) => setTexts((before) => ({ ...before, ...change })), []);
  useEffect(() => {
    const timer = setTimeout(
      () => window.history.replaceState(window.history.state, '', `${pathname}${now}`),
      LATER_MS,
    );
    return () => clearTimeout(timer);
  }, [now, pathname]);
  const value = useMemo(() => ({ texts, put, unit, search: now }), [texts, put, unit, now]);
  return <AskedContext value={value}>{children}</AskedContext>;
}

export function useAsked(): Asked {
  const asked = useContext(AskedContext);
  if (!asked) throw new Error('useAsked outside the counter');
  return asked;
}

/** What is written into one field, and how it is written over; `start` stands where nothing is. */
export function useText(name: string, start = ''): [text: string, put: (text: string) => void] {
  const { texts, put } = useAsked();
  // Emptied, a field stays empty while it is written anew.
  const write = useCallback((text: string) => put({ [name]: text === start ? undefined : text }), [put, name, start]);
  return [texts[name] ?? start, write];
}

/** One of a few; what the address says beside them counts as the first. */
export function useOneOf<T extends string>(name: string, all: readonly T[], start: T): [T, (value: T) => void] {
  const [text, put] = useText(name, start);
  return [all.find((other) => other === text) ?? start, put];
}

/** What a bare figure is read in, and what comes first where both are told. */
export const useUnit = (): LengthUnit => useAsked().unit;
