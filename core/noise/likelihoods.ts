import type { NoiseCause, NoiseTest } from '../drive';

/*
 * What Emery goes by when it weighs causes: nothing but figures, each with its reason. They are Emery's own judgement,
 * no statistics, and meant to be read, doubted and changed. Two rules hold, and tests keep them: the outcomes of a row
 * sum to one, and what an outcome speaks against most it speaks against alike, so that it can raise none of them.
 */

/** A cause, the hub of the crank itself, or that the noise is none of the drive's. */
export type Source = NoiseCause | 'crank-hub' | 'elsewhere';

/** How often a cause of a noise is found, of all, spread over the parts it can be at. Sums to 100. */
export const FOUND: Record<NoiseCause, { weight: number; why: string }> = {
  misaligned: { weight: 22, why: 'Most chirps are caused by a pulley out of line.' },
  loose: { weight: 15, why: 'Many belts are never set again after their run-in.' },
  'worn-belt': { weight: 12, why: 'Rib wear is hard to see; worn ribs slip and sit deep.' },
  bearing: { weight: 13, why: 'Every roller and accessory has bearings, and rollers fail first.' },
  contaminated: { weight: 6, why: 'A leak above the belt, or dressing from a can.' },
  'arm-weak': { weight: 5, why: 'Springs and dampers weaken with age.' },
  'wrong-length': { weight: 4, why: 'Fitted by its label, without a check against the drive.' },
  'arm-cocked': { weight: 4, why: 'A worn pivot lets the roller lean.' },
  'wrong-groove': { weight: 4, why: 'One rib off is easily done from above.' },
  'bracket-flex': { weight: 3, why: 'A loose bolt lets a bracket bend under load.' },
  debris: { weight: 3, why: 'Grit packs into grooves.' },
  tight: { weight: 2, why: 'Set with a bar, without measuring.' },
  'arm-stuck': { weight: 2, why: 'Rust and dirt in the pivot.' },
  'hub-wobble': { weight: 2, why: 'The rubber ring in a crank hub fails with age.' },
  'one-way-clutch': { weight: 1, why: 'Only some alternators have one.' },
  'belt-spot': { weight: 2, why: 'A stone in the ribs, a missing piece of rib, a bad splice.' },
};

/** How often it is something else than the drive, beside all of the above. */
export const FOUND_ELSEWHERE = {
  weight: 8,
  why: 'A leaking exhaust manifold chirps, and other parts of the engine can growl.',
};

/** Of drives that make no noise, so many of a hundred have a fault for each point of its weight. */
export const FAULTS_A_POINT = 0.6;

/** How a test that hears or sees the noise turns out, by what makes it. A row without `causes` is for all others. */
export interface NoiseRow {
  causes?: readonly Source[];
  p: Readonly<Record<string, number>>;
  why: string;
}

/** What goes by the noise itself. Where a test is about one belt, its rows are for causes on that belt. */
export const BY_NOISE: { readonly [T in NoiseTest]?: readonly NoiseRow[] } = {
  kind: [
    {
      causes: ['misaligned', 'wrong-groove', 'arm-cocked', 'hub-wobble', 'bracket-flex'],
      p: { chirp: 0.7, squeal: 0.18, rumble: 0.06, whine: 0.06 },
      why: 'Ribs that enter their grooves at an angle chirp.',
    },
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length', 'contaminated'],
      p: { chirp: 0.2, squeal: 0.68, rumble: 0.06, whine: 0.06 },
      why: 'A belt that slips all the time squeals.',
    },
    {
      causes: ['worn-belt'],
      p: { chirp: 0.45, squeal: 0.43, rumble: 0.06, whine: 0.06 },
      why: 'Worn ribs chirp and squeal: they slip, and they enter the grooves badly.',
    },
    {
      causes: ['bearing'],
      p: { chirp: 0.19, squeal: 0.14, rumble: 0.53, whine: 0.14 },
      why: 'Balls and races rumble or grind; a dry one squeals, and one that rocks tips its pulley and chirps.',
    },
    {
      causes: ['tight'],
      p: { chirp: 0.06, squeal: 0.1, rumble: 0.2, whine: 0.64 },
      why: 'A belt that is too tight whines, and loads its bearings.',
    },
    {
      causes: ['debris'],
      p: { chirp: 0.72, squeal: 0.08, rumble: 0.14, whine: 0.06 },
      why: 'Grit in a groove ticks and chirps once a turn.',
    },
    {
      causes: ['belt-spot'],
      p: { chirp: 0.55, squeal: 0.04, rumble: 0.37, whine: 0.04 },
      why: 'A fault in one place of a belt ticks or thumps as it passes.',
    },
    {
      causes: ['one-way-clutch'],
      p: { chirp: 0.2, squeal: 0.24, rumble: 0.5, whine: 0.06 },
      why: 'A worn clutch rattles at idle, and makes the belt slap when it locks.',
    },
    { p: { chirp: 0.25, squeal: 0.25, rumble: 0.25, whine: 0.25 }, why: 'Other parts can make any of these noises.' },
  ],
  repeat: [
    {
      causes: ['belt-spot'],
      p: { belt: 0.85, pulley: 0.02, bearing: 0.01, tooth: 0.01, engine: 0.01, none: 0.1 },
      why: 'A fault in one place of the belt repeats once a belt turn.',
    },
    {
      causes: ['worn-belt', 'contaminated'],
      p: { belt: 0.5, pulley: 0.12, bearing: 0.02, tooth: 0.01, engine: 0.02, none: 0.33 },
      why: 'A fault in one place of the belt repeats with the belt.',
    },
    {
      causes: ['bearing'],
      p: { belt: 0.02, pulley: 0.42, bearing: 0.31, tooth: 0.01, engine: 0.02, none: 0.22 },
      why: 'Balls strike a worn race several times a turn, louder and quieter once a turn.',
    },
    {
      causes: ['debris', 'hub-wobble'],
      p: { belt: 0.02, pulley: 0.67, bearing: 0.02, tooth: 0.01, engine: 0.02, none: 0.26 },
      why: 'A fault in a pulley repeats once a turn of it.',
    },
    {
      causes: ['misaligned', 'wrong-groove', 'arm-cocked'],
      p: { belt: 0.3, pulley: 0.3, bearing: 0.02, tooth: 0.01, engine: 0.02, none: 0.35 },
      why: 'A pulley out of line chirps once its own turn, or as the belt’s worst ribs pass.',
    },
    {
      causes: ['one-way-clutch', 'bracket-flex'],
      p: { belt: 0.05, pulley: 0.23, bearing: 0.03, tooth: 0.01, engine: 0.34, none: 0.34 },
      why: 'The engine’s firing shakes loose parts.',
    },
    {
      causes: ['tight'],
      p: { belt: 0.08, pulley: 0.23, bearing: 0.04, tooth: 0.3, engine: 0.02, none: 0.33 },
      why: 'Teeth that mesh too tightly are heard once a tooth.',
    },
    {
      causes: ['elsewhere'],
      p: { belt: 0.02, pulley: 0.08, bearing: 0.06, tooth: 0.01, engine: 0.5, none: 0.33 },
      why: 'A noise from outside the drive repeats with the engine, or not at all.',
    },
    {
      p: { belt: 0.15, pulley: 0.12, bearing: 0.02, tooth: 0.01, engine: 0.07, none: 0.63 },
      why: 'Slip squeals steadily, without repeating.',
    },
  ],
  water: [
    {
      causes: ['misaligned', 'wrong-groove', 'arm-cocked', 'hub-wobble', 'bracket-flex'],
      p: { 'quiet-then-back': 0.9, louder: 0.05, 'no-change': 0.05 },
      why: 'Wet ribs slide into crooked grooves without a sound, until they are dry.',
    },
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length'],
      p: { 'quiet-then-back': 0.05, louder: 0.9, 'no-change': 0.05 },
      why: 'A belt that hardly grips dry grips less wet.',
    },
    {
      causes: ['tight', 'one-way-clutch', 'elsewhere'],
      p: { 'quiet-then-back': 0.13, louder: 0.11, 'no-change': 0.76 },
      why: 'Water on the ribs changes nothing where the noise is not slip.',
    },
    {
      causes: ['bearing'],
      p: { 'quiet-then-back': 0.19, louder: 0.05, 'no-change': 0.76 },
      why: 'Water on the ribs does not change a bearing. But a bearing that rocks tips its pulley, and that chirp goes quiet.',
    },
    {
      causes: ['belt-spot'],
      p: { 'quiet-then-back': 0.15, louder: 0.09, 'no-change': 0.76 },
      why: 'Water does not change a lump.',
    },
    {
      causes: ['worn-belt'],
      p: { 'quiet-then-back': 0.5, louder: 0.35, 'no-change': 0.15 },
      why: 'Worn ribs can go either way.',
    },
    {
      causes: ['contaminated'],
      p: { 'quiet-then-back': 0.3, louder: 0.5, 'no-change': 0.2 },
      why: 'With water, oil and dressing slip more, or are rinsed off for a moment.',
    },
    {
      p: { 'quiet-then-back': 0.5, louder: 0.1, 'no-change': 0.4 },
      why: 'Grit may be rinsed, or stay.',
    },
  ],
  'only-cold': [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length', 'worn-belt'],
      p: { yes: 0.4, no: 0.6 },
      why: 'Cold rubber is hard and grips less, and charging the battery takes the most power.',
    },
    {
      causes: ['bearing', 'contaminated', 'one-way-clutch'],
      p: { yes: 0.25, no: 0.75 },
      why: 'Cold grease is stiff.',
    },
    { p: { yes: 0.12, no: 0.88 }, why: 'Most other faults are heard warm as well.' },
  ],
  'only-hot': [
    {
      causes: ['bearing', 'tight'],
      p: { yes: 0.35, no: 0.65 },
      why: 'Hot grease is thin, and on fixed centres heat tightens the belt.',
    },
    { p: { yes: 0.12, no: 0.88 }, why: 'Most other faults are heard cold as well.' },
  ],
  'only-wet': [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length'],
      p: { yes: 0.5, no: 0.5 },
      why: 'A belt that hardly grips dry slips when it is wet.',
    },
    { causes: ['worn-belt', 'contaminated'], p: { yes: 0.35, no: 0.65 }, why: 'Worn ribs cannot press the water out.' },
    { p: { yes: 0.1, no: 0.9 }, why: 'Wet weather changes other faults little.' },
  ],
  'under-load': [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length', 'bracket-flex'],
      p: { yes: 0.65, no: 0.35 },
      why: 'Load makes a belt slip and a bracket bend.',
    },
    {
      causes: ['worn-belt', 'contaminated', 'one-way-clutch'],
      p: { yes: 0.5, no: 0.5 },
      why: 'These slip more under more load.',
    },
    {
      causes: ['bearing'],
      p: { yes: 0.45, no: 0.55 },
      why: 'Load presses on a bearing and tips one that rocks, but it turns without load as well.',
    },
    { p: { yes: 0.15, no: 0.85 }, why: 'Misalignment and grit are heard at idle too.' },
  ],
  'one-speed': [
    {
      causes: ['bracket-flex', 'hub-wobble', 'arm-weak', 'elsewhere'],
      p: { yes: 0.4, no: 0.6 },
      why: 'A swinging arm or span has its own speed.',
    },
    { p: { yes: 0.15, no: 0.85 }, why: 'Most faults are heard over a range of engine speeds.' },
  ],
  'charge-lamp': [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length', 'one-way-clutch'],
      p: { yes: 0.4, no: 0.6 },
      why: 'An alternator that does not turn charges nothing.',
    },
    {
      causes: ['worn-belt', 'contaminated'],
      p: { yes: 0.25, no: 0.75 },
      why: 'The alternator slips first with these.',
    },
    { p: { yes: 0.04, no: 0.96 }, why: 'Other faults leave the alternator turning.' },
  ],
  'engine-hot': [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length', 'worn-belt', 'contaminated'],
      p: { yes: 0.2, no: 0.8 },
      why: 'A water pump that slips does not cool.',
    },
    { causes: ['bearing'], p: { yes: 0.1, no: 0.9 }, why: 'A water pump with a bad bearing leaks.' },
    { p: { yes: 0.04, no: 0.96 }, why: 'Other faults leave the pump turning.' },
  ],
  'new-belt': [
    {
      causes: ['wrong-length', 'wrong-groove', 'tight'],
      p: { 'began-with-it': 0.55, 'quiet-then-back': 0.1, no: 0.35 },
      why: 'A noise that began with a new belt comes from its choice or its fitting.',
    },
    {
      causes: ['misaligned', 'arm-cocked', 'hub-wobble', 'bearing', 'debris', 'contaminated', 'bracket-flex'],
      p: { 'began-with-it': 0.12, 'quiet-then-back': 0.45, no: 0.43 },
      why: 'A new belt’s coating hides a fault for some hundreds of kilometres; then the noise is back.',
    },
    {
      causes: ['loose'],
      p: { 'began-with-it': 0.3, 'quiet-then-back': 0.25, no: 0.45 },
      why: 'A new belt beds in and was not set again.',
    },
    {
      causes: ['worn-belt'],
      p: { 'began-with-it': 0.05, 'quiet-then-back': 0.05, no: 0.9 },
      why: 'A new belt is not worn.',
    },
    { p: { 'began-with-it': 0.12, 'quiet-then-back': 0.18, no: 0.7 }, why: 'The belt hardly matters for these.' },
  ],
  dust: [
    {
      causes: [
        'misaligned',
        'wrong-groove',
        'arm-cocked',
        'hub-wobble',
        'loose',
        'arm-weak',
        'arm-stuck',
        'wrong-length',
        'worn-belt',
        'debris',
      ],
      p: { yes: 0.5, no: 0.5 },
      why: 'Rubbing and slip leave dust.',
    },
    { p: { yes: 0.12, no: 0.88 }, why: 'A belt that runs well leaves little dust.' },
  ],
  flapping: [
    {
      causes: ['loose', 'arm-weak', 'arm-stuck', 'wrong-length'],
      p: { yes: 0.6, no: 0.4 },
      why: 'A slack span swings.',
    },
    { causes: ['one-way-clutch', 'bracket-flex'], p: { yes: 0.4, no: 0.6 }, why: 'Jerks make a span swing.' },
    { p: { yes: 0.12, no: 0.88 }, why: 'A tight span stays still.' },
  ],
  'edge-wear': [
    {
      causes: ['misaligned', 'wrong-groove', 'arm-cocked', 'hub-wobble', 'bracket-flex'],
      p: { yes: 0.6, no: 0.4 },
      why: 'A belt that runs at an angle wears its edge.',
    },
    { p: { yes: 0.08, no: 0.92 }, why: 'A belt that runs true keeps its edges.' },
  ],
  'belt-off': [
    {
      causes: ['crank-hub'],
      p: { gone: 0.3, stays: 0.7 },
      why: 'The crank’s hub turns with the belt off as well.',
    },
    {
      causes: ['elsewhere'],
      p: { gone: 0.08, stays: 0.92 },
      why: 'A noise that stays with the belt off is not from its drive.',
    },
    { p: { gone: 0.95, stays: 0.05 }, why: 'With the belt off, nothing in its drive turns.' },
  ],
};

/**
 * How slack and tight feel on a belt that a sprung arm keeps: such a belt is never set, so that what is felt speaks for
 * the arm, or for the belt's length. In place of the rows that look for a belt that was set wrong.
 */
export const ON_ARM: { readonly [T in NoiseTest]?: readonly NoiseRow[] } = {
  slack: [
    {
      causes: ['arm-weak', 'arm-stuck', 'wrong-length'],
      p: { yes: 0.75, no: 0.25 },
      why: 'A weak arm, or one at its stop, leaves the belt slack; there is nothing to set.',
    },
    { causes: ['loose'], p: { yes: 0.75, no: 0.25 }, why: 'A slack belt slips.' },
    { causes: ['arm-cocked'], p: { yes: 0.2, no: 0.8 }, why: 'A leaning arm may bind as well.' },
    { p: { yes: 0.08, no: 0.92 }, why: 'A sound tensioner keeps its belt tight.' },
  ],
  taut: [
    {
      causes: ['tight', 'arm-stuck', 'wrong-length'],
      p: { yes: 0.5, no: 0.5 },
      why: 'A stuck arm, or a belt that is too short, makes a belt far too tight.',
    },
    { p: { yes: 0.05, no: 0.95 }, why: 'A sound tensioner never overtightens a belt.' },
  ],
};

/** On a belt that a sprung arm keeps, slack and tight by themselves are so much rarer: nobody sets it. */
export const SET_ON_ARM = 0.2;

/** How a test that looks at one fault turns out where the fault is there, and where it is not. */
export interface FaultRow {
  fault: NoiseCause;
  there: Readonly<Record<string, number>>;
  sound: Readonly<Record<string, number>>;
  why: string;
}

/** What looks at the part itself, whether or not it makes the noise. */
export const BY_FAULT: { readonly [T in NoiseTest]?: FaultRow } = {
  'length-doubt': {
    fault: 'wrong-length',
    there: { yes: 0.75, no: 0.25 },
    sound: { yes: 0.12, no: 0.88 },
    why: 'Labels are misread, and boxes hold the wrong belt.',
  },
  ribs: {
    fault: 'worn-belt',
    there: { sound: 0.1, worn: 0.6, cracked: 0.3 },
    sound: { sound: 0.86, worn: 0.09, cracked: 0.05 },
    why: 'Grooves wear from V to U; some wear is missed by eye.',
  },
  spot: {
    fault: 'belt-spot',
    there: { yes: 0.85, no: 0.15 },
    sound: { yes: 0.03, no: 0.97 },
    why: 'A lump or a gap shows when the whole belt is checked.',
  },
  surface: {
    fault: 'contaminated',
    there: { clean: 0.1, oily: 0.6, dressed: 0.3 },
    sound: { clean: 0.92, oily: 0.04, dressed: 0.04 },
    why: 'Oil and dressing are seen and felt.',
  },
  slack: {
    fault: 'loose',
    there: { yes: 0.85, no: 0.15 },
    sound: { yes: 0.1, no: 0.9 },
    why: 'A thumb on a span is rough, but shows a slack belt.',
  },
  taut: {
    fault: 'tight',
    there: { yes: 0.8, no: 0.2 },
    sound: { yes: 0.08, no: 0.92 },
    why: 'A span that hardly moves is too tight.',
  },
  wobble: {
    fault: 'hub-wobble',
    there: { yes: 0.85, no: 0.15 },
    sound: { yes: 0.03, no: 0.97 },
    why: 'A wobbling rim is visible from the front.',
  },
  spin: {
    fault: 'bearing',
    there: { quiet: 0.15, grinds: 0.55, freewheels: 0.3 },
    sound: { quiet: 0.9, grinds: 0.04, freewheels: 0.06 },
    why: 'Dirt is felt and heard; a bearing without grease spins freely for long. Some worn bearings are quiet by hand.',
  },
  rock: {
    fault: 'bearing',
    there: { yes: 0.5, no: 0.5 },
    sound: { yes: 0.04, no: 0.96 },
    why: 'A worn bearing has play at the rim, though not every one.',
  },
  grooves: {
    fault: 'debris',
    there: { clean: 0.1, grit: 0.9 },
    sound: { clean: 0.92, grit: 0.08 },
    why: 'Dirt in a groove is visible with a lamp.',
  },
  count: {
    fault: 'wrong-groove',
    there: { right: 0.04, off: 0.96 },
    sound: { right: 0.99, off: 0.01 },
    why: 'Counting the free grooves leaves little doubt.',
  },
  straightedge: {
    fault: 'misaligned',
    there: { 'in-line': 0.15, off: 0.85 },
    sound: { 'in-line': 0.88, off: 0.12 },
    why: 'A straightedge shows an offset larger than a rib’s play.',
  },
  bracket: {
    fault: 'bracket-flex',
    there: { firm: 0.25, moves: 0.75 },
    sound: { firm: 0.94, moves: 0.06 },
    why: 'A bracket that a hand can move will move under load.',
  },
  clutch: {
    fault: 'one-way-clutch',
    there: { holds: 0.08, locked: 0.5, slips: 0.42 },
    sound: { holds: 0.94, locked: 0.03, slips: 0.03 },
    why: 'A one-way pulley drives its shaft one way, and runs free the other.',
  },
  arm: {
    fault: 'arm-stuck',
    there: { smooth: 0.08, binds: 0.5, stuck: 0.42 },
    sound: { smooth: 0.92, binds: 0.06, stuck: 0.02 },
    why: 'A sound arm moves smoothly through its whole stroke.',
  },
  'arm-swing': {
    fault: 'arm-weak',
    there: { yes: 0.7, no: 0.3 },
    sound: { yes: 0.12, no: 0.88 },
    why: 'A weak spring or damper lets the arm swing.',
  },
  cocked: {
    fault: 'arm-cocked',
    there: { yes: 0.8, no: 0.2 },
    sound: { yes: 0.04, no: 0.96 },
    why: 'A leaning roller is visible against a straight edge.',
  },
};

/** Of repeats heard at a pulley, so many belong to the pulley whose fault it is; the rest is shared by the others. */
export const OWN_PULLEY = 0.9;
/** The same of a bearing's strikes, which tell their shaft far worse. */
export const OWN_SHAFT = 0.55;

/** What a figure of the drive does to the chance of a cause at a part: times its weight. */
export const BY_FIGURE = {
  'run-off': { most: 8, why: 'A run measured beyond its limit chirps.' },
  'run-good': { factor: 0.15, why: 'Its runs were measured, and are good.' },
  slips: { factor: 6, why: 'At its tension it slips in a state it is used in.' },
  'slips-wet': { factor: 2, why: 'At its tension it slips when wet.' },
  'little-margin': { factor: 2, why: 'At its tension it has little slip margin in a state it is used in.' },
  holds: { factor: 0.3, why: 'At its tension it has ample slip margin.' },
  'low-wrap': { factor: 1.4, why: 'A pulley has too little wrap.' },
  'over-limit': { factor: 6, why: 'Its tension loads a bearing beyond its limit.' },
  'under-limit': { factor: 0.3, why: 'Its tension keeps every bearing within its limit.' },
  'arm-weak': { factor: 10, why: 'Its tensioner was measured, and pulls too little.' },
  'arm-good': { factor: 0.2, why: 'Its tensioner was measured, and pulls as it should.' },
  'arm-binding': { factor: 8, why: 'Turned both ways, its tensioner gives two tensions.' },
  'past-marks': { factor: 8, why: 'A belt of its length is outside the marks or the travel.' },
  'between-marks': { factor: 0.3, why: 'A belt of its length is between the marks.' },
  'no-spare-groove': { factor: 0.3, why: 'It has no spare groove.' },
  'young-belt': { factor: 0.15, why: 'The belt had been on for less than four months.' },
  'old-belt': { factor: 2, why: 'The belt had been on for more than four years.' },
} as const;
export type FigureCode = keyof typeof BY_FIGURE;

/**
 * What a test costs: minutes, and how near to what turns or bites one has to come (1 looking or engine off, 2 beside a
 * running engine, 3 with the belt off), and whether the engine runs. Emery's own judgement.
 */
export const COSTS: { readonly [T in NoiseTest]: { minutes: number; risk: 1 | 2 | 3; beltOff?: true; runs?: true } } = {
  kind: { minutes: 0.5, risk: 1, runs: true },
  repeat: { minutes: 2, risk: 1, runs: true },
  water: { minutes: 2, risk: 2, runs: true },
  'only-cold': { minutes: 0.5, risk: 1 },
  'only-hot': { minutes: 0.5, risk: 1 },
  'only-wet': { minutes: 0.5, risk: 1 },
  'under-load': { minutes: 1, risk: 1, runs: true },
  'one-speed': { minutes: 1, risk: 1, runs: true },
  'charge-lamp': { minutes: 0.5, risk: 1, runs: true },
  'engine-hot': { minutes: 0.5, risk: 1, runs: true },
  'new-belt': { minutes: 0.5, risk: 1 },
  dust: { minutes: 1, risk: 1 },
  flapping: { minutes: 1, risk: 2, runs: true },
  'edge-wear': { minutes: 2, risk: 1 },
  'belt-off': { minutes: 15, risk: 3, runs: true },
  'length-doubt': { minutes: 2, risk: 1 },
  ribs: { minutes: 3, risk: 1 },
  spot: { minutes: 3, risk: 1 },
  surface: { minutes: 1, risk: 1 },
  slack: { minutes: 1, risk: 1 },
  taut: { minutes: 1, risk: 1 },
  wobble: { minutes: 1, risk: 2, runs: true },
  spin: { minutes: 1, risk: 1, beltOff: true },
  rock: { minutes: 1, risk: 1, beltOff: true },
  grooves: { minutes: 2, risk: 1 },
  count: { minutes: 1, risk: 1 },
  straightedge: { minutes: 4, risk: 1 },
  bracket: { minutes: 2, risk: 1 },
  clutch: { minutes: 2, risk: 1, beltOff: true },
  arm: { minutes: 3, risk: 2 },
  'arm-swing': { minutes: 1, risk: 2, runs: true },
  cocked: { minutes: 2, risk: 1 },
};
