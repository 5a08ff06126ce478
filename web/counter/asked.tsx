import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';

/** What is written into each field of the counter, by its name. It stands in the address, so that a link carries it. */
export type AskedTexts = Readonly<Record<string, string>>;

/** A link carries no more than this. */
const MOST_NAMES = 40;
const MOST_LETTERS = 120;
/** The address follows what is written after this, ms: browsers take no more than a few changes a second. */
const LATER_MS = 300;

interface Asked {
  texts: AskedTexts;
  put: (texts: AskedTexts) => void;
}

const AskedContext = createContext<Asked | null>(null);

export function textsOf(search: string): AskedTexts {
  const pairs = [...new URLSearchParams(search)].slice(0, MOST_NAMES);
  return Object.fromEntries(pairs.map(([name, text]) => [name, text.slice(0, MOST_LETTERS)]));
}

export function searchOf(texts: AskedTexts): string {
  const pairs = Object.entries(texts).filter(([, text]) => text !== '');
  return pairs.length === 0 ? '' : `?${new URLSearchParams(pairs).toString()}`;
}

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
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const put = useCallback((change: AskedTexts) => setTexts((now) => ({ ...now, ...change })), []);
  useEffect(() => {
    timer.current = setTimeout(
      () => window.history.replaceState(window.history.state, '', `${pathname}${searchOf(texts)}`),
      LATER_MS,
    );
    return () => clearTimeout(timer.current);
  }, [texts, pathname]);
  const value = useMemo(() => ({ texts, put }), [texts, put]);
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
  const write = useCallback((text: string) => put({ [name]: text === start ? '' : text }), [put, name, start]);
  return [texts[name] || start, write];
}

/** One of a few; what the address says beside them counts as the first. */
export function useOneOf<T extends string>(name: string, all: readonly T[], start: T): [T, (value: T) => void] {
  const [text, put] = useText(name, start);
  return [all.find((one) => one === text) ?? start, put];
}
