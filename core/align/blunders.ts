import type { AlignReading, Belt, Drive } from '../drive';
import { mostOfSound } from '../numeric';
import { asSums, fitPlane, pitchOf, type PlaneReading, readingsOf, wobbleOf } from '../planes';
import { sectionFor } from '../section';
import type { AlignFinding } from './finding';

/** Whole inches and parts of one, mm: what a figure is off by that was written in the other unit. */
const INCH = 25.4;
/** How much better a slip has to explain the readings than they do as they are: a factor of 100 in likelihood. */
const PLAIN = 2 * Math.log(100);

/** Explanations as near as this in cost are as good as one another: a factor of four in likelihood. */
const ALIKE = 2 * Math.log(4);
/** What sound readings cost nineteen times in twenty: chi squared, as near as a straight line has it. */
const usual = (degrees: number) => 2 * degrees + 2;

/** Two ribs off is ten times rarer than one. */
const RARE = 2 * Math.log(10);

type Slip = 'wrong-rib' | 'other-side' | 'inch-for-mm';

/** What a slip makes of a reading: what the tool should have read, and what it costs to think of a rarer one. */
function slipsOf(mm: number, pitch: number): { code: Slip; mm: number; rare: number }[] {
  const ribs = pitch > 0 ? [-2, -1, 1, 2] : [];
  const sides = mm === 0 ? [] : [-mm];
  const units = mm === 0 ? [] : [mm * INCH, mm / INCH];
  return [
    ...ribs.map((n) => ({ code: 'wrong-rib' as const, mm: mm + n * pitch, rare: Math.abs(n) > 1 ? RARE : 0 })),
    ...sides.map((other) => ({ code: 'other-side' as const, mm: other, rare: 0 })),
    ...units.map((other) => ({ code: 'inch-for-mm' as const, mm: other, rare: 0 })),
  ];
}

/**
 * Readings of one pulley that contradict one another or any likely tilt, and the slip that explains them best: the
 * wrong rib, the other side of the straightedge, inches for millimetres. Where several readings would explain it alike
 * all are named. Needs two readings.
 */
export function blundersOf(drive: Drive, belt: Belt, pulley: string): AlignFinding[] {
  const readings = readingsOf(drive, pulley);
  if (readings.length < 2) return [];
  const sums = asSums(drive, readings, belt.id);
  const cost = costOf(sums);
  // A tilt is judged as any other reading, so as many are spare as there are readings less the offset.
  if (cost <= mostOfSound(readings.length - 1)) return [];
  const pitch = pitchOf(sectionFor(belt.section, belt.sectionOverrides)!);
  const tried = readings
    .flatMap((reading, k) =>
      slipsOf(reading.mm, pitch).map((slip) => ({
        ...slip,
        reading,
        cost: slip.rare + costOf(sums.map((sum, j) => (j === k ? { ...sum, mm: slip.mm } : sum))),
      })),
    )
    .sort((a, b) => a.cost - b.cost);
  const best = tried[0];
  // Slips of two kinds that explain it alike: it cannot be told which it was.
  const unclear = tried.some(({ code, cost: value }) => code !== best!.code && value - best!.cost < ALIKE);
  const where = { belt: belt.id, pulley, severity: 'watch' as const };
  if (!best || unclear || best.cost > cost - PLAIN || best.cost > usual(readings.length - 1))
    return [
      {
        ...where,
        code: 'readings-disagree',
        readings: readings.map(({ id }) => id),
        figures: { apartMm: apart(readings) },
      },
    ];
  const alike = [
    ...new Map(
      tried.filter(({ cost: value }) => value - best.cost < ALIKE).map((slip) => [slip.reading.id, slip.reading]),
    ).keys(),
  ];
  return [
    {
      ...where,
      code: best.code,
      reading: best.reading.id,
      ...(alike.length > 1 && { readings: alike }),
      figures: { mm: best.reading.mm, meantMm: best.mm },
    },
  ];
}

const apart = (readings: readonly AlignReading[]) =>
  Math.max(...readings.map(({ mm }) => mm)) - Math.min(...readings.map(({ mm }) => mm));

/** What the readings cost with every tilt judged by its default; a wobble that was seen is no contradiction. */
function costOf(readings: readonly PlaneReading[]): number {
  const wobble = wobbleOf(readings);
  const still = wobble ? readings.filter(({ turned }) => Math.abs(Math.sin(turned / 2)) < 1e-9) : readings;
  return fitPlane(still.length > 0 ? still : readings, true).cost;
}
