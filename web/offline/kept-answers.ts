import { signedOut } from '../access/here';

/** The browser's own store of answers, and how many it holds. */
const [STORE, MOST] = ['emery answers', 400];
/** What is asked all the time, is told to one person alone, or says how the server is. */
const NOT_KEPT = /^\/(access|health|photos)\b|\/events\b|\.(csv|ics|zip)\b/;

/** Null where the browser has none: over plain http, or forbidden. */
const open = async (): Promise<Cache | null> => {
  try {
    return typeof caches === 'undefined' ? null : await caches.open(STORE);
  } catch {
    return null;
  }
};

const addressOf = (path: string) => `${window.location.origin}/api${path}`;

let puts = 0;

/** Keeps what the server answered, for when it does not; resolves once it is kept, or cannot be. */
export async function keepAnswer(path: string, text: string): Promise<void> {
  if (NOT_KEPT.test(path)) return;
  const store = await open();
  try {
    await store?.put(
      addressOf(path),
      new Response(text, { headers: { 'content-type': 'application/json', date: new Date().toUTCString() } }),
    );
    puts += 1;
    if (store && puts % 50 === 0) await trim(store);
  } catch {
    // No room: what was kept before stays.
  }
}

/** What was kept of an answer, and when; null where nothing was. */
export async function keptAnswer(path: string): Promise<{ text: string; at: Date } | null> {
  const found = await (await open())?.match(addressOf(path)).catch(() => undefined);
  return found ? { text: await found.text(), at: new Date(found.headers.get('date') ?? 0) } : null;
}

export async function forgetAnswer(path: string): Promise<void> {
  await (await open())?.delete(addressOf(path)).catch(() => false);
}

/** The oldest go. */
async function trim(store: Cache): Promise<void> {
  const keys = await store.keys();
  for (const key of keys.slice(0, Math.max(0, keys.length - MOST))) await store.delete(key);
}

// A device that is signed out shows nobody what it showed before.
signedOut.subscribe(() => {
  if (signedOut.get() !== null && typeof caches !== 'undefined') void caches.delete(STORE).catch(() => false);
});
