import { parseArgs } from 'node:util';
import { speedFindings, speedsOf } from '@emery/core/speed';
import { speedMessage } from '@emery/core/words';
import { loadDrive } from './load-drive';
import { UsageProblem } from './usage-problem';

const USAGE = 'usage: emery speeds FILE --rpm a,b,c';

/** `speeds FILE --rpm a,b,c`: what every shaft turns and how fast every belt runs at those engine speeds. */
export function speedsCommand(args: string[]): string {
  const { file, rpms } = optionsOf(args);
  const drive = loadDrive(file);
  const { shafts, belts } = speedsOf(drive);
  const times = (perRpm: number | null) => rpms.map((rpm) => (perRpm === null ? null : perRpm * rpm));
  const printed = {
    stations: shafts.map(({ station, speedRatio, direction }) => ({
      id: station,
      speedRatio,
      direction,
      rpm: times(speedRatio),
    })),
    belts: belts.map(({ belt, metresPerSecond, flexPerSecond }) => ({
      id: belt,
      beltSpeed: times(metresPerSecond),
      flexPerSecond: times(flexPerSecond),
    })),
    findings: speedFindings(drive, Math.max(...rpms)).map((finding) => ({
      ...finding,
      message: speedMessage(drive, finding),
    })),
  };
  return `${JSON.stringify(printed, null, 2)}\n`;
}

function optionsOf(args: string[]): { file: string; rpms: number[] } {
  let parsed;
  try {
    parsed = parseArgs({ args, allowPositionals: true, options: { rpm: { type: 'string' } } });
  } catch {
    throw new UsageProblem(USAGE);
  }
  const { positionals, values } = parsed;
  if (positionals.length !== 1 || values.rpm === undefined) throw new UsageProblem(USAGE);
  const rpms = values.rpm.split(',').map((text) => {
    const rpm = Number(text);
    if (text.trim() === '' || !Number.isFinite(rpm) || rpm < 0)
      throw new UsageProblem(`--rpm: "${text}" is not an engine speed in rev/min; write such as 720,2100`);
    return rpm;
  });
  return { file: positionals[0]!, rpms };
}
