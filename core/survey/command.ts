import type { Command } from '../command';
import type { Drive } from '../drive';
import { fitSurvey } from './fit';
import { photoMessage } from './photo';
import { surveyMessage } from './words';

/** `survey FILE`: the shafts as the drive's readings fix them, what each reading is off by, and which to take again. */
export const surveyCommand: Command<Drive> = {
  name: 'survey',
  usage: 'emery survey FILE',
  options: [],
  prepare: () => (drive) => {
    const { stations, readings, circles, pictures, findings, next } = fitSurvey(drive, drive.survey?.readings ?? []);
    return {
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
  },
};
