import { adjusterKind, type LengthCurve, pathLength } from '../adjuster';
import { type Belt, type Drive, type TriedBelt, TRIED_READINGS, type TriedReading } from '../drive';
import { besideAngle } from '../numeric';
import { readMarking, sectionFor } from '../section';
import { TRIED_DEFAULTS } from './defaults';
import { fractionOf } from './measured';

/** The marked length of a belt that was tried on, mm; null where its marking reads as none of this belt's section. */
export function triedLengthMm({ section }: Pick<Belt, 'section'>, { lengthMm, marking }: TriedBelt): number | null {
  if (lengthMm !== undefined) return lengthMm;
  const reading = readMarking(marking ?? '').find((read) => read.section === section);
  return reading?.lengthMm ?? null;
}

/** A belt that was tried on, as evidence. Lengths in mm. */
export interface TriedEvidence {
  tried: TriedBelt;
  /** Its marked length; what it has grown since, and how sure that is. */
  lengthMm: number;
  grownMm: number;
  /** One standard deviation of its own length: its maker's tolerance, and its growth. */
  sigmaMm: number;
  /** Where it was taut, if that was read: a fraction of the travel, the length drawn there, and how sure that is. */
  taut: { fraction: number; drawnMm: number; sigmaMm: number } | null;
}

/** What a mechanic read of where a belt was taut, with its ±: the first of the ways that is given. */
export function triedReading(tried: TriedBelt): { by: TriedReading; value: number; plusMinus: number } | null {
  for (const by of TRIED_READINGS) {
    const value = tried[by];
    if (value !== undefined) return { by, value, plusMinus: tried.plusMinus ?? TRIED_DEFAULTS[by] };
  }
  return null;
}

/** The same as a fraction of the adjuster's travel, with its ±; null where nobody said, or the adjuster has no such. */
export function tautFraction(
  drive: Drive,
  { travel }: LengthCurve,
  tried: TriedBelt,
): { fraction: number; plusMinus: number } | null {
  const [first, last] = [travel.readingAt(0), travel.readingAt(1)];
  const range = Math.abs(last - first);
  if (range < 1e-9) return null;
  const reading = triedReading(tried);
  if (!reading) return tautByState(tried, { travel }, range);
  const { by, value, plusMinus } = reading;
  const linear = (at: number, doubt: number) => ({ fraction: (at - first) / (last - first), plusMinus: doubt / range });
  if (by === 'pointerDeg')
    return travel.reads === 'armAngle' ? linear(besideAngle(value, (first + last) / 2), plusMinus) : null;
  if (travel.reads !== 'travel') return null;
  if (by === 'travelMm') return linear(value, plusMinus);
  const step = stepMm(drive, travel.station, by);
  return step === null ? null : { fraction: 1 - (value * step) / range, plusMinus: (plusMinus * step) / range };
}

function tautByState(
  { state, plusMinus }: TriedBelt,
  { travel }: Pick<LengthCurve, 'travel'>,
  range: number,
): { fraction: number; plusMinus: number } | null {
  if (state === undefined) return null;
  const doubt = plusMinus ?? (travel.reads === 'armAngle' ? TRIED_DEFAULTS.pointerDeg : TRIED_DEFAULTS.travelMm);
  return { fraction: fractionOf(state, { travel }) ?? travel.now, plusMinus: doubt / range };
}

/** What a turn of the link, or a shim on the average, moves the adjuster by, mm; null where it has no such. */
function stepMm({ stations }: Drive, stationId: string, by: 'turns' | 'shims'): number | null {
  const adjuster = stations.find(({ id }) => id === stationId)?.adjuster;
  const setting = adjuster && adjusterKind(adjuster.kind).setting;
  if (!adjuster || !setting) return null;
  const sum = (list: readonly number[]) => list.reduce((total, mm) => total + mm, 0);
  if (by === 'turns') return sum(setting.pitches(adjuster)?.mm ?? []) || null;
  const shims = setting.shims(adjuster) ?? [];
  return shims.length === 0 ? null : sum(shims) / shims.length || null;
}

/** Each belt that was tried on, as evidence of this layout; those whose length nobody can tell are left out. */
export function triedEvidence(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  beltFraction: number,
): TriedEvidence[] {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  return (belt.tried ?? []).flatMap((tried): TriedEvidence[] => {
    const lengthMm = triedLengthMm(belt, tried);
    if (lengthMm === null || !(lengthMm > 0)) return [];
    const grows = tried.worn === true && section.kind !== 'toothed';
    return [
      {
        tried,
        lengthMm,
        grownMm: grows ? lengthMm * TRIED_DEFAULTS.worn.fraction : 0,
        sigmaMm: lengthMm * Math.hypot(beltFraction, grows ? TRIED_DEFAULTS.worn.plusMinus : 0),
        taut: curve && tried.outcome !== 'will-not-go-on' ? tautAt(drive, belt, curve, tried) : null,
      },
    ];
  });
}

function tautAt(drive: Drive, belt: Belt, curve: LengthCurve, tried: TriedBelt): TriedEvidence['taut'] {
  const taut = tautFraction(drive, curve, tried);
  if (!taut) return null;
  return tautLength(belt, curve, taut);
}

/** The length drawn at a fraction of the travel, and what the doubt of that fraction makes of it. */
export function tautLength(
  belt: Belt,
  { travel, end }: LengthCurve,
  { fraction: read, plusMinus }: { fraction: number; plusMinus: number },
): TriedEvidence['taut'] {
  const fraction = Math.max(0, Math.min(end, read));
  const half = Math.max(0.01, Math.min(0.05, plusMinus));
  const [from, to] = [Math.max(0, fraction - half), Math.min(end, fraction + half)];
  const at = (where: number) => pathLength(travel.at(where), belt);
  const [here, less, more] = [at(fraction), at(from), at(to)];
  if (here === null || less === null || more === null || to <= from) return null;
  // What lies past an end of the travel was read wrongly, and is no surer than it is far.
  const beyond = Math.abs(read - fraction);
  const sigmaMm = (Math.abs(more - less) / (to - from)) * Math.hypot(plusMinus, beyond);
  return { fraction, drawnMm: here, sigmaMm: Math.max(0.1, sigmaMm) };
}
