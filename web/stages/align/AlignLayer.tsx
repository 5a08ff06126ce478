import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useAlign } from './AlignProvider';
import { useAlignSums, useReadingPlace } from './sums';
import './align.css';
import { degreeFigure, VERDICT_WORDS } from '@emery/core/align';
import { stationOf } from '@emery/core/drive';
import { type Run, worseOf } from '@emery/core/planes';
import { headingDeg } from '@emery/core/numeric';

/** A span as long as this carries its run's angle, and the word beside it, px. */
const ROOM_FOR_ANGLE = 64;
const ROOM_FOR_WORD = 110;

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

function RunMark({
  run,
  spans,
  k,
}: {
  run: Run;
  spans: readonly { start: { x: number; y: number }; end: { x: number; y: number }; length: number | null }[];
  k: number;
}) {
  const lines = run.spans.map((at) => spans[at]!);
  const { start, end, length } = lines.reduce((best, line) => (line.length! > best.length! ? line : best));
  let turn = -headingDeg(end.x - start.x, end.y - start.y);
  if (turn > 90 || turn < -90) turn += 180;
  const { mark, word } = VERDICT_WORDS[run.verdict];
  const room = length! * k;
  const text = `${degreeFigure(worseOf(run))} ${mark}${room > ROOM_FOR_WORD ? ` ${word}` : ''}`;
  return (
    <g className={`run-mark is-${run.read ? run.verdict : 'unread'}`}>
      {lines.map((line, at) => (
        <line key={at} x1={line.start.x} y1={-line.start.y} x2={line.end.x} y2={-line.end.y} />
      ))}
      {run.read && room > ROOM_FOR_ANGLE && (
        <text
          transform={`translate(${(start.x + end.x) / 2} ${-(start.y + end.y) / 2}) scale(${1 / k}) rotate(${turn})`}
          textAnchor="middle"
          y={-15}
        >
          {text}
        </text>
      )}
    </g>
  );
}
