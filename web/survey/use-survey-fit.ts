import { useEffect, useState } from 'react';
import type { Drive } from '@emery/core/drive';
import type { SurveyFit } from '@emery/core/survey';
import { runCore } from '../bench/run-core';

/**
 * The fit of a drive's tape readings and pictures, worked out beside the page. While shafts are dragged the last fit stands until the next is there; with other readings it says
 * nothing any more, so it is null until theirs is there, and without readings.
 */
export function useSurveyFit(drive: Drive): SurveyFit | null {
  const [last, setLast] = useState<{ fit: SurveyFit; readings: Drive['survey'] } | null>(null);
  const wanted = (drive.survey?.readings?.length ?? 0) + (drive.survey?.photos?.length ?? 0) > 0;
  useEffect(() => {
    if (!wanted) return;
    let cancel = () => undefined as void;
    // A drag changes the sketch with every frame; the fit waits for the hand to rest.
    const timer = setTimeout(() => {
      const running = runCore('survey', drive);
      cancel = running.cancel;
      void running.done.then((result) => setLast({ fit: result, readings: drive.survey }));
    }, 120);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [drive, wanted]);
  return wanted && last && last.readings === drive.survey ? last.fit : null;
}
