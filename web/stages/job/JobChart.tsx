import { scaleLinear } from 'd3-scale';
import { useRef } from 'react';
import { useBench } from '../../state/bench';
import { useSizeOf } from '../../ui/use-size-of';
import { useJobStage } from './JobProvider';
import { useCard } from './sums';
import './job.css';
import { shortened } from '../../views/front/text-width';
import { type Drive, pulleyLabel, pulleysById, stationLabel } from '@emery/core/drive';
import { beltName, type JobCard } from '@emery/core/job';
import { beltWidthMm, bodyRadiusMm, type Section, sectionFor } from '@emery/core/section';
import { capital } from '@emery/core/quantity';

const MARGIN = { left: 92, right: 150, top: 48, bottom: 26 };
/** Names nearer together than this stand on lines of their own, px. */
const NAME_WIDTH = 160;
const ORDINALS = ['1st', '2nd', '3rd'];
const ordinal = (k: number) => ORDINALS[k] ?? `${k + 1}th`;

/** Drive from the side: which belt lies in front of which, and in what order they come off. */
export default function JobChart() {
  const { drive } = useBench('drive');
  const { card } = useCard();
  const holder = useRef<HTMLElement>(null);
  const { width, height } = useSizeOf(holder);
  const routed = drive.belts.some(({ route }) => route.length > 0);
  return (
    <section className="unrolled sheet" aria-label="Drive from the side" ref={holder}>
      {!routed && <p className="unrolled-empty">The side view appears here once belts have a route.</p>}
      {routed && card && width >= 120 && <Side drive={drive} card={card} width={width} height={height} />}
    </section>
  );
}

interface SideBelt {
  id: string;
  planes: number[];
  ys: number[];
  section: Section;
  widthMm: number;
}

function Side({ drive, card, width, height }: { drive: Drive; card: JobCard; width: number; height: number }) {
  const { step: looked } = useJobStage();
  const pulleys = pulleysById(drive);
  const belts = drive.belts.flatMap((belt): SideBelt[] => {
    const section = sectionFor(belt.section, belt.sectionOverrides);
    if (!section || belt.route.length === 0) return [];
    const placed = belt.route.map(({ pulley }) => pulleys.get(pulley)!);
    return [
      {
        id: belt.id,
        planes: placed.map(({ pulley }) => pulley.plane ?? 0),
        ys: placed.map(({ station }) => station.y),
        section,
        widthMm: beltWidthMm(belt, section) || section.thickness,
      },
    ];
  });
  const sectionOf = new Map(
    drive.belts.flatMap((belt) => belt.route.map(({ pulley }) => [pulley, sectionFor(belt.section)] as const)),
  );
  const planes = [...pulleys.values()].map(({ pulley }) => pulley.plane ?? 0);
  const widest = Math.max(10, ...belts.map(({ widthMm }) => widthMm));
  const [rear, front] = [Math.min(...planes) - widest * 1.2, Math.max(...planes) + widest * 1.4];
  const reach = [...pulleys.values()].map(({ pulley, station }) => {
    const r = bodyRadiusMm(pulley, sectionOf.get(pulley.id) ?? null);
    return [station.y - r, station.y + r] as const;
  });
  const x = scaleLinear([rear, front], [MARGIN.left, width - MARGIN.right]);
  const y = scaleLinear(
    [Math.min(...reach.map(([low]) => low)), Math.max(...reach.map(([, high]) => high))],
    [height - MARGIN.bottom, MARGIN.top],
  );
  const step = card.steps.find(({ id }) => id === looked);
  const rows = rowsOf(belts.map(({ id, planes: at, ys }) => ({ id, at: x(at[ys.indexOf(Math.max(...ys))]!) })));
  return (
    <svg width={width} height={height} role="img" aria-label="Drive from the side, engine on the left">
      <rect
        className="side-block"
        x={MARGIN.left - 10}
        y={MARGIN.top - 8}
        width={6}
        height={height - MARGIN.top - MARGIN.bottom + 16}
      />
      <text className="side-text" x={MARGIN.left - 18} y={height / 2} textAnchor="end">
        Engine
      </text>
      <text className="side-text" x={width - 24} y={height - 8} textAnchor="end">
        front, planes magnified
      </text>
      {drive.stations.map((station) => {
        const last = Math.max(...station.pulleys.map(({ plane = 0 }) => plane));
        return (
          <path key={station.id} className="side-shaft" d={`M${MARGIN.left - 4} ${y(station.y)}H${x(last) + 12}`} />
        );
      })}
      {[...pulleys.values()].map(({ pulley, station }) => {
        const r = bodyRadiusMm(pulley, sectionOf.get(pulley.id) ?? null);
        const half = 9;
        return (
          <rect
            key={pulley.id}
            className={`side-pulley${step?.pulley === pulley.id ? ' is-here' : ''}`}
            x={x(pulley.plane ?? 0) - half}
            y={y(station.y + r)}
            width={2 * half}
            height={Math.max(3, y(station.y - r) - y(station.y + r))}
            rx={2}
          >
            <title>{pulleyLabel(drive, pulley.id)}</title>
          </rect>
        );
      })}
      {shaftNames(drive, x, y).map(({ id, name, at, line }) => (
        <text key={id} className="side-name" x={at} y={line}>
          {name}
        </text>
      ))}
      {belts.map(({ id, planes: at, ys }) => {
        const place = card.order.off.indexOf(id);
        const order = at.map((_, k) => k).sort((a, b) => ys[a]! - ys[b]!);
        const line = order.map((k) => `${x(at[k]!)} ${y(ys[k]!)}`).join('L');
        const top = order.at(-1)!;
        return (
          <g key={id} className={`side-belt${place < 0 ? ' is-staying' : ''}${step?.belt === id ? ' is-here' : ''}`}>
            <path d={`M${line}`} />
            <text x={x(at[top]!)} y={18 + 16 * (rows.get(id) ?? 0)} textAnchor="middle">
              {capital(beltName(drive, id))}
              {place < 0 ? ': stays on' : orderWords(place, card.order.off.length)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** A line of names takes this much, px. */
const NAME_HEIGHT = 14;

/** The name of every shaft in front of its end; of two that stand at one height the lower one moves down. */
function shaftNames({ stations }: Drive, x: (mm: number) => number, y: (mm: number) => number) {
  let free = -Infinity;
  return [...stations]
    .sort((a, b) => b.y - a.y)
    .map((station) => {
      const end = Math.max(...station.pulleys.map(({ plane = 0 }) => plane));
      const line = Math.max(y(station.y) + 4, free);
      free = line + NAME_HEIGHT;
      return {
        id: station.id,
        name: shortened(stationLabel(station), 130, 'label-figure', false),
        at: x(end) + 18,
        line,
      };
    });
}

/** On which of two lines each name stands: beside one that stands close to it on the other. */
function rowsOf(names: readonly { id: string; at: number }[]): ReadonlyMap<string, number> {
  const rows = new Map<string, number>();
  let [before, row] = [-Infinity, 0];
  for (const { id, at } of [...names].sort((a, b) => a.at - b.at)) {
    row = at - before < NAME_WIDTH ? 1 - row : 0;
    rows.set(id, row);
    before = at;
  }
  return rows;
}

/** When a belt of several comes off and goes on. */
const orderWords = (place: number, count: number) =>
  count > 1 ? `: off ${ordinal(place)}, on ${ordinal(count - 1 - place)}` : '';
