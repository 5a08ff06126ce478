import { parseArgs } from 'node:util';
import { DRIVE_COMMANDS, FILE_COMMANDS, SOUND_COMMANDS, TEXT_COMMANDS } from './commands';
import { loadDrive } from './load-drive';
import { loadSound } from './load-sound';
import { type Command, type OptionValues, UsageProblem } from '@emery/core/command';

/** How a call of the command line ends: with what it prints and 0, or with one plain line on standard error and 2. */
export function endOf(args: readonly string[]): { status: number; stdout: string; stderr: string } {
  try {
    return { status: 0, stdout: runCommand(args), stderr: '' };
  } catch (error) {
    if (!(error instanceof UsageProblem)) throw error;
    return { status: 2, stdout: '', stderr: `emery: ${error.message.replace(/\s+/g, ' ')}\n` };
  }
}

/** What a call of the command line prints. Throws a `UsageProblem` that names what is wrong with it. */
export function runCommand([said, ...rest]: readonly string[]): string {
  const name = said?.toLowerCase();
  const args = rest.map((argument) => argument.replace(/^--[A-Za-z-]+/, (option) => option.toLowerCase()));
  const overDrive = DRIVE_COMMANDS.find((command) => command.name === name);
  if (overDrive) return answer(overDrive, args, loadDrive);
  const overText = TEXT_COMMANDS.find((command) => command.name === name);
  if (overText) return answer(overText, args, (text) => text);
  const overFile = FILE_COMMANDS.find((command) => command.name === name);
  if (overFile) return answer(overFile, args, loadSound);
  const overSound = SOUND_COMMANDS.find((command) => command.name === name);
  if (overSound)
    return answer(overSound, args, (file, { drive }) => ({ bytes: loadSound(file), drive: loadDrive(drive!) }));
  const names = [...DRIVE_COMMANDS, ...FILE_COMMANDS, ...SOUND_COMMANDS, ...TEXT_COMMANDS].map(
    (command) => command.name,
  );
  throw new UsageProblem(`usage: emery ${names.join(' | ')} …`);
}

function answer<Input>(
  command: Command<Input>,
  args: string[],
  load: (argument: string, options: OptionValues) => Input,
): string {
  const usage = new UsageProblem(`usage: ${command.usage}`);
  const { positionals, values } = parsed(command, args, usage);
  const [argument, ...more] = positionals;
  if (argument === undefined || more.length > 0) throw usage;
  const run = command.prepare(values, usage);
  return `${JSON.stringify(run(load(argument, values)), null, 2)}\n`;
}

function parsed({ options, flags = [] }: Command<never>, args: string[], usage: UsageProblem) {
  try {
    const { positionals, values } = parseArgs({
      args,
      allowPositionals: true,
      options: Object.fromEntries([
        ...options.map((name) => [name, { type: 'string' as const }]),
        ...flags.map((name) => [name, { type: 'boolean' as const }]),
      ]) as Record<string, { type: 'string' | 'boolean' }>,
    });
    const words = Object.entries(values).map(([name, value]) => [name, value === true ? 'yes' : value]);
    return { positionals, values: Object.fromEntries(words) as OptionValues };
  } catch {
    throw usage;
  }
}
