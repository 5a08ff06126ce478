/** Lengths as mechanics write them and read them. */
export {
  editableNumber,
  odometerDoubt,
  odometerDoubtWords,
  readNumber,
  twoWays,
  type NumberReading,
  type NumberWanted,
} from './number';
export { csvCell, textOfCell } from './csv-cell';
export { N_PER_KGF, N_PER_LBF, parseForce, type ForceReading, type ForceUnit } from './force';
export {
  DEFAULT_HABITS,
  type DistanceUnit,
  fixed,
  grouped,
  type Habits,
  habitsNow,
  readHabits,
  setHabits,
  written,
} from './habits';
export { capital, plural, uncapital } from './words';
export { mixedUnits, parseLength, type LengthReading } from './parse-length';
export {
  formatInches,
  formatInchesDecimal,
  formatLength,
  formatMm,
  inchParts,
  editableLength,
  readsAs,
  MM_PER_INCH,
  type InchParts,
  type LengthUnit,
} from './format-length';
export {
  editableTorque,
  formatTorque,
  parseTorque,
  torqueFigure,
  TORQUE_UNIT_WORDS,
  TORQUE_UNITS,
  type TorqueReading,
  type TorqueUnit,
} from './torque';
export { bytesText } from './bytes';
export { DAY_MS, utcDay } from './days';
