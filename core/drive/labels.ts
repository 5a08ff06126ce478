import type { NoiseTest } from './noise';
import type { AdjusterState, Lay, Tool } from './measuring';
import type { Check } from './inspect';
import type { OdometerUnit } from './odometer';
import type { DiameterMethod, ReadingKind } from './survey';
import type { BeltAge, TensionWay } from './tension';

/** What each kind of reading is called on the bench. */
export const READING_WORDS: Record<ReadingKind, string> = {
  outer: 'rim to far rim',
  gap: 'near rim to near rim',
  centre: 'centre to centre',
  angle: 'angle of the line',
  x: 'right of the crank',
  y: 'above the crank',
};

/** The ways to read a diameter, and how each is done. */
export const DIAMETER_WORDS: Record<DiameterMethod, { name: string; hint: string }> = {
  calliper: { name: 'Calliper', hint: 'Over the widest part: rib tips, V rim or smooth face.' },
  across: { name: 'Tape across', hint: 'Rim to rim through the centre; swing the tape for the largest.' },
  around: { name: 'Tape around', hint: 'Once round the rim. Emery divides by π.' },
  step: { name: 'Step down', hint: "From the outer sheave's rim down to this one, on one side. It counts twice." },
};

/** What each measuring tool is called, and how it is used. */
export const TOOL_WORDS: Record<Tool, { name: string; hint: string }> = {
  string: {
    name: 'String',
    hint: 'Lay it along the route in the grooves, hold the ends together, mark, and measure it flat with a tape.',
  },
  rope: { name: 'Rope', hint: 'A thick cord rides high in the grooves; Emery allows for its thickness.' },
  wire: { name: 'Wire', hint: 'Bend it round, mark where the ends meet, straighten it and measure it with a tape.' },
  strap: { name: 'Strap', hint: 'A flat strap bridges the grooves.' },
  'old-belt': { name: 'Old belt, measured round its back', hint: 'A used belt has grown; Emery takes a little off.' },
  gauge: {
    name: 'Length gauge, two equal wheels',
    hint: "Twice the distance of the wheels' centres, and once round one.",
  },
  marking: { name: 'Printed length of the old belt', hint: 'The length marking as printed.' },
};

export const LAY_WORDS: Record<Lay, string> = { groove: 'down in the grooves', rim: 'on top of the ribs or rims' };

export const STATE_WORDS: Record<AdjusterState, string> = {
  'as-drawn': 'as drawn',
  slack: 'at its slack end',
  'short-mark': 'at the short mark',
  'long-mark': 'at the long mark',
  tight: 'at its tight end',
};

/** The schools of checking a belt by hand, and how each is done. */
export const TENSION_WAY_WORDS: Record<TensionWay, { name: string; hint: string }> = {
  push: { name: 'Push', hint: 'Push square on the middle of the span with a spring scale; read the deflection.' },
  'free-play': { name: 'Thumb', hint: 'Press the middle of the span with a thumb, firmly; read the deflection.' },
  twist: { name: 'Twist', hint: 'Turn the middle of the span between finger and thumb as far as it will go.' },
  gauge: { name: 'Click gauge', hint: 'Lay the gauge on mid-span and press until it clicks.' },
  pluck: { name: 'Pluck', hint: 'Pluck mid-span like a string and read its frequency.' },
  pointer: { name: 'Pointer', hint: "Read the angle of the arm's pointer, in degrees as drawn." },
};

export const BELT_AGE_WORDS: Record<BeltAge, string> = {
  new: 'new, just set',
  'run-in': 'after the run-in',
  hot: 'engine hot',
  worn: 'in use',
};

/** What each test of a noise is called in a list. */
export const NOISE_TEST_NAMES: Record<NoiseTest, string> = {
  kind: 'Kind of noise',
  repeat: 'What it repeats with',
  water: 'Water on the ribs',
  'only-cold': 'Only cold',
  'only-hot': 'Only hot',
  'only-wet': 'Only wet',
  'under-load': 'Under load',
  'one-speed': 'At one speed',
  'charge-lamp': 'Charge lamp',
  'engine-hot': 'Hot engine',
  'new-belt': 'New belt',
  dust: 'Rubber dust',
  flapping: 'Flapping span',
  'edge-wear': 'Worn edge',
  'belt-off': 'Belt off',
  'length-doubt': 'Doubtful marking',
  ribs: 'Ribs',
  spot: 'One place on the belt',
  surface: 'Oil or dressing',
  slack: 'Slack',
  taut: 'Too tight',
  wobble: 'Rim wobble',
  spin: 'Spin by hand',
  rock: 'Rock by hand',
  grooves: 'Grooves',
  count: 'Free grooves',
  straightedge: 'Straightedge',
  bracket: 'Bracket',
  clutch: 'One-way clutch',
  arm: 'Arm by wrench',
  'arm-swing': 'Swinging arm',
  cocked: 'Cocked arm',
};

/** What each check of an inspection is called in a list. */
export const INSPECT_CHECK_NAMES: Record<Check, string> = {
  material: 'Material',
  'rib-depth': 'Rib depth',
  profile: 'Profile',
  cracks: 'Cracks in 75 mm',
  ride: 'Ride below the rim',
  slot: 'Slot left',
  length: 'Length',
  chunks: 'Chunks missing',
  frayed: 'Frayed edge',
  glazed: 'Glazing',
  pilling: 'Pilling',
  oil: 'Oil',
  stroke: 'Stroke',
  'by-hand': 'Arm moves by hand',
  pointer: 'Pointer',
  cocked: 'Leaning roller',
  spin: 'Spin',
  rock: 'Rock',
  'run-out': 'Run-out',
  grooves: 'Grooves',
  track: 'Track off the middle',
  clutch: 'One-way clutch',
};

/** What an odometer counts, in a list. */
export const ODOMETER_WORDS: Record<OdometerUnit, string> = { km: 'Kilometres', mi: 'Miles', h: 'Hours' };

/** A pulley as a stop of a belt's route. */
export const onTheBelt = (pulley: string): string => `${pulley} on the belt`;

/** What a belt that was tried on is called in a list, and what it must have. */
export const TRIED_LIST_WORDS = {
  item: 'belt tried on',
  many: 'belts tried on',
  heading: 'Belts tried on',
  name: (belt: string) => `Tried on, ${belt}`,
  needs: 'must have the marking or the length (lengthMm) of the belt',
} as const;
