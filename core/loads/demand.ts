import { type LoadChoice, stateChosen, torqueStates, type TorqueSource, type TorqueState } from '../accessory';
import { type Drive, pulleysById } from '../drive';
import { type BeltSolution, followShafts } from '../path';

/** How torque goes through a drive: which pulley turns each belt, and which pulleys the belt turns. */
export interface Transmission {
  /** In the order in which the crank reaches the shafts. */
  shafts: readonly { station: string; ratio: number; own: readonly TorqueState[]; takes: number }[];
  /** By belt, as in the solution: the place of the pulley that turns it, and of those it turns. */
  belts: readonly { driver: number | null; driven: readonly number[] }[];
}

type Line = Pick<BeltSolution, 'id' | 'contacts'>;

/**
 * Who turns whom, by the rule that Speeds has it from. A shaft that several pulleys turn (twin belts) takes the same
 * share of its torque through each. `takes` is how many do.
 */
export function transmissionOf(drive: Drive, belts: readonly Line[]): Transmission {
  const { byStation, drivers } = followShafts(drive, pulleysById(drive));
  const rank = new Map([...byStation.keys()].map((station, k) => [station, k]));
  const ends = belts.map(({ id, contacts }) => {
    const driver = contacts.findIndex(({ pulley }) => pulley === drivers.get(id));
    const turning = contacts[driver];
    if (!turning) return { driver: null, driven: [] };
    const from = rank.get(turning.station)!;
    // What turns the belt's own driver, or stands before it, is not turned by it.
    const driven = contacts.flatMap(({ station, cordRadius }, k) =>
      (rank.get(station) ?? -1) > from && cordRadius > 0 ? [k] : [],
    );
    return { driver, driven };
  });
  const takes = new Map<string, number>();
  ends.forEach(({ driven }, b) => {
    for (const k of driven) {
      const { station } = belts[b]!.contacts[k]!;
      takes.set(station, (takes.get(station) ?? 0) + 1);
    }
  });
  const shafts = [...byStation].map(([station, { ratio }]) => ({
    station,
    ratio: Number.isFinite(ratio) ? ratio : 0,
    own: torqueStates(
      drive.stations.find(({ id }) => id === station)!,
      drive.loads,
    ),
    takes: takes.get(station) ?? 0,
  }));
  return { shafts, belts: ends };
}

/** The state a drive is looked at in: engine speed, what each accessory takes, and how much of it. */
export interface Running extends LoadChoice {
  rpm: number;
  wet?: boolean;
  /** Every accessory's own torque times this; 1 where it is left out. */
  load?: number;
}

/** What an accessory takes of its own. */
export interface OwnTorque {
  station: string;
  nm: number;
  state: string;
  source: TorqueSource;
}

/**
 * The torque that each pulley takes from its belt, N·m, by belt and place: its own accessory's, and what the shaft's
 * other belts take; below zero for the one that turns the belt. A standing engine takes none.
 */
export function demandOf(
  { shafts, belts }: Transmission,
  lines: readonly Line[],
  { rpm, load = 1, ...choice }: Running,
): { torques: number[][]; own: OwnTorque[] } {
  const own = shafts.map(({ station, ratio, own: states }): OwnTorque => {
    const { state, source, nm } = stateChosen(states, station, choice, rpm * ratio);
    return { station, state, source, nm: rpm > 0 ? load * nm(rpm * ratio) : 0 };
  });
  const torques = lines.map(({ contacts }) => contacts.map(() => 0));
  // From the far end back to the crank: a shaft's belts are known before the shaft is.
  for (let s = shafts.length - 1; s >= 0; s -= 1) {
    const { station, takes } = shafts[s]!;
    let total = own[s]!.nm;
    belts.forEach(({ driver, driven }, b) => {
      if (driver === null || lines[b]!.contacts[driver]!.station !== station) return;
      const { contacts } = lines[b]!;
      // N·m over mm: the belt's pull in kN, and back to N·m on the driver.
      const pull = driven.reduce((sum, k) => sum + torques[b]![k]! / contacts[k]!.cordRadius, 0);
      const asked = pull * contacts[driver]!.cordRadius;
      torques[b]![driver] = -asked;
      total += asked;
    });
    if (takes === 0) continue;
    belts.forEach(({ driven }, b) => {
      for (const k of driven) if (lines[b]!.contacts[k]!.station === station) torques[b]![k] = total / takes;
    });
  }
  return { torques, own };
}
