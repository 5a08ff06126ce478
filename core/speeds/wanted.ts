import type { Drive } from '../drive';
import { chainTo } from './chain';
import { type PulleyAtHand, seatsOf } from './pulley-choice';
import { ratioOf } from './ratio-mistake';

/** A size that would bring a shaft to a wanted speed, all else left as it is. */
export interface SizeWanted {
  pulley: string;
  station: string;
  /** What the pulley would have to measure, mm, or count in teeth. */
  diameter?: number;
  teeth?: number;
  now: number;
  /** The speed reached, rev/min: the wanted one, but for teeth, which come whole. */
  rpm: number;
}

/**
 * For a wanted speed of a shaft at an engine speed: what each pulley on the way from the crank would have to measure,
 * were it the only one changed. Empty for a shaft the crank does not drive. Sizes that come out at nothing or below are
 * left out.
 */
export function sizesFor(drive: Drive, station: string, rpm: number, engineRpm: number): SizeWanted[] {
  const chain = chainTo(drive, station);
  if (!chain || chain.length === 0 || !(rpm > 0 && engineRpm > 0)) return [];
  const seats = seatsOf(drive);
  const present = ratioOf(chain);
  const factor = rpm / engineRpm / present;
  return chain
    .flatMap(({ driver, driven, driverRadius, drivenRadius }) => [
      { pulley: driven, radius: drivenRadius, wanted: drivenRadius / factor, drives: false },
      { pulley: driver, radius: driverRadius, wanted: driverRadius * factor, drives: true },
    ])
    .reverse()
    .flatMap(({ pulley: id, radius, wanted, drives }): SizeWanted[] => {
      const seat = seats.get(id)!;
      const { pulley } = seat;
      if (seat.section.kind === 'toothed' && pulley.surface === 'toothed' && seat.side === 'drive') {
        const teeth = Math.round((2 * Math.PI * wanted) / seat.section.pitch);
        if (teeth < 1) return [];
        const reached = (teeth / pulley.teeth!) ** (drives ? 1 : -1);
        return [{ pulley: id, station: seat.station, teeth, now: pulley.teeth!, rpm: present * reached * engineRpm }];
      }
      const diameter = (pulley.diameter ?? 0) + 2 * (wanted - radius);
      return diameter > 0 ? [{ pulley: id, station: seat.station, diameter, now: pulley.diameter ?? 0, rpm }] : [];
    });
}

/** Such a size as a pulley to be put in. */
export function asPulley({ pulley, diameter, teeth }: SizeWanted, drive: Drive): PulleyAtHand {
  const { surface, grooves } = seatsOf(drive).get(pulley)!.pulley;
  return { id: `wanted ${pulley}`, label: '', surface, diameter, teeth, grooves };
}
