import { type Drive, pulleysById } from '../drive';
import { followShafts } from '../path';
import { cordRadiusMm, sectionFor, type Side } from '../section';

/** One belt between two shafts on the way from the crank. Radii are the cord's, mm. */
export interface Link {
  belt: string;
  from: string;
  to: string;
  driver: string;
  driven: string;
  driverSide: Side;
  drivenSide: Side;
  driverRadius: number;
  drivenRadius: number;
}

/**
 * The belts from the crank to a shaft, in order; empty for the crank itself, null for a shaft it does not reach or one
 * whose pulleys have no size.
 */
export function chainTo(drive: Drive, station: string): Link[] | null {
  const pulleys = pulleysById(drive);
  const { byStation } = followShafts(drive, pulleys);
  const links: Link[] = [];
  for (let at = station; ;) {
    const shaft = byStation.get(at);
    if (!shaft) return null;
    if (!shaft.via) return links.reverse();
    const { belt: beltId, driver, driven } = shaft.via;
    const belt = drive.belts.find(({ id }) => id === beltId)!;
    const section = sectionFor(belt.section, belt.sectionOverrides)!;
    const end = (pulley: string) => {
      const { side } = belt.route.find((stop) => stop.pulley === pulley)!;
      return { side, radius: cordRadiusMm(pulleys.get(pulley)!.pulley, side, section) };
    };
    const [from, to] = [end(driver), end(driven)];
    if (!(from.radius > 0 && to.radius > 0)) return null;
    const before = pulleys.get(driver)!.station.id;
    links.push({
      belt: beltId,
      from: before,
      to: at,
      driver,
      driven,
      driverSide: from.side,
      drivenSide: to.side,
      driverRadius: from.radius,
      drivenRadius: to.radius,
    });
    at = before;
  }
}
