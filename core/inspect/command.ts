import { type Command, numbersIn, UsageProblem } from '../command';
import type { Drive } from '../drive';
import { solveDrive } from '../path';
import { inspectFindings } from './findings';
import { replaceTogether } from './together';
import { inspectDrive, type Judged } from './verdicts';
import { inspectMessage, judgedWords } from './words';

/** `inspect FILE [--odometer N]`: what to keep, watch and change, how long it has left, what goes together. */
export const inspectCommand: Command<Drive> = {
  name: 'inspect',
  usage: 'emery inspect FILE [--odometer N]',
  options: ['odometer'],
  prepare: ({ odometer: asked }) => {
    const numbers =
      asked === undefined
        ? []
        : numbersIn(
            asked,
            (value) => value >= 0 && value <= 1e7,
            (part) => `--odometer: "${part}" is no reading of an odometer, from 0 to 10000000`,
          );
    if (numbers.length > 1) throw new UsageProblem('--odometer: one reading, such as 148230');
    return (drive) => answer(drive, numbers[0]);
  },
};

function answer(drive: Drive, odometer: number | undefined) {
  const items = inspectDrive(drive, odometer);
  const groups = replaceTogether(drive, items);
  return {
    items: items.map(({ on, target, verdict, reasons, judged, missing, skipped, wear, life, age, due }) => ({
      on,
      target,
      verdict,
      reasons,
      left: wear?.left ? { distance: wear.left.distance, plusMinus: wear.left.plusMinus } : null,
      ...(wear?.left && {
        forecast: {
          check: wear.check,
          from: wear.left.from,
          to: wear.left.to,
          day: wear.left.day,
          rate: wear.line!.rate,
          bend: wear.bend && { power: wear.bend.power },
        },
      }),
      ...(life && { life }),
      ...(age && { age }),
      ...(due && { due }),
      found: judged.map(withWords),
      missing,
      skipped: skipped !== null,
    })),
    replaceTogether: groups.map(({ targets }) => targets),
    findings: inspectFindings(drive, items, solveDrive(drive)).map((finding) => ({
      ...finding,
      message: inspectMessage(drive, finding),
    })),
  };
}

const withWords = (judged: Judged) => {
  const { code, grade, value, finding, limits, from } = judged;
  return {
    check: code,
    grade,
    ...(value !== undefined && { value }),
    ...(finding?.outcome !== undefined && { outcome: finding.outcome }),
    // A limit of a check that never condemns has no end.
    ...(limits && {
      limit: {
        watch: limits.watch,
        ...(limits.replace !== null && { replace: limits.replace }),
        from: limits.from,
      },
    }),
    from,
    text: judgedWords(judged),
  };
};
