import { mixed } from 'yup';
import * as is from './fields';
import { align, type Align } from './align';
import { belt, type Belt } from './belt';
import { inspect, type Inspect } from './inspect';
import { job, type Job } from './job';
import { noise, type Noise } from './noise';
import { obstacle, type Obstacle } from './obstacle';
import {
  electricalLoad,
  type ElectricalLoad,
  engineSpeeds,
  type EngineSpeeds,
  engineUse,
  type EngineUse,
  speedCheck,
  type SpeedCheck,
} from './speeds';
import { type Rotation, station, type Station } from './station';
import { survey, type Survey } from './survey';

/**
 * An Emery drive file, version 1. Fields that Emery does not know stay on the objects they came with, through every
 * edit and back into the file; no type names them, so no sum can come to rest on one.
 */
export interface Drive {
  readonly format: 'emery-drive';
  readonly version: 1;
  readonly name?: string;
  readonly crankRotation: Rotation;
  readonly speeds?: EngineSpeeds;
  readonly stations: readonly Station[];
  readonly obstacles?: readonly Obstacle[];
  readonly survey?: Survey;
  /** How the vehicle is used. */
  readonly use?: EngineUse;
  readonly loads?: readonly ElectricalLoad[];
  readonly speedChecks?: readonly SpeedCheck[];
  readonly align?: Align;
  readonly noise?: Noise;
  readonly inspect?: Inspect;
  readonly job?: Job;
  readonly belts: readonly Belt[];
}

const fields: is.Fields<Drive> = {
  format: is.named(
    'format',
    mixed<'emery-drive'>()
      .test('format', 'must be "emery-drive"', (value) => value === 'emery-drive')
      .defined(),
  ),
  version: is.named('version', mixed<1>().defined()),
  name: is.named('name', is.text(200)),
  crankRotation: is.named('direction of rotation of the crank', is.needed(is.oneOf(['cw', 'ccw']))),
  speeds: is.named('engine speeds', engineSpeeds),
  stations: is.named('shafts', is.list(station, 64)),
  obstacles: is.named('obstacles', is.optionalList(obstacle, 64)),
  survey: is.named('survey', survey),
  use: is.named('use', engineUse),
  loads: is.named('electrical loads', is.optionalList(electricalLoad, 100)),
  speedChecks: is.named('speed checks', is.optionalList(speedCheck, 200)),
  align: is.named('alignment', align),
  noise: is.named('noise', noise),
  inspect: is.named('inspection', inspect),
  job: is.named('job card', job),
  belts: is.named('belts', is.list(belt, 16)),
};

/** The names of a drive's own fields. */
export const DRIVE_FIELDS: ReadonlySet<string> = new Set(Object.keys(fields));

export const driveSchema = is.objectOf(fields);
