import { memo, useRef, type PointerEvent } from 'react';
import { edit, useBench, useSelected } from '../../state/bench';
import type { DriveAction } from '../../state/drive-history';
import { moveObstacle, type Obstacle, obstacleLabel } from '@emery/core/drive';
import { tenth } from '@emery/core/numeric';

/** Bolts, arms and brackets that the belt must keep clear of; dragged at Survey. */
export function Obstacles({ k, movable }: { k: number; movable: boolean }) {
  const { shown, select, dispatch } = useBench('shown', 'select', 'dispatch');
  const selected = useSelected();
  const { drive, belt } = shown;
  const hit = new Set(belt?.findings.map(({ obstacle }) => obstacle));
  return (
    <g className="obstacles">
      {(drive.obstacles ?? []).map((obstacle) => (
        <ObstacleDrawing
          key={obstacle.id}
          obstacle={obstacle}
          name={obstacleLabel(drive, obstacle.id)}
          k={k}
          hit={hit.has(obstacle.id)}
          chosen={selected?.kind === 'obstacle' && selected.id === obstacle.id}
          movable={movable}
          select={select}
          dispatch={dispatch}
        />
      ))}
    </g>
  );
}

interface Props {
  obstacle: Obstacle;
  name: string;
  k: number;
  hit: boolean;
  chosen: boolean;
  movable: boolean;
  select: (mark: { kind: 'obstacle'; id: string }) => void;
  dispatch: (action: DriveAction) => void;
}

const ObstacleDrawing = memo(function ObstacleDrawing({
  obstacle,
  name,
  k,
  hit,
  chosen,
  movable,
  select,
  dispatch,
}: Props) {
  const held = useRef<{ pointer: number; x: number; y: number; began: number } | null>(null);
  const { id, x, y, to, diameter } = obstacle;
  const onPointerDown = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0 || !movable) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = {
      pointer: event.pointerId,
      x: event.clientX / k - x,
      y: -event.clientY / k - y,
      began: event.timeStamp,
    };
    select({ kind: 'obstacle', id });
  };
  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    const from = held.current;
    if (from?.pointer !== event.pointerId) return;
    dispatch(
      edit((d) => moveObstacle(d, id, tenth(event.clientX / k - from.x), tenth(-event.clientY / k - from.y)), {
        kind: 'drag',
        name: `obstacle ${id} ${from.x} ${from.began}`,
      }),
    );
  };
  const line = to ?? { x: x + 0.01, y };
  return (
    <g
      className={`obstacle${hit ? ' is-hit' : ''}${chosen ? ' is-chosen' : ''}`}
      data-obstacle={id}
      {...(movable && { 'data-grip': '' })}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => (held.current = null)}
    >
      <title>{name}</title>
      <line className="obstacle-edge" x1={x} y1={-y} x2={line.x} y2={-line.y} strokeWidth={Math.max(diameter, 6 / k)} />
      <line
        className="obstacle-body"
        x1={x}
        y1={-y}
        x2={line.x}
        y2={-line.y}
        strokeWidth={Math.max(diameter - 3 / k, 3 / k)}
      />
      <path
        className="obstacle-mark"
        d={`M${x - diameter / 4} ${-y - diameter / 4}l${diameter / 2} ${diameter / 2}m0 ${-diameter / 2}l${-diameter / 2} ${diameter / 2}`}
      />
    </g>
  );
});
