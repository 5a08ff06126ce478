import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useCoreSum } from '../../state/use-core-sum';
import { StoppedSum } from '../../ui/StoppedSum';
import { useTensionSums } from './sums';
import { useTension } from './TensionProvider';
import { pulleyLabel } from '@emery/core/drive';
import { rpmFigure } from '@emery/core/speeds';
import { SAFE_MARGIN } from '@emery/core/loads';
import type { MarginCell, MarginMap } from '@emery/core/tension';

/** Narrower than this the chart says less, px. */
const NARROW = 520;
const MARGIN = { left: 62, right: 14, top: 26, bottom: 38 };

/** The worst margin over engine speed and load: where it holds, where little is in hand, where it slips, and what. */
export function MarginChart({ width, height }: { width: number; height: number }) {
  const { drive, source } = useTensionSums();
  const { looked, marks } = useTension();
  const { choice, wet } = looked;
  const input = useMemo(
    () => ({
      drive,
      ask: {
        belt: source!.id,
        running: { ...choice, rpm: 0 },
        rpmFrom: Math.min(400, marks.idle),
        rpmTo: marks.redline,
      },
    }),
    [drive, source, choice, marks],
  );
  const { found, stopped } = useCoreSum('tensionMap', input);
  if (stopped) return <StoppedSum stopped={stopped} />;
  if (!found?.output) return <p className="unrolled-empty">Calculating the slip margins.</p>;
  const { dry, wet: soaked } = found.output;
  return <MapDrawing map={wet ? soaked : dry} other={wet ? dry : soaked} width={width} height={height} />;
}

interface Props {
  map: MarginMap;
  /** The same wet where the map is dry, and dry where it is wet: its zero line is drawn besides. */
  other: MarginMap;
  width: number;
  height: number;
}

function MapDrawing({ map, other, width, height }: Props) {
  const { drive } = useTensionSums();
  const { rpm, look, looked } = useTension();
  const { columns, rpmFrom, rpmTo, mostLoad } = map;
  const narrow = width < NARROW;
  const x = scaleLinear([rpmFrom, rpmTo], [MARGIN.left, Math.max(MARGIN.left + 1, width - MARGIN.right)]);
  const y = scaleLinear([0, mostLoad], [height - MARGIN.bottom, MARGIN.top]);
  const here = columns.reduce((near, next) => (Math.abs(next.rpm - rpm) < Math.abs(near.rpm - rpm) ? next : near));
  const slips = here.cells.find(({ margin }) => margin !== null && margin < 0);
  const slipping = slips
    ? ` · at ${rpmFigure(rpm)} ${pulleyLabel(drive, slips.pulley!)} slips from ${Math.round(100 * slips.load)} % load`
    : '';
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label="Slip margin over engine speed and load"
      onClick={({ nativeEvent }) => {
        const speed = Math.round(x.invert(nativeEvent.offsetX) / 10) * 10;
        look({ rpm: Math.max(rpmFrom, Math.min(rpmTo, speed)) });
      }}
    >
      <rect
        className="map-holds"
        x={x(rpmFrom)}
        y={y(mostLoad)}
        width={x(rpmTo) - x(rpmFrom)}
        height={y(0) - y(mostLoad)}
      />
      <path className="map-near" d={regionBelow(map, SAFE_MARGIN, x, y)} />
      <path className="map-slips" d={regionBelow(map, 0, x, y)} />
      <path className="map-edge" d={edgeOf(map, SAFE_MARGIN, x, y)} />
      <path className="map-zero" d={edgeOf(map, 0, x, y)} />
      <path className="map-zero is-other" d={edgeOf(other, 0, x, (load) => y(Math.min(load, mostLoad)))} />
      <OtherName other={other} word={looked.wet ? 'slips dry' : 'slips wet'} x={x} y={y} max={mostLoad} />
      <path className="profile-rest" d={`M${MARGIN.left} ${y(1)}H${width - MARGIN.right}`} />
      <path className="map-now" d={`M${x(rpm)} ${MARGIN.top}V${height - MARGIN.bottom}`} />
      {!narrow && (
        <text className="profile-text" x={8} y={15}>
          Load, of this state
        </text>
      )}
      <text className="map-legend" x={width - MARGIN.right} y={15} textAnchor="end">
        {firstWords(map, (id) => pulleyLabel(drive, id), looked.wet, narrow)}
      </text>
      {scaleLinear([0, mostLoad], [0, 1])
        .ticks(4)
        .map((load) => (
          <text key={load} className="profile-text" x={MARGIN.left - 6} y={y(load) + 4} textAnchor="end">
            {Math.round(100 * load)} %
          </text>
        ))}
      {x.ticks(6).map((tick) => (
        <text key={tick} className="profile-text" x={x(tick)} y={height - MARGIN.bottom + 16} textAnchor="middle">
          {rpmFigure(tick)}
        </text>
      ))}
      <text className="profile-text" x={(x(rpmFrom) + x(rpmTo)) / 2} y={height - 5} textAnchor="middle">
        engine, rev/min
        {slipping}
      </text>
    </svg>
  );
}

/** What slips first, and where; on a phone in fewer words. */
function firstWords(
  { first, mostLoad }: MarginMap,
  nameOf: (id: string) => string,
  wet: boolean,
  narrow: boolean,
): string {
  const when = wet ? ', wet' : '';
  if (!first) return `Nothing slips up to ${Math.round(100 * mostLoad)} % load${when}`;
  const load = `${Math.round(100 * first.load)} %`;
  return narrow
    ? `${nameOf(first.pulley)}: ${load} load, ${rpmFigure(first.rpm)}${when}`
    : `${nameOf(first.pulley)} slips first, at ${load} load and ${rpmFigure(first.rpm)} rev/min${when}`;
}

/** What the other zero line is, where it runs through the map. */
function OtherName({ other, word, x, y, max }: { other: MarginMap; word: string; x: Scale; y: Scale; max: number }) {
  const within = crossings(other, 0).flatMap(({ rpm, load }) =>
    load !== null && load < 0.97 * max ? [{ rpm, load }] : [],
  );
  const last = within.at(-1);
  if (!last) return null;
  const atEnd = last.rpm > (other.rpmFrom + other.rpmTo) / 2;
  return (
    <text
      className="profile-text"
      x={x(last.rpm) + (atEnd ? -4 : 4)}
      y={y(last.load) - 5}
      textAnchor={atEnd ? 'end' : 'start'}
    >
      {word}
    </text>
  );
}

type Scale = (value: number) => number;

interface Crossing {
  rpm: number;
  load: number | null;
}

/** By engine speed the load from which the margin is below a level, between cells; null where it never is. */
const crossings = ({ columns }: MarginMap, level: number): Crossing[] =>
  columns.map(({ rpm, cells }) => ({ rpm, load: crossing(cells, level) }));

function crossing(cells: readonly MarginCell[], level: number): number | null {
  let before: MarginCell | undefined;
  for (const cell of cells) {
    if (cell.margin !== null && cell.margin < level) {
      if (before === undefined || before.margin === null) return cell.load;
      return before.load + ((before.margin - level) / (before.margin - cell.margin)) * (cell.load - before.load);
    }
    before = cell;
  }
  return null;
}

function regionBelow(map: MarginMap, level: number, x: Scale, y: Scale): string {
  const top = y(map.mostLoad);
  const on = crossings(map, level).map(
    ({ rpm, load }, c) => `${c === 0 ? 'M' : 'L'}${x(rpm).toFixed(1)} ${y(load ?? map.mostLoad).toFixed(1)}`,
  );
  return `${on.join('')}L${x(map.rpmTo)} ${top}L${x(map.rpmFrom)} ${top}Z`;
}

function edgeOf(map: MarginMap, level: number, x: Scale, y: Scale): string {
  let open = false;
  return crossings(map, level)
    .map(({ rpm, load }) => {
      if (load === null) {
        open = false;
        return '';
      }
      const to = `${open ? 'L' : 'M'}${x(rpm).toFixed(1)} ${y(load).toFixed(1)}`;
      open = true;
      return to;
    })
    .join('');
}
