import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { firstTape } from './first-tape';
import { useSurveying } from './SurveyProvider';
import { TapeLines } from './TapeLines';

/** The tapes on the drawing, and the one that is asked for. */
export function SurveyLayer({ radii, k }: LayerProps) {
  const { drive } = useBench('drive');
  const { fit, surveying, tapeAsked } = useSurveying();
  const asked = surveying === 'tapes' && drive.stations.length > 1 ? (tapeAsked ?? firstTape(drive, fit)) : null;
  return <TapeLines drive={drive} fit={fit} asked={asked} radii={radii} scale={k} />;
}
