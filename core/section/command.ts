import type { Command } from '../command';
import { readMarking } from './marking';

/** `marking "TEXT"`: what is printed on a belt, read in the general schemes, best first. */
export const markingCommand: Command<string> = {
  name: 'marking',
  usage: 'emery marking "TEXT"',
  options: [],
  prepare: () => (text) => ({ readings: readMarking(text) }),
};
