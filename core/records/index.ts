/** What is remembered of a drive and what is due on it; the lives of belts over the whole shop. */
export {
  DUE_STATE_WORDS,
  dueBy,
  dueState,
  expectedOf,
  listedUntil,
  SOON_DAYS,
  soonFrom,
  type Due,
  type DueKind,
} from './due-state';
export { cardBelts, essentialsOf, MOST_ESSENTIALS, releasesOf } from './essentials';
export {
  beltsMeant,
  HISTORY_COLUMNS,
  historyText,
  readHistoryRow,
  withHistory,
  type HistoryColumn,
  type HistoryRow,
} from './history';
export { namedByKind } from './belt-names';
export { kindOfBelt, ranKm, type BeltLife } from './lives';
export { memoryOf, odometerReadings, type DriveMemory } from './memory';
export { queryWords, readBeltQuery, type BeltQuery } from './query';
export { STORY_COLUMNS, tensionSittings, type StoryKind, type TensionSitting } from './story';
export { survivalOf, type Survival } from './survival';
export { DEFAULT_KM_A_YEAR, usualUse } from './use';
