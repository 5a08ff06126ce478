import { type Drive, findPulley } from '@emery/core/drive';
import type { SurveyFit, TapeWanted } from '@emery/core/survey';

/** The tape the fit asks for, or from the first pulley to the next that no tape reaches yet. */
export function firstTape(drive: Drive, fit: SurveyFit | null): TapeWanted {
  if (fit?.next && findPulley(drive, fit.next.from) && findPulley(drive, fit.next.to)) return fit.next;
  const ids = drive.stations.map(({ pulleys }) => pulleys[0]!.id);
  const reached = new Set(drive.survey?.readings?.flatMap(({ from, to }) => [from, to]));
  return { from: ids[0]!, to: ids.slice(1).find((id) => !reached.has(id)) ?? ids[1]! };
}
