/** Lengths as mechanics write them and read them. */
export { parseLength, type LengthReading } from './parse-length';
export {
  formatInches,
  formatInchesDecimal,
  formatLength,
  formatMm,
  inchParts,
  editableLength,
  MM_PER_INCH,
  type InchParts,
  type LengthUnit,
} from './format-length';
