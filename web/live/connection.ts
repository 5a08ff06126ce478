import { ask } from '../api/client';
import { heardFrom } from '../offline/away';
import { signedOut } from '../access/here';
import { live, tellLive, thisDevice, thisTab } from './messages';
import type { HereTab, LiveMessage, Me } from '@emery/core/api';

/*
 * One connection a device, whatever the number of its tabs: the tab that holds the lock listens, and hands on what it
 * hears over a channel of the browser; another takes over when it is closed. Where a browser has no locks, as over
 * plain http, every tab listens for itself.
 */

type Said =
  | { message: LiveMessage }
  | { live: boolean }
  /** A tab is new, or another leads from now on: who is where is said again. */
  | { ask: 'all' }
  | { tab: HereTab }
  | { gone: string };

/** A connection that was refused is made again after this, ms; one that broke off the browser makes again by itself. */
const AGAIN_MS = 3000;
/** A device that may not listen, as one that is lent for a job or not signed in, looks so often whether it may, ms. */
const LOOK_MS = 30_000;

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('emery-live');
const say = (said: Said) => channel?.postMessage(said);

let leads = false;
let last: number | null = null;
let source: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
/** Where each tab of this device is, as the one that leads tells the server. */
const tabs = new Map<string, HereTab>();
let ownTab: HereTab | null = null;
let whenTabs: (tabs: readonly HereTab[]) => void = () => undefined;

/** Begins to listen. `here` is told where this device's tabs are, in the tab that leads, each time that changes. */
export function listen(here: (tabs: readonly HereTab[]) => void): void {
  whenTabs = here;
  channel?.addEventListener('message', ({ data }: MessageEvent<Said>) => hearTab(data));
  if (channel && navigator.locks) {
    say({ ask: 'all' });
    navigator.locks
      .request('emery-live', () => {
        lead();
        // Held for as long as this tab lives.
        return new Promise(() => undefined);
      })
      .catch(lead);
  } else lead();
  window.addEventListener('pagehide', () => say({ gone: thisTab() }));
  signedOut.subscribe(() => leads && (signedOut.get() === null ? connect() : disconnect()));
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible' && leads && source?.readyState !== EventSource.OPEN) connect();
  });
}

/** Says where this tab is. */
export function moveTab(tab: HereTab): void {
  ownTab = tab;
  putTab(tab);
  say({ tab });
}

function putTab(tab: HereTab): void {
  if (JSON.stringify(tabs.get(tab.tab)) === JSON.stringify(tab)) return;
  tabs.set(tab.tab, tab);
  if (leads) whenTabs([...tabs.values()]);
}

function hearTab(said: Said): void {
  if ('message' in said) hear(said.message);
  else if ('live' in said) setLive(said.live);
  else if ('tab' in said) putTab(said.tab);
  else if ('gone' in said) {
    if (tabs.delete(said.gone) && leads) whenTabs([...tabs.values()]);
  } else {
    if (ownTab) say({ tab: ownTab });
    if (leads) say({ live: live.get() });
  }
}

/** What was open before is caught up with once messages come, whichever tab they come by. */
function setLive(on: boolean): void {
  const was = live.get();
  live.set(on);
  if (on && !was) tellLive({ kind: 'hello', seq: last ?? 0, gap: true });
}

function hear(message: LiveMessage): void {
  last = Math.max(last ?? 0, message.seq);
  if (message.kind !== 'hello') tellLive(message);
  else if (live.get()) tellLive(message);
}

function lead(): void {
  leads = true;
  // Tabs of the one that led before say where they are.
  say({ ask: 'all' });
  if (ownTab) tabs.set(ownTab.tab, ownTab);
  whenTabs([...tabs.values()]);
  if (signedOut.get() === null) connect();
}

function disconnect(): void {
  turn += 1;
  clearTimeout(again);
  source?.close();
  source = null;
  setLive(false);
  say({ live: false });
}

/** Whether this device is somebody's of the shop: who is not would be refused again and again. */
async function mayListen(): Promise<boolean> {
  try {
    const { role } = await ask<Me>('GET', '/access/me');
    return role !== 'lent' && role !== 'nobody';
  } catch {
    // Nobody there: the connection finds out when somebody is.
    return true;
  }
}

/** The last that was begun; one that is overtaken while it asks goes no further. */
let turn = 0;

function connect(): void {
  clearTimeout(again);
  const own = (turn += 1);
  void mayListen().then((may) => {
    if (own !== turn) return;
    if (may) open();
    else again = setTimeout(connect, LOOK_MS);
  });
}

function open(): void {
  source?.close();
  const after = last === null ? '' : `&after=${last}`;
  const made = new EventSource(`/api/live?device=${thisDevice()}${after}`);
  source = made;
  made.addEventListener('message', ({ data }: MessageEvent<string>) => {
    const message = JSON.parse(data) as LiveMessage;
    if (message.kind === 'hello') {
      heardFrom(true);
      last = Math.max(last ?? 0, message.seq);
      // The device's place may be forgotten by now.
      whenTabs([...tabs.values()]);
      setLive(true);
      say({ live: true });
    } else {
      hear(message);
    }
    say({ message });
  });
  made.addEventListener('error', () => {
    setLive(false);
    say({ live: false });
    // Whether the server is away is found out by what is asked; a refusal closes the connection for good.
    if (made.readyState === EventSource.CLOSED && source === made) again = setTimeout(connect, AGAIN_MS);
  });
}
