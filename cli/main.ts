import { endOf } from './run-command';

/** The command line over core. */
const { status, stdout, stderr } = endOf(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = status;
