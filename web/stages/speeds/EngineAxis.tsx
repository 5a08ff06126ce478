import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { PointerEvent } from 'react';
import { useSpeeds } from './SpeedsProvider';
import { rpmFigure } from '@emery/core/speeds';

export const MARGIN = { left: 58, right: 104, top: 24, bottom: 34 };

/** Across: the engine's speed, to a little beyond redline. */
export function useEngineScale(width: number): ScaleLinear<number, number> {
  const { marks, engineRpm } = useSpeeds();
  return scaleLinear([0, Math.max(marks.redline * 1.06, engineRpm)], [MARGIN.left, width - MARGIN.right]);
}

/** The engine's marks below, and its speed as a line that is dragged. */
export function EngineAxis({ x, height }: { x: ScaleLinear<number, number>; height: number }) {
  const { marks, engineRpm, setEngineRpm } = useSpeeds();
  const bottom = height - MARGIN.bottom;
  const drag = (event: PointerEvent<SVGRectElement>) => {
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    else if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const { left } = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    setEngineRpm(Math.max(0, Math.min(x.domain()[1]!, Math.round(x.invert(event.clientX - left) / 10) * 10)));
  };
  const names = [...(['idle', 'cruise', 'redline'] as const)].filter(
    (name, k, all) => k === 0 || x(marks[name]) - x(marks[all[k - 1]!]) > 70,
  );
  return (
    <g>
      <path className="speed-axis" d={`M${MARGIN.left} ${bottom}H${x.range()[1]}`} />
      {names.map((name) => (
        <g key={name} transform={`translate(${x(marks[name])} 0)`}>
          <path className="speed-mark" d={`M0 ${MARGIN.top}V${bottom + 5}`} />
          <text className="speed-text" y={bottom + 20} textAnchor="middle">
            {name} {rpmFigure(marks[name])}
          </text>
        </g>
      ))}
      <text className="speed-text" x={8} y={bottom + 20}>
        engine
      </text>
      <g transform={`translate(${x(engineRpm)} 0)`}>
        <path className="speed-now" d={`M0 ${MARGIN.top - 4}V${bottom}`} />
        <path
          className="speed-now-grip"
          d={`M-7 ${MARGIN.top - 14}H7V${MARGIN.top - 7}L0 ${MARGIN.top}L-7 ${MARGIN.top - 7}Z`}
        />
      </g>
      <rect
        className="speed-reach"
        x={MARGIN.left}
        y={0}
        width={Math.max(0, x.range()[1]! - MARGIN.left)}
        height={height}
        onPointerDown={drag}
        onPointerMove={drag}
      />
    </g>
  );
}
