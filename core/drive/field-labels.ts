import type { SectionOverrides } from '../section';
import type {
  Align,
  AlignDatum,
  AlignMove,
  AlignReading,
  AlignStack,
  DoneMove,
  SeenTrack,
  StackOption,
  StackPiece,
} from './align';
import type { Belt, Measurement, RouteStop } from './belt';
import type { Drive } from './drive';
import type { Point } from './fields';
import type { ChangedPart, Inspect, InspectFinding, InspectLimit, RibMarks, SkippedPart } from './inspect';
import type { Bolt, Job, OwnStep } from './job';
import type { Noise, NoiseClip, NoiseCure, NoiseEvidence } from './noise';
import type { Obstacle } from './obstacle';
import type {
  ElectricalLoad,
  EngineSpeeds,
  EngineUse,
  OutputPoint,
  SpeedBand,
  SpeedCheck,
  TorqueCurve,
  TorquePoint,
  UseBin,
} from './speeds';
import type { Adjuster, Pulley, Station, Strut } from './station';
import type { DiameterReading, PhotoRim, Survey, SurveyPhoto, SurveyReading } from './survey';
import type { BeltCare, SpanName, TensionReading } from './tension';

/** What a figure of the file is counted in; a length is told in the shop's own unit. */
export type FieldUnit =
  'mm' | '°' | 'N' | 'N·m' | 'N·m per degree' | 'rev/min' | 'kW' | 'A' | 'Hz' | 's' | 'kg/m' | 'min' | 'km/h' | 'px';

/** What a field is called, and its unit where it has one. */
export interface FieldLabel {
  label: string;
  unit?: FieldUnit;
}

type KeysOf<T> = T extends unknown ? keyof T & string : never;
/**
 * A label for every field of a shape, of all members where it is one of several: one that is missing does not compile.
 */
type Labels<T> = { readonly [K in KeysOf<T>]: FieldLabel };

const of = (label: string, unit?: FieldUnit): FieldLabel => (unit ? { label, unit } : { label });
const ID = of('id');
const NAME = of('name');
const DATE = of('date');
const ODOMETER = of('odometer');
const PULLEY = of('pulley');
const BELT = of('belt');
const PLUS_MINUS = of('±');
const SIMULATED = of('simulated');
const PAST = of('removed');

const point: Labels<Point> = { x: of('right of the crank', 'mm'), y: of('above the crank', 'mm') };
const care: Labels<BeltCare> = {
  fittedAt: of('day it was fitted'),
  fittedOdometer: of('odometer when it was fitted'),
  number: of('serial number'),
  runInFrom: of('start of the run-in'),
  runInMinutes: of('run-in', 'min'),
  setAgainAt: of('day it was set again'),
  nextLookAt: of('day of the next look'),
  nextLookOdometer: of('odometer at the next look'),
};
const picture = { hash: of('picture itself'), width: of('width', 'px'), height: of('height', 'px') } as const;

const drive: Labels<Drive> = {
  format: of('format'),
  version: of('version'),
  name: NAME,
  crankRotation: of('direction of rotation of the crank'),
  speeds: of('engine speeds'),
  stations: of('shafts'),
  obstacles: of('obstacles'),
  survey: of('survey'),
  use: of('use'),
  loads: of('electrical loads'),
  speedChecks: of('speed checks'),
  align: of('alignment'),
  noise: of('noise'),
  inspect: of('inspection'),
  job: of('job card'),
  belts: of('belts'),
};
const station: Labels<Station> = {
  id: ID,
  role: of('kind'),
  label: NAME,
  ...point,
  requires: of('direction of rotation needed'),
  adjuster: of('adjuster'),
  optional: of('optional'),
  region: of('allowed position'),
  speedBand: of('speed limits'),
  output: of('output curve'),
  need: of('speed it needs'),
  power: of('power it needs'),
  torque: of('torque it needs'),
  hubLoadLimit: of('bearing load limit', 'N'),
  pulleys: of('sheaves'),
};
const pulley: Labels<Pulley> = {
  id: ID,
  surface: of('face'),
  diameter: of('diameter', 'mm'),
  teeth: of('teeth'),
  grooves: of('grooves'),
  grooveAngle: of('groove angle', '°'),
  ride: of('belt top above rim', 'mm'),
  plane: of('plane', 'mm'),
  flanged: of('flanged'),
  optional: of('may be left off'),
  kind: of('kind of pulley'),
};
const adjuster: Labels<Adjuster> = {
  kind: of('kind'),
  pivot: of('pivot'),
  armLength: of('arm length', 'mm'),
  freeAngle: of('free angle', '°'),
  fullAngle: of('angle pulled fully back', '°'),
  shortMark: of('angle at short mark', '°'),
  longMark: of('angle at long mark', '°'),
  springTorqueAtFree: of('spring torque at free angle', 'N·m'),
  springRate: of('spring rate', 'N·m per degree'),
  strut: of('strut'),
  inAngle: of('angle at slack end', '°'),
  outAngle: of('angle at tight end', '°'),
  pitches: of('pitch of its threads'),
  direction: of('direction of travel', '°'),
  travel: of('travel', 'mm'),
  anchor: of('link anchor'),
  lug: of('link lug'),
  minLength: of('shortest link', 'mm'),
  maxLength: of('longest link', 'mm'),
  shims: of('shims'),
  spare: of('shims taken out'),
};
const strut: Labels<Strut> = {
  anchor: of('anchor'),
  lug: of('lug'),
  closed: of('closed length', 'mm'),
  points: of('force over its stroke'),
};
const belt: Labels<Belt> = {
  id: ID,
  section: of('section'),
  ribs: of('ribs'),
  build: of('build'),
  adjuster: of('shaft that tightens it'),
  length: of('length', 'mm'),
  sectionOverrides: of("section's figures"),
  reserve: of('reserve for seating'),
  measurements: of('measurements'),
  carries: of('pulleys on the belt'),
  staticTension: of('static tension', 'N'),
  kgPerMetre: of('mass of a metre', 'kg/m'),
  tensionReadings: of('tension readings'),
  care: of("belt's service record"),
  runAngle: of('limits of its runs'),
  route: of('route'),
};
const overrides: Labels<SectionOverrides> = {
  cordDepth: of('cord below the top', 'mm'),
  driveOffset: of('cord above the face', 'mm'),
  backOffset: of('cord below the back', 'mm'),
  markedOffset: of('marked line from the cord', 'mm'),
  thickness: of('thickness', 'mm'),
  width: of('width', 'mm'),
  grooveAngle: of('groove angle', '°'),
  pitch: of('pitch', 'mm'),
};
const measurement: Labels<Measurement> = {
  id: ID,
  tool: of('tool'),
  mm: of('reading', 'mm'),
  state: of('adjuster position'),
  lay: of('how it lay'),
  doubled: of('belt doubled'),
  thickness: of('thickness', 'mm'),
  stretch: of('stretch'),
  worn: of('growth of a worn belt'),
  circumference: of('round a wheel', 'mm'),
  plusMinus: of('±', 'mm'),
  at: DATE,
};
const routeStop: Labels<RouteStop> = { pulley: PULLEY, side: of('side'), front: of('grooves free in front') };
const tensionReading: Labels<TensionReading> = {
  id: ID,
  way: of('check'),
  span: of('span'),
  plusMinus: PLUS_MINUS,
  at: DATE,
  odometer: ODOMETER,
  when: of('age of the belt'),
  turned: of('direction the engine was turned'),
  simulated: SIMULATED,
  newtons: of('force', 'N'),
  mm: of('deflection', 'mm'),
  degrees: of('angle', '°'),
  nm: of('torque', 'N·m'),
  kgf: of('force in kgf'),
  lbf: of('force in lbf'),
  hz: of('note', 'Hz'),
};
const span: Labels<SpanName> = { from: of('pulley it starts at'), to: of('pulley it ends at') };
const obstacle: Labels<Obstacle> = {
  id: ID,
  label: NAME,
  ...point,
  to: of('other end'),
  diameter: of('diameter', 'mm'),
  plane: of('plane', 'mm'),
};
const survey: Labels<Survey> = { readings: of('tapes'), diameters: of('diameters'), photos: of('pictures') };
const tape: Labels<SurveyReading> = {
  id: ID,
  kind: of('kind'),
  from: of('pulley it starts at'),
  to: of('other end'),
  mm: of('reading', 'mm'),
  deg: of('reading', '°'),
  plusMinus: PLUS_MINUS,
  at: DATE,
};
const diameter: Labels<DiameterReading> = {
  id: ID,
  pulley: PULLEY,
  method: of('method'),
  of: of('sheave it steps down from'),
  mm: of('reading', 'mm'),
  plusMinus: of('±', 'mm'),
  at: DATE,
};
const photo: Labels<SurveyPhoto> = {
  id: ID,
  ...picture,
  cameraDistance: of("camera's distance", 'mm'),
  cropped: of('cropped'),
  rims: of('rims'),
};
const rim: Labels<PhotoRim> = { pulley: PULLEY, points: of('points on the rim'), known: of('known diameter') };
const speeds: Labels<EngineSpeeds> = {
  idle: of('idle', 'rev/min'),
  cruise: of('cruise', 'rev/min'),
  redline: of('redline', 'rev/min'),
};
const band: Labels<SpeedBand> = {
  least: of('least', 'rev/min'),
  continuous: of('continuous', 'rev/min'),
  burst: of('short time', 'rev/min'),
};
const use: Labels<EngineUse> = {
  name: NAME,
  bins: of('time at each engine speed'),
  kmPerHour: of('mean road speed', 'km/h'),
};
const bin: Labels<UseBin> = { from: of('from', 'rev/min'), to: of('to', 'rev/min'), share: of('share of the time') };
const load: Labels<ElectricalLoad> = { id: ID, name: NAME, amps: of('current', 'A'), on: of('switched on') };
const check: Labels<SpeedCheck> = {
  id: ID,
  station: of('shaft'),
  crankRpm: of("crank's speed", 'rev/min'),
  rpm: of('speed', 'rev/min'),
  plusMinus: of('±', 'rev/min'),
  simulated: SIMULATED,
  at: DATE,
};
const output: Labels<OutputPoint> = { rpm: of('speed', 'rev/min'), amps: of('current', 'A') };
const torque: Labels<TorqueCurve> = { state: of('state'), points: of('points') };
const torquePoint: Labels<TorquePoint> = { rpm: of('speed', 'rev/min'), nm: of('torque', 'N·m') };
const align: Labels<Align> = {
  datum: of('how the datum was measured'),
  readings: of('readings'),
  moves: of('possible moves'),
  stacks: of('stacks'),
  tracks: of('tracks'),
  done: of('moves done'),
};
const datum: Labels<AlignDatum> = {
  faceMm: of("width of the crank's face", 'mm'),
  straightedgeMm: of('length of the straightedge', 'mm'),
  plusMinus: of('±', 'mm'),
};
const alignReading: Labels<AlignReading> = {
  id: ID,
  tool: of('tool'),
  pulley: PULLEY,
  at: of('position on the rim', '°'),
  mm: of('offset', 'mm'),
  plusMinus: of('±', 'mm'),
  load: of('under load'),
  turned: of('turn of the pulley', '°'),
  past: of('before it was moved'),
  simulated: SIMULATED,
  date: DATE,
};
const move: Labels<AlignMove> = {
  kind: of('kind'),
  pulley: PULLEY,
  min: of('in by up to', 'mm'),
  max: of('out by up to', 'mm'),
  sizes: of('sizes at hand'),
  steps: of('grooves'),
  options: of('hubs'),
};
const stack: Labels<AlignStack> = { id: ID, pulley: PULLEY, pieces: of('pieces') };
const piece: Labels<StackPiece> = {
  name: NAME,
  mm: of('depth', 'mm'),
  plusMinus: of('±', 'mm'),
  options: of('depths sold'),
  chosen: of('chosen depth'),
};
const option: Labels<StackOption> = {
  name: NAME,
  mm: of('depth', 'mm'),
  plusMinus: of('±', 'mm'),
  price: of('price'),
  fitted: of('fitted now'),
};
const track: Labels<SeenTrack> = { pulley: PULLEY, mm: of('off the middle', 'mm'), date: DATE };
const done: Labels<DoneMove> = {
  id: ID,
  pulley: PULLEY,
  kind: of('kind'),
  mm: of('moved out', 'mm'),
  steps: of('grooves out'),
  date: DATE,
};
const noise: Labels<Noise> = {
  cylinders: of('cylinders'),
  rpm: of('engine speed', 'rev/min'),
  rpmFrom: of('how the engine speed was read'),
  evidence: of('observations'),
  clips: of('sounds'),
  cures: of('cures'),
};
const evidence: Labels<NoiseEvidence> = {
  test: of('test'),
  outcome: of('outcome'),
  pulley: PULLEY,
  belt: BELT,
  at: DATE,
  odometer: ODOMETER,
  past: PAST,
  simulated: SIMULATED,
};
const clip: Labels<NoiseClip> = {
  id: ID,
  kind: of('kind'),
  rpm: of('engine speed', 'rev/min'),
  pitchHz: of('pitch', 'Hz'),
  repeatHz: of('repeats', 'Hz'),
  plusMinusHz: of('±', 'Hz'),
  seconds: of('length', 's'),
  wav: of('sound itself'),
  name: NAME,
  at: DATE,
  odometer: ODOMETER,
  simulated: SIMULATED,
};
const cure: Labels<NoiseCure> = {
  id: ID,
  cause: of('cause'),
  part: of('part'),
  note: of('note'),
  at: DATE,
  odometer: ODOMETER,
  odometerUnit: of('odometer unit'),
  listened: of('times listened again'),
};
const inspect: Labels<Inspect> = {
  odometerUnit: of('odometer unit'),
  findings: of('findings'),
  skipped: of('parts skipped'),
  changed: of('parts changed'),
  limits: of('limits'),
  shop: of('limits of the shop'),
  life: of('expected belt life'),
};
const found: Labels<InspectFinding> = {
  id: ID,
  on: of('part checked'),
  target: of('part'),
  check: of('check'),
  value: of('value'),
  outcome: of('outcome'),
  plusMinus: PLUS_MINUS,
  at: DATE,
  odometer: ODOMETER,
  past: PAST,
  places: of('places along the belt'),
  photo: of('picture'),
  marks: of('marks in the picture'),
};
const marks: Labels<RibMarks> = {
  tips: of('tips'),
  valleys: of('valleys'),
  sigmaPx: of('±', 'px'),
  stretch: of('squareness'),
};
const skipped: Labels<SkippedPart> = { on: of('part checked'), target: of('part'), at: DATE };
const changed: Labels<ChangedPart> = {
  id: ID,
  on: of('part changed'),
  target: of('part'),
  at: DATE,
  odometer: ODOMETER,
  why: of('reason for removal'),
  careBefore: of('service record of the old belt'),
  staticBefore: of('static tension of the old one', 'N'),
};
const limit: Labels<InspectLimit> = {
  check: of('check'),
  from: of('source of the limit'),
  replace: of('worn out at'),
  watch: of('watch from'),
  new: of('when new'),
};
const job: Labels<Job> = {
  bolts: of('bolts'),
  own: of('own steps'),
  words: of('steps reworded'),
  leftOut: of('steps left out'),
  order: of('order of the steps'),
};
const bolt: Labels<Bolt> = {
  id: ID,
  station: of('shaft'),
  use: of('use'),
  name: NAME,
  size: of('thread'),
  tool: of('tool'),
  torqueNm: of('torque', 'N·m'),
  torqueUnit: of('unit of its torque'),
  angleDeg: of('angle after the torque', '°'),
  order: of('order'),
  reuse: of('whether it is reused'),
};
const ownStep: Labels<OwnStep> = { id: ID, phase: of('phase'), text: of('text') };

/** By the way to what holds the field, list and field names alone: `belts.tensionReadings`. The drive itself is ''. */
export const FIELD_LABELS: Readonly<Record<string, Readonly<Record<string, FieldLabel>>>> = {
  '': drive,
  speeds,
  stations: station,
  'stations.region': { ...point, radius: of('radius', 'mm') },
  'stations.speedBand': band,
  'stations.need': { rpm: of('speed', 'rev/min'), engineRpm: of("at the engine's", 'rev/min') },
  'stations.power': { rpm: of('at its own', 'rev/min'), kw: of('power', 'kW') },
  'stations.output': output,
  'stations.torque': torque,
  'stations.torque.points': torquePoint,
  'stations.pulleys': pulley,
  'stations.adjuster': adjuster,
  'stations.adjuster.strut': strut,
  'stations.adjuster.strut.points': { stroke: of('stroke', 'mm'), force: of('force', 'N') },
  belts: belt,
  'belts.sectionOverrides': overrides,
  'belts.measurements': measurement,
  'belts.route': routeStop,
  'belts.tensionReadings': tensionReading,
  'belts.tensionReadings.span': span,
  'belts.care': care,
  'belts.runAngle': { good: of('good up to', '°'), watch: of('watch up to', '°') },
  obstacles: obstacle,
  survey,
  'survey.readings': tape,
  'survey.diameters': diameter,
  'survey.photos': photo,
  'survey.photos.rims': rim,
  use,
  'use.bins': bin,
  loads: load,
  speedChecks: check,
  align,
  'align.datum': datum,
  'align.readings': alignReading,
  'align.moves': move,
  'align.moves.options': { name: NAME, mm: of('further out', 'mm') },
  'align.stacks': stack,
  'align.stacks.pieces': piece,
  'align.stacks.pieces.options': option,
  'align.tracks': track,
  'align.done': done,
  noise,
  'noise.evidence': evidence,
  'noise.clips': clip,
  'noise.cures': cure,
  'noise.cures.listened': { when: of('when'), outcome: of('outcome'), at: DATE, odometer: ODOMETER },
  inspect,
  'inspect.findings': found,
  'inspect.findings.photo': picture,
  'inspect.findings.marks': marks,
  'inspect.findings.marks.stretch': { at: of('ratio'), plusMinus: PLUS_MINUS },
  'inspect.skipped': skipped,
  'inspect.changed': changed,
  'inspect.changed.careBefore': care,
  'inspect.limits': limit,
  'inspect.shop': {
    check: of('check'),
    section: of('section'),
    material: of('material'),
    kind: of('kind of pulley'),
    replace: of('worn out at'),
    watch: of('watch from'),
    new: of('when new'),
  },
  'inspect.life': { distance: of('distance'), from: of('source of the figure') },
  job,
  'job.bolts': bolt,
  'job.own': ownStep,
  'job.words': { step: of('step'), text: of('text') },
};

/**
 * What a field of the file is called, with its unit, by where it stands: the same name means one thing in one list and
 * another in the next. A field that Emery does not know is called as it is written.
 */
export function fieldLabel(holder: string, field: string): FieldLabel {
  const table = FIELD_LABELS[holder];
  if (table && Object.hasOwn(table, field)) return table[field]!;
  // Places and ends of things that have no table of their own.
  return Object.hasOwn(point, field) ? point[field as keyof typeof point] : { label: field };
}
