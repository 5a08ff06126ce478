/**
 * The same sum, done once for the same input whoever asks for it: several parts of a stage show what one drive comes
 * to. What it came to is kept for the last few inputs, each told by its parts being the very same.
 */
export function once<Input extends readonly unknown[], Output>(
  sum: (...input: Input) => Output,
  keeps = 4,
): (...input: Input) => Output {
  const known: { input: Input; output: Output }[] = [];
  return (...input) => {
    const found = known.find(
      (before) => before.input.length === input.length && before.input.every((part, at) => Object.is(part, input[at])),
    );
    if (found) return found.output;
    const output = sum(...input);
    known.unshift({ input, output });
    known.length = Math.min(known.length, keeps);
    return output;
  };
}
