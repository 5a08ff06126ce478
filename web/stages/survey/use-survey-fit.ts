import { useCoreSum, type SumStopped } from '../../state/use-core-sum';
import type { Drive } from '@emery/core/drive';
import type { SurveyFit } from '@emery/core/survey';

/**
 * The fit of a drive's tape readings and pictures, worked out beside the page. While shafts are dragged the last fit
 * stands until the next is there; with other readings it says nothing any more, so it is null until theirs is there,
 * and without readings.
 */
export function useSurveyFit(drive: Drive, asked: boolean): { fit: SurveyFit | null; stopped: SumStopped | null } {
  const wanted = asked && (drive.survey?.readings?.length ?? 0) + (drive.survey?.photos?.length ?? 0) > 0;
  // A drag changes the sketch with every frame; the fit waits for the hand to rest.
  const { found, stopped } = useCoreSum('survey', wanted ? drive : null);
  return { fit: wanted && found && found.input.survey === drive.survey ? found.output : null, stopped };
}
