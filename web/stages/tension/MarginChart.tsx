import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useCoreSum } from '../../state/use-core-sum';
import { StoppedSum } from '../../ui/StoppedSum';
import { useTensionSums } from './sums';
import { useTension } from './TensionProvider';
import { pulleyLabel } from '@emery/core/drive';
import { rpmFigure } from '@emery/core/speeds';
import { SAFE_MARGIN } from '@emery/core/loads';
import type { MarginMap } from '@emery/core/tension';

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
  if (!found?.output) return <p className="unrolled-empty">Working out the margins.</p>;
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
  const { rpms, loads, margin } = map;
  const narrow = width < NARROW;
  const x = scaleLinear([rpms[0]!, rpms.at(-1)!], [MARGIN.left, Math.max(MARGIN.left + 1, width - MARGIN.right)]);
  const y = scaleLinear([0, loads.at(-1)!], [height - MARGIN.bottom, MARGIN.top]);
  const at = Math.round(((rpm - rpms[0]!) / (rpms.at(-1)! - rpms[0]!)) * (rpms.length - 1));
  const column = Math.max(0, Math.min(rpms.length - 1, at));
  const here = loads.map((_, r) => margin[r]![column]!);
  const slipsAt = here.findIndex((one) => one !== null && one < 0);
  const slipping = slipsAt < 0 ? '' : pulleyLabel(drive, map.pulley[slipsAt]![column]!);
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label="Margin over engine speed and load"
      onClick={({ nativeEvent }) => {
        const speed = Math.round(x.invert(nativeEvent.offsetX) / 10) * 10;
        look({ rpm: Math.max(rpms[0]!, Math.min(rpms.at(-1)!, speed)) });
      }}
    >
      <rect
        className="map-holds"
        x={x.range()[0]}
        y={y(loads.at(-1)!)}
        width={x.range()[1]! - x.range()[0]!}
        height={y(0) - y(loads.at(-1)!)}
      />
      <path className="map-near" d={regionBelow(map, SAFE_MARGIN, x, y)} />
      <path className="map-slips" d={regionBelow(map, 0, x, y)} />
      <path className="map-edge" d={edgeOf(map, SAFE_MARGIN, x, y)} />
      <path className="map-zero" d={edgeOf(map, 0, x, y)} />
      <path className="map-zero is-other" d={edgeOf(other, 0, x, (load) => y(Math.min(load, loads.at(-1)!)))} />
      <OtherName other={other} word={looked.wet ? 'slips dry' : 'slips wet'} x={x} y={y} most={loads.at(-1)!} />
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
      {scaleLinear([0, loads.at(-1)!], [0, 1])
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
      <text className="profile-text" x={(x.range()[0]! + x.range()[1]!) / 2} y={height - 5} textAnchor="middle">
        engine, rev/min
        {slipsAt >= 0
          ? ` · at ${rpmFigure(rpm)} ${slipping} slips from ${Math.round(100 * loads[slipsAt]!)} % load`
          : ''}
      </text>
    </svg>
  );
}

/** What slips first, and where; on a phone in fewer words. */
function firstWords(
  { first, loads }: MarginMap,
  nameOf: (id: string) => string,
  wet: boolean,
  narrow: boolean,
): string {
  const when = wet ? ', wet' : '';
  if (!first) return `Nothing slips up to ${Math.round(100 * loads.at(-1)!)} % load${when}`;
  const load = `${Math.round(100 * first.load)} %`;
  return narrow
    ? `${nameOf(first.pulley)}: ${load} load, ${rpmFigure(first.rpm)}${when}`
    : `${nameOf(first.pulley)} goes first, at ${load} load and ${rpmFigure(first.rpm)} rev/min${when}`;
}

/** What the other zero line is, where it runs through the map. */
function OtherName({ other, word, x, y, most }: { other: MarginMap; word: string; x: Scale; y: Scale; most: number }) {
  const edge = crossings(other, 0);
  const column = edge.findLastIndex((load) => load !== null && load < 0.97 * most);
  if (column < 0) return null;
  const atEnd = column > edge.length / 2;
  return (
    <text
      className="profile-text"
      x={x(other.rpms[column]!) + (atEnd ? -4 : 4)}
      y={y(edge[column]!) - 5}
      textAnchor={atEnd ? 'end' : 'start'}
    >
      {word}
    </text>
  );
}

type Scale = (value: number) => number;

/** By column the load from which the margin is below a level, between rows; null where it never is. */
function crossings({ loads, margin, rpms }: MarginMap, level: number): (number | null)[] {
  return rpms.map((_, c) => {
    for (let r = 0; r < loads.length; r += 1) {
      const value = margin[r]![c]!;
      if (value === null || value >= level) continue;
      const before = r > 0 ? margin[r - 1]![c]! : null;
      if (before === null) return loads[r]!;
      return loads[r - 1]! + ((before - level) / (before - value)) * (loads[r]! - loads[r - 1]!);
    }
    return null;
  });
}

function regionBelow(map: MarginMap, level: number, x: Scale, y: Scale): string {
  const top = map.loads.at(-1)!;
  const edge = crossings(map, level).map((load) => load ?? top);
  const on = edge.map((load, c) => `${c === 0 ? 'M' : 'L'}${x(map.rpms[c]!).toFixed(1)} ${y(load).toFixed(1)}`);
  return `${on.join('')}L${x(map.rpms.at(-1)!)} ${y(top)}L${x(map.rpms[0]!)} ${y(top)}Z`;
}

function edgeOf(map: MarginMap, level: number, x: Scale, y: Scale): string {
  let open = false;
  return crossings(map, level)
    .map((load, c) => {
      if (load === null) {
        open = false;
        return '';
      }
      const to = `${open ? 'L' : 'M'}${x(map.rpms[c]!).toFixed(1)} ${y(load).toFixed(1)}`;
      open = true;
      return to;
    })
    .join('');
}
