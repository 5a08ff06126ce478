import { hundredth } from '../numeric';
import { sectionFor, type Side } from '../section';
import type { Belt, Measurement, RouteStop } from './belt';
import type { Drive } from './drive';
import { put, putItem, removeItem, withoutNamesOf } from './lists';
import { findPulley, pulleysById, stationLabel, stationOf } from './look-up';
import type { Pulley, Station } from './station';
import type { PhotoRim } from './survey';
import type { TriedBelt } from './tried';
import { freeId, SURFACE_OF } from './templates';

/*
 * The edits the bench makes. Each is a pure function from drive to drive that keeps what it does not touch, unknown
 * fields included, and leaves no route naming a pulley that is gone.
 */

export function addStation(drive: Drive, station: Station): Drive {
  return { ...drive, stations: [...drive.stations, station] };
}

/** Lays `change` over a station; a field set to undefined is taken out. */
export function changeStation(drive: Drive, id: string, change: Partial<Station>): Drive {
  return {
    ...drive,
    stations: drive.stations.map((station) => (station.id === id ? merged(station, change) : station)),
  };
}

/** Moves a shaft to x, y; the points of its adjuster that are fixed to the engine stay where they are. */
export function moveStation(drive: Drive, id: string, x: number, y: number): Drive {
  return changeStation(drive, id, { x, y });
}

/** Takes a station out, and its pulleys off every belt. */
export function removeStation(drive: Drive, id: string): Drive {
  const pulleys = drive.stations.find((station) => station.id === id)?.pulleys ?? [];
  const gone = { station: new Set([id]), pulley: new Set(pulleys.map((pulley) => pulley.id)) };
  const belts = drive.belts.map((belt) => (belt.adjuster === id ? merged(belt, { adjuster: undefined }) : belt));
  return withoutNamesOf(removeItem({ ...drive, belts }, 'stations', id), gone);
}

/** A copy of a station beside the old one, on no belt, under ids of its own. */
export function duplicateStation(drive: Drive, id: string, offset = 30): { drive: Drive; id: string } {
  const original = drive.stations.find((station) => station.id === id);
  if (!original) return { drive, id };
  const base = id.replace(/-\d+$/, '');
  const copyId = freeId(base, new Set(drive.stations.map((station) => station.id)));
  const taken = new Set(pulleysById(drive).keys());
  const pulleys = original.pulleys.map((pulley) => {
    const pulleyId = freeId(copyId, taken);
    taken.add(pulleyId);
    return { ...pulley, id: pulleyId };
  });
  const copy = {
    ...original,
    id: copyId,
    label: `${stationLabel(original)} copy`,
    x: original.x + offset,
    y: original.y - offset,
    pulleys,
  };
  return { drive: addStation(drive, copy), id: copyId };
}

export function addPulley(drive: Drive, stationId: string, pulley: Pulley): Drive {
  const station = drive.stations.find(({ id }) => id === stationId);
  return station ? changeStation(drive, stationId, { pulleys: [...station.pulleys, pulley] }) : drive;
}

/** Lays `change` over a pulley; a field set to undefined is taken out. */
export function changePulley(drive: Drive, id: string, change: Partial<Pulley>): Drive {
  const station = stationOf(drive, id);
  if (!station) return drive;
  return changeStation(drive, station.id, {
    pulleys: station.pulleys.map((pulley) => (pulley.id === id ? merged(pulley, change) : pulley)),
  });
}

/** Takes a sheave off its shaft, and off every belt. The last one stays: a shaft without a pulley is no station. */
export function removePulley(drive: Drive, id: string): Drive {
  const station = stationOf(drive, id);
  if (!station || station.pulleys.length < 2) return drive;
  const smaller = changeStation(drive, station.id, { pulleys: station.pulleys.filter((pulley) => pulley.id !== id) });
  return withoutNamesOf(smaller, { pulley: new Set([id]) });
}

export function addBelt(drive: Drive, belt: Belt): Drive {
  return { ...drive, belts: [...drive.belts, belt] };
}

/** Takes a belt off the drive, and whatever names it. */
export function removeBelt(drive: Drive, id: string): Drive {
  return withoutNamesOf(removeItem(drive, 'belts', id), { belt: new Set([id]) });
}

export function changeBelt(drive: Drive, id: string, change: Partial<Belt>): Drive {
  return { ...drive, belts: drive.belts.map((belt) => (belt.id === id ? merged(belt, change) : belt)) };
}

/** Adds a measured length to a belt, or lays it over the one of its id. */
export function putMeasurement(drive: Drive, beltId: string, measurement: Measurement): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId);
  return belt ? changeBelt(drive, beltId, { measurements: put(belt.measurements, measurement) }) : drive;
}

export function removeMeasurement(drive: Drive, beltId: string, id: string): Drive {
  const belt = drive.belts.find((belt) => belt.id === beltId);
  return belt
    ? changeBelt(drive, beltId, {
        measurements: (belt.measurements ?? []).filter((measurement) => measurement.id !== id),
      })
    : drive;
}

/** Adds a belt that was tried on, or lays it over the one of its id. */
export function putTried(drive: Drive, beltId: string, tried: TriedBelt): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId);
  return belt ? changeBelt(drive, beltId, { tried: put(belt.tried, tried) }) : drive;
}

export function removeTried(drive: Drive, beltId: string, id: string): Drive {
  const belt = drive.belts.find((belt) => belt.id === beltId);
  return belt ? changeBelt(drive, beltId, { tried: (belt.tried ?? []).filter((tried) => tried.id !== id) }) : drive;
}

/** Puts a pulley on a belt as stop `index`. */
export function insertStop(drive: Drive, beltId: string, index: number, stop: RouteStop): Drive {
  return changeRoute(drive, beltId, (route) => [...route.slice(0, index), stop, ...route.slice(index)]);
}

export function removeStop(drive: Drive, beltId: string, index: number): Drive {
  return changeRoute(drive, beltId, (route) => route.filter((_, at) => at !== index));
}

/** Turns the belt over at one stop: drive side to back, or back again. */
export function flipStop(drive: Drive, beltId: string, index: number): Drive {
  return changeRoute(drive, beltId, (route) =>
    route.map((stop, at) => (at === index ? { ...stop, side: stop.side === 'drive' ? 'back' : 'drive' } : stop)),
  );
}

/** The same loop met the other way round, its first pulley still first. */
export function reverseRoute(drive: Drive, beltId: string): Drive {
  return changeRoute(drive, beltId, (route) => [...route.slice(0, 1), ...route.slice(1).reverse()]);
}

/**
 * A tap on a shaft while a route is tapped: it goes on as the next, and a tap on the last one takes it back where
 * `takesBack`. Any other that is on already stays.
 */
export function tapped(drive: Drive, beltId: string, stationId: string, takesBack = true): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const station = drive.stations.find(({ id }) => id === stationId);
  if (!belt || !station) return drive;
  const at = belt.route.findIndex((stop) => station.pulleys.some(({ id }) => id === stop.pulley));
  if (at >= 0) return takesBack && at === belt.route.length - 1 ? removeStop(drive, beltId, at) : drive;
  const pulley = fittingPulley(drive, belt, station);
  return insertStop(drive, beltId, belt.route.length, { pulley: pulley.id, side: proposedSide(pulley) });
}

/** The side a surface asks for: grooves and teeth take the drive side, a smooth face the back. */
export function proposedSide(pulley: Pulley): Side {
  return pulley.surface === 'smooth' ? 'back' : 'drive';
}

/** Of a shaft's pulleys, the one a belt would run on: a face that suits it, in the plane nearest to the belt's. */
export function fittingPulley(drive: Drive, belt: Belt, station: Station): Pulley {
  const wanted = SURFACE_OF[sectionFor(belt.section)?.kind ?? 'toothed'];
  const first = belt.route[0] && findPulley(drive, belt.route[0].pulley);
  const taken = new Set(
    drive.belts.filter(({ id }) => id !== belt.id).flatMap(({ route }) => route.map((stop) => stop.pulley)),
  );
  // A wrong face is worse than any distance, and a smooth one the lesser evil.
  const misfit = ({ surface }: Pulley) => {
    if (surface === wanted) return 0;
    return surface === 'smooth' ? 1e4 : 1e6;
  };
  const score = (pulley: Pulley) =>
    misfit(pulley) +
    (first ? Math.abs((pulley.plane ?? 0) - (first.plane ?? 0)) : 0) +
    (taken.has(pulley.id) ? 1e3 : 0);
  return station.pulleys.reduce((best, pulley) => (score(pulley) < score(best) ? pulley : best));
}

/**
 * Lays `change` over the rim of a pulley in a picture, which is made where there is none. A rim without points is taken
 * out.
 */
export function changeRim(drive: Drive, photoId: string, pulley: string, change: (rim: PhotoRim) => PhotoRim): Drive {
  const photo = drive.survey?.photos?.find(({ id }) => id === photoId);
  if (!photo) return drive;
  const rims = photo.rims ?? [];
  const old = rims.find((rim) => rim.pulley === pulley);
  const next = change(old ?? { pulley, points: [] });
  const changed = old ? rims.map((rim) => (rim === old ? next : rim)) : [...rims, next];
  return putItem(drive, 'survey.photos', { ...photo, rims: changed.filter(({ points }) => points.length > 0) });
}

/** Moves an obstacle as a whole, its other end with it. */
export function moveObstacle(drive: Drive, id: string, x: number, y: number): Drive {
  const obstacle = drive.obstacles?.find((obstacle) => obstacle.id === id);
  if (!obstacle) return drive;
  const { to } = obstacle;
  return putItem(drive, 'obstacles', {
    ...obstacle,
    x,
    y,
    ...(to && { to: { ...to, x: to.x + x - obstacle.x, y: to.y + y - obstacle.y } }),
  });
}

/** Puts a shaft where it is said and its pulley on the belt there: an idler that was proposed. */
export function placeIdler(drive: Drive, beltId: string, station: Station, index: number, stop: RouteStop): Drive {
  const known = drive.stations.some(({ id }) => id === station.id);
  const placed = known ? changeStation(drive, station.id, { x: station.x, y: station.y }) : addStation(drive, station);
  return insertStop(placed, beltId, index, stop);
}

/** Puts the shafts where a fit has them, to the hundredth of a mm; shafts it does not name stay. */
export function placeStations(drive: Drive, places: readonly { id: string; x: number; y: number }[]): Drive {
  const byId = new Map(places.map((place) => [place.id, place]));
  return {
    ...drive,
    stations: drive.stations.map((station) => {
      const place = byId.get(station.id);
      return place ? { ...station, x: hundredth(place.x), y: hundredth(place.y) } : station;
    }),
  };
}

function changeRoute(
  drive: Drive,
  beltId: string,
  change: (route: readonly RouteStop[]) => readonly RouteStop[],
): Drive {
  return {
    ...drive,
    belts: drive.belts.map((belt) => (belt.id === beltId ? { ...belt, route: change(belt.route) } : belt)),
  };
}

function merged<T extends object>(old: T, change: Partial<T>): T {
  return Object.fromEntries(Object.entries({ ...old, ...change }).filter(([, value]) => value !== undefined)) as T;
}
