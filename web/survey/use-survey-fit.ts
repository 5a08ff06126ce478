import { useEffect, useState } from 'react';
import type { Drive } from '@emery/core/drive';
import type { SurveyFit } from '@emery/core/survey';
import { runCore } from '../bench/run-core';

/** The fit of a drive's tape readings, worked out beside the page; the last one stands until the next is there. Null without readings. */
export function useSurveyFit(drive: Drive): SurveyFit | null {
  const [fit, setFit] = useState<SurveyFit | null>(null);
  const wanted = (drive.survey?.readings?.length ?? 0) > 0;
  useEffect(() => {
    if (!wanted) return;
    let cancel = () => undefined as void;
    // A drag changes the sketch with every frame; the fit waits for the hand to rest.
    const timer = setTimeout(() => {
      const running = runCore('survey', drive);
      cancel = running.cancel;
      void running.done.then(setFit);
    }, 120);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [drive, wanted]);
  return wanted ? fit : null;
}
