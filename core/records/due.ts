import {
  type Belt,
  type Drive,
  dueAfter,
  LISTEN_AFTER_KM,
  kmPer,
  listeningsLeft,
  momentOf,
  type OdometerUnit,
} from '../drive';
import { inspectDrive, inspectedLabel, type InspectItem, VERDICT_WORDS } from '../inspect';
import { heldBy, type HeldBy, isSetByHand, stepsBy } from '../job';
import type { Due, DueKind } from './due-state';
import { namedBelt } from './belt-names';
import { dayOf } from './use';
import { grouped } from '../quantity';

/** What is done at the next look, by what holds the belt: what cannot be set is only read. */
const LOOK_WORDS = {
  'by-hand': (name: string) => `${name}: read its tension, and set it again if it is low`,
  arm: (name: string) => `${name}: inspect it again`,
  fixed: (name: string) => `${name}: read its tension; no adjuster sets it again, so change it if it is low`,
  'not-said': (name: string) => `${name}: read its tension`,
} as const;

function lookAs(by: HeldBy): keyof typeof LOOK_WORDS {
  if (isSetByHand({ by })) return 'by-hand';
  if (stepsBy(by)?.way === 'arm') return 'arm';
  return by === 'not-said' ? 'not-said' : 'fixed';
}

/** All that is due on a drive, now or later. */
export function duesOf(drive: Drive): Due[] {
  const unit = drive.inspect?.odometerUnit ?? null;
  const items = inspectDrive(drive);
  return [
    ...items.flatMap((item) => (item.verdict === 'replace' ? [changeDue(drive, item, unit)] : [])),
    ...drive.belts.flatMap((belt) => careDues(drive, belt, unit)),
    ...listenDues(drive),
    ...items.flatMap((item) => wearDues(drive, item, unit)),
  ];
}

function changeDue(drive: Drive, item: InspectItem, unit: OdometerUnit | null): Due {
  const found = item.judged.filter(({ grade }) => grade === 'replace').map(({ finding }) => finding);
  const times = found.flatMap((finding) => momentOf(finding?.at) ?? []);
  const onIt = item.on === 'belt' ? drive.belts.find(({ id }) => id === item.target) : undefined;
  return {
    key: `change ${item.on} ${item.target}`,
    kind: 'change',
    text: `${VERDICT_WORDS.replace}: ${onIt ? namedBelt(drive, onIt) : inspectedLabel(drive, item)}`,
    belt: item.on === 'belt' ? item.target : null,
    day: times.length > 0 ? dayOf(Math.min(...times)) : null,
    odometer: null,
    unit,
    from: 'written',
    plusMinus: null,
  };
}

function careDues(drive: Drive, belt: Belt, unit: OdometerUnit | null): Due[] {
  const { care } = belt;
  if (!care) return [];
  const at = (kind: DueKind, text: string, date: string | undefined, odometer?: number): Due => {
    const ms = momentOf(date);
    return {
      key: `${kind} ${belt.id}`,
      kind,
      text,
      belt: belt.id,
      day: ms === null ? null : dayOf(ms),
      odometer: odometer ?? null,
      unit,
      from: 'written',
      plusMinus: null,
    };
  };
  const name = namedBelt(drive, belt);
  const by = heldBy(drive, belt);
  const byHand = isSetByHand({ by });
  const fitted = care.runInFrom ?? care.fittedAt;
  return [
    ...(byHand && fitted !== undefined && care.setAgainAt === undefined
      ? [at('set-again', `${name}: set it again after its run-in`, fitted)]
      : []),
    ...(care.nextLookAt !== undefined || care.nextLookOdometer !== undefined
      ? [at('look', LOOK_WORDS[lookAs(by)](name), care.nextLookAt, care.nextLookOdometer)]
      : []),
  ];
}

/** Of each cure of a noise the next time it is to be listened to. */
function listenDues(drive: Drive): Due[] {
  return listeningsLeft(drive).flatMap((cure): Due[] => {
    const next = dueAfter(cure).find(({ done }) => !done);
    if (!next) return [];
    const unit = cure.odometerUnit ?? null;
    const km = LISTEN_AFTER_KM[next.when];
    const ms = momentOf(cure.at);
    return [
      {
        key: `listen ${cure.id}`,
        kind: 'listen',
        text:
          next.when === 'now'
            ? 'Listen again after the repair'
            : `Listen again, ${grouped(Math.round(km / kmPer(unit ?? 'km')))} ${unit ?? 'km'} after the repair`,
        belt: null,
        // Without an odometer the day of the cure is all there is to go by.
        day: (next.when === 'now' || next.at === null) && ms !== null ? dayOf(ms) : null,
        odometer: next.when === 'now' ? null : next.at,
        unit,
        from: 'default',
        plusMinus: null,
      },
    ];
  });
}

/** The end of a belt by wear or by the life such belts have, and by its age: whichever is first. */
function wearDues(drive: Drive, item: InspectItem, unit: OdometerUnit | null): Due[] {
  if (item.on !== 'belt' || item.verdict === 'replace') return [];
  const belt = drive.belts.find(({ id }) => id === item.target)!;
  const name = namedBelt(drive, belt);
  const { wear, life } = item;
  const aged = item.age!;
  const common = { belt: belt.id, plusMinus: null };
  if (wear?.left) {
    const worn = wear.left.day === null ? null : wear.left.day.slice(0, 10);
    return [
      {
        ...{ ...common, key: `wear ${belt.id}`, kind: 'wear' },
        text: `${name}: wear limit reached, by its readings${aged.day === null ? '' : `, or ${aged.years} years old (a default)`}`,
        day: [worn, aged.day].filter((day) => day !== null).sort()[0] ?? null,
        odometer: wear.left.odometer,
        unit: unit ?? 'km',
        from: 'forecast',
        plusMinus: wear.left.plusMinus,
      },
    ];
  }
  const fitted = belt.care?.fittedOdometer;
  if (fitted === undefined && aged.day === null) return [];
  return [
    {
      ...{ ...common, key: `life ${belt.id}`, kind: 'life' },
      text: `${name}: expected life reached${aged.day === null ? '' : `, by distance or at ${aged.years} years`}`,
      day: aged.day,
      odometer: life && fitted !== undefined ? fitted + life.distance : null,
      unit: life?.unit ?? unit,
      from: life && life.from !== 'default' ? 'written' : 'default',
    },
  ];
}
