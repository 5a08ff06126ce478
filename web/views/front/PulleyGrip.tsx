import { memo, useMemo, type KeyboardEvent, type PointerEvent } from 'react';
import { useBench, useLit } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { PulleyDrawing } from './PulleyDrawing';
import { type Station, stationLabel } from '@emery/core/drive';
import { formatLength, type LengthUnit } from '@emery/core/quantity';

export interface GripHandlers {
  onGrab: (station: Station, event: PointerEvent<SVGGElement>) => void;
  onDrag: (event: PointerEvent<SVGGElement>) => void;
  onLetGo: (event: PointerEvent<SVGGElement>) => void;
  onKey: (station: Station, event: KeyboardEvent) => void;
}

interface Props extends GripHandlers {
  station: Station;
  radii: ReadonlyMap<string, number>;
  /** Its number on the belt in hand. */
  place: number | undefined;
  faulty: boolean;
  off: boolean;
  unit: LengthUnit;
  /** Screen px per mm. */
  scale: number;
}

/** One shaft with its pulleys, to be taken in hand and dragged. Drawn again only when something of its own changes. */
export const PulleyGrip = memo(function PulleyGrip(props: Props) {
  const { station, radii, place, faulty, off, unit, scale, onGrab, onDrag, onLetGo, onKey } = props;
  const { hover } = useBench('hover');
  const mark = useMemo<Mark>(
    () => ({ kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id }),
    [station.id, station.pulleys],
  );
  const lit = useLit(mark);
  const largestFirst = [...station.pulleys].sort((a, b) => (radii.get(b.id) ?? 0) - (radii.get(a.id) ?? 0));
  const radius = radii.get(largestFirst[0]!.id) ?? 0;
  const number = place === undefined ? '' : `, number ${place} on the belt`;
  return (
    <g
      className={['pulley', lit, faulty && 'is-fault', off && 'is-off'].filter(Boolean).join(' ')}
      transform={`translate(${station.x} ${-station.y})`}
      data-grip
      data-station={station.id}
      tabIndex={0}
      role="button"
      aria-pressed={lit === 'is-selected'}
      aria-label={`${stationLabel(station)}${number}, at x ${formatLength(station.x, unit)}, y ${formatLength(station.y, unit)}`}
      onPointerDown={(event) => onGrab(station, event)}
      onPointerMove={onDrag}
      onPointerUp={onLetGo}
      onPointerCancel={onLetGo}
      onPointerEnter={() => hover(mark)}
      onPointerLeave={() => hover(null)}
      onKeyDown={(event) => onKey(station, event)}
    >
      <title>{stationLabel(station)}</title>
      <circle className="pulley-reach" r={Math.max(radius, 22 / scale)} />
      {largestFirst.map(({ id, surface }) => (
        <PulleyDrawing key={id} r={Math.max(radii.get(id) ?? 0, 3)} surface={surface} scale={scale} />
      ))}
    </g>
  );
}, alike);

/** Radii are worked out with every change of the drive; only those of this shaft count. */
function alike(before: Props, now: Props): boolean {
  return (Object.keys(now) as (keyof Props)[]).every((key) =>
    key === 'radii'
      ? now.station.pulleys.every(({ id }) => before.radii.get(id) === now.radii.get(id))
      : Object.is(before[key], now[key]),
  );
}
