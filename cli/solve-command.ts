import type { Drive } from '@emery/core/drive';
import { solveDrive, type BeltSolution, type Finding } from '@emery/core/path';
import { findingMessage } from '@emery/core/words';
import { loadDrive } from './load-drive';
import { UsageProblem } from './usage-problem';

/** `solve FILE`: the solved belts of a drive file as JSON, in the shape of the drive file's own description. */
export function solveCommand(args: string[]): string {
  const [file, ...more] = args;
  if (file === undefined || more.length > 0) throw new UsageProblem('usage: emery solve FILE');
  const drive = loadDrive(file);
  const { belts, findings } = solveDrive(drive);
  const printed = {
    belts: belts.map((belt) => printBelt(drive, belt)),
    ...(findings.length > 0 && { findings: findings.map((finding) => printFinding(drive, finding)) }),
  };
  return `${JSON.stringify(printed, null, 2)}\n`;
}

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

function printFinding(drive: Drive, finding: Finding): object {
  return { ...finding, message: findingMessage(drive, finding) };
}
