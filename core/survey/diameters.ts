import {
  type DiameterMethod,
  type DiameterReading,
  type Drive,
  findPulley,
  pulleysById,
  type SurveyReading,
} from '../drive';
import { againstTheOthers, weightedMean } from '../numeric';
import { FINEST, type UncertainRadius } from './readings';

/** Taken where a reading carries no ± of its own, mm. Defaults. */
export const DIAMETER_PLUS_MINUS: Record<DiameterMethod, number> = {
  calliper: 0.2,
  across: 1.6,
  around: 1.6,
  step: 0.5,
};

/** Two readings, or one and all the others, this many standard deviations apart disagree. */
const DISAGREE_AT = 3;

export interface ReadDiameter {
  id: string;
  /** What this reading makes the diameter, and how well, mm. */
  mm: number;
  plusMinus: number;
  /** How far it lies from what the other readings make it, in standard deviations; null where it is alone. */
  normalised: number | null;
}

export interface CombinedDiameter {
  mm: number;
  plusMinus: number;
  readings: ReadDiameter[];
  /** Of readings that disagree, the one furthest off; null where all agree. Of two, nobody knows which. */
  suspect: string | null;
}

/**
 * What the readings of one pulley's diameter come to, each weighed by its ±; null without readings. Where they disagree
 * by more than they say, the ± of the outcome grows with the disagreement. A step whose outer sheave has no size yet is
 * left out.
 */
export function combinedDiameter(drive: Drive, pulleyId: string): CombinedDiameter | null {
  return combine(drive, pulleyId, new Set());
}

function combine(drive: Drive, pulleyId: string, within: ReadonlySet<string>): CombinedDiameter | null {
  const read = (drive.survey?.diameters ?? [])
    .filter(({ pulley }) => pulley === pulleyId)
    .flatMap((reading) => {
      const diameter = diameterOf(drive, reading, new Set([...within, pulleyId]));
      return diameter ? [{ id: reading.id, ...diameter }] : [];
    });
  if (read.length === 0) return null;
  const figures = read.map(({ mm, plusMinus }) => ({ at: mm, sigma: plusMinus }));
  const { at: mm, sigma: plusMinus } = weightedMean(figures);
  const normalised = againstTheOthers(figures);
  const readings = read.map((reading, k) => ({ ...reading, normalised: normalised[k]! }));
  const worst = readings.reduce((found, next) =>
    Math.abs(next.normalised ?? 0) > Math.abs(found.normalised ?? 0) ? next : found,
  );
  const excess =
    read.length > 1
      ? Math.sqrt(
          read.reduce((sum, reading) => sum + ((reading.mm - mm) / reading.plusMinus) ** 2, 0) / (read.length - 1),
        )
      : 1;
  const disagree = Math.abs(worst.normalised ?? 0) > DISAGREE_AT;
  return {
    mm,
    plusMinus: disagree ? plusMinus * Math.max(1, excess) : plusMinus,
    readings,
    suspect: disagree ? worst.id : null,
  };
}

/** What one reading makes the diameter: as read, the circumference over π, or the outer rim less twice the step. */
function diameterOf(
  drive: Drive,
  { method, mm, plusMinus, of }: DiameterReading,
  within: ReadonlySet<string>,
): { mm: number; plusMinus: number } | null {
  const own = Math.max(FINEST, plusMinus ?? DIAMETER_PLUS_MINUS[method]);
  if (method === 'around') return { mm: mm / Math.PI, plusMinus: own / Math.PI };
  if (method !== 'step') return { mm, plusMinus: own };
  if (of === undefined || within.has(of)) return null;
  // A drawn size counts only where nothing was read: two sheaves stepped from each other say nothing.
  const unread = !(drive.survey?.diameters ?? []).some(({ pulley }) => pulley === of);
  const outer =
    combine(drive, of, within) ?? (unread ? { mm: findPulley(drive, of)?.diameter ?? 0, plusMinus: 0 } : null);
  if (!outer || outer.mm <= 2 * mm) return null;
  return { mm: outer.mm - 2 * mm, plusMinus: Math.hypot(outer.plusMinus, 2 * own) };
}

/**
 * Lays the combined readings over the drawn diameter, of this pulley and of every sheave stepped from it; hundredths of
 * a mm.
 */
export function withReadDiameters(drive: Drive, pulleyId: string): Drive {
  const stepped = (drive.survey?.diameters ?? []).filter(({ of }) => of === pulleyId).map(({ pulley }) => pulley);
  const known = new Map(
    [pulleyId, ...stepped].flatMap((id) => {
      const combined = pulleysById(drive).has(id) ? combinedDiameter(drive, id) : null;
      return combined ? [[id, Math.round(combined.mm * 100) / 100] as const] : [];
    }),
  );
  if (known.size === 0) return drive;
  return {
    ...drive,
    stations: drive.stations.map((station) =>
      station.pulleys.some(({ id }) => known.has(id))
        ? {
            ...station,
            pulleys: station.pulleys.map((pulley) =>
              known.has(pulley.id) ? { ...pulley, diameter: known.get(pulley.id)! } : pulley,
            ),
          }
        : station,
    ),
  };
}

/**
 * The pulleys that tapes run over and whose diameters were read: such a tape is no better than the rims it takes in. A
 * size nobody read is taken as drawn.
 */
export function uncertainRadii(drive: Drive, readings: readonly SurveyReading[]): UncertainRadius[] {
  const taped = new Set(
    readings.flatMap(({ kind, from, to }) => (kind === 'outer' || kind === 'gap' ? [from, to] : [])),
  );
  return [...taped].flatMap((pulley) => {
    const read = pulley === undefined ? null : combinedDiameter(drive, pulley);
    return read ? [{ pulley: pulley!, sigma: Math.max(FINEST, read.plusMinus / 2) }] : [];
  });
}
