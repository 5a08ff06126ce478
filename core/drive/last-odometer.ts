import type { Drive } from './drive';

/** The highest reading of the odometer that a drive's own records hold; null where none was taken. */
export function lastOdometer({ belts, inspect, noise }: Drive): number | null {
  const read = [
    ...belts.flatMap(({ care, tensionReadings = [] }) => [
      care?.fittedOdometer,
      ...tensionReadings.map(({ odometer }) => odometer),
    ]),
    ...(inspect?.findings ?? []).map(({ odometer }) => odometer),
    ...(inspect?.changed ?? []).map(({ odometer }) => odometer),
    ...(noise?.evidence ?? []).map(({ odometer }) => odometer),
    ...(noise?.cures ?? []).map(({ odometer }) => odometer),
  ].filter((odometer) => odometer !== undefined);
  return read.length === 0 ? null : Math.max(...read);
}
