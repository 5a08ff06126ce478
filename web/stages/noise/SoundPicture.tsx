import { fixed } from '@emery/core/quantity';
import { colourOf, useLight } from '../../theme/light';
import { scaleLinear, scaleLog } from 'd3-scale';
import { useEffect, useRef, useState } from 'react';
import type { Listening } from '@emery/core/noise';
import type { Spectrogram } from '@emery/core/sound';

const LEFT = 52;
const RIGHT = 12;
const TOP = 16;
const BOTTOM = 4;

/** A sound drawn: time left to right, pitch upward, its repeat marked like the divisions of a gauge. */
export function SoundPicture({
  width,
  height,
  picture,
  listening,
}: {
  width: number;
  height: number;
  picture: Spectrogram;
  listening: Listening;
}) {
  const light = useLight();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const { columns, rows, level, seconds, from, to } = picture;
  const inner = { width: Math.max(1, width - LEFT - RIGHT), height: Math.max(1, height - TOP - BOTTOM) };
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !canvas.current) return;
    const [paper, ink] = ['--sheet', '--ink'].map((token) => rgb(colourOf(token)));
    const image = context.createImageData(columns, rows);
    for (let row = 0; row < rows; row += 1)
      for (let column = 0; column < columns; column += 1) {
        // Quiet parts stay paper.
        const share = Math.max(0, (level[row * columns + column]! - 70) / 185);
        const pixel = 4 * ((rows - 1 - row) * columns + column);
        for (let c = 0; c < 3; c += 1) image.data[pixel + c] = paper![c]! + share * (ink![c]! - paper![c]!);
        image.data[pixel + 3] = 255;
      }
    context.putImageData(image, 0, 0);
    // Another light has other colours.
  }, [columns, rows, level, light]);
  const x = scaleLinear([0, seconds], [LEFT, LEFT + inner.width]);
  const y = scaleLog([from, to], [TOP + inner.height, TOP]);
  const pitches = [200, 500, 1000, 2000, 5000, 10_000].filter((hz) => hz > from && hz < to);
  const { times, pitchHz } = listening;
  const room = times.length < inner.width / 5;
  return (
    <div
      className="sound-picture"
      style={{ width, height }}
      onPointerMove={({ nativeEvent }) => setAt({ x: nativeEvent.offsetX, y: nativeEvent.offsetY })}
      onPointerLeave={() => setAt(null)}
    >
      <canvas
        ref={canvas}
        width={columns}
        height={rows}
        style={{ left: LEFT, top: TOP, width: inner.width, height: inner.height }}
        aria-hidden
      />
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`${fixed(seconds, 1)} seconds of sound, ${times.length} repeats marked`}
      >
        {pitches.map((hz) => (
          <text key={hz} className="bar-text" x={LEFT - 6} y={y(hz) + 4} textAnchor="end">
            {hz < 1000 ? `${hz} Hz` : `${hz / 1000} kHz`}
          </text>
        ))}
        {room &&
          times.map((time, k) => (
            <path key={time} className="repeat-mark" d={`M${x(time)} ${TOP}V${k % 5 === 0 ? TOP - 12 : TOP - 7}`} />
          ))}
        {pitchHz !== null && pitchHz > from && pitchHz < to && (
          <path className="pitch-mark" d={`M${LEFT} ${y(pitchHz)}h-5m${inner.width + 5} 0h5`} />
        )}
        {at && at.x > LEFT && at.y > TOP && at.x < LEFT + inner.width && (
          <g aria-hidden>
            <path className="sound-cross" d={`M${at.x} ${TOP}V${TOP + inner.height}M${LEFT} ${at.y}h${inner.width}`} />
            <text className="sound-here" x={LEFT + inner.width - 4} y={TOP + 14} textAnchor="end">
              {fixed(x.invert(at.x), 2)} s, {Math.round(y.invert(at.y))} Hz
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}

/** The parts of a colour written as #rrggbb. */
/** The three parts of a colour written `rgb(r, g, b)`. */
function rgb(colour: string): readonly number[] {
  return (colour.match(/[\d.]+/g) ?? ['0', '0', '0']).slice(0, 3).map(Number);
}
