import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useTensionSums } from './sums';
import './tension.css';
import { headingDeg } from '@emery/core/numeric';

/** The longest arrow, px. */
const LONGEST = 76;

/** Every span as wide as it is tight, with its figure, and the pull on every shaft in its true direction. */
export default function TensionLayer({ k }: LayerProps) {
  const { tension, run, belt, drive } = useTensionSums();
  const { shown } = useBench('shown');
  if (shown.drive !== drive) return null;
  const max = Math.max(1, ...[...run.shafts.values()].map(({ x, y }) => Math.hypot(x, y)));
  const tightest = Math.max(1, ...run.belts.flatMap((belt) => belt?.pulleys.map(({ leavesN }) => leavesN) ?? []));
  return (
    <g className="tension-layer" aria-hidden>
      {tension.staticBelts.map((standing, b) =>
        run.belts[b]?.pulleys.map(({ contact: { leaves }, leavesN: newtons }, index) => {
          const { start, end, length } = leaves;
          const slack = newtons <= run.belts[b]!.centrifugalN;
          return (
            <g key={`${b} ${index}`} className={slack ? 'span-pull is-slack' : 'span-pull'}>
              <line
                x1={start.x}
                y1={-start.y}
                x2={end.x}
                y2={-end.y}
                strokeWidth={slack ? 8 : 9 + 17 * Math.max(0, newtons / tightest)}
              />
              {standing?.belt.id === belt?.source.id && length * k > 74 && (
                <SpanFigure start={start} end={end} k={k} text={`${Math.round(newtons)} N`} />
              )}
            </g>
          );
        }),
      )}
      {drive.stations.map(({ id, x, y }) => {
        const load = run.shafts.get(id);
        const size = load ? (Math.hypot(load.x, load.y) / max) * LONGEST : 0;
        if (!load || size < 5) return null;
        const turn = -headingDeg(load.x, load.y);
        return (
          <g key={id} className="hub-load" transform={`translate(${x} ${-y}) scale(${1 / k}) rotate(${turn})`}>
            <circle r={3.5} />
            <path d={`M0 0H${size - 9}`} />
            <path className="hub-head" d={`M${size} 0l-13 -6v12Z`} />
          </g>
        );
      })}
    </g>
  );
}

/** A figure beside the middle of a span, on its outer side as seen from the crank. */
function SpanFigure({
  start,
  end,
  k,
  text,
}: {
  start: { x: number; y: number };
  end: { x: number; y: number };
  k: number;
  text: string;
}) {
  let turn = -headingDeg(end.x - start.x, end.y - start.y);
  if (turn > 90 || turn < -90) turn += 180;
  return (
    <text
      className="span-figure"
      transform={`translate(${(start.x + end.x) / 2} ${-(start.y + end.y) / 2}) scale(${1 / k}) rotate(${turn})`}
      textAnchor="middle"
      y={-15}
    >
      {text}
    </text>
  );
}
