import { fixed } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import type { SoundPicture } from './tasks';
import type { PluckHeard } from '@emery/core/tension';

const WIDTH = 368;
const WAVE = 56;
const SPECTRUM = 92;

/** A sound as it was heard: its loudness over time with the plucks, and its strength by frequency with the note. */
export function SoundDrawing({
  picture: { seconds, columns, spectrum },
  plucks,
  hz,
}: {
  picture: SoundPicture;
  plucks: readonly PluckHeard[];
  hz: number | null;
}) {
  const t = scaleLinear([0, seconds], [0, WIDTH]);
  const max = columns.reduce((top, { min, max: high }) => Math.max(top, high, -min), 1e-6);
  const y = scaleLinear([-max, max], [WAVE, 2]);
  const f = scaleLinear([0, spectrum.at(-1)?.hz ?? 1], [0, WIDTH]);
  const base = WAVE + 14 + SPECTRUM;
  return (
    <svg className="sound" viewBox={`0 0 ${WIDTH} ${base + 20}`} role="img" aria-label="The sound and its spectrum">
      <path
        className="sound-wave"
        d={columns
          .map(({ min, max: high }, k) => {
            const x = ((k + 0.5) * WIDTH) / columns.length;
            return `M${x.toFixed(1)} ${y(min).toFixed(1)}V${y(high).toFixed(1)}`;
          })
          .join('')}
      />
      {plucks.map(({ at }) => (
        <path key={at} className="sound-pluck" d={`M${t(at)} 0V${WAVE}`} />
      ))}
      {spectrum.length > 0 && (
        <>
          <path
            className="sound-spectrum"
            d={`M0 ${base}${spectrum.map(({ hz: at, strength }) => `L${f(at).toFixed(1)} ${(base - strength * SPECTRUM).toFixed(1)}`).join('')}L${WIDTH} ${base}Z`}
          />
          {hz !== null &&
            [1, 2, 3, 4, 5, 6]
              .filter((h) => h * hz < f.domain()[1]!)
              .map((h) => (
                <g key={h} transform={`translate(${f(h * hz)} 0)`}>
                  <path className={h === 1 ? 'sound-note' : 'sound-overtone'} d={`M0 ${WAVE + 12}V${base}`} />
                  {h === 1 && (
                    <text className="sound-note-text" x={5} y={WAVE + 22}>
                      {fixed(hz, 1)} Hz
                    </text>
                  )}
                </g>
              ))}
          {f.ticks(6).map((tick) => (
            <text
              key={tick}
              className="bar-text"
              x={f(tick)}
              y={base + 15}
              textAnchor={tick === 0 ? 'start' : 'middle'}
            >
              {tick === 0 ? '0 Hz' : tick}
            </text>
          ))}
        </>
      )}
    </svg>
  );
}
