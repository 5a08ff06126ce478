import { onChanged } from '../state/open-drives';
import { createStore } from '../state/store';
import { TOGETHER } from './words';
import { type Drive, driveDifferences, stationOf } from '@emery/core/drive';
import type { Change } from '@emery/core/together';

/** What others changed just now: in words, and the shafts of the drawing that it concerns. */
export interface JustChanged {
  drive: string;
  text: string;
  stations: ReadonlySet<string>;
}

/** For a moment after others changed something; null at other times. */
export const justChanged = createStore<JustChanged | null>(null);

/** It is marked for so long, ms. */
const MARKED_MS = 4000;

let timer: ReturnType<typeof setTimeout> | undefined;

onChanged(({ id, from, to, versions }) => {
  const differences = driveDifferences(to, from, 'mm');
  const [first] = differences;
  if (!first) return;
  const by = versions.at(-1)?.by ?? '';
  const name = first.field?.name ?? first.text.replace(/: only in (yours|theirs)$/, '');
  const rest = differences.length - 1;
  const text = `${TOGETHER.changed(by, name)}${rest > 0 ? TOGETHER.more(rest) : ''}`;
  justChanged.set({
    drive: id,
    text,
    stations: stationsOf(
      to,
      versions.flatMap(({ changes }) => changes),
    ),
  });
  clearTimeout(timer);
  timer = setTimeout(() => justChanged.set(null), MARKED_MS);
});

/** The shafts that changes are made to, or to what names them. */
function stationsOf(drive: Drive, changes: readonly Change[]): ReadonlySet<string> {
  const found = new Set<string>();
  for (const { at, ...change } of changes) {
    if (at[0] === 'stations' && at[1] !== undefined) found.add(at[1]);
    const item = 'add' in change ? change.add : null;
    const { pulley, from, to, target } = (item ?? {}) as Readonly<Record<string, unknown>>;
    const stop = at[2] === 'route' ? at[3] : undefined;
    for (const id of [pulley, from, to, target, stop]) {
      const station = typeof id === 'string' ? stationOf(drive, id) : undefined;
      if (station) found.add(station.id);
    }
  }
  return found;
}
