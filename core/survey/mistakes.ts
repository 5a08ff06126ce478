import { isTape, type Observation } from './readings';

/** A known way for a reading to go wrong. */
export type ReadingSlip =
  | 'inch'
  | 'foot'
  | 'centimetre'
  | 'decimetre'
  | 'unit'
  | 'rim-missed'
  | 'radius'
  | 'centres'
  | 'far-rims'
  | 'near-rims'
  | 'sign'
  | 'turned-about';

/** A slip, and what the tape would have read without it. */
export interface Mistake {
  slip: ReadingSlip;
  value: number;
}

/**
 * The slip that brings a wrong reading to what the others say it should be, within `within`; null where none does. The
 * nearest wins.
 */
export function mistakeOf(observation: Observation, predicted: number, within: number): Mistake | null {
  const fitting = mistakesOf(observation).filter(({ value }) => Math.abs(value - predicted) <= within);
  if (fitting.length === 0) return null;
  return fitting.reduce((best, next) =>
    Math.abs(next.value - predicted) < Math.abs(best.value - predicted) ? next : best,
  );
}

/** Every known way a reading can have gone wrong, with what it would then have read. */
export function mistakesOf({ kind, value, radii: [a, b] }: Observation): Mistake[] {
  if (kind === 'angle') return [180, -180].map((turn) => ({ slip: 'turned-about', value: value + turn }));
  const steps: Mistake[] = (
    [
      ['inch', 25.4],
      ['inch', 50.8],
      ['foot', 304.8],
      ['centimetre', 10],
      ['decimetre', 100],
    ] as const
  ).flatMap(([slip, by]) => [
    { slip, value: value + by },
    { slip, value: value - by },
  ]);
  steps.push({ slip: 'unit', value: value * 25.4 }, { slip: 'unit', value: value / 25.4 });
  if (!isTape(kind)) return [...steps, { slip: 'sign', value: -value }];
  const both = a + b;
  // From what this kind measures to what the others do.
  const { toOuter, toGap, toCentres } = {
    outer: { toOuter: 0, toGap: 2 * both, toCentres: both },
    gap: { toOuter: -2 * both, toGap: 0, toCentres: -both },
    centre: { toOuter: -both, toGap: both, toCentres: 0 },
  }[kind];
  // Each tells what was really measured: the reading brought to the kind that was written down.
  const other: Mistake[] = [
    { slip: 'far-rims', value: value + toOuter },
    { slip: 'near-rims', value: value + toGap },
    { slip: 'centres', value: value + toCentres },
    { slip: 'rim-missed', value: value + (kind === 'gap' ? -2 * a : 2 * a) },
    { slip: 'rim-missed', value: value + (kind === 'gap' ? -2 * b : 2 * b) },
    { slip: 'radius', value: value + (kind === 'gap' ? -a : a) },
    { slip: 'radius', value: value + (kind === 'gap' ? -b : b) },
  ];
  return [...steps, ...other.filter((slip) => slip.value !== value)];
}
