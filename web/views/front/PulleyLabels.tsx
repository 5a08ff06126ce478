import { memo, useEffect } from 'react';
import { useNoFigure } from '../../stages/figures';
import type { DrawnMark, PulleyFigure, PulleyPlace, Stage, UsePulleyFigure } from '../../stages/stage';
import { type Readable, useStore } from '../../state/store';
import { LengthFigure } from '../../ui/LengthFigure';
import { useNarrow } from '../../ui/use-narrow';
import { type LabelPlaced, placeLabels, type Segment } from './labels';
import { initials, shortened, textScaleOf, textWidth } from './text-width';
import type { Viewport } from './use-viewport';
import type { DriveSolution } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

/** Both lines of a label, and the figure alone, px at the usual size of text. */
const [TWO_LINES, ONE_LINE] = [34, 17];
/** A name takes no more than this, px at the usual size: the whole is shown on hover. */
const WIDEST_NAME = 150;
/** Left and right of a text, px. */
const AROUND = 4;
/** What the view's own buttons cover in its lower right corner, px; on a phone they stand elsewhere. */
const TOOLS = { width: 56, height: 150 };
/** What its scale covers in the lower left. */
const SCALE = { width: 150, height: 28 };

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

/** Every shaft's name and figure, where neither lies on anything; names alone until the stage's figures are there. */
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

const SIGNS = { fault: '■ ', watch: '▲ ', none: '' };

/** What stands in each form of a label: in full, with a short name, the figure alone, two letters. */
function formsOf(name: string, figure: string, narrow: boolean) {
  const scale = textScaleOf('label-name', narrow);
  const ofFigure = textWidth(figure, 'label-figure', narrow);
  const form = (name: string, figure: string, height: number) => ({
    ...{ name, figure, height: height * scale },
    width: Math.max(textWidth(name, 'label-name', narrow), figure === '' ? 0 : ofFigure) + AROUND,
  });
  const cut = (limit: number) => shortened(name, limit, 'label-name', narrow);
  return [
    form(cut(WIDEST_NAME * scale), figure, TWO_LINES),
    form(cut(Math.max(ofFigure, 48 * scale)), figure, TWO_LINES),
    ...(figure === '' ? [] : [form('', figure, ONE_LINE)]),
    form(initials(name), '', ONE_LINE),
  ];
}

/** Where the number on the belt stands beside a pulley, px. */
const numberAt = ({ x, y, r }: LabelledPulley) => ({ x: x + Math.min(r, 60) * 0.7, y: y + Math.min(r, 60) * 0.7 });

/** What is written beside each pulley, in all its forms, and where that is. */
function usePlaces(
  { stage, pulleys, order, solution, transform: { k, x: tx, y: ty }, size }: Props,
  usePulleyFigure: UsePulleyFigure,
) {
  const narrow = useNarrow();
  const figureOf = usePulleyFigure();
  const screen = ({ x, y }: { x: number; y: number }) => ({ x: x * k + tx, y: -y * k + ty });
  const onScreen = ({ start, end }: Segment) => ({ start: screen(start), end: screen(end) });
  const drawn = (figureOf.marks?.(k) ?? []).map((mark) => thick(mark, onScreen(mark)));
  const labels = pulleys.map((pulley) => {
    const { text, mm, mark = pulley.fault ?? 'none', ringPx = 0 } = figureOf(pulley);
    const { station, main, x, y, r } = pulley;
    return {
      ...{ id: station.id, x, y, r: r + ringPx, mm, mark },
      free: stage.coversPulleys ? 0 : r - (main.surface === 'vee' ? 9 * k : 0),
      forms: formsOf(pulley.name, `${SIGNS[mark]}${text}`, narrow),
    };
  });
  const numbers = order ? pulleys.filter(({ main }) => order.has(main.id)).map(numberAt) : [];
  const places = placeLabels(labels, {
    circles: labels,
    lines: [...solution.belts.flatMap(({ spans }) => spans.map(onScreen)), ...drawn.flat()],
    ...size,
    reserved: [...numbers.map((at) => ({ ...at, w: 24, h: 24 })), ...(narrow ? [] : coveredOf(size))],
  });
  return { labels, places, scale: textScaleOf('label-name', narrow) };
}

/** What lies over the drawing in its corners, where it is no strip. */
const coveredOf = ({ width, height }: Viewport['size']) => [
  { x: width - TOOLS.width / 2, y: height - TOOLS.height / 2, w: TOOLS.width, h: TOOLS.height },
  { x: SCALE.width / 2, y: height - SCALE.height / 2, w: SCALE.width, h: SCALE.height },
];

function Labels({ usePulleyFigure, ...props }: Props & { usePulleyFigure: UsePulleyFigure }) {
  const { pulleys, order, unit } = props;
  const { labels, places, scale } = usePlaces(props, usePulleyFigure);
  const at = new Map(places.map((place) => [place.id, place]));
  return (
    <g className="labels" aria-hidden>
      {places.map(({ id, leader }) => leader && <Leader key={id} {...leader} />)}
      {labels.map(({ id, mm, mark, forms }) => {
        const place = at.get(id);
        const form = place && forms[place.form];
        if (!form) return null;
        const { name, figure } = form;
        return (
          <Label
            key={id}
            {...{ ...middle(place), name, figure, mm, mark, unit, scale, alone: name === '' || figure === '' }}
          />
        );
      })}
      {order && <Numbers pulleys={pulleys} order={order} />}
    </g>
  );
}

const middle = ({ x, y }: LabelPlaced) => ({ x, y });

/** A mark as the lines that labels keep off: its two sides where it is thick. */
function thick({ halfPx = 0 }: DrawnMark, { start, end }: Segment): Segment[] {
  const length = Math.hypot(end.x - start.x, end.y - start.y) || 1;
  const [nx, ny] = [(-(end.y - start.y) / length) * halfPx, ((end.x - start.x) / length) * halfPx];
  const moved = (by: number) => ({
    start: { x: start.x + by * nx, y: start.y + by * ny },
    end: { x: end.x + by * nx, y: end.y + by * ny },
  });
  return halfPx === 0 ? [{ start, end }] : [moved(-1), moved(0), moved(1)];
}

const Leader = ({ start, end }: Segment) => (
  <g className="label-leader">
    <path d={`M${start.x} ${start.y}L${end.x} ${end.y}`} />
    <circle cx={end.x} cy={end.y} r={2.4} />
  </g>
);

function Numbers({ pulleys, order }: { pulleys: readonly LabelledPulley[]; order: ReadonlyMap<string, number> }) {
  return pulleys.map((pulley) => {
    const number = order.get(pulley.main.id);
    const { x, y } = numberAt(pulley);
    return number === undefined ? null : (
      <g key={pulley.station.id} transform={`translate(${x} ${y})`} className="order">
        <circle r={12} />
        <text textAnchor="middle" dy={5}>
          {number}
        </text>
      </g>
    );
  });
}

interface LabelProps extends Pick<PulleyFigure, 'mm'> {
  x: number;
  y: number;
  name: string;
  figure: string;
  mark: keyof typeof SIGNS;
  unit: LengthUnit;
  /** Of the text, of the usual size. */
  scale: number;
  /** One line of the two. */
  alone: boolean;
}

const Label = memo(function Label({ x, y, name, figure, mm, mark, unit, scale, alone }: LabelProps) {
  return (
    <g transform={`translate(${x} ${y})`}>
      {name !== '' && (
        <text className="label-name" y={(alone ? 5 : -4) * scale} textAnchor="middle">
          {name}
        </text>
      )}
      {figure !== '' && (
        <text
          className={`label-figure${mark === 'none' ? '' : ` is-${mark}`}`}
          y={(alone ? 5 : 13) * scale}
          textAnchor="middle"
        >
          {mm === undefined ? (
            figure
          ) : (
            <>
              {SIGNS[mark]}
              <LengthFigure mm={mm} unit={unit} as="tspan" />
            </>
          )}
        </text>
      )}
    </g>
  );
});
