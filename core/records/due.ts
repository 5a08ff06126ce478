import { travelOf } from '../adjuster';
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
import { beltName } from '../job';
import type { Due, DueKind } from './due-state';
import { dayOf } from './use';
import { capital } from '../quantity';

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
  return {
    kind: 'change',
    text: `${VERDICT_WORDS.replace}: ${inspectedLabel(drive, item)}`,
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
  const name = capital(beltName(drive, belt.id));
  const byHand = travelOf(drive, belt)?.kind !== 'sprung-arm';
  const fitted = care.runInFrom ?? care.fittedAt;
  return [
    ...(byHand && fitted !== undefined && care.setAgainAt === undefined
      ? [at('set-again', `${name}: set it again after its run-in`, fitted)]
      : []),
    ...(care.nextLookAt !== undefined || care.nextLookOdometer !== undefined
      ? [
          at(
            'look',
            byHand ? `${name}: read its tension, and set it again if it is low` : `${name}: look at it again`,
            care.nextLookAt,
            care.nextLookOdometer,
          ),
        ]
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
        kind: 'listen',
        text:
          next.when === 'now'
            ? 'Listen to it again after the cure'
            : `Listen to it again, ${Math.round(km / kmPer(unit ?? 'km')).toLocaleString('en')} ${unit ?? 'km'} after the cure`,
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

function wearDues(drive: Drive, item: InspectItem, unit: OdometerUnit | null): Due[] {
  if (item.on !== 'belt' || item.verdict === 'replace') return [];
  const name = capital(beltName(drive, item.target));
  const { wear, life } = item;
  if (wear?.left)
    return [
      {
        kind: 'wear',
        text: `${name}: worn to its limit, by its readings`,
        belt: item.target,
        day: wear.left.day === null ? null : wear.left.day.slice(0, 10),
        odometer: wear.left.odometer,
        unit: unit ?? 'km',
        from: 'forecast',
        plusMinus: wear.left.plusMinus,
      },
    ];
  const fitted = drive.belts.find(({ id }) => id === item.target)?.care?.fittedOdometer;
  if (!life || fitted === undefined) return [];
  return [
    {
      kind: 'life',
      text: `${name}: has had the life such a belt is held to have`,
      belt: item.target,
      day: null,
      odometer: fitted + life.distance,
      unit: life.unit,
      from: life.from === 'default' ? 'default' : 'written',
      plusMinus: null,
    },
  ];
}
