import { type Drive, stationLabel } from '../drive';
import type { Severity } from '../finding';
import { bodyRadiusMm, sectionFor } from '../section';
import { beltBounds, beltOutline } from './outline';
import { solveDrive } from './solve';

/** A drive in small: enough to draw it and name its belts in a list, a few hundred bytes. */
export interface DriveSketch {
  /** `minX minY width height` of an SVG, y down, mm. */
  viewBox: string;
  /** x, y (down) and radius of every pulley, and what its shaft is called. */
  circles: { x: number; y: number; r: number; label: string }[];
  belts: SketchBelt[];
  /** The worst finding anywhere, or null. */
  worst: Severity | null;
}

export interface SketchBelt {
  id: string;
  section: string;
  ribs: number | null;
  closed: boolean;
  path: string;
  basis: string;
  lengthMm: number | null;
}

export function sketchOf(drive: Drive): DriveSketch {
  const { belts, findings } = solveDrive(drive);
  const { minX, minY, maxX, maxY } = beltBounds(drive);
  const circles = drive.stations.flatMap((station) =>
    station.pulleys.map((pulley) => {
      const belt = drive.belts.find(({ route }) => route.some((stop) => stop.pulley === pulley.id));
      const r = bodyRadiusMm(pulley, belt ? sectionFor(belt.section, belt.sectionOverrides) : null);
      return { x: tenths(station.x), y: tenths(-station.y), r: tenths(r), label: stationLabel(station) };
    }),
  );
  const severities = [...belts.flatMap((belt) => belt.findings), ...findings].map(({ severity }) => severity);
  return {
    viewBox: [minX, -maxY, maxX - minX, maxY - minY].map(tenths).join(' '),
    circles,
    belts: belts.map((solved, index) => {
      const belt = drive.belts[index]!;
      const { id, closed, length } = solved;
      return {
        id,
        section: belt.section,
        ribs: belt.ribs ?? null,
        closed,
        path: beltOutline(solved),
        basis: length.basis,
        lengthMm: length.mm,
      };
    }),
    worst: (['fault', 'watch', 'note'] as const).find((severity) => severities.includes(severity)) ?? null,
  };
}

function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
