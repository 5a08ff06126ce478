import { mixed, object, type ISchema, type ObjectSchema } from 'yup';
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
  format: mixed<'emery-drive'>()
    .test('format', 'must be "emery-drive"', (value) => value === 'emery-drive')
    .defined(),
  version: mixed<1>().defined(),
  name: is.text(200),
  crankRotation: is.needed(is.oneOf(['cw', 'ccw'])),
  speeds: engineSpeeds,
  stations: is.list(station, 64),
  obstacles: is.optionalList(obstacle, 64),
  survey,
  use: engineUse,
  loads: is.optionalList(electricalLoad, 100),
  speedChecks: is.optionalList(speedCheck, 200),
  align,
  noise,
  inspect,
  job,
  belts: is.list(belt, 16),
};

/** The names of a drive's own fields. */
export const DRIVE_FIELDS: ReadonlySet<string> = new Set(Object.keys(fields));

export const driveSchema = object(
  // As in `record`: the fields are the drive's own.
  fields as unknown as Record<string, ISchema<unknown>>,
).strict() as unknown as ObjectSchema<Drive>;
