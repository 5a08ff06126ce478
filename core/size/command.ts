import { type Command, numbersIn, noBelt } from '../command';
import type { Drive } from '../drive';
import { answerFor } from './answer';
import { sizeMessage } from './words';

/**
 * `size FILE --belt ID [--lengths a,b,c]`: the adjuster's window and how each length of belt would sit, by the answer
 * that the bench shows.
 */
export const sizeCommand: Command<Drive> = {
  name: 'size',
  usage: 'emery size FILE --belt ID [--lengths a,b,c]',
  options: ['belt', 'lengths'],
  prepare: ({ belt, lengths: asked }, usage) => {
    if (belt === undefined) throw usage;
    const lengths =
      asked === undefined
        ? undefined
        : numbersIn(
            asked,
            (mm) => mm > 0,
            (part) => `--lengths: "${part}" is not a length in mm; write such as 1750,1755.5`,
          );
    return (drive) => {
      const answer = answerFor(drive, belt, lengths ? { lengths } : {});
      if (!answer) throw noBelt(belt, drive);
      const { window, candidates, findings, lastOn, release, best, pair, layout, tried, service } = answer;
      const withWords = (list: typeof findings) =>
        list.map((finding) => ({ ...finding, message: sizeMessage(finding) }));
      return {
        window,
        candidates: candidates.map(({ fraction: _share, ...candidate }) => ({
          ...candidate,
          findings: withWords(candidate.findings),
        })),
        findings: withWords(findings),
        lastOn,
        release,
        best,
        pair,
        layout,
        ...(tried.length > 0 && { tried, service }),
      };
    };
  },
};
