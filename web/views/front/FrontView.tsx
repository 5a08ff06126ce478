import { AimOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { memo, useEffect, useEffectEvent, useMemo, useRef } from 'react';
import { useBench } from '../../state/bench';
import type { LayerProps, Stage } from '../../stages/stage';
import { BeltDrawing } from './BeltDrawing';
import { Grid } from './Grid';
import { worstMarks } from './worst-marks';
import { Obstacles } from './Obstacles';
import { OthersLayer } from './OthersLayer';
import { PulleyGrip } from './PulleyGrip';
import { PulleyLabels, type LabelledPulley } from './PulleyLabels';
import { ScaleBar } from './ScaleBar';
import { Spans, TravelArrows } from './Spans';
import { usePrintedWhole } from './use-printed-whole';
import { useFrame, useLargeWhile, useRefit } from './use-frame';
import { useRouteString } from './use-route-string';
import { useShaftDrag } from './use-shaft-drag';
import { useViewport } from './use-viewport';
import './front-view.css';
import { type Drive, stationLabel } from '@emery/core/drive';
import { bodyRadiusMm, sectionFor } from '@emery/core/section';
import { pointAt } from '../../live/here';
import { strip } from '../../state/strip';
import { useKeys, withModifier } from '../../ui/use-key';
import { isNarrow, useNarrow } from '../../ui/use-narrow';

/**
 * The drive to scale as seen facing the engine. The same drawing at every stage: a stage lays its own figures and
 * layers on it, and says what a drag does.
 */
export function FrontView({ stage }: { stage: Stage }) {
  const { shown, unit, tapping, tap, trace, select, setTapping } = useBench(
    'shown',
    'unit',
    'tapping',
    'tap',
    'trace',
    'select',
    'setTapping',
  );
  const { drive, solution, belt } = shown;
  const svg = useRef<SVGSVGElement>(null);
  const view = useViewport(svg, useFrame(drive, solution), { oneFingerPans: !tapping });
  const { k, x: tx, y: ty } = view.transform;
  useFit(drive, view.fit);
  useRefit(svg, view.fit);
  useLargeWhile(tapping);

  const radii = useMemo(() => radiiOf(drive), [drive]);
  const { marked = (_, answer) => answer?.findings ?? [] } = stage;
  const faults = useMemo(() => worstMarks(marked(solution, belt)), [marked, solution, belt]);
  const order = useMemo(() => new Map(belt?.contacts.map(({ pulley }, index) => [pulley, index + 1])), [belt]);
  // A shaft on two belts shows what it does on the one in hand.
  const contacts = useMemo(() => {
    const inHandLast = [...solution.belts.filter((other) => other !== belt), ...(belt ? [belt] : [])];
    return new Map(
      inHandLast.flatMap((solution) => solution.contacts.map((contact) => [contact.station, contact] as const)),
    );
  }, [solution, belt]);

  const pulleys = drive.stations.map((station): LabelledPulley => {
    const contact = contacts.get(station.id);
    const main = station.pulleys.find(({ id }) => id === contact?.pulley) ?? station.pulleys[0]!;
    const radius = Math.max(...station.pulleys.map((pulley) => radii.get(pulley.id) ?? 0));
    const fault = station.pulleys.map(({ id }) => faults.pulleys.get(id)).find(Boolean);
    const onScreen = { x: station.x * k + tx, y: -station.y * k + ty, r: Math.max(radius, 8) * k };
    return { station, main, contact, radius, name: stationLabel(station), fault, ...onScreen };
  });

  usePrintedWhole(svg, pulleys);
  const drag = useShaftDrag({ stage, order, k });
  const string = useRouteString({
    active: tapping,
    stationAt: (clientX, clientY) => {
      const box = svg.current!.getBoundingClientRect();
      const [x, y] = [(clientX - box.left - tx) / k, -(clientY - box.top - ty) / k];
      const met = pulleys.find(
        ({ station, radius }) => Math.hypot(station.x - x, station.y - y) <= Math.max(radius, 22 / k),
      );
      return met?.station.id ?? null;
    },
    first: belt?.contacts[0]?.station ?? null,
    tap,
    trace,
    close: () => setTapping(false),
  });

  const { Underlay, Layer } = stage;
  const layer: LayerProps = { radii, k, tx, ty };
  return (
    <section className="front-view sheet" aria-label="Front view">
      {tapping && <TappingHint count={belt?.contacts.length ?? 0} onDone={() => setTapping(false)} />}
      {Underlay && <Underlay {...layer} />}
      <svg
        ref={svg}
        className={`front-view-svg${tapping ? ' is-tapping' : ''}`}
        onClick={(event) => {
          if (event.target !== event.currentTarget || tapping) return;
          if (isNarrow() && strip.get() === 'drawing') strip.set('full');
          else select(null);
        }}
        role="group"
        aria-label="Drive seen from the front"
        {...string.handlers}
        onPointerMoveCapture={({ clientX, clientY }) => {
          const box = svg.current!.getBoundingClientRect();
          pointAt({ x: (clientX - box.left - tx) / k, y: -(clientY - box.top - ty) / k });
        }}
        onPointerLeave={() => pointAt(null)}
      >
        <Grid k={k} tx={tx} ty={ty} width={view.size.width} height={view.size.height} />
        <g transform={`translate(${tx} ${ty}) scale(${k})`}>
          {drive.stations.map((station) => (
            <PulleyGrip
              key={station.id}
              station={station}
              radii={radii}
              place={station.pulleys.map(({ id }) => order.get(id)).find((place) => place !== undefined)}
              faulty={station.pulleys.some(({ id }) => faults.pulleys.get(id) === 'fault')}
              off={!stage.allShaftsAlike && !contacts.has(station.id)}
              unit={unit}
              scale={k}
              {...drag}
            />
          ))}
          <Obstacles k={k} movable={stage.movesObstacles ?? false} />
          {Layer && <Layer {...layer} />}
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
          {belt && <Spans belt={belt} faulty={faults.spans} tapping={tapping} />}
          {belt && <TravelArrows belt={belt} scale={k} />}
        </g>
        {string.path !== '' && <path className="route-string" d={string.path} aria-hidden />}
        <PulleyLabels
          stage={stage}
          pulleys={pulleys}
          order={tapping ? order : null}
          solution={solution}
          unit={unit}
          transform={view.transform}
          size={view.size}
        />
        <OthersLayer pulleys={pulleys} k={k} tx={tx} ty={ty} />
        <ScaleBar k={k} unit={unit} height={view.size.height} />
      </svg>
      {drive.stations.length === 0 && (
        <p className="front-view-empty">
          Nothing drawn yet. Add the crank first: all other positions are measured from it.
        </p>
      )}
      <ViewTools fit={view.fit} zoomBy={view.zoomBy} />
    </section>
  );
}

function TappingHint({ count, onDone }: { count: number; onDone: () => void }) {
  return (
    <p className="front-view-hint" role="status">
      {count > 0
        ? `${count} on the belt. Tap the next pulley; tap the first again to close.`
        : 'Tap the pulleys in the order the belt meets them, crank first, or drag a finger across them like a string.'}
      {/* Over the whole screen the ledger's own button is out of sight. */}
      {useNarrow() && <Button onClick={onDone}>Done</Button>}
    </p>
  );
}

/**
 * Shows all of the drive when `0` is pressed, and when a shaft comes in or goes: a drive's first pulleys come in one by
 * one. Nothing else moves the view under the hand.
 */
function useFit({ stations: { length: count } }: Drive, fit: () => void): void {
  const refit = useEffectEvent(fit);
  useEffect(() => {
    if (count > 0) refit();
  }, [count]);
  useKeys((event) => {
    if (event.key !== '0' || withModifier(event)) return false;
    fit();
    return true;
  });
}

/** The radius of each pulley's metal, mm. */
function radiiOf({ stations, belts }: Drive): ReadonlyMap<string, number> {
  const sections = new Map(
    belts.flatMap(({ route, section, sectionOverrides }) =>
      route.map((stop) => [stop.pulley, sectionFor(section, sectionOverrides)] as const),
    ),
  );
  const fallback = sectionFor(belts[0]?.section ?? 'PK');
  const all = stations.flatMap(({ pulleys }) => pulleys);
  return new Map(all.map((pulley) => [pulley.id, bodyRadiusMm(pulley, sections.get(pulley.id) ?? fallback)]));
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
