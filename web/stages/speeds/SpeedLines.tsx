import { useMemo } from 'react';
import type { Mark } from '../../state/mark';
import { scaleLinear } from 'd3-scale';
import { useBench, useLit } from '../../state/bench';
import { EngineAxis, MARGIN, useEngineScale } from './EngineAxis';
import { ChartName } from '../../ui/ChartName';
import { shortName } from '../../ui/short-name';
import { useSpeeds } from './SpeedsProvider';
import { type Station, stationLabel } from '@emery/core/drive';
import { bandOf, rpmFigure, type ShaftSpeed } from '@emery/core/speeds';

/** Px of a letter of a name. */
const LETTER = 6.8;

interface Props {
  held: Station;
  shafts: readonly ShaftSpeed[];
  width: number;
  height: number;
}

/** A line for every shaft; behind the one in hand its band. */
export function SpeedLines({ held, shafts, width, height }: Props) {
  const { drive, select, hover } = useBench('drive', 'select', 'hover');
  const { engineRpm, marks, bands } = useSpeeds();
  const x = useEngineScale(width);
  const [, right] = x.range() as [number, number];
  const end = x.domain()[1]!;
  const lines = drive.stations.flatMap((station, index) => {
    const ratio = shafts[index]!.speedRatio;
    return ratio === null ? [] : [{ station, ratio }];
  });
  const own = lines.find(({ station }) => station.id === held.id)!;
  const { band } = bandOf(held, bands);
  const reached = own.ratio * marks.redline;
  // High enough for the line in hand and for the next limit above it, unless that is far off.
  const limits = [band.least, band.continuous, band.burst].filter((rpm): rpm is number => rpm !== null);
  const above = limits.filter((rpm) => rpm > reached && rpm < 1.7 * reached);
  const top =
    1.08 *
    Math.max(own.ratio * end, ...above, Math.min(1.3 * reached, Math.max(...lines.map(({ ratio }) => ratio * end))));
  const y = scaleLinear([0, top], [height - MARGIN.bottom, MARGIN.top]);
  const edge = (rpm: number | null, other: number) => y(Math.min(top, rpm ?? other));
  const zones = [
    { name: 'is-slow', from: edge(0, 0), to: edge(band.least, 0) },
    { name: 'is-right', from: edge(band.least, 0), to: edge(band.continuous ?? band.burst, top) },
    { name: 'is-fast', from: edge(band.continuous ?? band.burst, top), to: edge(band.burst, top) },
    { name: 'is-beyond', from: edge(band.burst, top), to: y(top) },
  ];
  const LIMIT_WORDS = [
    ['least', 'useful from'],
    ['continuous', 'continuous limit'],
    ['burst', 'short-time limit'],
  ] as const;
  // Names at the right end, apart from one another, the one in hand first.
  const names: { station: Station; at: number; line: number }[] = [];
  for (const { station, ratio } of [...lines].sort(
    (a, b) => Number(b.station.id === held.id) - Number(a.station.id === held.id) || b.ratio - a.ratio,
  )) {
    const line = y(ratio * end);
    if (line < MARGIN.top - 2) continue;
    const free = [0, 15, -15, 30, -30, 45]
      .map((shift) => line + shift)
      .find((at) => at > MARGIN.top - 4 && at < height - 20 && names.every((other) => Math.abs(other.at - at) >= 15));
    if (free !== undefined) names.push({ station, at: free, line });
  }
  return (
    <svg width={width} height={height} role="group" aria-label="Speeds of the shafts">
      {zones.map(({ name, from, to }) => (
        <rect
          key={name}
          className={`speed-zone ${name}`}
          x={MARGIN.left}
          width={Math.max(0, right - MARGIN.left)}
          y={Math.min(from, to)}
          height={Math.abs(from - to)}
        />
      ))}
      {LIMIT_WORDS.map(([key, word]) => {
        const rpm = band[key];
        return rpm === null || rpm > top ? null : (
          <g key={key}>
            <path className="speed-limit" d={`M${MARGIN.left} ${y(rpm)}H${right}`} />
            <text className="speed-text" x={MARGIN.left + 6} y={y(rpm) - 4}>
              {word}
            </text>
            <text className="speed-text" x={MARGIN.left - 6} y={y(rpm) + 4} textAnchor="end">
              {rpmFigure(rpm)}
            </text>
          </g>
        );
      })}
      <text className="speed-text" x={8} y={15}>
        {shortName(stationLabel(held), Math.floor(width / LETTER) - 12)}, rev/min
      </text>
      {lines.map(({ station, ratio }) => {
        const to = Math.min(end, top / ratio);
        return (
          <SpeedLine
            key={station.id}
            station={station}
            held={station.id === held.id}
            path={`M${x(0)} ${y(0)}L${x(to)} ${y(ratio * to)}`}
          />
        );
      })}
      <EngineAxis x={x} height={height} />
      {names.map(({ station, at, line }) => (
        <g key={station.id}>
          {Math.abs(at - line) > 3 && <path className="speed-lead" d={`M${right} ${line}L${right + 5} ${at}`} />}
          <ChartName
            name={stationLabel(station)}
            limit={Math.floor((width - right - 8) / LETTER)}
            className={`speed-name${station.id === held.id ? ' is-held' : ''}`}
            x={right + 8}
            y={at + 4}
            onClick={() => select({ kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id })}
            onPointerEnter={() => hover({ kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id })}
            onPointerLeave={() => hover(null)}
          />
        </g>
      ))}
      {engineRpm <= end && own.ratio * engineRpm <= top && (
        <g className="speed-point" transform={`translate(${x(engineRpm)} ${y(own.ratio * engineRpm)})`}>
          <circle r={6} />
          <text
            className="speed-value"
            x={x(engineRpm) > right - 80 ? -10 : 10}
            y={-8}
            textAnchor={x(engineRpm) > right - 80 ? 'end' : 'start'}
          >
            {rpmFigure(own.ratio * engineRpm)}
          </text>
        </g>
      )}
    </svg>
  );
}

function SpeedLine({ station, held, path }: { station: Station; held: boolean; path: string }) {
  const mark = useMemo<Mark>(
    () => ({ kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id }),
    [station.id, station.pulleys],
  );
  const lit = useLit(mark) === 'is-hovered' ? ' is-hovered' : '';
  return <path className={`speed-line${held ? ' is-held' : ''}${lit}`} d={path} />;
}
