import { runCommand } from './run-command';
import { UsageProblem } from '@emery/core/command';

/** The command line over core. Prints JSON and exits 0, or one plain line on standard error and exits 2. */
try {
  process.stdout.write(runCommand(process.argv.slice(2)));
} catch (error) {
  if (!(error instanceof UsageProblem)) throw error;
  process.stderr.write(`emery: ${error.message.replace(/\s+/g, ' ')}\n`);
  process.exitCode = 2;
}
