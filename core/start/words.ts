import { type Drive, pulleyLabel } from '../drive';
import type { NextAsk } from './next';

/** What comes next, in one line, and what the button that leads there says. */
export function nextWords(drive: Drive, ask: NextAsk): { line: string; button: string } {
  const belt = 'belt' in ask ? drive.belts.findIndex(({ id }) => id === ask.belt) : 0;
  const name = drive.belts.length > 1 ? `belt ${belt + 1}` : 'the belt';
  switch (ask.code) {
    case 'crank':
      return { line: 'Put the crank in first: all is measured from it.', button: 'Put the crank in' };
    case 'pulleys':
      return { line: 'Add the next pulley, roughly where it sits.', button: 'Add pulley' };
    case 'diameter': {
      const { surface } = drive.stations.flatMap(({ pulleys }) => pulleys).find(({ id }) => id === ask.pulley)!;
      return surface === 'toothed'
        ? { line: `Count the teeth of ${pulleyLabel(drive, ask.pulley)}.`, button: 'Count the teeth' }
        : { line: `Measure across ${pulleyLabel(drive, ask.pulley)}.`, button: 'Measure it' };
    }
    case 'tape':
      return {
        line: `Take ${ask.left === 1 ? '1 more tape' : `${ask.left} tapes`} between the pulleys.`,
        button: 'Read a tape',
      };
    case 'route':
      return { line: `Say how ${name} runs: tap its pulleys in order.`, button: 'Tap the route' };
    case 'route-open':
      return { line: `Put the route of ${name} right: no belt goes round it yet.`, button: 'See the route' };
    case 'adjuster':
      return { line: `Say what tightens ${name}, or that nothing does.`, button: 'Say it' };
    case 'length':
      return { line: `Take a length for ${name}.`, button: 'See the lengths' };
  }
}
