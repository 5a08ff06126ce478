/** What a command of the command line is, whatever it works on. */
import { noBeltWords } from './words';

/** The user called a command wrongly. The message names the argument or field, and what is accepted. */
export class UsageProblem extends Error {}

/** The drive has no belt of that id. */
export const noBelt = (id: string, { belts }: { belts: readonly { id: string }[] }): UsageProblem =>
  new UsageProblem(noBeltWords(id, belts));

/** The options of a call, by name without the dashes. */
export type OptionValues = Readonly<Record<string, string | undefined>>;

/** A command over `Input`: a drive, or the text of a marking. */
export interface Command<Input> {
  name: string;
  /** As it is called, from `emery` on. */
  usage: string;
  /** The names of the options it takes. */
  options: readonly string[];
  /** Those that stand alone, without a value; given, they read `yes`. */
  flags?: readonly string[];
  /** Reads the options and gives what makes the answer, as JSON. Throws a `UsageProblem`, at once or later. */
  prepare: (options: OptionValues, usage: UsageProblem) => (input: Input) => object;
}

/** The numbers of a list such as `a,b,c`; `bad` makes the message for one that is none, or is not accepted. */
export function numbersIn(text: string, accepted: (value: number) => boolean, bad: (part: string) => string): number[] {
  return text.split(',').map((part) => {
    const value = Number(part);
    if (part.trim() === '' || !Number.isFinite(value) || !accepted(value)) throw new UsageProblem(bad(part));
    return value;
  });
}
