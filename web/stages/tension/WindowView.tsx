import { Switch } from 'antd';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { FindingItem } from '../../bench/FindingItem';
import { useTensionSums } from './sums';
import { useTension } from './TensionProvider';
import { type Drive, pulleyLabel } from '@emery/core/drive';
import { limitOrDefault, writtenLimit } from '@emery/core/accessory';
import {
  hardestLoad,
  targetTension,
  stateWords,
  type TensionWindow,
  type WindowEnd,
  windowOf,
} from '@emery/core/loads';
import { forceFigure, remediesFor, tensionWords, windowFindings, shortForce } from '@emery/core/tension';

/** The tensions between which the belt is right, and where it stands among them. */
export default function WindowView() {
  const { drive, tension, states, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const { wetToo, setWetToo } = useTension();
  const { source, standing } = belt!;
  const window = useMemo(() => windowOf(tension, source.id, states, limitOrDefault)!, [tension, source, states]);
  const written = useMemo(() => windowOf(tension, source.id, states, writtenLimit)!, [tension, source, states]);
  const findings = windowFindings(standing, window);
  const aim = targetTension(window);
  const ribs = source.ribs ?? 1;
  const force = (newtons: number) => forceFigure(newtons, unit);
  return (
    <>
      <WindowBar window={window} tensionN={standing.tensionN} aim={aim} />
      <label className="switch-row">
        <Switch checked={wetToo} onChange={setWetToo} /> Must also grip when wet
      </label>
      <table className="ledger-table" aria-label="Range">
        <thead>
          <tr>
            <th>Static tension</th>
            <th className="figure">whole belt</th>
            {ribs > 1 && <th className="figure">per rib</th>}
            <th>set by</th>
          </tr>
        </thead>
        <tbody>
          <Row name="Lowest" newtons={window.leastN} ribs={ribs} end={window.least} drive={drive} />
          <Row name="Target" newtons={aim} ribs={ribs} end={null} drive={drive} />
          <Row
            name={written.mostN === window.mostN ? 'Highest' : 'Highest (a default)'}
            newtons={window.mostN}
            ribs={ribs}
            end={window.most}
            drive={drive}
          />
          <Row name="Present tension" newtons={standing.tensionN} ribs={ribs} end={null} drive={drive} />
        </tbody>
      </table>
      {findings.length > 0 && (
        <ul className="findings" aria-label="Findings">
          {findings.map((finding) => (
            <FindingItem
              key={finding.code + (finding.pulley ?? '')}
              severity={finding.severity}
              words={tensionWords(drive, finding)}
            />
          ))}
        </ul>
      )}
      {(window.never.length > 0 || (window.leastN ?? 0) > (window.mostN ?? Infinity)) && (
        <Openers window={window} force={force} />
      )}
      <p className="quiet">
        Over idle, cruise and redline with the loads of this state{wetToo ? ', dry and wet' : ', dry'}. Every pulley
        keeps 25 % slip margin. Bearing load limits are under Loads; where none is entered, a default is used, not a
        specification.
      </p>
    </>
  );
}

function Row({
  name,
  newtons,
  ribs,
  end,
  drive,
}: {
  name: string;
  newtons: number | null;
  ribs: number;
  end: WindowEnd | null;
  drive: Drive;
}) {
  const { unit } = useBench('unit');
  return (
    <tr>
      <td>{name}</td>
      <td className="figure">{newtons === null ? '—' : forceFigure(newtons, unit)}</td>
      {ribs > 1 && <td className="figure">{newtons === null ? '' : shortForce(newtons / ribs)}</td>}
      <td className="load-state">{end ? `${pulleyLabel(drive, end.pulley)}, ${stateWords(end.running)}` : ''}</td>
    </tr>
  );
}

/** What would make room between the two ends. */
function Openers({ window, force }: { window: TensionWindow; force: (newtons: number) => string }) {
  const { drive, tension, states, belt } = useTensionSums();
  const { source } = belt!;
  const first = window.never[0] ?? window.least;
  const { least, most, leastN, mostN } = window;
  const needed = mostN !== null && mostN > 0;
  const remedies = first && remediesFor(tension, source.id, first.pulley, states, needed ? mostN : undefined);
  const lines: string[] = [];
  if (remedies) {
    const name = pulleyLabel(drive, first.pulley);
    if (remedies.wrapWantedDeg !== null && needed)
      lines.push(`Wrap of ${Math.ceil(remedies.wrapWantedDeg)}° at ${name}, now ${Math.round(remedies.wrapDeg)}°.`);
    if (remedies.drivenSideNeedsN !== null)
      lines.push(
        `${name} on the ribs instead of the back: it would need ${force(Math.max(0, remedies.drivenSideNeedsN))}.`,
      );
    if (remedies.needsN === null)
      lines.push(`More wrap at ${name}, now ${Math.round(remedies.wrapDeg)}°, or less load on it.`);
  }
  if (least && most && leastN !== null) {
    const limit = limitOrDefault(drive.stations.find(({ id }) => id === most.station)!)!;
    const wanted = hardestLoad(tension, source.id, most.station, states, leastN);
    lines.push(`Bearings at ${pulleyLabel(drive, most.pulley)} rated for ${force(wanted)} instead of ${force(limit)}.`);
  }
  if (source.ribs) lines.push('More ribs do not help here: they make the belt last longer, but grip no better.');
  return (
    <section className="remedies" aria-label="How to get a usable range">
      <h2>How to get a usable range</h2>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}

const WIDTH = 360;

/** Range as a rule: too loose, right, too tight, and where the belt stands. */
function WindowBar({
  window: { leastN, mostN },
  tensionN,
  aim,
}: {
  window: TensionWindow;
  tensionN: number;
  aim: number | null;
}) {
  const top = 1.15 * Math.max(tensionN, mostN ?? 0, 1.6 * (leastN ?? 0), 100);
  const x = scaleLinear([0, top], [6, WIDTH - 6]).clamp(true);
  const [low, high] = [leastN ?? top, Math.max(leastN ?? top, mostN ?? top)];
  return (
    <svg className="window-bar" viewBox={`0 0 ${WIDTH} 74`} role="img" aria-label="Present tension in its range">
      <rect className="is-loose" x={x(0)} y={26} width={x(low) - x(0)} height={16} />
      <rect className="is-right" x={x(low)} y={26} width={x(high) - x(low)} height={16} />
      <rect className="is-tight" x={x(high)} y={26} width={x(top) - x(high)} height={16} />
      {x.ticks(6).map((tick) => (
        <g key={tick} transform={`translate(${x(tick)} 42)`}>
          <path className="bar-tick" d="M0 0V5" />
          <text className="bar-text" y={19} textAnchor="middle">
            {tick}
          </text>
        </g>
      ))}
      {aim !== null && <path className="bar-middle" d={`M${x(aim)} 26V42`} />}
      <path className="bar-stands" d={`M${x(tensionN)} 42V22l-6 -9h12l-6 9`} />
      <text className="bar-stands-text" x={Math.min(WIDTH - 40, Math.max(40, x(tensionN)))} y={10} textAnchor="middle">
        {Math.round(tensionN)} N
      </text>
    </svg>
  );
}
