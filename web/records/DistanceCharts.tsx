import { useUnit } from '../habits/habits';
import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import { WearLines } from '../stages/inspect/WearLines';
import { useSizeOf } from '../ui/use-size-of';
import type { Drive, OdometerUnit } from '@emery/core/drive';
import { inspectDrive, type Wear } from '@emery/core/inspect';
import { namedByKind, tensionSittings, type TensionSitting } from '@emery/core/records';
import { forceFigure } from '@emery/core/tension';
import { grouped } from '@emery/core/quantity';

const MARGIN = { left: 56, right: 18, top: 24, bottom: 34 };
const HEIGHT = 190;

/** What each belt of a drive did over the distance: how it wore, and how it held its tension. */
export function DistanceCharts({ drive, vehicleUnit }: { drive: Drive; vehicleUnit: OdometerUnit }) {
  const unit = drive.inspect?.odometerUnit ?? vehicleUnit;
  const charts = useMemo(() => {
    const items = inspectDrive(drive);
    const sittings = tensionSittings(drive).filter(({ odometer, tension }) => odometer !== null && tension !== null);
    return drive.belts.flatMap(({ id }) => {
      const wear = items.find(({ on, target }) => on === 'belt' && target === id)?.wear ?? null;
      const own = sittings.filter(({ belt }) => belt === id);
      return wear || own.length > 0 ? [{ id, wear, own }] : [];
    });
  }, [drive]);
  if (charts.length === 0)
    return <p className="quiet">No wear or tension reading with an odometer yet: two readings give a curve.</p>;
  return charts.map(({ id, wear, own }) => (
    <div key={id} className="distance-charts">
      <h3>
        {namedByKind(
          drive,
          drive.belts.find((belt) => belt.id === id)!,
        )}
      </h3>
      {wear && <WearOver wear={wear} unit={unit} />}
      {own.length > 0 && <TensionOver sittings={own} unit={unit} />}
    </div>
  ));
}

function WearOver({ wear, unit }: { wear: Wear; unit: OdometerUnit }) {
  const holder = useRef<HTMLDivElement>(null);
  const { width } = useSizeOf(holder);
  return (
    <div ref={holder} className="wear-chart">
      {width >= 120 && <WearLines wear={wear} unit={unit} width={width} height={HEIGHT} />}
    </div>
  );
}

function TensionOver({ sittings, unit }: { sittings: readonly TensionSitting[]; unit: OdometerUnit }) {
  const holder = useRef<HTMLDivElement>(null);
  const { width } = useSizeOf(holder);
  return <div ref={holder}>{width >= 120 && <TensionLines sittings={sittings} unit={unit} width={width} />}</div>;
}

function TensionLines({
  sittings,
  unit,
  width,
}: {
  sittings: readonly TensionSitting[];
  unit: OdometerUnit;
  width: number;
}) {
  const lengths = useUnit();
  const points = sittings.map(({ odometer, tension }) => ({ odometer: odometer!, ...tension! }));
  const [first = 0, last = 0] = extent(points, ({ odometer }) => odometer) as [number, number];
  const room = Math.max(500, 0.08 * (last - first));
  const x = scaleLinear([first - room, last + room], [MARGIN.left, width - MARGIN.right]);
  const max = Math.max(...points.map(({ at, plusMinus }) => at + plusMinus));
  const y = scaleLinear([0, 1.15 * max], [HEIGHT - MARGIN.bottom, MARGIN.top]);
  const inOrder = [...points].sort((a, b) => a.odometer - b.odometer);
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label="Tension over the odometer">
      <text className="wear-text" x={8} y={15}>
        Tension, N
      </text>
      {y.ticks(4).map((value) => (
        <text key={value} className="wear-text" x={MARGIN.left - 8} y={y(value) + 4} textAnchor="end">
          {value}
        </text>
      ))}
      {x.ticks(Math.max(2, Math.floor(width / 170))).map((odometer) => (
        <g key={odometer}>
          <path className="wear-grid" d={`M${x(odometer)} ${MARGIN.top}V${HEIGHT - MARGIN.bottom}`} />
          <text className="wear-text" x={x(odometer)} y={HEIGHT - MARGIN.bottom + 18} textAnchor="middle">
            {grouped(odometer)} {unit}
          </text>
        </g>
      ))}
      <path className="wear-line" d={`M${inOrder.map(({ odometer, at }) => `${x(odometer)} ${y(at)}`).join('L')}`} />
      {inOrder.map(({ odometer, at, plusMinus }, k) => (
        <g key={k}>
          <path className="wear-sigma" d={`M${x(odometer)} ${y(at - plusMinus)}V${y(at + plusMinus)}`} />
          <circle className="wear-reading" cx={x(odometer)} cy={y(at)} r={5} />
          <text className="wear-value" x={x(odometer) + 9} y={y(at) - 8}>
            {forceFigure(at, lengths)}
          </text>
        </g>
      ))}
    </svg>
  );
}
