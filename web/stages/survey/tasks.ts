import type { Drive } from '@emery/core/drive';
import { fitSurvey } from '@emery/core/survey';

/** The long sums of Survey. */
export const surveyTasks = {
  survey: (drive: Drive) => fitSurvey(drive, drive.survey?.readings ?? []),
};
