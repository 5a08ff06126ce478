import { sectionFor } from '../section/sections';
import { findPulley, pulleysById, stationLabel, stationOf } from './look-up';
import type { PhotoRim, SurveyPhoto } from '../photo/photo';
import { withReadDiameters, type DiameterReading } from '../survey/diameters';
import type { Measurement } from '../size/measured';
import type { ElectricalLoad } from '../speed/output';
import type { SpeedCheck } from '../speed/tachometer';
import type { SurveyReading } from '../survey/readings';
import { freeId } from './templates';
import type { Belt, Drive, Obstacle, Pulley, RouteStop, Side, Station, Survey } from './types';

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
  const gone = new Set(drive.stations.find((station) => station.id === id)?.pulleys.map((pulley) => pulley.id));
  const { speedChecks } = drive;
  return withoutPulleys(
    {
      ...drive,
      ...(speedChecks && { speedChecks: speedChecks.filter(({ station }) => station !== id) }),
      stations: drive.stations.filter((station) => station.id !== id),
    },
    gone,
  );
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
  return withoutPulleys(smaller, new Set([id]));
}

export function addBelt(drive: Drive, belt: Belt): Drive {
  return { ...drive, belts: [...drive.belts, belt] };
}

export function changeBelt(drive: Drive, id: string, change: Partial<Belt>): Drive {
  return { ...drive, belts: drive.belts.map((belt) => (belt.id === id ? merged(belt, change) : belt)) };
}

export function removeBelt(drive: Drive, id: string): Drive {
  return { ...drive, belts: drive.belts.filter((belt) => belt.id !== id) };
}

/** Adds a measured length to a belt, or lays it over the one of its id. */
export function putMeasurement(drive: Drive, beltId: string, measurement: Measurement): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId);
  return belt ? changeBelt(drive, beltId, { measurements: put(belt.measurements, measurement) }) : drive;
}

export function removeMeasurement(drive: Drive, beltId: string, id: string): Drive {
  const belt = drive.belts.find((one) => one.id === beltId);
  return belt
    ? changeBelt(drive, beltId, {
        measurements: (belt.measurements ?? []).filter((measurement) => measurement.id !== id),
      })
    : drive;
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
  const kind = sectionFor(belt.section)?.kind;
  const wanted = kind === 'ribbed' ? 'ribbed' : kind === 'vee' ? 'vee' : 'toothed';
  const first = belt.route[0] && findPulley(drive, belt.route[0].pulley);
  const taken = new Set(
    drive.belts.filter(({ id }) => id !== belt.id).flatMap(({ route }) => route.map((stop) => stop.pulley)),
  );
  const score = (pulley: Pulley) =>
    (pulley.surface === wanted ? 0 : pulley.surface === 'smooth' ? 1e4 : 1e6) +
    (first ? Math.abs((pulley.plane ?? 0) - (first.plane ?? 0)) : 0) +
    (taken.has(pulley.id) ? 1e3 : 0);
  return station.pulleys.reduce((best, pulley) => (score(pulley) < score(best) ? pulley : best));
}

/** Adds a reading, or lays it over the one of its id. */
export function putReading(drive: Drive, reading: SurveyReading): Drive {
  return { ...drive, survey: { ...drive.survey, readings: put(drive.survey?.readings, reading) } };
}

export function removeReading(drive: Drive, id: string): Drive {
  return {
    ...drive,
    survey: { ...drive.survey, readings: (drive.survey?.readings ?? []).filter((reading) => reading.id !== id) },
  };
}

/** Adds a diameter reading, or lays it over the one of its id; the drawn diameter follows what the readings come to. */
export function putDiameter(drive: Drive, reading: DiameterReading): Drive {
  return withReadDiameters(
    { ...drive, survey: { ...drive.survey, diameters: put(drive.survey?.diameters, reading) } },
    reading.pulley,
  );
}

/** Takes a diameter reading out; the drawn diameter follows the others, or stays where it was the last. */
export function removeDiameter(drive: Drive, id: string): Drive {
  const pulley = drive.survey?.diameters?.find((reading) => reading.id === id)?.pulley;
  const less = {
    ...drive,
    survey: { ...drive.survey, diameters: (drive.survey?.diameters ?? []).filter((reading) => reading.id !== id) },
  };
  return pulley === undefined ? less : withReadDiameters(less, pulley);
}

/** Adds a picture, or lays it over the one of its id. */
export function putPhoto(drive: Drive, photo: SurveyPhoto): Drive {
  return { ...drive, survey: { ...drive.survey, photos: put(drive.survey?.photos, photo) } };
}

export function removePhoto(drive: Drive, id: string): Drive {
  return {
    ...drive,
    survey: { ...drive.survey, photos: (drive.survey?.photos ?? []).filter((photo) => photo.id !== id) },
  };
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
  return putPhoto(drive, { ...photo, rims: changed.filter(({ points }) => points.length > 0) });
}

/** Adds a reading of a tachometer, or lays it over the one of its id. */
export function putSpeedCheck(drive: Drive, check: SpeedCheck): Drive {
  return { ...drive, speedChecks: put(drive.speedChecks, check) };
}

export function removeSpeedCheck(drive: Drive, id: string): Drive {
  return { ...drive, speedChecks: (drive.speedChecks ?? []).filter((check) => check.id !== id) };
}

/** Adds something that draws current, or lays it over the one of its id. */
export function putLoad(drive: Drive, load: ElectricalLoad): Drive {
  return { ...drive, loads: put(drive.loads, load) };
}

export function removeLoad(drive: Drive, id: string): Drive {
  return { ...drive, loads: (drive.loads ?? []).filter((load) => load.id !== id) };
}

/** Adds an obstacle, or lays it over the one of its id. */
export function putObstacle(drive: Drive, obstacle: Obstacle): Drive {
  return { ...drive, obstacles: put(drive.obstacles, obstacle) };
}

export function removeObstacle(drive: Drive, id: string): Drive {
  return { ...drive, obstacles: (drive.obstacles ?? []).filter((obstacle) => obstacle.id !== id) };
}

/** Moves an obstacle as a whole, its other end with it. */
export function moveObstacle(drive: Drive, id: string, x: number, y: number): Drive {
  const obstacle = drive.obstacles?.find((one) => one.id === id);
  if (!obstacle) return drive;
  const { to } = obstacle;
  return putObstacle(drive, {
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

function put<T extends { readonly id: string }>(list: readonly T[] = [], item: T): readonly T[] {
  return list.some(({ id }) => id === item.id) ? list.map((old) => (old.id === item.id ? item : old)) : [...list, item];
}

/** Puts the shafts where a fit has them, to the hundredth of a mm; shafts it does not name stay. */
export function placeStations(drive: Drive, places: readonly { id: string; x: number; y: number }[]): Drive {
  const byId = new Map(places.map((place) => [place.id, place]));
  const hundredth = (value: number) => Math.round(value * 100) / 100;
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

function withoutPulleys(drive: Drive, gone: ReadonlySet<string>): Drive {
  const belts = drive.belts.map((belt) =>
    belt.route.some(({ pulley }) => gone.has(pulley))
      ? { ...belt, route: belt.route.filter(({ pulley }) => !gone.has(pulley)) }
      : belt,
  );
  return { ...drive, belts, ...(drive.survey && { survey: surveyWithout(drive.survey, gone) }) };
}

function surveyWithout(survey: Survey, gone: ReadonlySet<string>): Survey {
  const { readings, diameters, photos } = survey;
  return {
    ...survey,
    ...(readings && {
      readings: readings.filter(({ from, to }) => !gone.has(to) && (from === undefined || !gone.has(from))),
    }),
    ...(diameters && {
      diameters: diameters.filter(({ pulley, of }) => !gone.has(pulley) && (of === undefined || !gone.has(of))),
    }),
    ...(photos && {
      photos: photos.map((photo) =>
        photo.rims ? { ...photo, rims: photo.rims.filter(({ pulley }) => !gone.has(pulley)) } : photo,
      ),
    }),
  };
}

function merged<T extends object>(old: T, change: Partial<T>): T {
  return Object.fromEntries(Object.entries({ ...old, ...change }).filter(([, value]) => value !== undefined)) as T;
}
