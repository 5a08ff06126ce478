import { useEffect, useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { edit, useBenchStores } from '../../state/bench';
import type { DragRule, Stage } from '../../stages/stage';
import type { GripHandlers } from './PulleyGrip';
import { moveStation, type Station } from '@emery/core/drive';
import { tenth } from '@emery/core/numeric';
import { runOfEdits } from '../../state/drive-history';

/** A finger may tremble this far, px, before a tap becomes a drag. */
const TREMBLE = 5;

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

interface Held {
  pointer: number;
  station: string;
  from: { x: number; y: number };
  start: { x: number; y: number };
  step: ReturnType<DragRule>;
  moved: boolean;
  /** When the finger came down; no other drag has it. */
  began: number;
}

interface Options {
  stage: Stage;
  /** The place of each pulley on the belt in hand. */
  order: ReadonlyMap<string, number>;
  /** Screen px per mm. */
  k: number;
}

/**
 * Taking shafts in hand, dragging them by the stage's rule, and moving them by arrow keys. The handlers never change.
 */
export function useShaftDrag(options: Options): GripHandlers {
  const bench = useBenchStores();
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const held = useRef<Held | null>(null);
  const frame = useRef(0);
  return useMemo(() => {
    const take = (station: Station) => {
      const { order } = latest.current;
      const pulley = station.pulleys.find(({ id }) => order.has(id)) ?? station.pulleys[0]!;
      bench.selection.set({ kind: 'pulley', station: station.id, pulley: pulley.id });
    };
    const move = ({ station, from, start, step, began }: Held, dx: number, dy: number) => {
      const { k } = latest.current;
      const { dispatch, setPose } = bench.get();
      const outcome = step!({ x: start.x + dx / k, y: start.y - dy / k });
      if ('pose' in outcome) setPose(outcome.pose);
      else dispatch(edit(outcome.change, { kind: 'drag', name: `${station} ${from.x} ${from.y} ${began}` }));
    };
    return {
      onGrab: (station, event) => {
        const { shown, tapping } = bench.get();
        // While tapping, the ground below follows the finger across pulleys.
        if (event.button !== 0 || held.current || tapping) return;
        event.stopPropagation();
        event.currentTarget.focus({ preventScroll: true });
        event.currentTarget.setPointerCapture(event.pointerId);
        const source = shown.drive.belts.find(({ id }) => id === shown.belt?.id);
        held.current = {
          pointer: event.pointerId,
          station: station.id,
          from: { x: event.clientX, y: event.clientY },
          start: { x: station.x, y: station.y },
          began: event.timeStamp,
          step: latest.current.stage.drag(shown.drive, source, station.id),
          moved: false,
        };
        take(station);
      },
      onDrag: ({ pointerId, clientX, clientY }: PointerEvent<SVGGElement>) => {
        const now = held.current;
        if (now?.pointer !== pointerId) return;
        const [dx, dy] = [clientX - now.from.x, clientY - now.from.y];
        if (now.step === null || (!now.moved && Math.hypot(dx, dy) < TREMBLE)) return;
        now.moved = true;
        // One edit a frame, whatever the pointer's rate.
        cancelAnimationFrame(frame.current);
        frame.current = requestAnimationFrame(() => move(now, dx, dy));
      },
      onLetGo: ({ pointerId }: PointerEvent<SVGGElement>) => {
        if (held.current?.pointer === pointerId) held.current = null;
      },
      onKey: (station: Station, event: KeyboardEvent) => {
        const { tapping, tap, dispatch } = bench.get();
        const arrow = latest.current.stage.nudges ? ARROWS[event.key] : undefined;
        if (arrow) {
          const by = event.shiftKey ? 10 : 1;
          const nudge = edit(
            (drive) => {
              const now = drive.stations.find(({ id }) => id === station.id)!;
              return moveStation(drive, station.id, tenth(now.x + arrow[0] * by), tenth(now.y + arrow[1] * by));
            },
            runOfEdits(`nudge ${station.id}`),
          );
          dispatch(nudge);
        } else if (event.key === 'Enter' || event.key === ' ') {
          if (tapping) tap(station.id);
          else take(station);
        } else return;
        event.preventDefault();
      },
    };
  }, [bench]);
}
