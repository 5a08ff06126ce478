import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useEffect, useRef } from 'react';
import { useSpeeds } from './SpeedsProvider';
import { speedsOf } from '@emery/core/speeds';

/** The drawing turns so many times slower than the engine. */
export const SLOWED = 100;
const PICTURES_A_SECOND = 30;

/**
 * Spokes in every driven pulley that turn as the shafts do, their own way round and in true proportion, slowed down.
 * They stand where motion is not wanted.
 */
export function TurningSpokes({ radii, k }: LayerProps) {
  const { shown } = useBench('shown');
  const { drive, solution } = shown;
  const { engineRpm, turning } = useSpeeds();
  const holder = useRef<SVGGElement>(null);
  const rpm = useRef(engineRpm);
  useEffect(() => {
    rpm.current = engineRpm;
  });
  const shafts = speedsOf(drive, solution).shafts.flatMap(({ station: id, speedRatio, direction }) => {
    const station = drive.stations.find((station) => station.id === id)!;
    const r = Math.max(...station.pulleys.map((pulley) => radii.get(pulley.id) ?? 0));
    // On the page y runs down, so a positive turn is clockwise.
    // A large pulley carries its name inside: there the spokes keep to the rim.
    return speedRatio === null || r * k < 10
      ? []
      : [
          {
            id,
            x: station.x,
            y: -station.y,
            r,
            inner: r * k > 48 ? 0.74 : 0.24,
            rate: speedRatio * (direction === 'cw' ? 1 : -1),
          },
        ];
  });
  const rates = shafts.map(({ rate }) => rate).join();
  useEffect(() => {
    if (!turning) return;
    const turns = rates === '' ? [] : rates.split(',').map(Number);
    let crank = 0;
    let last: number | null = null;
    let frame = 0;
    const step = (now: number) => {
      frame = requestAnimationFrame(step);
      // Slow motion needs no more pictures, and a tablet's battery lasts longer.
      if (last !== null && now - last < 1000 / PICTURES_A_SECOND - 2) return;
      // A page that was away must not leap.
      crank += (rpm.current / 60 / SLOWED) * Math.min(0.1, (now - (last ?? now)) / 1000);
      last = now;
      const spokes = holder.current?.children;
      turns.forEach((rate, index) =>
        spokes?.[index]?.firstElementChild?.setAttribute(
          'transform',
          `rotate(${((crank * rate * 360) % 360).toFixed(2)})`,
        ),
      );
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [turning, rates]);
  return (
    <g ref={holder} className="spokes" aria-hidden>
      {shafts.map(({ id, x, y, r, inner }) => (
        <g key={id} transform={`translate(${x} ${y})`}>
          <path
            d={SPOKES.map(([ux, uy]) => `M${ux * r * inner} ${uy * r * inner}L${ux * r * 0.88} ${uy * r * 0.88}`).join(
              '',
            )}
          />
        </g>
      ))}
    </g>
  );
}

const SPOKES = [-90, 30, 150].map(
  (degrees) => [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)] as const,
);
