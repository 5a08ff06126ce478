/** What is remembered of a drive and what is due on it; the lives of belts over the whole shop. */
export {
  DUE_KINDS,
  DUE_STATE_WORDS,
  dueBy,
  duesOf,
  dueState,
  expectedOf,
  SOON_DAYS,
  soonFrom,
  type Due,
  type DueKind,
  type DueState,
  type Expected,
} from './due';
export { cardBelts, essentialsOf, MOST_ESSENTIALS, releasesOf, type CardBelt } from './essentials';
export { kindOfBelt, livesOf, ranKm, type BeltLife } from './lives';
export { memoryOf, odometerReadings, type DriveMemory } from './memory';
export { queryWords, readBeltQuery, type BeltQuery } from './query';
export {
  latestFirst,
  STORY_COLUMNS,
  STORY_KINDS,
  storyOf,
  storyRow,
  tensionSittings,
  type StoryEntry,
  type StoryKind,
  type TensionSitting,
} from './story';
export { survivalOf, type Ran, type Survival, type SurvivalStep } from './survival';
export { dayAt, dayOf, DEFAULT_KM_A_DAY, usualUse, type OdometerReading, type UsualUse } from './use';
