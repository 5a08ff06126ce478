import { useBench } from '../../state/bench';
import { SpanText } from '../SpanText';
import type { LayerProps } from '../stage';
import { loadArrows, spanFigures } from './drawn';
import { useTensionSums } from './sums';
import './tension.css';
import { headingDeg } from '@emery/core/numeric';

/** Every span as wide as it is tight, with its figure, and the pull on every shaft in its true direction. */
export default function TensionLayer({ k }: LayerProps) {
  const sums = useTensionSums();
  const { tension, run, drive } = sums;
  const { shown } = useBench('shown');
  if (shown.drive !== drive) return null;
  const tightest = Math.max(1, ...run.belts.flatMap((belt) => belt?.pulleys.map(({ leavesN }) => leavesN) ?? []));
  return (
    <g className="tension-layer" aria-hidden>
      {tension.staticBelts.map((_, b) =>
        run.belts[b]?.pulleys.map(({ contact: { leaves }, leavesN: newtons }, index) => {
          const { start, end } = leaves;
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
            </g>
          );
        }),
      )}
      {spanFigures(sums, k).map(({ index, span, text }) => (
        <SpanText key={index} className="span-figure" {...{ span, k, text }} />
      ))}
      {loadArrows(sums).map(({ station: { id, x, y }, load, sizePx: size }) => (
        <g
          key={id}
          className="hub-load"
          transform={`translate(${x} ${-y}) scale(${1 / k}) rotate(${-headingDeg(load.x, load.y)})`}
        >
          <circle r={3.5} />
          <path d={`M0 0H${size - 9}`} />
          <path className="hub-head" d={`M${size} 0l-13 -6v12Z`} />
        </g>
      ))}
    </g>
  );
}
