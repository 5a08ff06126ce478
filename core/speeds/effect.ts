import { marksOf } from '../accessory';
import type { Drive } from '../drive';
import { type PathFinding, solveDrive } from '../path';
import { sizeBelt, type Verdict } from '../seating';
import { bandOf, type BandPlace, placeIn, type ShopBands } from './bands';
import { type SpeedFinding, speedFindings, speedsOf } from './speeds';

/** What a drive does at idle, cruise and redline, to lay beside another. */
export interface DriveEffect {
  shafts: {
    station: string;
    ratio: number | null;
    idle: number | null;
    cruise: number | null;
    redline: number | null;
    place: { idle: BandPlace; cruise: BandPlace; redline: BandPlace } | null;
  }[];
  belts: {
    belt: string;
    /** Marked length, mm; null where the belt does not close. */
    lengthMm: number | null;
    leastWrapDeg: number | null;
    leastWrapAt: string | null;
    /** Marked lengths its adjuster takes, mm: between the marks, or over the travel. */
    takes: { from: number; to: number } | null;
    /** Of the belt that was taken: how it would sit. Without one, null. */
    taken: { lengthMm: number; verdict: Verdict; position: number | null } | null;
    findings: PathFinding[];
  }[];
  findings: SpeedFinding[];
}

export function effectOf(drive: Drive, bands: ShopBands = {}): DriveEffect {
  const solution = solveDrive(drive);
  const marks = marksOf(drive.speeds);
  const { shafts } = speedsOf(drive, solution);
  return {
    shafts: drive.stations.map((station, index) => {
      const ratio = shafts[index]!.speedRatio;
      const at = (rpm: number) => (ratio === null ? null : ratio * rpm);
      const { band } = bandOf(station, bands);
      return {
        station: station.id,
        ratio,
        idle: at(marks.idle),
        cruise: at(marks.cruise),
        redline: at(marks.redline),
        place:
          ratio === null
            ? null
            : {
                idle: placeIn(band, ratio * marks.idle),
                cruise: placeIn(band, ratio * marks.cruise),
                redline: placeIn(band, ratio * marks.redline),
              },
      };
    }),
    belts: solution.belts.map(({ id, length, contacts, findings }) => {
      const wrapped = contacts.filter(({ wrapDeg }) => wrapDeg !== null);
      const min = wrapped.reduce<(typeof wrapped)[number] | null>(
        (worst, next) => (worst === null || next.wrapDeg! < worst.wrapDeg! ? next : worst),
        null,
      );
      const taken = drive.belts.find((belt) => belt.id === id)!.length ?? 0;
      const sizing = sizeBelt(drive, id, { lengths: taken > 0 ? [taken] : [] });
      const sits = sizing?.candidates[0];
      const [from, to] = [
        sizing?.window.shortMark ?? sizing?.window.slackEnd ?? null,
        sizing?.window.longMark ?? sizing?.window.tightEnd ?? null,
      ];
      return {
        belt: id,
        lengthMm: length.mm,
        leastWrapDeg: min?.wrapDeg ?? null,
        leastWrapAt: min?.pulley ?? null,
        takes: from === null || to === null ? null : { from, to },
        taken: sits ? { lengthMm: taken, verdict: sits.verdict, position: sits.position } : null,
        findings: findings.filter(({ severity }) => severity !== 'note'),
      };
    }),
    findings: speedFindings(drive, marks.redline, solution),
  };
}
