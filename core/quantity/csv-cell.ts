/** Signs that a spreadsheet takes for the start of a formula. */
const FORMULA = /^'*[=+\-@\t]/;

/**
 * A text as a cell of a list carries it: one that a spreadsheet would take for a formula is marked as text, and
 * `textOfCell` takes the mark off again.
 */
export const csvCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);

export const textOfCell = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
