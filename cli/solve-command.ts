import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parseDrive, type Drive } from '@emery/core/drive';
import { solveDrive, type BeltSolution, type Finding } from '@emery/core/path';
import { findingMessage } from '@emery/core/words';
import { UsageProblem } from './usage-problem';

const REASONS: Record<string, string> = { ENOENT: 'there is no such file', EISDIR: 'it is a folder', EACCES: 'access is refused' };

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

function loadDrive(file: string): Drive {
  let text: string;
  try {
    text = readFileSync(path.resolve(process.env['EMERY_CALLED_FROM'] ?? '.', file), 'utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (!code) throw error;
    throw new UsageProblem(`FILE ${file} cannot be read: ${REASONS[code] ?? code}`);
  }
  const reading = parseDrive(text);
  if (reading.ok) return reading.drive;
  const { path: field, message } = reading.problems[0]!;
  throw new UsageProblem(field === '' ? `FILE ${message}` : `${field} ${message}`);
}

function printBelt(drive: Drive, { id, closed, length, cordLength, contacts, spans, findings }: BeltSolution): object {
  return {
    id,
    closed,
    length,
    cordLength,
    contacts: contacts.map(({ pulley, side, wrapDeg, rotation, speedRatio, cordRadius }) => ({ pulley, side, wrapDeg, rotation, speedRatio, cordRadius })),
    spans: spans.map(({ from, to, length: spanLength }) => ({ from, to, length: spanLength })),
    findings: findings.map((finding) => printFinding(drive, finding)),
  };
}

function printFinding(drive: Drive, finding: Finding): object {
  return { ...finding, message: findingMessage(drive, finding) };
}
