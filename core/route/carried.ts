import { type Belt, type Drive, type Pulley, pulleysById, type Station } from '../drive';
import { followShafts, type Shaft, turnOn } from '../path';
import { sectionFor, type Side } from '../section';

/** A pulley that a belt is to run on, with the sides of the belt it may meet. */
export interface Carried {
  pulley: Pulley;
  station: Station;
  /** None for one that would turn the wrong way whichever side it met. */
  sides: Side[];
  /** May be left off the belt. */
  optional: boolean;
}

/** What a belt carries, and which way it runs. */
export interface CarriedBelt {
  carried: Carried[];
  /** +1 where the belt bends counter-clockwise on its drive side. */
  sense: 1 | -1;
}

/**
 * The pulleys a belt carries: those `belt.carries` lists, or one of every shaft that has a fitting face in the belt's
 * plane and is not on another belt. The plane is that of the shaft that drives the belt. The driver comes first: the
 * crank, or else a shaft that another belt turns, whose own way of turning decides the belt's.
 */
export function carriedBy(drive: Drive, belt: Belt): CarriedBelt {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const wanted = section.kind;
  const named = Array.isArray(belt['carries']) ? new Set(belt['carries'] as unknown[]) : null;
  const elsewhere = new Set(
    drive.belts.filter(({ id }) => id !== belt.id).flatMap(({ route }) => route.map(({ pulley }) => pulley)),
  );
  const fits = ({ surface }: Pulley) => surface === wanted || surface === 'smooth';
  const free = (pulley: Pulley) => fits(pulley) && !elsewhere.has(pulley.id) && measured(pulley);
  const turned = followShafts(
    {
      ...drive,
      belts: drive.belts.map((otherBelt) => (otherBelt.id === belt.id ? { ...otherBelt, route: [] } : otherBelt)),
    },
    pulleysById(drive),
  ).byStation;
  // The crank, then what other belts turn, then the rest, each as drawn.
  const rank = ({ id, role }: Station) => {
    if (role === 'crankshaft') return 0;
    return turned.has(id) ? 1 : 2;
  };
  const stations = [...drive.stations].sort((a, b) => rank(a) - rank(b));
  const plane =
    stations.find((station) => rank(station) < 2 && station.pulleys.some(free))?.pulleys.find(free)?.plane ?? 0;
  const reach = section.kind === 'ribbed' ? section.width * (belt.ribs ?? 1) : section.width || 10;

  const on = stations.flatMap((station) => {
    const pulley = named
      ? station.pulleys.find(({ id }) => named.has(id))
      : station.pulleys.filter(free).find((candidate) => Math.abs((candidate.plane ?? 0) - plane) < reach / 2);
    return pulley ? [{ pulley, station }] : [];
  });
  const driver = on.find(({ station }) => turned.has(station.id));
  const cranks = drive.crankRotation === 'ccw' ? 1 : -1;
  const sense = driver ? turnOn(usualSide(driver.pulley, driver.station), turned.get(driver.station.id)!.turn) : cranks;
  const carried = on.map(({ pulley, station }): Carried => ({
    pulley,
    station,
    sides: sidesOf(pulley, station, sense, turned.get(station.id)),
    optional: station.optional === true || pulley['optional'] === true,
  }));
  return { carried, sense };
}

function measured({ diameter, teeth }: Pulley): boolean {
  return (diameter ?? teeth ?? 0) > 0;
}

/** Grooves and teeth take the drive side and a smooth face the back. */
function usualSide({ surface }: Pulley, { role }: Station): Side {
  return surface === 'smooth' && role !== 'crankshaft' ? 'back' : 'drive';
}

/**
 * The usual side, unless the shaft has to turn the other way, by what it `requires` or because another belt turns it
 * so: then a smooth face may take the drive side.
 */
function sidesOf(pulley: Pulley, station: Station, sense: 1 | -1, turned: Shaft | undefined): Side[] {
  const usual = usualSide(pulley, station);
  const required = station.requires && (station.requires === 'ccw' ? 1 : -1);
  const must = turned?.turn ?? required;
  if (must === undefined || turnOn(usual, sense) === must) return [usual];
  const other: Side = usual === 'drive' ? 'back' : 'drive';
  return pulley.surface === 'smooth' ? [other] : [];
}
