import { fixed } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import { useBench } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { MarkedPiece } from '../../views/unrolled/MarkedPiece';
import { FOOT, StripFoot } from '../../views/unrolled/StripFoot';
import { degreeFigure, VERDICT_WORDS } from '@emery/core/align';
import { type Drive, findPulley, pulleyLabel } from '@emery/core/drive';
import { type Alignment, guides, heightAt, pitchOf, type Run, worseOf } from '@emery/core/planes';
import { beltWidthMm } from '@emery/core/section';

const MARGIN = { left: 46, right: 14, top: 26, bottom: FOOT };
/** Width of a belt whose section does not tell, mm: toothed ones are sold by it. */
const WIDTH_UNKNOWN = 20;
/** A smooth face is drawn so much wider than the belt: its true width is not asked. */
const FACE = 1.15;
/** Narrower than this the chart says less, px. */
const NARROW = 520;
/** The least that is shown on either side of the belt, mm. */
const LEAST_ROOM = 2;
/** Runs that differ by less are drawn as one. */
const SAME_SLOPE = 3e-4;
/** A run is given its angle from this many px on. */
const ROOM_FOR_ANGLE = 46;

interface Props {
  alignment: Alignment;
  /** As it is, where `alignment` is what moves would leave. */
  before: Alignment | null;
  width: number;
  height: number;
}

/** The belt cut at the crank and laid out, seen from above: each pulley's grooves, and the belt through them. */
export function EdgeView({ alignment, before, width, height }: Props) {
  const { drive, unit } = useBench('drive', 'unit');
  const pieces = contactsOf(drive, alignment);
  const cord = alignment.solution.cordLength!;
  const x = scaleLinear([0, cord], [MARGIN.left, Math.max(MARGIN.left + 1, width - MARGIN.right)]);
  const heights = [...pieces, ...(before ? contactsOf(drive, before) : [])].flatMap(({ low, high }) => [low, high]);
  const [low, high] = [Math.min(...heights) - LEAST_ROOM, Math.max(...heights) + LEAST_ROOM];
  const y = scaleLinear([low, high], [height - MARGIN.bottom, MARGIN.top]);
  const factor = (y(0) - y(1)) / (x(1) - x(0));
  const narrow = width < NARROW;
  const moved = narrow ? 'What-if' : 'After the moves, from above';
  return (
    <svg width={width} height={height} role="group" aria-label="The belt from above, from the crank on">
      <text className="edge-text" x={8} y={15}>
        {before ? moved : 'From above'}, offsets ×{fixed(factor, 0)}
      </text>
      <text className="edge-text" x={width - MARGIN.right} y={15} textAnchor="end">
        out ↑ · engine ↓
      </text>
      <path className="edge-datum" d={`M${MARGIN.left} ${y(0)}H${width - MARGIN.right}`} />
      <text className="edge-text" x={8} y={y(0) + 4}>
        crank
      </text>
      <Line drive={drive} alignment={alignment} x={x} y={y} />
      {before && <Line drive={drive} alignment={before} apart={alignment.runs} x={x} y={y} />}
      {pieces.map((piece, k) => (
        <Contact
          key={k}
          piece={piece}
          x={x}
          y={y}
          reach={{ y: MARGIN.top, height: height - MARGIN.top - MARGIN.bottom }}
        />
      ))}
      <StripFoot pieces={pieces} x={x} height={height} length={cord} unit={unit} />
    </svg>
  );
}

interface Piece {
  mark: Mark;
  name: string;
  /** Along the cord, mm. */
  from: number;
  to: number;
  /** Height of the belt's middle where it comes on and where it goes off, as the pulley would have it. */
  on: number;
  off: number;
  /** How much further out than on the datum’s pulley the belt was counted to sit, mm. */
  seatMm: number;
  guiding: boolean;
  /** Each groove's height from the belt's middle, mm; those the belt sits in are told apart. */
  grooves: { z: number; taken: boolean }[];
  /** Half of a smooth face's width, as drawn: a little more than the belt's. */
  face: number;
  low: number;
  high: number;
}

/** Every contact in travel order, with its grooves as its plane has them. */
function contactsOf(drive: Drive, { belt, section, solution, planes, seatsMm, datumSeat }: Alignment): Piece[] {
  const pitch = pitchOf(section);
  const ribs = belt.ribs ?? 1;
  const half = (beltWidthMm(belt, section) || WIDTH_UNKNOWN) / 2;
  let at = 0;
  return belt.route.map((stop, k): Piece => {
    const { arcLength, station, pulley } = solution.contacts[k]!;
    const before = solution.spans[(k + solution.spans.length - 1) % solution.spans.length]!;
    const after = solution.spans[k]!;
    const plane = planes[k]!;
    const seatMm = seatsMm[k]!;
    const [from, to] = [at, at + arcLength!];
    at = to + after.length!;
    const [on, off] = [heightAt(plane, before.end), heightAt(plane, after.start)];
    const guiding = guides(drive, stop);
    const count = guiding && pitch > 0 ? Math.min(60, findPulley(drive, pulley)?.grooves ?? ribs) : 0;
    const seat = pitch > 0 ? Math.round(seatMm / pitch) + datumSeat : 0;
    const grooves = Array.from({ length: count }, (_, g) => ({
      z: (g - datumSeat - (ribs - 1) / 2) * pitch,
      taken: g >= seat && g < seat + ribs,
    }));
    const reach = [-half, half, ...grooves.map(({ z }) => z), half + seatMm, seatMm - half];
    return {
      mark: { kind: 'pulley', station, pulley },
      name: pulleyLabel(drive, pulley),
      from,
      to,
      on,
      off,
      seatMm,
      guiding,
      grooves,
      face: FACE * half,
      low: Math.min(on, off) + Math.min(...reach),
      high: Math.max(on, off) + Math.max(...reach),
    };
  });
}

type Scale = (mm: number) => number;

function Contact({ piece, x, y, reach }: { piece: Piece; x: Scale; y: Scale; reach: { y: number; height: number } }) {
  const { mark, from, to, on, off, guiding, grooves, name, face } = piece;
  return (
    <MarkedPiece
      mark={mark}
      className="edge-contact"
      label={name}
      reach={{ x: x(from), width: Math.max(1, x(to) - x(from)), ...reach }}
    >
      {guiding && grooves.length === 0 && (
        <path className="edge-groove is-taken" d={`M${x(from)} ${y(on)}L${x(to)} ${y(off)}`} />
      )}
      {grooves.map(({ z, taken }) => (
        <path
          key={z}
          className={taken ? 'edge-groove is-taken' : 'edge-groove'}
          d={`M${x(from)} ${y(on + z)}L${x(to)} ${y(off + z)}`}
        />
      ))}
      {!guiding && (
        // The edges of its face: how far the belt keeps from them is how far it may wander.
        <path
          className="edge-smooth"
          d={[-face, face].map((z) => `M${x(from)} ${y(on + z)}L${x(to)} ${y(off + z)}`).join('')}
        />
      )}
    </MarkedPiece>
  );
}

/** The belt from guide to guide, coloured by how each run lies, with its angle. */
function Line({
  drive,
  alignment,
  x,
  y,
  apart,
}: {
  drive: Drive;
  alignment: Alignment;
  x: Scale;
  y: Scale;
  /** Drawn as a mere line, and only where it lies otherwise than these. */
  apart?: readonly Run[];
}) {
  const { belt, section, runs } = alignment;
  const pieces = contactsOf(drive, alignment);
  const half = (beltWidthMm(belt, section) || WIDTH_UNKNOWN) / 2;
  const cord = alignment.solution.cordLength!;
  const ghost = apart !== undefined;
  const height = (piece: Piece, end: 'on' | 'off') => piece[end] + piece.seatMm;
  const band = (x1: number, a: number, x2: number, b: number) =>
    `M${x(x1)} ${y(a + half)}L${x(x2)} ${y(b + half)}V${y(b - half)}L${x(x1)} ${y(a - half)}Z`;
  return (
    <g aria-hidden className={ghost ? 'edge-ghost' : undefined}>
      {!ghost &&
        pieces.map(
          (piece, k) =>
            piece.guiding && (
              <path
                key={`on ${k}`}
                className="edge-belt"
                d={band(piece.from, height(piece, 'on'), piece.to, height(piece, 'off'))}
              />
            ),
        )}
      {runs.map((run, r) => {
        if (apart && Math.abs(apart[r]!.slope - run.slope) < SAME_SLOPE) return null;
        const [left, met] = [pieces[run.fromAt]!, pieces[run.toAt]!];
        const [start, end] = [left.to, met.from];
        // The run back to where the belt was cut goes over its end, and comes in again at the start where it is long.
        const stop = end > start ? end : end + cord;
        const [a, b] = [height(left, 'off'), height(met, 'on')];
        const at = (mm: number) => a + ((b - a) * (mm - start)) / Math.max(1e-6, stop - start);
        const shown = Math.min(stop, cord);
        if (ghost) return <path key={run.fromAt} d={`M${x(start)} ${y(a)}L${x(shown)} ${y(at(shown))}`} />;
        return (
          <g key={run.fromAt} className={`edge-run is-${run.read ? run.verdict : 'unread'}`}>
            <path d={band(start, a, shown, at(shown))} />
            {x(shown) - x(start) > ROOM_FOR_ANGLE && (
              <text x={(x(start) + x(shown)) / 2} y={y(at((start + shown) / 2)) + 5} textAnchor="middle">
                {angleOf(run)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** The angle of a run; of one that is not read, what the drawing has, where it has any. */
function angleOf(run: Run): string {
  const angle = degreeFigure(worseOf(run));
  if (run.read) return `${VERDICT_WORDS[run.verdict].mark} ${angle}`;
  return worseOf(run) < 0.005 ? 'not measured' : `as drawn ${angle}`;
}
