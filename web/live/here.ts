import { ask } from '../api/client';
import { whoIsThere } from '../jobs/who';
import { createStore } from '../state/store';
import { moveTab } from './connection';
import { kindOfDevice, live, onLive, thisDevice, thisTab } from './messages';
import type { HereDevice, HereTab, Pointing } from '@emery/core/api';

/** The other devices that are there, as far as this one is told: all of the shop at first, then those at its drives. */
export const others = createStore<readonly HereDevice[]>([]);

/** What the device that is followed points at; null for nothing, or while nobody is followed. */
export const followed = createStore<{ device: string; pointing: Pointing | null } | null>(null);

/** Moves within this are told once, ms. */
const GATHER_MS = 150;

let tabs: readonly HereTab[] = [];
let timer: ReturnType<typeof setTimeout> | undefined;

/** Says where the tabs of this device are, and whom it follows; told once for what follows one another. */
export function tellHere(now: readonly HereTab[] = tabs): void {
  tabs = now;
  clearTimeout(timer);
  timer = setTimeout(() => {
    if (!live.get() || tabs.length === 0) return;
    ask<{ devices: HereDevice[] }>('PUT', `/live/here/${thisDevice()}`, {
      ...{ name: whoIsThere(), kind: kindOfDevice(), tabs, follows: followed.get()?.device ?? null },
    }).then(
      ({ devices }) => others.set(devices.filter(({ device }) => device !== thisDevice())),
      // Told again with the next move, and when the connection stands again.
      () => undefined,
    );
  }, GATHER_MS);
}

let own: Omit<HereTab, 'tab'> = { drive: null, stage: '', part: '' };

/** The drive that this tab shows; ids of pulleys are alike on many. */
export const driveHere = (): string | null => own.drive;

/** Says where this tab is. */
export function moveTo(place: Omit<HereTab, 'tab'>): void {
  own = place;
  moveTab({ ...place, tab: thisTab() });
}

/** Follows a device, or nobody. */
export function follow(device: string | null): void {
  followed.set(device === null ? null : { device, pointing: null });
  tellHere();
}

onLive((message) => {
  if (message.kind === 'here') {
    const { here } = message;
    const rest = others.get().filter(({ device }) => device !== here.device);
    if (here.device !== thisDevice()) others.set(here.tabs.length === 0 ? rest : [...rest, here]);
    if (here.tabs.length === 0 && followed.get()?.device === here.device) follow(null);
  }
  if (message.kind === 'point' && followed.get()?.device === message.device)
    followed.set({ device: message.device, pointing: message.pointing });
});

/** What is pointed at is told so often at most, ms. */
const POINT_MS = 120;
let pointTimer: ReturnType<typeof setTimeout> | null = null;
let latest: Pointing | null = null;

/** Says what is pointed at here, mm from the crank, where somebody follows. */
export function pointAt(at: { x: number; y: number } | null): void {
  if (own.drive === null || !others.get().some(({ follows }) => follows === thisDevice())) return;
  latest = { drive: own.drive, at, part: own.part };
  pointTimer ??= setTimeout(() => {
    pointTimer = null;
    ask('POST', `/live/here/${thisDevice()}/point`, latest).catch(() => undefined);
  }, POINT_MS);
}
