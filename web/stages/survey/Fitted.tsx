import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { FindingItem } from '../../bench/FindingItem';
import { moveStation, stationOf } from '@emery/core/drive';
import { formatMm } from '@emery/core/quantity';
import { laidOut, layOutOf, type SurveyFinding, type SurveyFit, surveyWords } from '@emery/core/survey';

/** What tapes and pictures come to together, and the pulleys put there. */
export function Fitted({ fit }: { fit: SurveyFit }) {
  const { drive, dispatch, unit } = useBench('drive', 'dispatch', 'unit');
  const change = layOutOf(drive, fit);
  const count = new Set([
    ...change.places.map(({ id }) => id),
    ...change.diameters.map(({ pulley }) => stationOf(drive, pulley)!.id),
  ]).size;
  const widest = Math.max(
    0,
    ...fit.stations.flatMap(({ plusMinusX, plusMinusY }) => [plusMinusX ?? 0, plusMinusY ?? 0]),
  );
  const good = <>Accurate to ± {formatMm(widest)} or better.</>;
  const across = ({ pulley, figures }: SurveyFinding & { code: 'mirrored' }) => {
    const station = stationOf(drive, pulley)!;
    const origin = drive.stations.find(({ role }) => role === 'crankshaft') ?? drive.stations[0]!;
    dispatch(edit((d) => moveStation(d, station.id, figures.x + origin.x, figures.y + origin.y)));
  };
  return (
    <>
      {count > 0 && (
        <div className="settled">
          {change.within ? (
            <>
              <strong>The drawing agrees with the measurements,</strong> within its ±: {formatMm(change.furthest)} apart
              at most. {good}
            </>
          ) : (
            <>
              <strong>The readings put {count === 1 ? 'one pulley' : `${count} pulleys`} somewhere else.</strong> {good}
            </>
          )}
          <div className="button-row is-after">
            <Button
              type={change.within ? 'default' : 'primary'}
              onClick={() => dispatch(edit((d) => laidOut(d, change)))}
            >
              Move them there
            </Button>
          </div>
        </div>
      )}
      {count === 0 && widest > 0 && (
        <p className="settled">
          <strong>The drawing agrees with the measurements.</strong> {good}
        </p>
      )}
      <ul className="findings" aria-label="Findings">
        {fit.findings.map((finding, index) => (
          <FindingItem key={index} severity={finding.severity} words={surveyWords(drive, finding, unit)}>
            {finding.code === 'mirrored' && <Button onClick={() => across(finding)}>Move it across</Button>}
          </FindingItem>
        ))}
      </ul>
    </>
  );
}
