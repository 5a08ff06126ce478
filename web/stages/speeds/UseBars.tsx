import { fixed } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { EngineAxis, MARGIN, useEngineScale } from './EngineAxis';
import { shortName } from '../../ui/short-name';
import { useSpeeds } from './SpeedsProvider';
import { type EngineUse, type Station, stationLabel } from '@emery/core/drive';
import { bandOf, normalised, rpmFigure, withShare } from '@emery/core/speeds';
import { type EditGroup, runOfEdits } from '../../state/drive-history';

interface Props {
  use: EngineUse;
  station: Station;
  ratio: number;
  width: number;
  height: number;
}

/**
 * The running time as bars over the engine's speed, each to be dragged; behind them where the accessory in hand is too
 * slow, right, or too fast.
 */
export function UseBars({ use, station, ratio, width, height }: Props) {
  const { dispatch } = useBench('dispatch');
  const { bands } = useSpeeds();
  // While a bar is dragged the scale stands still under it.
  const [held, hold] = useState<{ pointer: number; from: number; top: number } | null>(null);
  const x = useEngineScale(width);
  const [left, right] = x.range() as [number, number];
  const bins = normalised(use.bins);
  const max = Math.max(0.05, ...bins.map(({ share }) => share)) * 1.15;
  const y = scaleLinear([0, held?.top ?? max], [height - MARGIN.bottom, MARGIN.top]);
  const { least, continuous, burst } = bandOf(station, bands).band;
  const at = (rpm: number | null, other: number) =>
    Math.max(left, Math.min(right, rpm === null ? other : x(rpm / ratio)));
  const zones = [
    { name: 'is-slow', from: left, to: at(least, left) },
    { name: 'is-right', from: at(least, left), to: at(continuous ?? burst, right) },
    { name: 'is-fast', from: at(continuous ?? burst, right), to: at(burst, right) },
    { name: 'is-beyond', from: at(burst, right), to: right },
  ];
  const put = (index: number, share: number, group: EditGroup) =>
    dispatch(edit((d) => ({ ...d, use: { ...withShare(d.use ?? use, index, share), name: undefined } }), group));
  return (
    <svg width={width} height={height} role="group" aria-label="Running time by engine speed">
      {zones.map(({ name, from, to }) => (
        <rect
          key={name}
          className={`speed-zone ${name}`}
          x={from}
          width={Math.max(0, to - from)}
          y={MARGIN.top}
          height={height - MARGIN.top - MARGIN.bottom}
        />
      ))}
      <text className="speed-text" x={8} y={15}>
        Share of running time, over the band of {shortName(stationLabel(station), Math.floor(width / 7) - 40)}
      </text>
      <EngineAxis x={x} height={height} />
      {bins.map(({ from, to, share }, index) => {
        const [x0, x1] = [Math.max(left, x(from)), Math.min(right, x(to))];
        if (x1 <= x0) return null;
        const name = `${rpmFigure(from)} to ${rpmFigure(to)} rev/min`;
        return (
          <g
            key={from}
            className="use-bar"
            role="slider"
            tabIndex={0}
            aria-label={name}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(1000 * share) / 10}
            aria-valuetext={`${fixed(100 * share, 1)} percent of the time`}
            onKeyDown={(event) => {
              const step = {
                ArrowUp: 0.01,
                ArrowRight: 0.01,
                ArrowDown: -0.01,
                ArrowLeft: -0.01,
                PageUp: 0.1,
                PageDown: -0.1,
              }[event.key];
              if (step === undefined) return;
              event.preventDefault();
              put(index, share + step, runOfEdits(`use ${index}`));
            }}
            onPointerDown={(event) => {
              hold({ pointer: event.pointerId, from: event.timeStamp, top: max });
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => {
              if (!held || held.pointer !== event.pointerId) return;
              const { top } = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
              put(index, y.invert(event.clientY - top), { kind: 'drag', name: `use ${held.from}` });
            }}
            onPointerUp={() => hold(null)}
            onPointerCancel={() => hold(null)}
          >
            <title>{`${name}: ${fixed(100 * share, 1)} %`}</title>
            <rect
              className="use-reach"
              x={x0}
              width={x1 - x0}
              y={MARGIN.top}
              height={height - MARGIN.top - MARGIN.bottom}
            />
            <rect
              className="use-fill"
              x={x0 + 1}
              width={Math.max(1, x1 - x0 - 2)}
              y={Math.max(MARGIN.top, y(share))}
              height={Math.max(1.5, height - MARGIN.bottom - Math.max(MARGIN.top, y(share)))}
            />
            {share > 0.045 && (
              <text
                className="speed-text"
                x={(x0 + x1) / 2}
                y={Math.max(MARGIN.top + 10, y(share) - 4)}
                textAnchor="middle"
              >
                {Math.round(100 * share)} %
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
