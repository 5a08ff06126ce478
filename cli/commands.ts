import { alignCommand } from '@emery/core/align';
import type { Command } from '@emery/core/command';
import { stringCommand, twoPulleysCommand } from '@emery/core/counter';
import type { Drive } from '@emery/core/drive';
import { inspectCommand } from '@emery/core/inspect';
import { jobCommand } from '@emery/core/job';
import { diagnoseCommand, listenCommand, type SoundAtDrive } from '@emery/core/noise';
import { solveCommand } from '@emery/core/path';
import { routeCommand } from '@emery/core/route';
import { markingCommand } from '@emery/core/section';
import { markedMisfitOf, sizeCommand } from '@emery/core/size';
import { speedsCommand } from '@emery/core/speeds';
import { surveyCommand } from '@emery/core/survey';
import { pluckCommand, tensionCommand } from '@emery/core/tension';

/** The commands over a drive file, in the order of the work. A new stage adds its own here. */
export const DRIVE_COMMANDS: readonly Command<Drive>[] = [
  solveCommand,
  surveyCommand,
  routeCommand,
  sizeCommand,
  speedsCommand,
  tensionCommand(markedMisfitOf),
  alignCommand,
  diagnoseCommand,
  inspectCommand,
  jobCommand,
];

/** The commands over a text. */
export const TEXT_COMMANDS: readonly Command<string>[] = [markingCommand, stringCommand, twoPulleysCommand];

/** The commands over a file of any kind. */
export const FILE_COMMANDS: readonly Command<Uint8Array>[] = [pluckCommand];

/** The commands over a sound and the drive it was recorded at, named by `--drive`. */
export const SOUND_COMMANDS: readonly Command<SoundAtDrive>[] = [listenCommand];
