import { parseArgs } from 'node:util';
import { searchRoutes } from '@emery/core/route';
import { routeReason } from '@emery/core/words';
import { loadDrive } from './load-drive';
import { UsageProblem } from './usage-problem';

const USAGE = 'usage: emery route FILE --belt ID [--top N]';

/** `route FILE --belt ID --top N`: the routes that belt can run, best first. */
export function routeCommand(args: string[]): string {
  const { file, beltId, top } = optionsOf(args);
  const drive = loadDrive(file);
  if (!drive.belts.some(({ id }) => id === beltId))
    throw new UsageProblem(`--belt names "${beltId}", and the drive has no such belt`);
  const { searched, routes, complete, sets } = searchRoutes(drive, beltId, { top });
  const printed = routes.map(({ reasons, ...route }) => ({
    ...route,
    reasons: reasons.map((reason) => routeReason(drive, reason)),
  }));
  return `${JSON.stringify({ searched, complete, sets, routes: printed }, null, 2)}\n`;
}

function optionsOf(args: string[]): { file: string; beltId: string; top: number } {
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { belt: { type: 'string' }, top: { type: 'string', default: '10' } },
    });
  } catch {
    throw new UsageProblem(USAGE);
  }
  const { positionals, values } = parsed;
  if (positionals.length !== 1 || values.belt === undefined) throw new UsageProblem(USAGE);
  const top = Number(values.top);
  if (!Number.isInteger(top) || top < 1)
    throw new UsageProblem(`--top must be a whole number, 1 or more, not ${values.top}`);
  return { file: positionals[0]!, beltId: values.belt, top };
}
