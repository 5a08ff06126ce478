/** What one JSON text may hold before it is parsed. */
export interface JsonBounds {
  /** Objects and lists inside each other. A drive needs 8. */
  depth: number;
  /** Values in all: numbers, texts, lists, objects. */
  values: number;
}

/** A drive at every one of its limits has some 220,000 values. */
export const DRIVE_BOUNDS: JsonBounds = { depth: 40, values: 400_000 };

const [QUOTE, BACKSLASH, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'"\\,[]{}'].map((sign) =>
  sign.charCodeAt(0),
) as [number, number, number, number, number, number, number];

/**
 * Whether a JSON text keeps within `bounds`, found by looking at its signs alone: a text that holds too much is refused
 * before it costs anything. Null where it does; otherwise what is too much. A text that is no JSON may pass: the parser
 * finds that.
 */
export function beyondBounds(text: string, { depth, values }: JsonBounds): string | null {
  let [deep, count, inText] = [0, 1, false];
  for (let k = 0; k < text.length; k += 1) {
    const sign = text.charCodeAt(k);
    if (inText) {
      if (sign === BACKSLASH) k += 1;
      else if (sign === QUOTE) inText = false;
    } else if (sign === QUOTE) inText = true;
    else if (sign === COMMA) count += 1;
    else if (sign === OPEN_LIST || sign === OPEN_OBJECT) {
      deep += 1;
      count += 1;
      if (deep > depth) return `has lists or objects more than ${depth} deep inside each other`;
    } else if (sign === CLOSE_LIST || sign === CLOSE_OBJECT) deep -= 1;
    if (count > values) return `holds more than ${values.toLocaleString('en')} values`;
  }
  return null;
}
