import * as is from './fields';

/** Speeds of an accessory's own shaft, rev/min; null where a limit is not known. */
export interface SpeedBand {
  least: number | null;
  continuous: number | null;
  burst: number | null;
}

/** One point of a maker's curve: an alternator's own speed, rev/min, and what it gives there, A. */
export interface OutputPoint {
  readonly rpm: number;
  readonly amps: number;
}

export const outputPoint = is.item<OutputPoint>({
  rpm: is.named('speed', is.needed(is.rpm()), 'rev/min'),
  amps: is.named('current', is.needed(is.amps()), 'A'),
});

/** One point of what an accessory takes: its own speed, rev/min, and the torque there, N·m. */
export interface TorquePoint {
  readonly rpm: number;
  readonly nm: number;
}

/** What an accessory takes in one state of it, such as "full lock". */
export interface TorqueCurve {
  readonly state: string;
  readonly points: readonly TorquePoint[];
}

const torquePoint = is.item<TorquePoint>({
  rpm: is.named('speed', is.needed(is.rpm()), 'rev/min'),
  nm: is.named('torque', is.needed(is.finite('a torque in N·m', 5000)), 'N·m'),
});

export const torqueCurve = is.item<TorqueCurve>({
  state: is.named('state', is.needed(is.text(40))),
  points: is.named('points', is.list(torquePoint, 60, 'must have one point or more')),
});

/** The engine's marks, rev/min. */
export interface EngineSpeeds {
  readonly idle?: number;
  readonly cruise?: number;
  readonly redline?: number;
}

export const engineSpeeds = is.record<EngineSpeeds>({
  idle: is.named('idle', is.rpm(), 'rev/min'),
  cruise: is.named('cruise', is.rpm(), 'rev/min'),
  redline: is.named('redline', is.rpm(), 'rev/min'),
});

/** A fraction of the running time (in the file: `share`) between two engine speeds, rev/min. */
export interface UseBin {
  readonly from: number;
  readonly to: number;
  readonly share: number;
}

/** How a vehicle is used: its running time by engine speed, and the road it makes in that time where it makes any. */
export interface EngineUse {
  readonly name?: string;
  readonly bins: readonly UseBin[];
  readonly kmPerHour?: number;
}

const useBin = is.item<UseBin>({
  from: is.named('from', is.needed(is.rpm()), 'rev/min'),
  to: is.named('to', is.needed(is.rpm()), 'rev/min'),
  share: is.named('share of the time', is.needed(is.finite('a share of the time').min(0, 'must be 0 or more'))),
});

export const engineUse = is.record<EngineUse>({
  name: is.named('name', is.text(80)),
  bins: is.named('time at each engine speed', is.list(useBin, 200)),
  kmPerHour: is.named(
    'mean road speed',
    is.finite('a speed in km/h').moreThan(0, 'must be more than 0 km/h').max(500, 'must be 500 km/h at most'),
    'km/h',
  ),
});

/** Something that draws current, A. */
export interface ElectricalLoad {
  readonly id: string;
  readonly name?: string;
  readonly amps: number;
  readonly on?: boolean;
}

export const electricalLoad = is.item<ElectricalLoad>({
  id: is.named('id', is.id()),
  name: is.named('name', is.text(80)),
  amps: is.named('current', is.needed(is.amps()), 'A'),
  on: is.named('switched on', is.yesOrNo()),
});

/** A reading of an optical tachometer on the crank and on another pulley. */
export interface SpeedCheck {
  readonly id: string;
  readonly station: string;
  readonly crankRpm: number;
  readonly rpm: number;
  /** One standard deviation of either reading, rev/min; a default of the tachometer's where it is left out. */
  readonly plusMinus?: number;
  readonly simulated?: boolean;
  readonly at?: string;
}

export const speedCheck = is.item<SpeedCheck>({
  id: is.named('id', is.id()),
  station: is.named('shaft', is.id()),
  crankRpm: is.named("crank's speed", is.needed(is.rpm()), 'rev/min'),
  rpm: is.named('speed', is.needed(is.rpm()), 'rev/min'),
  plusMinus: is.named('±', is.plusMinus(), 'rev/min'),
  simulated: is.named('simulated', is.yesOrNo()),
  at: is.named('date', is.text(40)),
});
