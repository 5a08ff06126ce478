import { createStore } from '../state/store';

/** True from the first request that nobody answered until somebody answers again. */
export const serverAway = createStore(false);

/** When what is shown in place of answers was kept, the oldest of it; null while nothing is. */
export const shownFrom = createStore<Date | null>(null, (a, b) => a?.getTime() === b?.getTime());

/** How often a server that is away is looked for, ms. */
const LOOK_MS = 3000;

let looking: ReturnType<typeof setTimeout> | undefined;

/** Takes in that a request had an answer, or had none. */
export function heardFrom(answered: boolean): void {
  if (answered) {
    shownFrom.set(null);
    serverAway.set(false);
    return;
  }
  serverAway.set(true);
  clearTimeout(looking);
  looking = setTimeout(look, LOOK_MS);
}

/** Says that what was kept at a moment is shown. */
export function showsKept(at: Date): void {
  const now = shownFrom.get();
  if (now === null || at < now) shownFrom.set(at);
}

async function look(): Promise<void> {
  if (!serverAway.get()) return;
  const there = await fetch('/api/health', { cache: 'no-store' }).then(
    () => true,
    () => false,
  );
  heardFrom(there);
}

/** Calls back each time the server is there again. Returns what ends that. */
export function onceBack(back: () => void): () => void {
  let away = serverAway.get();
  return serverAway.subscribe(() => {
    const was = away;
    away = serverAway.get();
    if (was && !away) back();
  });
}
