import { newVersion } from '../access/here';
import { unsentDrives } from '../state/open-drives';

/** The page has the network to itself for this long, ms. */
const FIRST_MS = 4000;
/** Out of sight for this long, nobody is at work on the page, ms. */
const QUIET_MS = 20_000;

let registration: ServiceWorkerRegistration | null = null;

/**
 * Has the browser keep Emery itself, so that it opens with the server away. A new version is fetched beside this one
 * and waits: until somebody takes it, or until the page is out of sight with nothing unsent.
 */
export function keepEmery(): void {
  // Only where the page is trusted: over https, or on the machine itself.
  if (!('serviceWorker' in navigator)) return;
  setTimeout(() => {
    navigator.serviceWorker
      .register('/sw.js')
      .then((made) => {
        registration = made;
        watch(made);
      })
      // Refused, as with site data blocked: Emery works on with the server there.
      .catch(() => undefined);
  }, FIRST_MS);
  newVersion.subscribe(() => void registration?.update().catch(() => undefined));
  let quiet: ReturnType<typeof setTimeout> | undefined;
  document.addEventListener('visibilitychange', () => {
    clearTimeout(quiet);
    if (document.visibilityState === 'hidden')
      quiet = setTimeout(() => {
        if (registration?.waiting && unsentDrives() === 0) void takeNewVersion();
      }, QUIET_MS);
  });
}

function watch(made: ServiceWorkerRegistration): void {
  const waits = () => {
    // The very first one has no page of an older version to wait for.
    if (made.waiting && navigator.serviceWorker.controller) newVersion.set(true);
  };
  waits();
  made.addEventListener('updatefound', () => made.installing?.addEventListener('statechange', waits));
}

/** A version that is still being fetched is waited for no longer than this, ms. */
const LONGEST_MS = 15_000;

/** The version that waits, once it is all there; null where none comes. */
async function waiting(): Promise<ServiceWorker | null> {
  const made = registration;
  if (!made || made.waiting) return made?.waiting ?? null;
  await made.update().catch(() => undefined);
  const began = Date.now();
  while (made.installing && Date.now() - began < LONGEST_MS) await new Promise((resolve) => setTimeout(resolve, 200));
  return made.waiting;
}

/** Goes over to the version that waits, or reads the page anew where none does. */
export async function takeNewVersion(): Promise<void> {
  const reload = () => window.location.reload();
  const next = await waiting();
  if (!next) return reload();
  navigator.serviceWorker.addEventListener('controllerchange', reload, { once: true });
  next.postMessage({ type: 'SKIP_WAITING' });
}
