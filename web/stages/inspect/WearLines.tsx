import { grouped } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import './inspect.css';
import { INSPECT_CHECK_NAMES, type OdometerUnit } from '@emery/core/drive';
import { BESIDE, valuesWithRoom } from './wear-values';
import { checkFigure, readingFigure, type Wear, WHOSE_WORDS, wornAt } from '@emery/core/inspect';

const MARGIN = { left: 46, right: 18, top: 24, bottom: 34 };
/** A forecast further off than this many times what was seen is not drawn to its end. */
const MOST_AHEAD = 4;

interface Props {
  wear: Wear;
  /** What the odometer counts. */
  unit: OdometerUnit;
  width: number;
  height: number;
}

/** Readings of a wearing figure over the odometer, the line through them, and where that meets the limit. */
export function WearLines({ wear, unit, width, height }: Props) {
  const { readings, line, limits, left, check, bend } = wear;
  const limit = limits.replace!;
  const first = readings[0]!.odometer;
  const last = readings[readings.length - 1]!.odometer;
  const seen = Math.max(last - first, 1000);
  const end = left?.odometer ?? last;
  const ahead = Math.min(last + MOST_AHEAD * seen, left ? end + left.plusMinus : last + 0.3 * seen);
  const x = scaleLinear([first - 0.06 * (ahead - first), ahead], [MARGIN.left, width - MARGIN.right]);
  const values = [
    limit,
    limits.fresh ?? limit,
    ...readings.flatMap(({ value, sigma }) => [value + sigma, value - sigma]),
  ];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = 0.14 * (high - low || 1);
  const y = scaleLinear([low - 2 * room, high + room], [height - MARGIN.bottom, MARGIN.top]);
  const at = (odometer: number) => line!.value + line!.rate * (odometer - line!.odometer);
  const doubt = (odometer: number) =>
    Math.sqrt(line!.valueVariance + line!.rateVariance * (odometer - line!.odometer) ** 2);
  const bentAt = (odometer: number) => limits.fresh! + (limits.lowIsWorn ? -1 : 1) * wornAt(bend!, odometer);
  const places = readings.map((reading) => ({
    reading,
    x: x(reading.odometer),
    y: y(reading.value),
    text: checkFigure(check, reading.value),
  }));
  const written = valuesWithRoom(places);
  const steps = Array.from({ length: 25 }, (_, k) => first + ((ahead - first) * k) / 24);
  return (
    <svg width={width} height={height} role="img" aria-label={`${INSPECT_CHECK_NAMES[check]} over the odometer`}>
      <text className="wear-text" x={8} y={15}>
        {INSPECT_CHECK_NAMES[check]}, mm
      </text>
      {y.ticks(4).map((value) => (
        <text key={value} className="wear-text" x={MARGIN.left - 8} y={y(value) + 4} textAnchor="end">
          {value}
        </text>
      ))}
      {x.ticks(Math.max(2, Math.floor(width / 150))).map((odometer) => (
        <g key={odometer}>
          <path className="wear-grid" d={`M${x(odometer)} ${MARGIN.top}V${height - MARGIN.bottom}`} />
          <text className="wear-text" x={x(odometer)} y={height - MARGIN.bottom + 18} textAnchor="middle">
            {grouped(odometer)} {unit}
          </text>
        </g>
      ))}
      {line && !bend && (
        <path
          className="wear-doubt"
          d={`M${steps.map((o) => `${x(o)} ${y(at(o) + doubt(o))}`).join('L')}L${[...steps]
            .reverse()
            .map((o) => `${x(o)} ${y(at(o) - doubt(o))}`)
            .join('L')}Z`}
        />
      )}
      <path className="wear-limit" d={`M${MARGIN.left} ${y(limit)}H${width - MARGIN.right}`} />
      <text className="wear-limit-text" x={MARGIN.left + 4} y={y(limit) - 6}>
        worn out at {checkFigure(check, limit)} ({WHOSE_WORDS[limits.from]})
      </text>
      {line && !bend && <path className="wear-line" d={`M${x(first)} ${y(at(first))}L${x(ahead)} ${y(at(ahead))}`} />}
      {bend && limits.fresh !== null && (
        <path className="wear-line" d={`M${steps.map((o) => `${x(o)} ${y(bentAt(o))}`).join('L')}`} />
      )}
      {places.map(({ x: cx, y: cy, text, reading: { id, odometer, value, sigma } }, place) => (
        <g key={id}>
          <title>{`${text} at ${grouped(odometer)} ${unit}`}</title>
          <path className="wear-sigma" d={`M${cx} ${y(value - sigma)}V${y(value + sigma)}`} />
          <circle className="wear-reading" cx={cx} cy={cy} r={5} />
          {written.has(place) && (
            <text className="wear-value" x={cx + BESIDE.x} y={cy + BESIDE.y}>
              {text}
            </text>
          )}
        </g>
      ))}
      {left && end <= ahead && (
        <g>
          <path
            className="wear-span"
            d={`M${x(Math.max(first, end - left.plusMinus))} ${y(limit)}H${x(Math.min(ahead, end + left.plusMinus))}`}
          />
          <circle className="wear-end" cx={x(end)} cy={y(limit)} r={6} />
          <text
            className="wear-value"
            x={x(end)}
            y={y(limit) + 22}
            textAnchor={x(end) > width - 120 ? 'end' : 'middle'}
          >
            {readingFigure(end, left.plusMinus)} {unit}
          </text>
        </g>
      )}
    </svg>
  );
}
