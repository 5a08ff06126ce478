import { useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { createStore, type Readable } from '../state/store';
import { PlainButton } from '../ui/PlainButton';
import { PartBoundary } from './PartBoundary';

type Loader<P> = () => Promise<{ default: ComponentType<P> }>;

/** A part that could not be fetched is tried again by itself after this, ms. */
const AGAIN_MS = 4000;

const fetchers: (() => Promise<unknown>)[] = [];

/**
 * A part of the page whose code is fetched when it is first shown, or earlier by `fetchParts`. One that cannot be
 * fetched, as with the server away, says so and is tried again; a fault inside it stays inside it. `waiting` stands in
 * its place until it is there.
 */
export function lazyPart<P extends object>(name: string, load: Loader<P>, waiting: ReactNode = null): ComponentType<P> {
  let there: ComponentType<P> | null = null;
  let fetching: Promise<void> | null = null;
  const fetchPart = () =>
    there
      ? Promise.resolve()
      : (fetching ??= load()
          .then((module) => void (there = module.default))
          .finally(() => (fetching = null)));
  fetchers.push(fetchPart);

  function Fetched(props: P) {
    const [, drawn] = useState(0);
    const [problem, setProblem] = useState(false);
    const [tries, setTries] = useState(0);
    const Part = there;
    useEffect(() => {
      // What was not there when it was drawn may have come since: then it is drawn again as well.
      if (Part) return;
      let gone = false;
      let timer: ReturnType<typeof setTimeout> | undefined;
      fetchPart().then(
        () => gone || drawn((count) => count + 1),
        (error: Error) => {
          if (gone) return;
          setProblem(true);
          timer = setTimeout(() => setTries((count) => count + 1), AGAIN_MS);
          if (tries > 0) void reloadOnceThere(error);
        },
      );
      return () => {
        gone = true;
        clearTimeout(timer);
      };
    }, [tries, Part]);
    if (Part) return <Part {...props} />;
    if (!problem) return waiting;
    return (
      <p className="finding is-watch" role="alert">
        <strong>{name} could not be loaded.</strong> The server is not reachable; Emery tries again by itself.{' '}
        <PlainButton onClick={() => setTries((count) => count + 1)}>Try again now</PlainButton>
      </p>
    );
  }
  return function Part(props: P) {
    return (
      <PartBoundary name={name}>
        <Fetched {...props} />
      </PartBoundary>
    );
  };
}

/** Code without a face that comes after the page; null until it is there. `fetch` has it come at once. */
export interface LazyModule<T> extends Readable<T | null> {
  fetch: () => Promise<void>;
}

/** Sums whose code is fetched when the page is idle, or earlier by `fetch`. */
export function lazyModule<T>(load: () => Promise<T>): LazyModule<T> {
  const there = createStore<T | null>(null);
  const fetch = async () => {
    if (there.get() === null) there.set(await load());
  };
  fetchers.push(fetch);
  return { get: there.get, subscribe: there.subscribe, fetch };
}

/** When this page was last loaded anew for a part, ms since 1970. */
const RELOADED = 'emery reloaded for a part';

/**
 * A browser may hold code that it could not fetch for gone as long as the page lives, though the server has it again.
 * Then the page is loaded anew, once a minute at most: what is drawn and typed is kept, and comes back.
 */
async function reloadOnceThere({ message }: Error): Promise<void> {
  const [url] = /https?:\/\/\S+\.js/.exec(message) ?? ['/api/health'];
  const there = await fetch(url, { cache: 'no-store' }).then(
    ({ ok }) => ok,
    () => false,
  );
  try {
    const last = Number(sessionStorage.getItem(RELOADED));
    if (!there || Date.now() - last < 60_000) return;
    sessionStorage.setItem(RELOADED, String(Date.now()));
  } catch {
    // Without storage nothing says how often it was done already.
    return;
  }
  window.location.reload();
}

/**
 * Fetches every part that is not there yet, one after the other, so that none has to be fetched once the server is
 * away. False where one could not be: the others are left, for a browser asks no second time for code that another part
 * needed in vain.
 */
export async function fetchParts(): Promise<boolean> {
  for (const fetchPart of fetchers) {
    const fetched = await fetchPart().then(
      () => true,
      () => false,
    );
    if (!fetched) return false;
  }
  return true;
}
