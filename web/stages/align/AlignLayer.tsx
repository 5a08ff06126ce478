import { useBench } from '../../state/bench';
import { SpanText } from '../SpanText';
import type { LayerProps } from '../stage';
import { runText } from './run-text';
import { useAlign } from './AlignProvider';
import { useAlignSums, useReadingPlace } from './sums';
import './align.css';
import { stationOf } from '@emery/core/drive';
import type { SpanSolution } from '@emery/core/path';
import type { Run } from '@emery/core/planes';

/** Runs coloured by how they lie, each with its angle and a word, and where to read next. */
export default function AlignLayer({ k, radii }: LayerProps) {
  const { drive, alignment, after } = useAlignSums();
  const { view } = useAlign();
  const { shown } = useBench('shown');
  const { place } = useReadingPlace();
  const looked = after ?? alignment;
  if (shown.drive !== drive || !looked) return null;
  const shaft = place && view === 'read' ? stationOf(drive, place.pulley) : null;
  const radius = place ? (radii.get(place.pulley) ?? 0) : 0;
  const angle = place === null || place.at === null ? null : (place.at * Math.PI) / 180;
  return (
    <g className="align-layer" aria-hidden>
      {looked.runs.map((run) => (
        <RunMark key={run.fromAt} run={run} spans={looked.solution.spans} k={k} />
      ))}
      {shaft && (
        <g
          className="read-here"
          transform={`translate(${shaft.x + (angle === null ? 0 : radius * Math.cos(angle))} ${-shaft.y - (angle === null ? 0 : radius * Math.sin(angle))}) scale(${1 / k})`}
        >
          <circle r={9} />
          <path d="M-15 0H15M0 -15V15" />
        </g>
      )}
    </g>
  );
}

function RunMark({ run, spans, k }: { run: Run; spans: readonly SpanSolution[]; k: number }) {
  const lines = run.spans.map((at) => spans[at]!);
  const written = runText(run, spans, k);
  return (
    <g className={`run-mark is-${run.read ? run.verdict : 'unread'}`}>
      {lines.map((line, at) => (
        <line key={at} x1={line.start.x} y1={-line.start.y} x2={line.end.x} y2={-line.end.y} />
      ))}
      {written && <SpanText {...written} k={k} />}
    </g>
  );
}
