import { type Command, numbersIn } from '../command';
import type { Drive } from '../drive';
import { speedFindings, speedsOf } from './speeds';
import { speedMessage } from './words';

/** `speeds FILE --rpm a,b,c`: what every shaft turns and how fast every belt runs at those engine speeds. */
export const speedsCommand: Command<Drive> = {
  name: 'speeds',
  usage: 'emery speeds FILE --rpm a,b,c',
  options: ['rpm'],
  prepare: ({ rpm }, usage) => {
    if (rpm === undefined) throw usage;
    const rpms = numbersIn(
      rpm,
      (value) => value >= 0,
      (part) => `--rpm: "${part}" is not an engine speed in rev/min; write such as 720,2100`,
    );
    const times = (perRpm: number | null) => rpms.map((value) => (perRpm === null ? null : perRpm * value));
    return (drive) => {
      const { shafts, belts } = speedsOf(drive);
      return {
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
    };
  },
};
