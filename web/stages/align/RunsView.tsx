import { fixed } from '@emery/core/quantity';
import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { FindingItem } from '../../bench/FindingItem';
import { MarkedRow } from '../../bench/MarkedRow';
import { useGoToStage } from '../../bench/use-go-to-stage';
import { FigureField } from '../../ui/FigureField';
import { useAlignFindings, useAlignSums } from './sums';
import {
  alignWords,
  degreeFigure,
  offsetFigure,
  rollerTracks,
  type RollerTrack,
  seeTrack,
  VERDICT_WORDS,
} from '@emery/core/align';
import { changeBelt, pulleyLabel } from '@emery/core/drive';
import { worstFirst } from '@emery/core/planes';

/** What the belt sees: the angle at both ends of every run, the worst first, and what its rollers do to it. */
export default function RunsView() {
  const { drive, alignment, after } = useAlignSums();
  const { unit } = useBench('unit');
  const findings = useAlignFindings();
  const looked = after ?? alignment;
  if (!looked) return null;
  const order = worstFirst(looked.runs);
  const runs = [...order.filter(({ read }) => read), ...order.filter(({ read }) => !read)];
  const name = (id: string) => pulleyLabel(drive, id);
  return (
    <>
      <table className="ledger-table" aria-label="Runs, the worst first">
        <thead>
          <tr>
            <th>Run, as the belt travels</th>
            <th className="figure">leaves</th>
            <th className="figure">arrives</th>
            <th className="figure">±</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((run) => (
            <MarkedRow key={run.fromAt} mark={{ kind: 'span', belt: looked.belt.id, index: run.spans[0]! }}>
              <td>
                <button type="button" className="row-button is-two">
                  <span>
                    {name(run.from)} → {name(run.to)}
                    {run.over.length > 0 && <span className="quiet"> over {run.over.map(name).join(', ')}</span>}
                  </span>
                  <span className={`flag is-${run.read ? run.verdict : 'unread'}`}>
                    {run.read
                      ? `${VERDICT_WORDS[run.verdict].mark} ${VERDICT_WORDS[run.verdict].word}`
                      : 'as drawn, not measured'}
                  </span>
                </button>
              </td>
              <td className="figure">{signed(run.leaveDeg)}</td>
              <td className="figure">{signed(run.arriveDeg)}</td>
              <td className="figure">{degreeFigure(run.plusMinusDeg)}</td>
            </MarkedRow>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        Each angle is the run against that pulley&rsquo;s own plane; + runs outward. Smooth rollers do not guide, so a
        run passes over them.
      </p>
      <Rollers />
      <Limits />
      {findings.length > 0 && !after && (
        <ul className="findings" aria-label="All findings">
          {findings.map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.pulley} ${finding.span?.from} ${finding.reading}`}
              severity={finding.severity}
              words={alignWords(drive, finding, unit)}
            />
          ))}
        </ul>
      )}
    </>
  );
}

const signed = (degrees: number) =>
  Math.abs(degrees) < 0.005 ? '0°' : `${degrees < 0 ? '−' : '+'}${degreeFigure(degrees)}`;

/** What counts as good: the section's default until this belt has limits of its own. */
function Limits() {
  const { belt, alignment } = useAlignSums();
  const { dispatch } = useBench('dispatch');
  const goTo = useGoToStage();
  const { good, watch } = alignment!.limits;
  const change = (next: object) =>
    dispatch(edit((d) => changeBelt(d, belt!.id, { runAngle: { good, watch, ...next } })));
  return (
    <section aria-label="Limits">
      <div className="fields">
        <FigureField
          label="Good up to"
          unit="°"
          value={good}
          min={0.05}
          max={watch}
          onCommit={(value) => change({ good: value })}
        />
        <FigureField
          label="Watch up to"
          unit="°"
          value={watch}
          min={good}
          max={10}
          onCommit={(value) => change({ watch: value })}
        />
      </div>
      <p className="quiet">
        {belt!.runAngle ? 'Set for this belt.' : 'Emery’s defaults, not a specification.'} Tension and Noise use these
        angles too.
      </p>
      <Button onClick={() => goTo('tension')}>See its loads under Tension</Button>
    </section>
  );
}

/** Smooth rollers: to which side each steers, where its track should be, and where it is seen. */
function Rollers() {
  const { drive, alignment, after } = useAlignSums();
  const tracks = rollerTracks(drive, (after ?? alignment)!);
  if (tracks.length === 0) return null;
  return (
    <section aria-label="Smooth rollers">
      <h2>Smooth rollers</h2>
      {tracks.map((track) => (
        <Roller key={track.at} track={track} />
      ))}
      <p className="quiet">
        A roller moves the belt toward the side it tilts to, until the incoming run is in its plane. Its worn track
        shows where.
      </p>
    </section>
  );
}

function Roller({ track: { pulley, steersDeg, trackMm, plusMinusMm, seenMm } }: { track: RollerTrack }) {
  const { drive } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const straight = Math.abs(steersDeg) < 0.05;
  return (
    <div className="roller-row">
      <div>
        <strong>{pulleyLabel(drive, pulley)}</strong>{' '}
        {straight ? 'steers nowhere.' : `steers ${steersDeg > 0 ? 'out' : 'in'} by ${degreeFigure(steersDeg)}.`} Its
        track should be {Math.abs(trackMm) < 0.05 ? 'in the middle' : `${offsetFigure(trackMm, unit)} of the middle`}, ±{' '}
        {fixed(plusMinusMm, 1)} mm.
      </div>
      <FigureField
        label="Track seen, out +"
        unit="mm"
        value={seenMm}
        min={-60}
        max={60}
        onCommit={(mm) => dispatch(edit((d) => seeTrack(d, pulley, mm, new Date().toISOString())))}
        onClear={() => dispatch(edit((d) => seeTrack(d, pulley, null)))}
      />
    </div>
  );
}
