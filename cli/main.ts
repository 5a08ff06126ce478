import { markingCommand } from './marking-command';
import { routeCommand } from './route-command';
import { sizeCommand } from './size-command';
import { solveCommand } from './solve-command';
import { speedsCommand } from './speeds-command';
import { surveyCommand } from './survey-command';
import { UsageProblem } from './usage-problem';

/**
 * The command line over core: `emery solve FILE`, `emery survey FILE`, `emery route FILE --belt ID --top N`, `emery
 * size FILE --belt ID [--lengths a,b,c]`, `emery speeds FILE --rpm a,b,c`, `emery marking "TEXT"`. Prints JSON and
 * exits 0, or one plain line on standard error and exits 2.
 */
const COMMANDS: Record<string, (args: string[]) => string> = {
  solve: solveCommand,
  survey: surveyCommand,
  route: routeCommand,
  size: sizeCommand,
  speeds: speedsCommand,
  marking: markingCommand,
};

const [name, ...args] = process.argv.slice(2);
try {
  const command = name !== undefined && Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command) throw new UsageProblem(`usage: emery ${Object.keys(COMMANDS).join(' | ')} …`);
  process.stdout.write(command(args));
} catch (error) {
  if (!(error instanceof UsageProblem)) throw error;
  process.stderr.write(`emery: ${error.message.replace(/\s+/g, ' ')}\n`);
  process.exitCode = 2;
}
