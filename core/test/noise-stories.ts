import type { NoiseCause, NoiseTest } from '../drive';

/*
 * Noises as they come into a workshop, with what was seen, heard and tried in the order it was, and what it was in the
 * end. Written from how such faults show themselves, and not from the table that weighs them.
 */

/** `[test, outcome]` of the whole drive, `[test, outcome, part]` at a pulley or a belt. */
export type Clue = readonly [NoiseTest, string, string?];

export interface NoiseStory {
  drive: 'rescue' | 'pickup' | 'groomer' | 'climb';
  told: string;
  clues: readonly Clue[];
  /** What it was: a cause, with its part where the clues can tell it. `elsewhere` is no part of the drive. */
  truth: readonly [NoiseCause | 'elsewhere', string?];
  /** Tests of which one at least should be among the first five that are proposed. */
  next?: readonly NoiseTest[];
  /** Tests that must not be proposed any more. */
  never?: readonly NoiseTest[];
}

const RUNNING: readonly NoiseTest[] = [
  'kind',
  'repeat',
  'water',
  'under-load',
  'one-speed',
  'flapping',
  'wobble',
  'arm-swing',
  'belt-off',
];

export const NOISE_STORIES: readonly NoiseStory[] = [
  // A serpentine on a sprung arm.
  {
    drive: 'rescue',
    told: 'Chirps at idle since the alternator was changed.',
    clues: [
      ['kind', 'chirp'],
      ['water', 'quiet-then-back'],
      ['straightedge', 'off', 'alt-1'],
    ],
    truth: ['misaligned', 'alt-1'],
  },
  {
    drive: 'rescue',
    told: 'Squeals on cold mornings and the charge lamp flickers.',
    clues: [
      ['kind', 'squeal'],
      ['only-cold', 'yes'],
      ['charge-lamp', 'yes'],
      ['water', 'louder'],
      ['arm-swing', 'yes', 'ten-1'],
    ],
    truth: ['arm-weak', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Squeals at full lock; the arm does not come back.',
    clues: [
      ['kind', 'squeal'],
      ['under-load', 'yes'],
      ['arm', 'binds', 'ten-1'],
    ],
    truth: ['arm-stuck', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Growls all the time; the water pump is rough by hand.',
    clues: [
      ['kind', 'rumble'],
      ['water', 'no-change'],
      ['spin', 'grinds', 'pump-1'],
    ],
    truth: ['bearing', 'pump-1'],
    never: ['water', 'kind'],
  },
  {
    drive: 'rescue',
    told: 'A growl that the microphone takes for the alternator’s bearing.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'bearing', 'alt-1'],
      ['water', 'no-change'],
    ],
    truth: ['bearing', 'alt-1'],
    next: ['spin', 'rock'],
  },
  {
    drive: 'rescue',
    told: 'Chirps with the wheel turned, quiet for a minute when wet; the steering pump rocks and grinds.',
    clues: [
      ['kind', 'chirp'],
      ['under-load', 'yes'],
      ['water', 'quiet-then-back'],
      ['rock', 'yes', 'steer-1'],
      ['spin', 'grinds', 'steer-1'],
    ],
    truth: ['bearing', 'steer-1'],
  },
  {
    drive: 'rescue',
    told: 'Oil from the cover has run onto the belt; it squeals.',
    clues: [
      ['kind', 'squeal'],
      ['surface', 'oily', 'main'],
      ['under-load', 'yes'],
    ],
    truth: ['contaminated', 'main'],
  },
  {
    drive: 'rescue',
    told: 'Somebody sprayed dressing; it chirped again within a week.',
    clues: [
      ['kind', 'chirp'],
      ['surface', 'dressed', 'main'],
      ['ribs', 'sound', 'main'],
      ['straightedge', 'in-line', 'alt-1'],
    ],
    truth: ['contaminated', 'main'],
  },
  {
    drive: 'rescue',
    told: 'Squeals since a new belt went on; the label does not read as the old one did.',
    clues: [
      ['kind', 'squeal'],
      ['new-belt', 'began-with-it', 'main'],
      ['length-doubt', 'yes', 'main'],
      ['slack', 'yes', 'main'],
    ],
    truth: ['wrong-length', 'main'],
  },
  {
    drive: 'rescue',
    told: 'Chirps since a new belt went on; it sits a rib over on the alternator.',
    clues: [
      ['kind', 'chirp'],
      ['new-belt', 'began-with-it', 'main'],
      ['count', 'off', 'alt-1'],
    ],
    truth: ['wrong-groove', 'alt-1'],
    never: RUNNING,
  },
  {
    drive: 'rescue',
    told: 'Ticks; a piece of rib is gone.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'belt', 'main'],
      ['spot', 'yes', 'main'],
    ],
    truth: ['belt-spot', 'main'],
  },
  {
    drive: 'rescue',
    told: 'Thumps with every belt turn, wet or dry, a month after a gravel road.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'belt', 'main'],
      ['water', 'no-change'],
    ],
    truth: ['belt-spot', 'main'],
    next: ['spot'],
  },
  {
    drive: 'rescue',
    told: 'Squeals in the wet, ribs polished and worn.',
    clues: [
      ['kind', 'squeal'],
      ['only-wet', 'yes'],
      ['ribs', 'worn', 'main'],
      ['arm', 'smooth', 'ten-1'],
    ],
    truth: ['worn-belt', 'main'],
  },
  {
    drive: 'rescue',
    told: 'The crank’s rim weaves; it chirps once a turn of it.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'pulley', 'crank-1'],
      ['wobble', 'yes', 'crank-1'],
    ],
    truth: ['hub-wobble', 'crank-1'],
    never: RUNNING,
  },
  {
    drive: 'rescue',
    told: 'Growls the same with the belt off.',
    clues: [
      ['kind', 'rumble'],
      ['belt-off', 'stays', 'main'],
      ['one-speed', 'no'],
    ],
    truth: ['elsewhere'],
    never: ['water', 'flapping', 'under-load', 'arm-swing'],
  },
  {
    drive: 'rescue',
    told: 'Knocks once a turn of the crank, and still does with the belt off.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'pulley', 'crank-1'],
      ['belt-off', 'stays', 'main'],
    ],
    truth: ['hub-wobble', 'crank-1'],
    never: ['water'],
    next: ['wobble'],
  },
  {
    drive: 'rescue',
    told: 'Growls, water does nothing, gone with the belt off.',
    clues: [
      ['kind', 'rumble'],
      ['water', 'no-change'],
      ['belt-off', 'gone', 'main'],
    ],
    truth: ['bearing'],
    next: ['spin', 'rock'],
    never: ['water'],
  },
  {
    drive: 'rescue',
    told: 'Rattles at idle and the span slaps; the alternator’s pulley is locked both ways.',
    clues: [
      ['kind', 'rumble'],
      ['flapping', 'yes', 'main'],
      ['clutch', 'locked', 'alt-1'],
    ],
    truth: ['one-way-clutch', 'alt-1'],
  },
  {
    drive: 'rescue',
    told: 'The charge lamp glows; the alternator’s pulley turns free both ways.',
    clues: [
      ['kind', 'squeal'],
      ['charge-lamp', 'yes'],
      ['clutch', 'slips', 'alt-1'],
    ],
    truth: ['one-way-clutch', 'alt-1'],
  },
  {
    drive: 'rescue',
    told: 'Chirps only when the wheel is turned; the pump’s bracket gives to a hand.',
    clues: [
      ['kind', 'chirp'],
      ['under-load', 'yes'],
      ['bracket', 'moves', 'steer-1'],
    ],
    truth: ['bracket-flex', 'steer-1'],
  },
  {
    drive: 'rescue',
    told: 'The roller leans and the belt’s edge is frayed.',
    clues: [
      ['kind', 'chirp'],
      ['edge-wear', 'yes', 'main'],
      ['cocked', 'yes', 'ten-1'],
    ],
    truth: ['arm-cocked', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Ticks once a turn of the compressor; rust in its grooves.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'pulley', 'ac-1'],
      ['grooves', 'grit', 'ac-1'],
    ],
    truth: ['debris', 'ac-1'],
  },
  {
    drive: 'rescue',
    told: 'The belt is slack on its arm; the arm swings but moves freely.',
    clues: [
      ['kind', 'squeal'],
      ['slack', 'yes', 'main'],
      ['arm', 'smooth', 'ten-1'],
      ['arm-swing', 'yes', 'ten-1'],
    ],
    truth: ['arm-weak', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Squeals, louder when wet, the belt is slack though an arm keeps it.',
    clues: [
      ['kind', 'squeal'],
      ['water', 'louder'],
      ['slack', 'yes', 'main'],
    ],
    truth: ['arm-weak', 'ten-1'],
    next: ['arm', 'arm-swing', 'length-doubt'],
  },
  {
    drive: 'rescue',
    told: 'Growls once everything is hot.',
    clues: [
      ['kind', 'rumble'],
      ['only-hot', 'yes'],
      ['water', 'no-change'],
    ],
    truth: ['bearing'],
    next: ['spin', 'rock', 'repeat'],
  },
  {
    drive: 'rescue',
    told: 'Chirps with the firing, the same wet or dry: a joint of the exhaust.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'engine'],
      ['water', 'no-change'],
    ],
    truth: ['elsewhere'],
  },
  {
    drive: 'rescue',
    told: 'The tensioner’s roller spins on and on.',
    clues: [
      ['kind', 'rumble'],
      ['spin', 'freewheels', 'ten-1'],
      ['spin', 'quiet', 'pump-1'],
    ],
    truth: ['bearing', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Howls; the belt is like a string; the arm is stuck.',
    clues: [
      ['kind', 'whine'],
      ['taut', 'yes', 'main'],
      ['arm', 'stuck', 'ten-1'],
    ],
    truth: ['arm-stuck', 'ten-1'],
  },
  {
    drive: 'rescue',
    told: 'Chirps in damp weather, rubber dust and a worn edge.',
    clues: [
      ['kind', 'chirp'],
      ['dust', 'yes', 'main'],
      ['edge-wear', 'yes', 'main'],
      ['water', 'quiet-then-back'],
    ],
    truth: ['misaligned'],
    next: ['straightedge', 'count', 'cocked'],
  },
  {
    drive: 'rescue',
    told: 'Back after two new belts; water quiets it for a minute.',
    clues: [
      ['kind', 'chirp'],
      ['new-belt', 'quiet-then-back', 'main'],
      ['water', 'quiet-then-back'],
    ],
    truth: ['misaligned'],
    next: ['straightedge', 'repeat'],
  },
  {
    drive: 'rescue',
    told: 'Wet or dry the same growl; the compressor’s pulley rocks.',
    clues: [
      ['kind', 'rumble'],
      ['water', 'no-change'],
      ['rock', 'yes', 'ac-1'],
    ],
    truth: ['bearing', 'ac-1'],
  },
  {
    drive: 'rescue',
    told: 'Squeals at start; the arm gives to a hand, hardly springs back.',
    clues: [
      ['kind', 'squeal'],
      ['only-cold', 'yes'],
      ['arm-swing', 'yes', 'ten-1'],
      ['ribs', 'sound', 'main'],
    ],
    truth: ['arm-weak', 'ten-1'],
  },

  // Two V-belts, set by a slot.
  {
    drive: 'pickup',
    told: 'Screams with the lamps on; the outer belt gives to a thumb.',
    clues: [
      ['kind', 'squeal'],
      ['under-load', 'yes'],
      ['slack', 'yes', 'outer'],
      ['water', 'louder'],
    ],
    truth: ['loose', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'Screams at start and the lamp glows; the inner belt is slack.',
    clues: [
      ['kind', 'squeal'],
      ['charge-lamp', 'yes'],
      ['slack', 'yes', 'inner'],
    ],
    truth: ['loose', 'inner'],
  },
  {
    drive: 'pickup',
    told: 'Whines since it was set with a bar.',
    clues: [
      ['kind', 'whine'],
      ['taut', 'yes', 'inner'],
      ['water', 'no-change'],
    ],
    truth: ['tight', 'inner'],
  },
  {
    drive: 'pickup',
    told: 'Growls; the alternator grinds by hand.',
    clues: [
      ['kind', 'rumble'],
      ['spin', 'grinds', 'alt-1'],
    ],
    truth: ['bearing', 'alt-1'],
  },
  {
    drive: 'pickup',
    told: 'Chirps at idle; the vacuum pump stands out.',
    clues: [
      ['kind', 'chirp'],
      ['straightedge', 'off', 'vac-1'],
      ['water', 'quiet-then-back'],
    ],
    truth: ['misaligned', 'vac-1'],
  },
  {
    drive: 'pickup',
    told: 'Growls, wet or dry; the vacuum pump rocks.',
    clues: [
      ['kind', 'rumble'],
      ['rock', 'yes', 'vac-1'],
      ['water', 'no-change'],
    ],
    truth: ['bearing', 'vac-1'],
  },
  {
    drive: 'pickup',
    told: 'Squeals; the outer belt is cracked all along.',
    clues: [
      ['kind', 'squeal'],
      ['ribs', 'cracked', 'outer'],
      ['slack', 'no', 'outer'],
    ],
    truth: ['worn-belt', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'Squeals; the vacuum pump leaks onto the outer belt.',
    clues: [
      ['kind', 'squeal'],
      ['surface', 'oily', 'outer'],
      ['slack', 'no', 'outer'],
    ],
    truth: ['contaminated', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'Thumps with each turn of the outer belt: a lump at the splice.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'belt', 'outer'],
      ['spot', 'yes', 'outer'],
    ],
    truth: ['belt-spot', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'Chirps when the lamps go on; the alternator’s bolt is loose.',
    clues: [
      ['kind', 'chirp'],
      ['under-load', 'yes'],
      ['bracket', 'moves', 'alt-1'],
    ],
    truth: ['bracket-flex', 'alt-1'],
  },
  {
    drive: 'pickup',
    told: 'Since the new outer belt; there is no slot left.',
    clues: [
      ['kind', 'squeal'],
      ['new-belt', 'began-with-it', 'outer'],
      ['length-doubt', 'yes', 'outer'],
    ],
    truth: ['wrong-length', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'A month after the new belt; nobody set it again.',
    clues: [
      ['kind', 'squeal'],
      ['new-belt', 'quiet-then-back', 'outer'],
      ['slack', 'yes', 'outer'],
      ['under-load', 'yes'],
    ],
    truth: ['loose', 'outer'],
  },
  {
    drive: 'pickup',
    told: 'Growls once a turn of the vacuum pump, gone with its belt off.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'pulley', 'vac-1'],
      ['belt-off', 'gone', 'outer'],
    ],
    truth: ['bearing', 'vac-1'],
    next: ['spin', 'rock'],
  },
  {
    drive: 'pickup',
    told: 'The pump’s hub weaves.',
    clues: [
      ['kind', 'chirp'],
      ['wobble', 'yes', 'pump-1'],
    ],
    truth: ['hub-wobble', 'pump-1'],
    never: RUNNING,
  },
  {
    drive: 'pickup',
    told: 'Runs hot and squeals; the inner belt is slack.',
    clues: [
      ['kind', 'squeal'],
      ['engine-hot', 'yes'],
      ['slack', 'yes', 'inner'],
    ],
    truth: ['loose', 'inner'],
  },
  {
    drive: 'pickup',
    told: 'Squeals in rain; the inner belt slips on worn flanks.',
    clues: [
      ['kind', 'squeal'],
      ['only-wet', 'yes'],
      ['ribs', 'worn', 'inner'],
      ['slack', 'no', 'inner'],
    ],
    truth: ['worn-belt', 'inner'],
  },
  {
    drive: 'pickup',
    told: 'Neither belt slack nor worn; it chirps with the exhaust.',
    clues: [
      ['repeat', 'engine'],
      ['water', 'no-change'],
      ['slack', 'no', 'inner'],
      ['slack', 'no', 'outer'],
    ],
    truth: ['elsewhere'],
  },

  // A jackshaft with two belts.
  {
    drive: 'groomer',
    told: 'The generator growls and grinds by hand.',
    clues: [
      ['kind', 'rumble'],
      ['spin', 'grinds', 'gen-1'],
    ],
    truth: ['bearing', 'gen-1'],
  },
  {
    drive: 'groomer',
    told: 'The idler rocks and growls.',
    clues: [
      ['kind', 'rumble'],
      ['rock', 'yes', 'idler-1'],
      ['spin', 'grinds', 'idler-1'],
    ],
    truth: ['bearing', 'idler-1'],
  },
  {
    drive: 'groomer',
    told: 'The jackshaft was shimmed; now it chirps.',
    clues: [
      ['kind', 'chirp'],
      ['straightedge', 'off', 'jack-1'],
      ['water', 'quiet-then-back'],
    ],
    truth: ['misaligned', 'jack-1'],
  },
  {
    drive: 'groomer',
    told: 'The second belt is slack and screams under the air pump.',
    clues: [
      ['kind', 'squeal'],
      ['under-load', 'yes'],
      ['slack', 'yes', 'second'],
    ],
    truth: ['loose', 'second'],
  },
  {
    drive: 'groomer',
    told: 'Oil on the first belt.',
    clues: [
      ['kind', 'squeal'],
      ['surface', 'oily', 'first'],
    ],
    truth: ['contaminated', 'first'],
  },
  {
    drive: 'groomer',
    told: 'The air pump’s bracket moves; it chirps under load.',
    clues: [
      ['kind', 'chirp'],
      ['under-load', 'yes'],
      ['bracket', 'moves', 'air-1'],
    ],
    truth: ['bracket-flex', 'air-1'],
  },
  {
    drive: 'groomer',
    told: 'Screams in wet snow; the first belt gives to a thumb.',
    clues: [
      ['kind', 'squeal'],
      ['only-wet', 'yes'],
      ['slack', 'yes', 'first'],
    ],
    truth: ['loose', 'first'],
  },
  {
    drive: 'groomer',
    told: 'The second belt is worn; dust everywhere.',
    clues: [
      ['kind', 'squeal'],
      ['dust', 'yes', 'second'],
      ['ribs', 'worn', 'second'],
      ['slack', 'no', 'second'],
    ],
    truth: ['worn-belt', 'second'],
  },
  {
    drive: 'groomer',
    told: 'Ticks once a turn of the air pump; a stone in its groove.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'pulley', 'air-1'],
      ['grooves', 'grit', 'air-1'],
    ],
    truth: ['debris', 'air-1'],
  },
  {
    drive: 'groomer',
    told: 'A growl that the microphone takes for the jackshaft’s bearing.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'bearing', 'jack-1'],
    ],
    truth: ['bearing', 'jack-1'],
    next: ['spin', 'rock', 'water', 'belt-off'],
  },

  // Teeth.
  {
    drive: 'climb',
    told: 'Whines once a tooth; the belt is like a string.',
    clues: [
      ['kind', 'whine'],
      ['repeat', 'tooth', 'main'],
      ['taut', 'yes', 'main'],
    ],
    truth: ['tight', 'main'],
  },
  {
    drive: 'climb',
    told: 'Whines when hot.',
    clues: [
      ['kind', 'whine'],
      ['only-hot', 'yes'],
      ['taut', 'yes', 'main'],
    ],
    truth: ['tight', 'main'],
  },
  {
    drive: 'climb',
    told: 'The belt climbs and wears its edge; the idler stands off.',
    clues: [
      ['edge-wear', 'yes', 'main'],
      ['straightedge', 'off', 'idler-1'],
      ['kind', 'chirp'],
    ],
    truth: ['misaligned', 'idler-1'],
  },
  {
    drive: 'climb',
    told: 'The blower growls, heard as a bearing.',
    clues: [
      ['kind', 'rumble'],
      ['repeat', 'bearing', 'blower-1'],
      ['water', 'no-change'],
    ],
    truth: ['bearing', 'blower-1'],
    next: ['spin', 'rock'],
  },
  {
    drive: 'climb',
    told: 'Ticks once a belt turn; a tooth is damaged.',
    clues: [
      ['kind', 'chirp'],
      ['repeat', 'belt', 'main'],
      ['spot', 'yes', 'main'],
    ],
    truth: ['belt-spot', 'main'],
  },
  {
    drive: 'climb',
    told: 'The belt has oil on it.',
    clues: [
      ['kind', 'squeal'],
      ['surface', 'oily', 'main'],
    ],
    truth: ['contaminated', 'main'],
  },
  {
    drive: 'climb',
    told: 'The belt is slack and flaps.',
    clues: [
      ['flapping', 'yes', 'main'],
      ['slack', 'yes', 'main'],
      ['kind', 'squeal'],
    ],
    truth: ['loose', 'main'],
  },
  {
    drive: 'climb',
    told: 'The blower’s bracket moves under load.',
    clues: [
      ['kind', 'chirp'],
      ['under-load', 'yes'],
      ['bracket', 'moves', 'blower-1'],
    ],
    truth: ['bracket-flex', 'blower-1'],
  },
];
