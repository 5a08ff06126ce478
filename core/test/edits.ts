import fc from 'fast-check';
import { DEMO } from './demo';
import {
  addStation,
  changeBelt,
  changeStation,
  removePulley,
  removeStation,
  type Drive,
  flipStop,
  freeIdIn,
  insertStop,
  itemsOf,
  newStation,
  put,
  putItem,
  removeItem,
  removeStop,
  reverseRoute,
  type Station,
} from '../drive';

/*
 * Edits as the bench makes them, drawn at random over every stage's part of the document: for what must hold whatever
 * people do. `tail` ends the ids of one device, as the interface sees to.
 */

type Edit = (drive: Drive, tail: string, n: number) => Drive;

const nth = <T>(items: readonly T[], n: number): T | undefined => items[n % Math.max(1, items.length)];
const pulleysOf = (drive: Drive) => drive.stations.flatMap(({ pulleys }) => pulleys);
const idFor = (base: string, items: readonly { readonly id: string }[], tail: string) =>
  freeIdIn(`${base}${tail}`, items);

const place: Edit = (drive, _tail, n) => {
  const station = nth(drive.stations, n);
  return station ? changeStation(drive, station.id, { x: n + 0.5, y: n % 97 }) : drive;
};
const label: Edit = (drive, _tail, n) => {
  const station = nth(drive.stations, n);
  return station ? changeStation(drive, station.id, { label: `Shaft ${n}` }) : drive;
};
const oneField: Edit = (drive, _tail, n) => {
  const belt = nth(drive.belts, n);
  if (!belt) return drive;
  return n % 3 === 0
    ? changeBelt(drive, belt.id, { length: 900 + n })
    : changeBelt(drive, belt.id, n % 3 === 1 ? { staticTension: n } : { reserve: (n % 40) / 1000 });
};
const newTape: Edit = (drive, tail, n) => {
  const [from, to] = [nth(pulleysOf(drive), n), nth(pulleysOf(drive), n + 1)];
  if (!from || !to || from === to) return drive;
  const id = idFor('tape', itemsOf(drive, 'survey.readings'), tail);
  return putItem(drive, 'survey.readings', { id, kind: 'outer', from: from.id, to: to.id, mm: 100 + n });
};
const tapeAgain: Edit = (drive, _tail, n) => {
  const tape = nth(itemsOf(drive, 'survey.readings'), n);
  return tape && tape.kind === 'outer' ? putItem(drive, 'survey.readings', { ...tape, mm: n }) : drive;
};
const tapeOut: Edit = (drive, _tail, n) => {
  const tape = nth(itemsOf(drive, 'survey.readings'), n);
  return tape ? removeItem(drive, 'survey.readings', tape.id) : drive;
};
const newShaft: Edit = (drive, tail, n) => {
  const id = idFor('idler', [...drive.stations, ...pulleysOf(drive)], tail);
  const made = newStation(drive, 'idler', n, 1 - n, 'PK');
  const station: Station = { ...made, id, pulleys: made.pulleys.map((pulley) => ({ ...pulley, id: `${id}-1` })) };
  const belt = nth(drive.belts, n);
  const added = addStation(drive, station);
  return belt ? insertStop(added, belt.id, n % (belt.route.length + 1), { pulley: `${id}-1`, side: 'back' }) : added;
};
const shaftOut: Edit = (drive, _tail, n) => {
  const station = nth(drive.stations, n);
  return station && drive.stations.length > 3 ? removeStation(drive, station.id) : drive;
};
const sheaveOut: Edit = (drive, _tail, n) => {
  const station = nth(
    drive.stations.filter(({ pulleys }) => pulleys.length > 1),
    n,
  );
  const pulley = station && nth(station.pulleys, n);
  return pulley ? removePulley(drive, pulley.id) : drive;
};
const route: Edit = (drive, _tail, n) => {
  const belt = nth(drive.belts, n);
  if (!belt || belt.route.length < 4) return drive;
  const at = n % belt.route.length;
  if (n % 5 === 0) return reverseRoute(drive, belt.id);
  return n % 2 === 0 ? flipStop(drive, belt.id, at) : removeStop(drive, belt.id, at);
};
const evidence: Edit = (drive, _tail, n) => {
  const old = drive.noise?.evidence ?? [];
  const test = (['water', 'only-cold', 'only-wet'] as const)[n % 3] ?? 'water';
  const outcome = test === 'water' ? 'louder' : (['yes', 'no'][n % 2] ?? 'yes');
  const rest = old.filter((seen) => seen.test !== test);
  return { ...drive, noise: { ...drive.noise, evidence: [...rest, { test, outcome, at: `2026-01-0${1 + (n % 9)}` }] } };
};
const finding: Edit = (drive, tail, n) => {
  const belt = nth(drive.belts, n);
  const old = itemsOf(drive, 'inspect.findings');
  if (!belt) return drive;
  const again = n % 2 === 0 ? nth(old, n) : undefined;
  const id = again?.id ?? idFor('found', old, tail);
  return putItem(drive, 'inspect.findings', { id, on: 'belt', target: belt.id, check: 'cracks', value: n % 20 });
};
const pluck: Edit = (drive, tail, n) => {
  const belt = nth(drive.belts, n);
  if (!belt) return drive;
  const old = belt.tensionReadings ?? [];
  const id = idFor('tension', old, tail);
  return changeBelt(drive, belt.id, { tensionReadings: put(old, { id, way: 'pluck', hz: 20 + (n % 900) }) });
};
const ownField: Edit = (drive, _tail, n) => ({
  ...drive,
  ...{ [`x-note-${n % 3}`]: { from: n, list: [n, { a: n }] } },
});
const leftOut: Edit = (drive, tail, n) => {
  const old = drive.job?.leftOut ?? [];
  const next = n % 3 === 0 ? old.slice(1) : [...old, `step-${n}${tail}`];
  return { ...drive, job: { ...drive.job, leftOut: [...new Set(next)] } };
};

const EDITS: readonly Edit[] = [
  ...[place, label, oneField, oneField, newTape, tapeAgain, tapeOut, newShaft, shaftOut, sheaveOut, route],
  ...[evidence, finding, pluck, ownField, leftOut],
];

/** What one person does in one go. */
export interface Drawn {
  edit: number;
  n: number;
}
export const drawnEdit = fc.record({ edit: fc.nat(EDITS.length - 1), n: fc.nat(9999) });
export const editedBy = (drive: Drive, { edit, n }: Drawn, tail = ''): Drive => EDITS[edit]?.(drive, tail, n) ?? drive;
export const editedByAll = (drive: Drive, all: readonly Drawn[], tail = ''): Drive =>
  all.reduce((now, drawn) => editedBy(now, drawn, tail), drive);

/** By name, so that what fails can be read. */
export const SOME_DRIVE = fc.constantFrom(...(Object.keys(DEMO) as (keyof typeof DEMO)[]));
