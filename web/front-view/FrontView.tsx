import { AimOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { memo, useCallback, useEffect, useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { edit, sameMark, useBench, type Mark } from '../bench/bench-context';
import { LengthFigure } from '../ledger/LengthFigure';
import { firstTape } from '../survey/first-tape';
import { useSpeeds, type SpeedsState } from '../speed/SpeedsProvider';
import { TurningSpokes } from '../speed/TurningSpokes';
import { SURVEY_CODES } from '../survey/survey-codes';
import { AdjusterDrawing } from './AdjusterDrawing';
import { BeltDrawing } from './BeltDrawing';
import { Obstacles } from './Obstacles';
import { placeLabels } from './labels';
import { PulleyDrawing } from './PulleyDrawing';
import { ScaleBar } from './ScaleBar';
import { TapeLines } from './TapeLines';
import { Underlay } from './Underlay';
import { useRouteString } from './use-route-string';
import { useViewport } from './use-viewport';
import './front-view.css';
import { travelOf } from '@emery/core/adjuster';
import {
  type Belt,
  changeStation,
  type Drive,
  moveStation,
  type Pulley,
  removeStation,
  type Station,
  stationLabel,
} from '@emery/core/drive';
import { beltBounds, type PathFinding, spanMidpoints } from '@emery/core/path';
import { formatLength, type LengthUnit } from '@emery/core/quantity';
import { bodyRadiusMm, sectionFor } from '@emery/core/section';
import { bandOf, placeIn, rpmFigure } from '@emery/core/speeds';

/** A finger may tremble this far, px, before a tap becomes a drag. */
const TREMBLE = 5;
const LABEL_HEIGHT = 34;

interface Drag {
  pointer: number;
  station: string;
  from: { x: number; y: number };
  start: { x: number; y: number };
  moved: boolean;
  /** At Size, the shaft wherever the adjuster can bring it; null where it has none. */
  way: Station[] | null;
}

/** What the view's own buttons cover in its lower right corner, px. */
const TOOLS = { width: 56, height: 150 };

/**
 * The drive to scale as seen facing the engine. The same drawing at every stage; each stage lays its own figures on it.
 */
export function FrontView() {
  const bench = useBench();
  const { drive, solution, belt, selected, hovered, unit, stage, tapping, dispatch } = bench;
  const svg = useRef<SVGSVGElement>(null);
  const bounds = useCallback(() => beltBounds(drive), [drive]);
  const view = useViewport(svg, bounds, { oneFingerPans: !tapping });
  const { k, x: tx, y: ty } = view.transform;
  const drag = useRef<Drag | null>(null);
  const frame = useRef(0);

  // A drive's first pulleys come in one by one: keep all of them in sight.
  const count = drive.stations.length;
  const { fit } = view;
  useEffect(() => {
    if (count > 0) fit();
    // Only a new or a lost pulley may move the view under the hand.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [count]);

  const radii = useMemo(() => {
    const sections = new Map(
      drive.belts.flatMap((b) =>
        b.route.map((stop) => [stop.pulley, sectionFor(b.section, b.sectionOverrides)] as const),
      ),
    );
    const fallback = sectionFor(drive.belts[0]?.section ?? 'PK');
    return new Map(
      drive.stations.flatMap((s) =>
        s.pulleys.map((p) => [p.id, bodyRadiusMm(p, sections.get(p.id) ?? fallback)] as const),
      ),
    );
  }, [drive]);

  const faults = useMemo(
    () =>
      marksOf(
        stage === 'survey'
          ? solution.belts.flatMap((b) => b.findings.filter(({ code }) => SURVEY_CODES.has(code)))
          : (belt?.findings ?? []),
      ),
    [belt, solution, stage],
  );
  const order = useMemo(() => new Map(belt?.contacts.map(({ pulley }, index) => [pulley, index + 1])), [belt]);
  // A shaft on two belts shows what it does on the one in hand.
  const contacts = useMemo(
    () =>
      new Map(
        [...solution.belts.filter((b) => b !== belt), ...(belt ? [belt] : [])].flatMap((b) =>
          b.contacts.map((contact) => [contact.station, contact] as const),
        ),
      ),
    [solution, belt],
  );

  const speeds = useSpeeds();
  const figures = drive.stations.map((station) => {
    const contact = contacts.get(station.id);
    const main = mainPulley(station, contact?.pulley);
    const radius = Math.max(...station.pulleys.map((p) => radii.get(p.id) ?? 0));
    const name = stationLabel(station);
    const figure =
      stage === 'survey'
        ? sizeFigure(main, unit)
        : stage === 'speeds'
          ? speedFigure(contact?.speedRatio, speeds.engineRpm)
          : wrapFigure(contact?.wrapDeg);
    const diameter = stage === 'survey' && main.surface !== 'toothed' ? main.diameter : undefined;
    return {
      station,
      main,
      radius,
      name,
      figure,
      diameter,
      x: station.x * k + tx,
      y: -station.y * k + ty,
      r: Math.max(radius, 8) * k,
    };
  });

  const labels = placeLabels(
    figures.map(({ station, main, x, y, r, name, figure }) => ({
      id: station.id,
      x,
      y,
      r,
      free: r - (main.surface === 'vee' ? 9 * k : 0),
      width: Math.max(name.length * 7, figure.length * 6.6) + 4,
      height: LABEL_HEIGHT,
    })),
    {
      circles: figures,
      lines: solution.belts.flatMap(({ spans }) =>
        spans.map(({ start, end }) => ({
          start: { x: start.x * k + tx, y: -start.y * k + ty },
          end: { x: end.x * k + tx, y: -end.y * k + ty },
        })),
      ),
      ...view.size,
      reserved: [
        {
          x: view.size.width - TOOLS.width / 2,
          y: view.size.height - TOOLS.height / 2,
          w: TOOLS.width,
          h: TOOLS.height,
        },
      ],
    },
  );
  const labelAt = new Map(labels.map((label) => [label.id, label]));

  const onPointerDown = (station: Station) => (event: PointerEvent<SVGGElement>) => {
    // While tapping, the ground below follows the finger across pulleys.
    if (event.button !== 0 || drag.current || tapping) return;
    event.stopPropagation();
    (event.currentTarget as SVGGElement).focus({ preventScroll: true });
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = {
      pointer: event.pointerId,
      station: station.id,
      from: { x: event.clientX, y: event.clientY },
      start: { x: station.x, y: station.y },
      moved: false,
      way:
        stage === 'size'
          ? wayOf(
              drive,
              drive.belts.find(({ id }) => id === belt?.id),
              station.id,
            )
          : null,
    };
    bench.select(markOf(station, order));
  };

  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    const held = drag.current;
    if (!held || held.pointer !== event.pointerId) return;
    const dx = event.clientX - held.from.x;
    const dy = event.clientY - held.from.y;
    if (!held.moved && Math.hypot(dx, dy) < TREMBLE) return;
    // At Size only the adjuster moves, along its own way; at Speeds nothing does.
    if (stage === 'speeds' || (stage === 'size' && held.way === null)) return;
    held.moved = true;
    // One edit a frame, whatever the pointer's rate.
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => {
      const to = { x: held.start.x + dx / k, y: held.start.y - dy / k };
      const there = held.way && nearestOn(held.way, to);
      // A slide's travel starts where it stands, so moving it for good would move its ends: it is only looked at there.
      if (there && there.adjuster?.kind === 'slide')
        bench.setPose({ ...drive, stations: drive.stations.map((one) => (one.id === there.id ? there : one)) });
      else
        dispatch(
          edit(
            (d) =>
              there
                ? changeStation(d, there.id, { x: there.x, y: there.y, adjuster: there.adjuster })
                : moveStation(d, held.station, tenth(to.x), tenth(to.y)),
            `drag ${held.station} ${held.from.x} ${held.from.y}`,
          ),
        );
    });
  };

  const onPointerUp = (event: PointerEvent<SVGGElement>) => {
    const held = drag.current;
    if (!held || held.pointer !== event.pointerId) return;
    drag.current = null;
  };

  const string = useRouteString({
    active: tapping,
    stationAt: (clientX, clientY) => {
      const box = svg.current!.getBoundingClientRect();
      const [x, y] = [(clientX - box.left - tx) / k, -(clientY - box.top - ty) / k];
      return (
        figures.find(({ station, radius }) => Math.hypot(station.x - x, station.y - y) <= Math.max(radius, 22 / k))
          ?.station.id ?? null
      );
    },
    first: belt?.contacts[0]?.station ?? null,
    tap: bench.tap,
    trace: bench.trace,
    close: () => bench.setTapping(false),
  });

  const onPulleyKey = (station: Station) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    if ((dx !== 0 || dy !== 0) && stage !== 'size' && stage !== 'speeds') {
      dispatch(
        edit((d) => {
          const now = d.stations.find(({ id }) => id === station.id)!;
          return moveStation(d, station.id, tenth(now.x + dx * step), tenth(now.y + dy * step));
        }, `nudge ${station.id}`),
      );
    } else if (event.key === 'Enter' || event.key === ' ') {
      if (tapping) bench.tap(station.id);
      else bench.select(markOf(station, order));
    } else if (event.key === 'Delete' && stage === 'survey') {
      bench.select(null);
      dispatch(edit((d) => removeStation(d, station.id)));
    } else return;
    event.preventDefault();
  };

  const spans = belt ? spanMidpoints(belt) : [];
  return (
    <section className="front-view sheet" aria-label="Front view">
      {tapping && (
        <p className="front-view-hint" role="status">
          {belt && belt.contacts.length > 0
            ? `${belt.contacts.length} on the belt. Tap the next one it meets; tap the first again to close.`
            : 'Tap the pulleys in the order the belt meets them, crank first, or draw a finger across them like a string.'}
        </p>
      )}
      {stage === 'survey' && <Underlay k={k} tx={tx} ty={ty} />}
      <svg
        ref={svg}
        className={`front-view-svg${tapping ? ' is-tapping' : ''}`}
        onClick={(event) => event.target === event.currentTarget && !tapping && bench.select(null)}
        role="group"
        aria-label="Drive seen from the front"
        {...string.handlers}
      >
        <Grid k={k} tx={tx} ty={ty} {...view.size} />
        <g transform={`translate(${tx} ${ty}) scale(${k})`}>
          {figures.map(({ station, radius }) => {
            const mark = markOf(station, order);
            const state = [
              'pulley',
              sameMark(selected, mark) && 'is-selected',
              sameMark(hovered, mark) && 'is-hovered',
              station.pulleys.some((p) => faults.pulleys.get(p.id) === 'fault') && 'is-fault',
              stage !== 'survey' && !contacts.has(station.id) && 'is-off',
            ];
            const place = order.get(mark.pulley);
            return (
              <g
                key={station.id}
                className={state.filter(Boolean).join(' ')}
                transform={`translate(${station.x} ${-station.y})`}
                data-grip
                data-station={station.id}
                tabIndex={0}
                role="button"
                aria-pressed={sameMark(selected, mark)}
                aria-label={`${stationLabel(station)}${place ? `, number ${place} on the belt` : ''}, at x ${formatLength(station.x, unit)}, y ${formatLength(station.y, unit)}`}
                onPointerDown={onPointerDown(station)}
                onPointerMove={onPointerMove}
                onPointerUp={onPointerUp}
                onPointerCancel={onPointerUp}
                onPointerEnter={() => bench.hover(mark)}
                onPointerLeave={() => bench.hover(null)}
                onKeyDown={onPulleyKey(station)}
              >
                <circle className="pulley-reach" r={Math.max(radius, 22 / k)} />
                {[...station.pulleys]
                  .sort((a, b) => (radii.get(b.id) ?? 0) - (radii.get(a.id) ?? 0))
                  .map((pulley) => (
                    <PulleyDrawing
                      key={pulley.id}
                      r={Math.max(radii.get(pulley.id) ?? 0, 3)}
                      surface={pulley.surface}
                      scale={k}
                    />
                  ))}
              </g>
            );
          })}
          {stage === 'speeds' && <TurningSpokes drive={drive} solution={solution} radii={radii} k={k} />}
          <Obstacles k={k} />
          {stage === 'size' && belt && (
            <AdjusterDrawing drive={drive} source={drive.belts.find(({ id }) => id === belt.id)!} k={k} />
          )}
          {stage === 'survey' && (
            <TapeLines
              drive={drive}
              fit={bench.surveyFit}
              asked={
                bench.surveying === 'tapes' && count > 1 ? (bench.tapeAsked ?? firstTape(drive, bench.surveyFit)) : null
              }
              radii={radii}
              scale={k}
            />
          )}
          <g className="belts">
            {solution.belts.map((solved) => (
              <BeltDrawing
                key={solved.id}
                belt={solved}
                source={drive.belts.find(({ id }) => id === solved.id)!}
                scale={k}
                active={solved.id === belt?.id}
              />
            ))}
          </g>
          {belt?.spans.map((span, index) => {
            const mark: Mark = { kind: 'span', belt: belt.id, index };
            const faulty = span.length === null || faults.spans.has(`${span.from} ${span.to}`);
            const lit = sameMark(selected, mark) || sameMark(hovered, mark);
            return (
              <g key={`${span.from} ${index}`}>
                {(lit || faulty) && (
                  <line
                    className={lit ? 'span-lit' : 'span-fault'}
                    x1={span.start.x}
                    y1={-span.start.y}
                    x2={span.end.x}
                    y2={-span.end.y}
                  />
                )}
                <line
                  className="span-reach"
                  x1={span.start.x}
                  y1={-span.start.y}
                  x2={span.end.x}
                  y2={-span.end.y}
                  onPointerEnter={() => bench.hover(mark)}
                  onPointerLeave={() => bench.hover(null)}
                  onClick={() => !tapping && bench.select(mark)}
                />
              </g>
            );
          })}
          {spans.map(({ from, to, x, y, directionDeg, length }) =>
            length * k < 26 ? null : (
              <path
                key={`${from} ${to}`}
                className="travel"
                d="M-7 -5.5L7 0L-7 5.5Z"
                transform={`translate(${x} ${-y}) scale(${1 / k}) rotate(${-directionDeg})`}
              />
            ),
          )}
        </g>
        {string.path !== '' && <path className="route-string" d={string.path} aria-hidden />}
        <g className="labels" aria-hidden>
          {figures.map(({ station, main, name, figure, diameter, x, y, r }) => {
            const at = labelAt.get(station.id)!;
            const fault =
              stage === 'speeds'
                ? speedFault(speeds, station, contacts.get(station.id)?.speedRatio)
                : station.pulleys.map((p) => faults.pulleys.get(p.id)).find(Boolean);
            const place = tapping ? order.get(main.id) : undefined;
            return (
              <g key={station.id}>
                <text className="label-name" x={at.x} y={at.y - 4} textAnchor="middle">
                  {name}
                </text>
                <text
                  className={`label-figure${fault ? ` is-${fault}` : ''}`}
                  x={at.x}
                  y={at.y + 13}
                  textAnchor="middle"
                >
                  {fault === 'fault' ? '■ ' : fault === 'watch' ? '▲ ' : ''}
                  {diameter ? <LengthFigure mm={diameter} unit={unit} as="tspan" /> : figure}
                </text>
                {place !== undefined && (
                  <g
                    transform={`translate(${x + Math.min(r, 60) * 0.7} ${y + Math.min(r, 60) * 0.7})`}
                    className="order"
                  >
                    <circle r={12} />
                    <text textAnchor="middle" dy={5}>
                      {place}
                    </text>
                  </g>
                )}
              </g>
            );
          })}
        </g>
        <ScaleBar k={k} unit={unit} height={view.size.height} />
      </svg>
      {drive.stations.length === 0 && (
        <p className="front-view-empty">
          Nothing drawn yet. Add the crank first: it is the point all others are measured from.
        </p>
      )}
      <ViewTools fit={view.fit} zoomBy={view.zoomBy} />
    </section>
  );
}

/** Kept out of a drag's redraw: buttons of the component library cost more to draw than the drive does. */
const ViewTools = memo(function ViewTools({ fit, zoomBy }: { fit: () => void; zoomBy: (factor: number) => void }) {
  return (
    <div className="front-view-tools">
      <Tooltip title="Show all" placement="left">
        <Button icon={<AimOutlined />} aria-label="Show all" onClick={fit} />
      </Tooltip>
      <Button icon={<PlusOutlined />} aria-label="Zoom in" onClick={() => zoomBy(1.25)} />
      <Button icon={<MinusOutlined />} aria-label="Zoom out" onClick={() => zoomBy(0.8)} />
    </div>
  );
});

/** The shaft at places along its adjuster, close together; null for a shaft that is not this belt's adjuster. */
function wayOf(drive: Drive, source: Belt | undefined, station: string): Station[] | null {
  const travel = source && travelOf(drive, source);
  if (!travel || travel.station !== station || travel.kind === 'shims') return null;
  return Array.from({ length: 241 }, (_, k) => travel.at(k / 240).stations.find(({ id }) => id === station)!);
}

function nearestOn(way: Station[], to: { x: number; y: number }): Station {
  return way.reduce((best, next) =>
    Math.hypot(next.x - to.x, next.y - to.y) < Math.hypot(best.x - to.x, best.y - to.y) ? next : best,
  );
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Lines every 50 mm (every 2 inches looks the same at this weight), and heavier ones through the crank's place. */
function Grid({ k, tx, ty, width, height }: { k: number; tx: number; ty: number; width: number; height: number }) {
  const every = k > 0.35 ? 50 : 200;
  const from = (offset: number) => Math.ceil(-offset / (every * k));
  const across = Array.from(
    { length: Math.min(200, Math.max(0, Math.floor(width / (every * k)) + 1)) },
    (_, n) => (from(tx) + n) * every * k + tx,
  );
  const down = Array.from(
    { length: Math.min(200, Math.max(0, Math.floor(height / (every * k)) + 1)) },
    (_, n) => (from(ty) + n) * every * k + ty,
  );
  return (
    <g className="grid" aria-hidden>
      <path d={[...across.map((x) => `M${x} 0V${height}`), ...down.map((y) => `M0 ${y}H${width}`)].join('')} />
      <path className="grid-axis" d={`M${tx} 0V${height}M0 ${ty}H${width}`} />
    </g>
  );
}

function markOf(station: Station, order: ReadonlyMap<string, number>): Mark & { kind: 'pulley' } {
  return {
    kind: 'pulley',
    station: station.id,
    pulley: station.pulleys.find(({ id }) => order.has(id))?.id ?? station.pulleys[0]!.id,
  };
}

function mainPulley(station: Station, onBelt: string | undefined) {
  return station.pulleys.find(({ id }) => id === onBelt) ?? station.pulleys[0]!;
}

/** The figure under a pulley's name: its size at Survey, its speed at Speeds, its wrap elsewhere. */
function sizeFigure({ surface, teeth, diameter }: Pulley, unit: LengthUnit): string {
  if (surface === 'toothed') return `${teeth ?? 0} teeth`;
  return diameter ? formatLength(diameter, unit) : 'to be measured';
}

function speedFigure(ratio: number | null | undefined, engineRpm: number): string {
  return typeof ratio === 'number' ? `${rpmFigure(ratio * engineRpm)} rev/min` : 'not driven';
}

function wrapFigure(wrapDeg: number | null | undefined): string {
  if (wrapDeg === undefined) return 'on no belt';
  return wrapDeg === null ? 'wrap open' : `${Math.round(wrapDeg)}° wrap`;
}

/** How a shaft's speed is marked: outside its band to watch, beyond its last limit a fault. */
function speedFault(
  { engineRpm, bands }: SpeedsState,
  station: Station,
  ratio: number | null | undefined,
): 'fault' | 'watch' | undefined {
  if (!ratio) return undefined;
  const place = placeIn(bandOf(station, bands).band, ratio * engineRpm);
  return place === 'beyond' ? 'fault' : place === 'right' ? undefined : 'watch';
}

/** The worst finding at each pulley, and the spans a fault names. */
function marksOf(findings: readonly PathFinding[]) {
  const pulleys = new Map<string, 'fault' | 'watch'>();
  const spans = new Set<string>();
  for (const { code, pulley, other, span, severity } of findings) {
    if (severity === 'note') continue;
    if (code === 'crosses-itself' && span) {
      // Two spans are at fault here, not the pulleys at their ends.
      spans.add(`${span.from} ${span.to}`).add(`${pulley} ${other}`);
      continue;
    }
    for (const id of [pulley, other]) if (id !== undefined && pulleys.get(id) !== 'fault') pulleys.set(id, severity);
    if (span && severity === 'fault') spans.add(`${span.from} ${span.to}`);
  }
  return { pulleys, spans };
}

function tenth(value: number): number {
  return Math.round(value * 10) / 10;
}
