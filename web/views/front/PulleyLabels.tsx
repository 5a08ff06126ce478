import { memo, useEffect } from 'react';
import type { PulleyFigure, PulleyPlace, Stage, UsePulleyFigure } from '../../stages/stage';
import { LengthFigure } from '../../ui/LengthFigure';
import { placeLabels } from './labels';
import type { Viewport } from './use-viewport';
import type { DriveSolution } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';
import { useNoFigure } from '../../stages/figures';
import { type Readable, useStore } from '../../state/store';

const LABEL_HEIGHT = 34;
/** What the view's own buttons cover in its lower right corner, px. */
const TOOLS = { width: 56, height: 150 };

/** A shaft with its name; x, y and r are its place and radius on the screen, px. */
export interface LabelledPulley extends PulleyPlace {
  /** mm. */
  radius: number;
  name: string;
  /** The worst that was found at it. */
  fault: 'fault' | 'watch' | undefined;
  x: number;
  y: number;
  r: number;
}

interface Props {
  stage: Stage;
  pulleys: readonly LabelledPulley[];
  /** The numbers on the belt that are shown while it is tapped; null at other times. */
  order: ReadonlyMap<string, number> | null;
  solution: DriveSolution;
  unit: LengthUnit;
  transform: Viewport['transform'];
  size: Viewport['size'];
}

/** Every shaft's name and figure, where it covers least; the names alone until the stage's figures are there. */
export function PulleyLabels(props: Props) {
  const { pulleyFigure } = props.stage;
  const late = typeof pulleyFigure === 'function' ? null : pulleyFigure;
  const there = useStore(late ?? NEVER);
  useEffect(() => {
    // One that does not come now is tried again with all other parts.
    late?.fetch().catch(() => undefined);
  }, [late]);
  const own = typeof pulleyFigure === 'function' ? pulleyFigure : there;
  // Another hook is another component.
  return <Labels key={`${props.stage.id} ${own !== null}`} {...props} usePulleyFigure={own ?? useNoFigure} />;
}

const NEVER: Readable<null> = { get: () => null, subscribe: () => () => undefined };

function Labels({
  stage,
  pulleys,
  order,
  solution,
  unit,
  transform: { k, x: tx, y: ty },
  size,
  usePulleyFigure,
}: Props & { usePulleyFigure: UsePulleyFigure }) {
  const figureOf = usePulleyFigure();
  const figures = pulleys.map((pulley) => figureOf(pulley));
  const screen = ({ x, y }: { x: number; y: number }) => ({ x: x * k + tx, y: -y * k + ty });
  const places = placeLabels(
    pulleys.map(({ station, main, x, y, r, name }, index) => ({
      id: station.id,
      x,
      y,
      r,
      free: stage.coversPulleys ? 0 : r - (main.surface === 'vee' ? 9 * k : 0),
      width: Math.max(name.length * 7, figures[index]!.text.length * 6.6) + 4,
      height: LABEL_HEIGHT,
    })),
    {
      circles: pulleys,
      lines: solution.belts.flatMap(({ spans }) =>
        spans.map(({ start, end }) => ({ start: screen(start), end: screen(end) })),
      ),
      ...size,
      reserved: [
        { x: size.width - TOOLS.width / 2, y: size.height - TOOLS.height / 2, w: TOOLS.width, h: TOOLS.height },
      ],
    },
  );
  const at = new Map(places.map((place) => [place.id, place]));
  return (
    <g className="labels" aria-hidden>
      {pulleys.map(({ station, main, name, fault, x, y, r }, index) => {
        const { text, mm, mark = fault } = figures[index]!;
        const place = at.get(station.id)!;
        const number = order?.get(main.id);
        const out = Math.min(r, 60) * 0.7;
        return (
          <g key={station.id}>
            <Label x={place.x} y={place.y} name={name} text={text} mm={mm} mark={mark} unit={unit} />
            {number !== undefined && (
              <g transform={`translate(${x + out} ${y + out})`} className="order">
                <circle r={12} />
                <text textAnchor="middle" dy={5}>
                  {number}
                </text>
              </g>
            )}
          </g>
        );
      })}
    </g>
  );
}

const SIGNS = { fault: '■ ', watch: '▲ ', none: '' };

interface LabelProps extends PulleyFigure {
  x: number;
  y: number;
  name: string;
  unit: LengthUnit;
}

const Label = memo(function Label({ x, y, name, text, mm, mark = 'none', unit }: LabelProps) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <text className="label-name" y={-4} textAnchor="middle">
        {name}
      </text>
      <text className={`label-figure${mark === 'none' ? '' : ` is-${mark}`}`} y={13} textAnchor="middle">
        {SIGNS[mark]}
        {mm === undefined ? text : <LengthFigure mm={mm} unit={unit} as="tspan" />}
      </text>
    </g>
  );
});
