import { fitSurvey } from '@emery/core/survey';
import { photoMessage, surveyMessage } from '@emery/core/words';
import { loadDrive } from './load-drive';
import { UsageProblem } from './usage-problem';

/** `survey FILE`: the shafts as the drive's readings fix them, what each reading is off by, and which to take again. */
export function surveyCommand(args: string[]): string {
  const [file, ...more] = args;
  if (file === undefined || more.length > 0) throw new UsageProblem('usage: emery survey FILE');
  const drive = loadDrive(file);
  const { stations, readings, circles, pictures, findings, next } = fitSurvey(drive, drive.survey?.readings ?? []);
  const printed = {
    stations,
    readings,
    findings: findings.map((finding) => ({ ...finding, message: surveyMessage(drive, finding) })),
    next,
    ...(pictures.length > 0 && {
      circles,
      pictures: pictures.map((picture) => ({
        ...picture,
        findings: picture.findings.map((finding) => ({ ...finding, message: photoMessage(drive, finding) })),
      })),
    }),
  };
  return `${JSON.stringify(printed, null, 2)}\n`;
}
