/** What an accessory gives and takes at its own speed, and the engine's marks that it is looked at by. */
export { DEFAULT_HUB_LIMITS, limitOrDefault, writtenLimit, type LimitOf } from './hub-limits';
export { DEFAULT_MARKS, marksOf, type EngineMarks } from './marks';
export { breakEvenRpm, cubedPower, loadOf, outputAt } from './output';
export {
  ALTERNATOR_EFFICIENCY,
  CHARGING_VOLTS,
  stateChosen,
  torqueOfPower,
  torqueStates,
  type LoadChoice,
  type TorqueSource,
  type TorqueState,
} from './torque';
