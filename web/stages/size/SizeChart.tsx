import { scaleLinear } from 'd3-scale';
import { useId, useRef } from 'react';
import { useBench } from '../../state/bench';
import { useSizeOf } from '../../ui/use-size-of';
import { useSizing } from './SizingProvider';
import { usePointAt } from './use-point-at';
import './size.css';
import { formatLength, type LengthUnit, MM_PER_INCH, fixed } from '@emery/core/quantity';
import { type SizeAnswer, type StretchCurve, TRIED_WORDS, VERDICT_WORDS } from '@emery/core/size';

const MARGIN = { left: 64, right: 20, top: 26, bottom: 34 };

/**
 * The main picture of Size: belt length across, adjuster travel up, the window between, the curve of this layout with
 * its ±, and the belts as marks on it.
 */
export default function SizeChart() {
  const { answer, progress } = useSizing();
  const holder = useRef<HTMLElement>(null);
  const size = useSizeOf(holder);
  const wide = size.width > 120 ? answer : null;
  const curved = wide && wide.curve.length > 1 ? wide : null;
  const stretched = !curved && wide?.stretch ? wide : null;
  const waiting = progress === null ? 'Give the belt a route first.' : 'Calculating the lengths.';
  return (
    <section className="unrolled sheet size-chart" aria-label="Belt length against adjuster travel" ref={holder}>
      {curved && <Chart answer={curved} {...size} />}
      {stretched?.stretch && <StretchChart answer={stretched} stretch={stretched.stretch} {...size} />}
      {!curved && !stretched && (
        <p className="unrolled-empty">
          {answer ? 'Choose how the belt is tightened; the lengths that fit then appear here.' : waiting}
        </p>
      )}
    </section>
  );
}

function Chart({ answer, width, height }: { answer: SizeAnswer; width: number; height: number }) {
  const { unit } = useBench('unit');
  const { curve, candidates, marks, reads } = answer;
  const lengths = [...curve.map(({ lengthMm }) => lengthMm), ...candidates.map(({ lengthMm }) => lengthMm)];
  const pad = 0.04 * (Math.max(...lengths) - Math.min(...lengths));
  const x = scaleLinear([Math.min(...lengths) - pad, Math.max(...lengths) + pad], [MARGIN.left, width - MARGIN.right]);
  const y = scaleLinear([0, 1], [height - MARGIN.bottom, MARGIN.top]);
  const [from, to] = marks ? [marks.short, marks.long] : [0, 1];
  const line = (points: { lengthMm: number; fraction: number }[]) =>
    points
      .map(({ lengthMm, fraction }, k) => `${k === 0 ? 'M' : 'L'}${x(lengthMm).toFixed(1)} ${y(fraction).toFixed(1)}`)
      .join('');
  // Two standard deviations to either side.
  const band = [
    ...curve.map(({ lengthMm, fraction, sigma }) => ({ lengthMm: lengthMm - 2 * sigma, fraction })),
    ...[...curve].reverse().map(({ lengthMm, fraction, sigma }) => ({ lengthMm: lengthMm + 2 * sigma, fraction })),
  ];
  const at = (fraction: number) =>
    curve.reduce((near, point) =>
      Math.abs(point.fraction - fraction) < Math.abs(near.fraction - fraction) ? point : near,
    );
  const reading = (fraction: number) =>
    reads === 'armAngle' ? `${fixed(at(fraction).reading, 0)}°` : formatLength(at(fraction).reading, unit, 0);
  const edges = marks
    ? [
        { fraction: from, word: 'short mark, S' },
        { fraction: to, word: 'long mark, L' },
      ]
    : [
        { fraction: 0, word: 'slack end' },
        { fraction: 1, word: 'tight end' },
      ];
  return (
    <svg width={width} height={height} role="group" aria-label="Lengths against travel">
      <rect
        className="size-window"
        x={MARGIN.left}
        y={y(Math.max(from, to))}
        width={width - MARGIN.left - MARGIN.right}
        height={Math.abs(y(from) - y(to))}
      />
      <path className="size-band" d={`${line(band)}Z`} />
      <path className="size-curve" d={line(curve)} />
      {edges.map(({ fraction, word }) => (
        <g key={word}>
          <line className="size-edge" x1={MARGIN.left} x2={width - MARGIN.right} y1={y(fraction)} y2={y(fraction)} />
          <text className="size-axis" x={MARGIN.left + 6} y={y(fraction) - 5}>
            {word}
          </text>
          <text className="size-axis" x={MARGIN.left - 6} y={y(fraction) + 5} textAnchor="end">
            {reading(fraction)}
          </text>
        </g>
      ))}
      <text className="size-axis" x={8} y={14}>
        {reads === 'armAngle' ? 'Arm angle' : 'Travel'}
      </text>
      <LengthAxis x={x} y={height - MARGIN.bottom} unit={unit} />
      {answer.tried.map(({ id, lengthMm, fraction, outcome }) => (
        <g key={id} className="size-tried" transform={`translate(${x(lengthMm)} ${y(fraction ?? 0)})`}>
          <title>{`${formatLength(lengthMm, unit)}: ${TRIED_WORDS[outcome].toLowerCase()}`}</title>
          <path d="M0 -13L13 0L0 13L-13 0Z" />
        </g>
      ))}
      <Marks
        answer={answer}
        at={({ lengthMm, fraction, verdict }) => [x(lengthMm), y(fraction ?? (verdict === 'will-not-go-on' ? 0 : 1))]}
      />
    </svg>
  );
}

/**
 * The same of a belt on fixed centres: belt length across, the tension at rest that it makes up, and the tensions
 * between which it is right.
 */
function StretchChart({
  answer,
  stretch: { points, sigma, leastN, setN, mostN },
  width,
  height,
}: {
  answer: SizeAnswer;
  stretch: StretchCurve;
  width: number;
  height: number;
}) {
  const { unit } = useBench('unit');
  const lengths = [...points, ...answer.candidates].map(({ lengthMm }) => lengthMm);
  const pad = 0.04 * (Math.max(...lengths) - Math.min(...lengths));
  const x = scaleLinear([Math.min(...lengths) - pad, Math.max(...lengths) + pad], [MARGIN.left, width - MARGIN.right]);
  // What is far too tight stands at the upper edge.
  const top = 1.5 * Math.max(mostN, setN, 1);
  const y = scaleLinear([0, top], [height - MARGIN.bottom, MARGIN.top]);
  const clip = useId();
  const line = (by: number, back = false) => {
    const along = back ? [...points].reverse() : points;
    return along.map(({ lengthMm, tensionN }) => `${x(lengthMm + by).toFixed(1)} ${y(tensionN).toFixed(1)}`).join('L');
  };
  const edges = [
    ...(leastN > 0 ? [{ newtons: leastN, word: 'too loose below' }] : []),
    { newtons: setN, word: 'a new belt' },
    { newtons: mostN, word: 'too tight above' },
  ];
  return (
    <svg width={width} height={height} role="group" aria-label="Static tension against length">
      <rect
        className="size-window"
        x={MARGIN.left}
        y={y(mostN)}
        width={width - MARGIN.left - MARGIN.right}
        height={y(leastN) - y(mostN)}
      />
      <clipPath id={clip}>
        <rect x={0} y={MARGIN.top} width={width} height={height} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <path className="size-band" d={`M${line(-2 * sigma)}L${line(2 * sigma, true)}Z`} />
        <path className="size-curve" d={`M${line(0)}`} />
      </g>
      {apart(edges, ({ newtons }) => y(newtons)).map(({ newtons, word }) => (
        <g key={word}>
          <line className="size-edge" x1={MARGIN.left} x2={width - MARGIN.right} y1={y(newtons)} y2={y(newtons)} />
          <text className="size-axis" x={width - MARGIN.right - 6} y={y(newtons) - 5} textAnchor="end">
            {word}
          </text>
          <text className="size-axis" x={MARGIN.left - 6} y={y(newtons) + 5} textAnchor="end">
            {Math.round(newtons)} N
          </text>
        </g>
      ))}
      <text className="size-axis" x={8} y={14}>
        Static tension
      </text>
      <LengthAxis x={x} y={height - MARGIN.bottom} unit={unit} />
      <Marks
        answer={answer}
        at={({ lengthMm, tensionN, verdict }) => [
          x(lengthMm),
          y(Math.min(top, tensionN ?? (verdict === 'will-not-go-on' ? top : 0))),
        ]}
      />
    </svg>
  );
}

/** Lines that are far enough from those before them for their words to be read, px. */
function apart<T>(lines: readonly T[], at: (line: T) => number, min = 16): T[] {
  return lines.reduce<T[]>(
    (kept, line) => (kept.every((other) => Math.abs(at(other) - at(line)) >= min) ? [...kept, line] : kept),
    [],
  );
}

/** The belts as marks on a curve; the one to bring home is named. */
function Marks({
  answer: { candidates, best },
  at,
}: {
  answer: SizeAnswer;
  at: (candidate: SizeAnswer['candidates'][number]) => [x: number, y: number];
}) {
  const { unit } = useBench('unit');
  const { chosen } = useSizing();
  const pointAt = usePointAt();
  return candidates.map((candidate, k) => {
    const { lengthMm, verdict } = candidate;
    const shown = chosen === lengthMm;
    const [cx, cy] = at(candidate);
    return (
      <g
        key={lengthMm}
        className={`size-mark is-${verdict}${shown ? ' is-shown' : ''}${k === best ? ' is-best' : ''}`}
        transform={`translate(${cx} ${cy})`}
        role="button"
        tabIndex={0}
        aria-label={`${formatLength(lengthMm, unit)}, ${VERDICT_WORDS[verdict]}`}
        aria-pressed={shown}
        onClick={() => pointAt(shown ? null : candidate)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          pointAt(shown ? null : candidate);
        }}
      >
        <circle className="size-reach" r={20} />
        {verdict === 'fits' ? <circle r={k === best || shown ? 9 : 6.5} /> : <path d="M-5 -5L5 5M5 -5L-5 5" />}
        {(shown || (k === best && chosen === null)) && (
          <text className="size-name" textAnchor="middle" y={cy < MARGIN.top + 30 ? 26 : -15}>
            {formatLength(lengthMm, unit)}
          </text>
        )}
      </g>
    );
  });
}

function LengthAxis({
  x,
  y,
  unit,
}: {
  x: ReturnType<typeof scaleLinear<number, number>>;
  y: number;
  unit: LengthUnit;
}) {
  const per = unit === 'in' ? MM_PER_INCH : 1;
  const [min, max] = x.domain() as [number, number];
  const ticks = scaleLinear([min / per, max / per], [0, 1]).ticks(7);
  return (
    <g className="size-ticks">
      <path d={`M${x(min)} ${y + 8}H${x(max)}`} />
      {ticks.map((tick) => (
        <g key={tick} transform={`translate(${x(tick * per)} ${y + 8})`}>
          <path d="M0 0V5" />
          <text className="size-axis" y={20} textAnchor="middle">
            {unit === 'in' ? `${tick}″` : tick}
          </text>
        </g>
      ))}
    </g>
  );
}
