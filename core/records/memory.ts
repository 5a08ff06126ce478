import { type Drive, momentOf } from '../drive';
import { duesOf } from './due';
import type { Due } from './due-state';
import { type BeltLife, livesOf } from './lives';
import { type Sitting, sittingsOf } from '../size';
import { type StoryEntry, storyOf } from './story';

/** All that a shop remembers of a drive besides the drive itself, for its lists and searches. */
export interface DriveMemory {
  dues: Due[];
  lives: BeltLife[];
  story: StoryEntry[];
  /** How its belts sat and grew. */
  sittings: Sitting[];
}

export function memoryOf(drive: Drive): DriveMemory {
  return {
    dues: duesOf(drive),
    lives: livesOf(drive),
    story: storyOf(drive),
    sittings: sittingsOf(drive),
  };
}

/** The dated readings of the odometer in what is remembered, in the vehicle's own unit. */
export function odometerReadings({ story, lives }: Pick<DriveMemory, 'story' | 'lives'>, unit: BeltLife['unit']) {
  const ofLives = lives.flatMap(({ from, to, unit: counts }) =>
    [from, ...(to ? [to] : [])].map((end) => ({ ...end, unit: counts })),
  );
  const ofStory = story.map(({ at, odometer, unit: counts }) => ({
    at: momentOf(at ?? undefined),
    odometer,
    unit: counts,
  }));
  return [...ofStory, ...ofLives].flatMap(({ at, odometer, unit: counts }) =>
    at !== null && odometer !== null && (counts ?? unit) === unit ? [{ at, odometer }] : [],
  );
}
