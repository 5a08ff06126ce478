import { fixed } from '@emery/core/quantity';
import { scaleLog } from 'd3-scale';
import { useBench } from '../../state/bench';
import { shortName } from '../../ui/short-name';
import { useNoise } from './NoiseProvider';
import { SLOWED, useEngineRpm, useSuspect } from './sums';
import { chanceFigure, type Listening, partLabel, type Rate } from '@emery/core/noise';

const MARGIN = { left: 20, right: 20, bottom: 40 };
/** Px of a letter of a label, and of a row of labels. */
const LETTER = 6.6;
const ROW = 17;
/** Letters of a name. */
const MOST = 24;

/** How often everything in the drive comes round at that engine speed, and the rate that was heard among them. */
export function RateScale({
  width,
  height,
  rates,
  listening,
}: {
  width: number;
  height: number;
  rates: readonly Rate[];
  listening: Listening | null;
}) {
  const { drive } = useBench('drive');
  const { setSuspect } = useNoise();
  const suspect = useSuspect();
  const { rpm } = useEngineRpm();
  const heard = listening?.repeat?.hz ?? null;
  const all = [...rates.map(({ hz }) => hz), ...(heard === null ? [] : [heard])];
  const x = scaleLog([Math.min(...all) / 1.25, Math.max(...all) * 1.35], [MARGIN.left, width - MARGIN.right]);
  const line = height - MARGIN.bottom;
  const rows = Math.max(1, Math.floor((line - 22) / ROW));
  const labels = inRows(
    rates.map((rate) => ({ rate, at: x(rate.hz), text: labelOf(rate, drive, listening) })).sort((a, b) => a.at - b.at),
    rows,
    width,
  );
  return (
    <svg width={width} height={height} role="group" aria-label={`Rates at ${Math.round(rpm)} rev/min`}>
      <path className="rate-line" d={`M${MARGIN.left} ${line}H${width - MARGIN.right}`} />
      {x.ticks(12).map((hz) => (
        <path key={hz} className="bar-tick" d={`M${x(hz)} ${line}v5`} />
      ))}
      {tickTexts(x).map((hz) => (
        <text key={hz} className="bar-text" x={x(hz)} y={line + 18} textAnchor="middle">
          {hz}
        </text>
      ))}
      <text className="bar-text" x={MARGIN.left} y={height - 6}>
        Hz at {Math.round(rpm)} rev/min
        {suspect?.what === 'pulley' && width >= 520 ? `; drawn ${SLOWED} times slower` : ''}
      </text>
      {heard !== null && (
        <g className="rate-heard">
          <path d={`M${x(heard)} 2V${line + 8}`} />
          <text
            x={x(heard) + (x(heard) > width / 2 ? -5 : 5)}
            y={13}
            textAnchor={x(heard) > width / 2 ? 'end' : 'start'}
          >
            heard {fixed(heard, heard < 100 ? 2 : 0)}
          </text>
        </g>
      )}
      {labels.map(({ rate, at, text, row, left }) => {
        const here = suspect?.id === rate.id;
        const y = line - 12 - row * ROW;
        return (
          <g
            key={`${rate.what} ${rate.id}`}
            className={`rate-mark${here ? ' is-here' : ''}`}
            onClick={() => rate.what !== 'engine' && setSuspect(here ? null : rate.id)}
          >
            <path d={`M${at} ${line}V${y + 3}`} />
            <circle cx={at} cy={line} r={3.5} />
            <text x={left} y={y}>
              {text}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

function labelOf({ what, id }: Rate, drive: Parameters<typeof partLabel>[0], listening: Listening | null): string {
  const part = what === 'tooth' ? `Teeth, ${partLabel(drive, id)}` : partLabel(drive, id);
  const name = what === 'engine' ? 'Firing' : part;
  const match = listening?.matches.find((match) => match.what === what && match.id === id);
  const text = shortName(name.charAt(0).toUpperCase() + name.slice(1), MOST);
  return match && match.probability >= 0.01 ? `${text} ${chanceFigure(match.probability)}` : text;
}

/** Labels in rows from the line up, so that none lies over another; what finds no room has none. */
function inRows<T extends { at: number; text: string }>(labels: readonly T[], rows: number, width: number) {
  const ends = Array.from({ length: rows }, () => -Infinity);
  return labels.map((label) => {
    const long = label.text.length * LETTER;
    const left = Math.max(4, Math.min(width - long - 4, label.at + 4));
    const free = ends.findIndex((end) => end < left);
    if (free >= 0) ends[free] = left + long + 8;
    return { ...label, row: Math.max(0, free), left, text: free < 0 ? '' : label.text };
  });
}

const tickTexts = (x: { domain: () => number[] }) =>
  [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].filter((hz) => hz >= x.domain()[0]! && hz <= x.domain()[1]!);
