import { type Command, noBelt } from '../command';
import type { Drive } from '../drive';
import { bringList } from './bring';
import { cardOf } from './card';
import { jobMessage } from './words';

/** `job FILE [--belt ID]`: the order in which belts come off and go on, and the work written out. */
export const jobCommand: Command<Drive> = {
  name: 'job',
  usage: 'emery job FILE [--belt ID]',
  options: ['belt'],
  prepare:
    ({ belt }) =>
    (drive) => {
      if (belt !== undefined && !drive.belts.some(({ id }) => id === belt)) throw noBelt(belt, drive);
      const { order, steps, findings } = cardOf(drive, belt);
      return {
        off: order.off,
        on: order.on,
        steps: steps.map(({ id, phase, text, caution }) => ({ id, phase, text, caution })),
        bring: bringList(drive, order).belts.map(({ belt: id, from, lengthMm, plain, markings, misfit }) => ({
          belt: id,
          from,
          lengthMm,
          plain,
          marking: markings[0]?.text ?? null,
          ...(misfit && { misfit }),
        })),
        findings: findings.map((finding) => ({ ...finding, message: jobMessage(drive, finding) })),
      };
    },
};
