import { useEffect, useRef } from 'react';
import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useNoise } from './NoiseProvider';
import { SLOWED, useNextTest, useRates, useSuspect } from './sums';
import './noise.css';
import { stationOf } from '@emery/core/drive';

/** Suspected part in marking blue, turning at its own rate, and where the next test is made. */
export default function NoiseLayer({ k, radii }: LayerProps) {
  const { drive, shown } = useBench('drive', 'shown');
  const { view } = useNoise();
  const rates = useRates();
  const suspect = useSuspect();
  const next = useNextTest();
  const nextAt = view === 'causes' && next?.pulley ? stationOf(drive, next.pulley) : undefined;
  if (shown.drive !== drive) return null;
  const belt = suspect?.what === 'belt' ? shown.solution.belts.find(({ id }) => id === suspect.id) : undefined;
  // A test of a belt, and water on its ribs, is made on its longest span.
  const tested = view === 'causes' && (next?.belt ?? (next?.test === 'water' ? shown.belt?.id : undefined));
  const free =
    shown.solution.belts.find(({ id }) => id === tested)?.spans.filter(({ length }) => length !== null) ?? [];
  const span = free.reduce<(typeof free)[number] | undefined>(
    (longest, solution) => (longest && longest.length! >= solution.length! ? longest : solution),
    undefined,
  );
  const shaft = suspect?.what === 'pulley' ? stationOf(drive, suspect.id) : undefined;
  const radiusOf = (station: typeof shaft) =>
    Math.max(0, ...(station?.pulleys ?? []).map(({ id }) => radii.get(id) ?? 0));
  return (
    <g className="noise-layer" aria-hidden>
      {belt?.spans.map(
        ({ from, start, end, length }) =>
          length !== null && (
            <line key={from} className="suspect-span" x1={start.x} y1={-start.y} x2={end.x} y2={-end.y} />
          ),
      )}
      {shaft && (
        <g transform={`translate(${shaft.x} ${-shaft.y})`}>
          <circle className="suspect-glow" r={radiusOf(shaft) + 6 / k} />
          <Turning
            radius={radiusOf(shaft)}
            large={radiusOf(shaft) * k > 48}
            rate={turnsOf(shown.solution.belts, shaft.id, rates)}
          />
        </g>
      )}
      {span && <line className="next-span" x1={span.start.x} y1={-span.start.y} x2={span.end.x} y2={-span.end.y} />}
      {nextAt && (
        <g transform={`translate(${nextAt.x} ${-nextAt.y})`}>
          <circle className="next-here" r={radiusOf(nextAt) + 13 / k} />
        </g>
      )}
    </g>
  );
}

/** Turns a second of a shaft, + counter-clockwise as it is seen. */
function turnsOf(
  belts: readonly { contacts: readonly { station: string; pulley: string; rotation: string | null }[] }[],
  station: string,
  rates: ReturnType<typeof useRates>,
): number {
  const contact = belts.flatMap(({ contacts }) => contacts).find((contact) => contact.station === station);
  const rate = rates.find(({ what, id }) => what === 'pulley' && id === contact?.pulley);
  return rate && contact ? (contact.rotation === 'cw' ? -1 : 1) * rate.hz : 0;
}

/** Spokes that turn at a rate, slowed down; they stand where motion is not wanted. */
function Turning({ radius, large, rate }: { radius: number; large: boolean; rate: number }) {
  const spokes = useRef<SVGPathElement>(null);
  useEffect(() => {
    if (rate === 0 || matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    let frame = 0;
    const began = performance.now();
    const step = (now: number) => {
      // On the page y runs down, so a positive turn is clockwise.
      const turned = (((-rate * (now - began)) / 1000 / SLOWED) * 360) % 360;
      spokes.current?.setAttribute('transform', `rotate(${turned.toFixed(2)})`);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [rate]);
  // A large pulley carries its name inside: there the spokes keep to the rim.
  const inner = large ? 0.74 : 0.24;
  return (
    <path
      ref={spokes}
      className="suspect-spokes"
      d={[-90, 30, 150]
        .map((degrees) => {
          const [x, y] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
          return `M${x * radius * inner} ${y * radius * inner}L${x * radius * 0.88} ${y * radius * 0.88}`;
        })
        .join('')}
    />
  );
}
