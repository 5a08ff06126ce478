/** Two people at one drive: what each did as changes, and one drive from both. */
export { applied, type ClashWhy, forced, lookedUp } from './apply';
export { type Change, digest, type Way, isAdd, isDrop, isOrder } from './change';
export { changesBetween } from './changes-between';
export { type Clash, merged, type Merged, withMine } from './merge';
export { meet, type Question, questionsOf, type Version } from './question';
export {
  answered,
  caughtUp,
  type Device,
  hears,
  isUnsent,
  type Kept,
  keptOf,
  overUnseen,
  type Patch,
  type PatchAnswer,
  refused,
  resumed,
  sending,
  startDevice,
} from './device';
export { readChanges } from './read-changes';
