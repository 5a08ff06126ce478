import type { Drive, SurveyPhoto } from '../../drive';

export function photosOf(drive: Drive): readonly SurveyPhoto[] {
  return drive.survey?.photos ?? [];
}
