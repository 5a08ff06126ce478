import type { Command } from '../command';
import type { Drive } from '../drive';
import type { PathFinding } from './finding';
import type { BeltSolution } from './solution';
import { solveDrive } from './solve';
import { findingMessage } from './words';

/** `solve FILE`: the solved belts of a drive file, in the shape of the drive file's own description. */
export const solveCommand: Command<Drive> = {
  name: 'solve',
  usage: 'emery solve FILE',
  options: [],
  prepare: () => (drive) => {
    const { belts, findings } = solveDrive(drive);
    return {
      belts: belts.map((belt) => printBelt(drive, belt)),
      ...(findings.length > 0 && { findings: findings.map((finding) => printFinding(drive, finding)) }),
    };
  },
};

function printBelt(drive: Drive, { id, closed, length, cordLength, contacts, spans, findings }: BeltSolution): object {
  return {
    id,
    closed,
    length,
    cordLength,
    contacts: contacts.map(({ pulley, side, wrapDeg, rotation, speedRatio, cordRadius }) => ({
      pulley,
      side,
      wrapDeg,
      rotation,
      speedRatio,
      cordRadius,
    })),
    spans: spans.map(({ from, to, length: spanLength }) => ({ from, to, length: spanLength })),
    findings: findings.map((finding) => printFinding(drive, finding)),
  };
}

function printFinding(drive: Drive, finding: PathFinding): object {
  return { ...finding, message: findingMessage(drive, finding) };
}
