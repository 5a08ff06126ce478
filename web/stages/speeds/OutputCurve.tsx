import { fixed } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import { useBench } from '../../state/bench';
import { EngineAxis, MARGIN, useEngineScale } from './EngineAxis';
import { useSpeeds } from './SpeedsProvider';
import type { Station } from '@emery/core/drive';
import { breakEvenRpm, loadOf, outputAt } from '@emery/core/accessory';

interface Props {
  station: Station;
  ratio: number;
  width: number;
  height: number;
}

/** What an alternator gives over the engine's speed, its entered points, and what is switched on. */
export function OutputCurve({ station, ratio, width, height }: Props) {
  const { drive } = useBench('drive');
  const { engineRpm } = useSpeeds();
  const points = station.output!;
  const load = loadOf(drive.loads ?? []);
  const x = useEngineScale(width);
  const [left, right] = x.range() as [number, number];
  const y = scaleLinear(
    [0, 1.15 * Math.max(load, ...points.map(({ amps }) => amps), 1)],
    [height - MARGIN.bottom, MARGIN.top],
  );
  const end = x.domain()[1]!;
  const curve = Array.from({ length: 160 }, (_, k) => {
    const engine = (end * k) / 159;
    return { engine, amps: outputAt(points, engine * ratio)! };
  });
  const breakEven = breakEvenRpm(points, load);
  const now = outputAt(points, engineRpm * ratio)!;
  return (
    <svg width={width} height={height} role="group" aria-label="Output against engine speed">
      {load > 0 && breakEven !== null && (
        <rect
          className="speed-zone is-slow"
          x={left}
          width={Math.max(0, Math.min(right, x(breakEven / ratio)) - left)}
          y={MARGIN.top}
          height={height - MARGIN.top - MARGIN.bottom}
        />
      )}
      <text className="speed-text" x={8} y={15}>
        Output, A
      </text>
      {y.ticks(4).map((amps) => (
        <text key={amps} className="speed-text" x={left - 6} y={y(amps) + 4} textAnchor="end">
          {amps}
        </text>
      ))}
      <path
        className="speed-line is-held"
        d={curve
          .map(({ engine, amps }, k) => `${k === 0 ? 'M' : 'L'}${x(engine).toFixed(1)} ${y(amps).toFixed(1)}`)
          .join('')}
      />
      {points.map(({ rpm, amps }) =>
        rpm / ratio > end ? null : <circle key={rpm} className="output-point" cx={x(rpm / ratio)} cy={y(amps)} r={4} />,
      )}
      {load > 0 && (
        <>
          <path className="speed-load" d={`M${left} ${y(load)}H${right}`} />
          <text className="speed-name" x={right + 8} y={y(load) + 4}>
            load {fixed(load, 0)} A
          </text>
        </>
      )}
      <EngineAxis x={x} height={height} />
      {engineRpm <= end && (
        <g className="speed-point" transform={`translate(${x(engineRpm)} ${y(now)})`}>
          <circle r={6} />
          <text
            className="speed-value"
            x={x(engineRpm) > right - 80 ? -10 : 10}
            y={18}
            textAnchor={x(engineRpm) > right - 80 ? 'end' : 'start'}
          >
            {fixed(now, 0)} A
          </text>
        </g>
      )}
    </svg>
  );
}
