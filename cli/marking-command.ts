import { readMarking } from '@emery/core/section';
import { UsageProblem } from './usage-problem';

/** `marking "TEXT"`: what is printed on a belt, read in the general schemes, best first. */
export function markingCommand(args: string[]): string {
  const [text, ...more] = args;
  if (text === undefined || more.length > 0) throw new UsageProblem('usage: emery marking "TEXT"');
  return `${JSON.stringify({ readings: readMarking(text) }, null, 2)}\n`;
}
