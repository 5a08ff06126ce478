import { parseArgs } from 'node:util';
import { answerFor } from '@emery/core/size';
import { sizeMessage } from '@emery/core/words';
import { loadDrive } from './load-drive';
import { UsageProblem } from './usage-problem';

const USAGE = 'usage: emery size FILE --belt ID [--lengths a,b,c]';

/**
 * `size FILE --belt ID [--lengths a,b,c]`: the adjuster's window and how each length of belt would sit, by the answer
 * that the bench shows.
 */
export function sizeCommand(args: string[]): string {
  const { file, id, lengths } = optionsOf(args);
  const drive = loadDrive(file);
  const answer = answerFor(drive, id, lengths ? { lengths } : {});
  if (!answer)
    throw new UsageProblem(
      `--belt: there is no belt "${id}"; this drive has ${drive.belts.map((belt) => belt.id).join(', ') || 'none'}`,
    );
  const { window, candidates, findings, lastOn, release, best, pair } = answer;
  const told = (list: typeof findings) => list.map((finding) => ({ ...finding, message: sizeMessage(finding) }));
  return `${JSON.stringify({ window, candidates: candidates.map(({ share: _share, ...candidate }) => ({ ...candidate, findings: told(candidate.findings) })), findings: told(findings), lastOn, release, best, pair }, null, 2)}\n`;
}

function optionsOf(args: string[]): { file: string; id: string; lengths: number[] | undefined } {
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { belt: { type: 'string' }, lengths: { type: 'string' } },
    });
  } catch {
    throw new UsageProblem(USAGE);
  }
  const { positionals, values } = parsed;
  if (positionals.length !== 1 || values.belt === undefined) throw new UsageProblem(USAGE);
  const lengths = values.lengths?.split(',').map((text) => {
    const mm = Number(text);
    if (text.trim() === '' || !Number.isFinite(mm) || mm <= 0)
      throw new UsageProblem(`--lengths: "${text}" is not a length in mm; write such as 1750,1755.5`);
    return mm;
  });
  return { file: positionals[0]!, id: values.belt, lengths };
}
