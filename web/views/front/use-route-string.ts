import { useRef, useState, type PointerEvent } from 'react';

interface Options {
  active: boolean;
  /** The shaft under a point of the page, or null. */
  stationAt: (clientX: number, clientY: number) => string | null;
  /** The shaft the route began at. */
  first: string | null;
  tap: (station: string) => void;
  trace: (station: string) => void;
  /** The string came back to where it began. */
  close: () => void;
}

/** A finger may tremble this far, px, before a tap becomes a string. */
const TREMBLE = 8;

/** Routing by finger: a tap puts one pulley on, a finger drawn across them puts each on as it is met, like a string. */
export function useRouteString({ active, stationAt, first, tap, trace, close }: Options) {
  const held = useRef<{
    pointer: number;
    x: number;
    y: number;
    moved: boolean;
    last: string | null;
    met: number;
  } | null>(null);
  const [path, setPath] = useState('');

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (!active || event.button !== 0 || event.shiftKey) return;
    if (held.current) {
      // A second finger pinches; what the first drew so far stays.
      held.current = null;
      setPath('');
      return;
    }
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { pointer: event.pointerId, x: event.clientX, y: event.clientY, moved: false, last: null, met: 0 };
  };
  const meet = (clientX: number, clientY: number) => {
    const now = held.current!;
    const station = stationAt(clientX, clientY);
    if (station === now.last) return;
    now.last = station;
    if (station === null) return;
    if (station === first && now.met > 1) {
      held.current = null;
      setPath('');
      close();
      return;
    }
    now.met += 1;
    trace(station);
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    const now = held.current;
    if (now?.pointer !== event.pointerId) return;
    const box = event.currentTarget.getBoundingClientRect();
    const at = (x: number, y: number) => `${(x - box.left).toFixed(1)} ${(y - box.top).toFixed(1)}`;
    if (!now.moved) {
      if (Math.hypot(event.clientX - now.x, event.clientY - now.y) < TREMBLE) return;
      now.moved = true;
      setPath(`M${at(now.x, now.y)}`);
      meet(now.x, now.y);
    }
    setPath((drawn) => `${drawn}L${at(event.clientX, event.clientY)}`);
    // A quick finger jumps: what lies between two reports was met too.
    const steps = Math.ceil(Math.hypot(event.clientX - now.x, event.clientY - now.y) / 12);
    for (let step = 1; step <= steps && held.current; step += 1) {
      meet(now.x + ((event.clientX - now.x) * step) / steps, now.y + ((event.clientY - now.y) * step) / steps);
    }
    [now.x, now.y] = [event.clientX, event.clientY];
  };
  const onPointerUp = (event: PointerEvent<SVGSVGElement>) => {
    const now = held.current;
    if (now?.pointer !== event.pointerId) return;
    held.current = null;
    setPath('');
    const station = stationAt(event.clientX, event.clientY);
    if (!now.moved && station !== null) tap(station);
  };
  return { path, handlers: active ? { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: onPointerUp } : {} };
}
