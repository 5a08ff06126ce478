import { type Drive, pulleyLabel } from '../drive';
import type { NextAsk } from './next';

/** What comes next, in one line, and what the button that leads there says. */
export function nextWords(drive: Drive, ask: NextAsk): { line: string; button: string } {
  const belt = 'belt' in ask ? drive.belts.findIndex(({ id }) => id === ask.belt) : 0;
  const name = drive.belts.length > 1 ? `belt ${belt + 1}` : 'the belt';
  switch (ask.code) {
    case 'crank':
      return { line: 'Add the crank first: everything is measured from it.', button: 'Add the crank' };
    case 'pulleys':
      return { line: 'Add the next pulley, roughly where it sits.', button: 'Add pulley' };
    case 'diameter': {
      const { surface } = drive.stations.flatMap(({ pulleys }) => pulleys).find(({ id }) => id === ask.pulley)!;
      return surface === 'toothed'
        ? { line: `Count the teeth of ${pulleyLabel(drive, ask.pulley)}.`, button: 'Count the teeth' }
        : { line: `Measure the diameter of ${pulleyLabel(drive, ask.pulley)}.`, button: 'Measure it' };
    }
    case 'tape':
      return {
        line: `Take ${ask.left === 1 ? '1 more tape' : `${ask.left} tapes`} between the pulleys.`,
        button: 'Read a tape',
      };
    case 'route':
      return { line: `Tap the pulleys of ${name} in order.`, button: 'Tap the route' };
    case 'route-open':
      return { line: `Correct the route of ${name}: no belt goes round it yet.`, button: 'See route' };
    case 'adjuster':
      return { line: `Choose what tightens ${name}, or fixed centres.`, button: 'Choose' };
    case 'length':
      return { line: `Choose a length for ${name}.`, button: 'See lengths' };
  }
}
