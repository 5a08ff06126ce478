import { scaleLinear } from 'd3-scale';
import { useBench } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { MarkedPiece } from '../../views/unrolled/MarkedPiece';
import { FOOT, StripFoot } from '../../views/unrolled/StripFoot';
import { useTensionSums } from './sums';
import { pulleyLabel } from '@emery/core/drive';
import type { StaticBelt } from '@emery/core/loads';
import { forceFigure } from '@emery/core/tension';
import { type BeltRunning } from '@emery/core/loads';

const MARGIN = { left: 54, right: 14, top: 26, bottom: FOOT };

/** The belt cut open at the crank and laid flat: what the cord bears along it, and what of that presses it on. */
export function ProfileChart({ width, height }: { width: number; height: number }) {
  const { drive, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const { standing, run } = belt!;
  const { contacts } = standing;
  const tensions = run.pulleys.map(({ leavesN }) => leavesN);
  const max = Math.max(...tensions, standing.tensionN);
  const min = Math.min(0, ...tensions);
  const x = scaleLinear([0, standing.cordLength], [MARGIN.left, Math.max(MARGIN.left + 1, width - MARGIN.right)]);
  const y = scaleLinear([min, 1.08 * max], [height - MARGIN.bottom, MARGIN.top]);
  const pieces = piecesOf(standing, run, (id) => pulleyLabel(drive, id));
  const spans = pieces.filter(({ mark }) => mark.kind === 'span');
  const line = pieces
    .map(({ from, to, a, b }, k) => `${k === 0 ? 'M' : 'L'}${x(from)} ${y(a)}L${x(to)} ${y(b)}`)
    .join('');
  const floor = y(Math.max(min, 0));
  return (
    <svg width={width} height={height} role="group" aria-label="Span tension along the belt, from the crank">
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <path className="profile-grid" d={`M${MARGIN.left} ${y(tick)}H${width - MARGIN.right}`} />
          <text className="profile-text" x={MARGIN.left - 6} y={y(tick) + 4} textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      <text className="profile-text" x={8} y={15}>
        N, running
      </text>
      {pieces.map((piece, k) => (
        <MarkedPiece
          key={k}
          mark={piece.mark}
          className={`profile-piece is-${piece.mark.kind}`}
          reach={{
            x: x(piece.from),
            width: Math.max(1, x(piece.to) - x(piece.from)),
            y: MARGIN.top,
            height: height - MARGIN.bottom - MARGIN.top,
          }}
          label={
            piece.mark.kind === 'span'
              ? `Span after ${pulleyLabel(drive, contacts[piece.mark.index]!.pulley)}: ${forceFigure(piece.a, unit)}`
              : `${piece.name}: ${forceFigure(piece.a, unit)} on, ${forceFigure(piece.b, unit)} off`
          }
        >
          <path d={`M${x(piece.from)} ${y(piece.a)}L${x(piece.to)} ${y(piece.b)}V${floor}H${x(piece.from)}Z`} />
        </MarkedPiece>
      ))}
      <path className="profile-line" d={line} />
      <path className="profile-rest" d={`M${MARGIN.left} ${y(standing.tensionN)}H${width - MARGIN.right}`} />
      <text className="profile-text" x={width - MARGIN.right} y={y(standing.tensionN) - 5} textAnchor="end">
        at rest {Math.round(standing.tensionN)}
      </text>
      {run.centrifugalN > 1 && (
        <path className="profile-lost" d={`M${MARGIN.left} ${y(run.centrifugalN)}H${width - MARGIN.right}`}>
          <title>
            Below this line nothing presses the belt onto a pulley: {forceFigure(run.centrifugalN, unit)} are taken by
            centrifugal force
          </title>
        </path>
      )}
      {spans.map((piece, k) => {
        const newtons = piece.a;
        const text = String(Math.round(newtons));
        return x(piece.to) - x(piece.from) > text.length * 8 + 6 ? (
          <text
            key={k}
            className={`profile-value${newtons <= run.centrifugalN ? ' is-slack' : ''}`}
            x={(x(piece.from) + x(piece.to)) / 2}
            y={y(newtons) - 6}
            textAnchor="middle"
          >
            {text}
          </text>
        ) : null;
      })}
      <StripFoot pieces={pieces} x={x} height={height} length={standing.cordLength} unit={unit} />
    </svg>
  );
}

interface Piece {
  mark: Mark;
  from: number;
  to: number;
  /** What the cord bears where it begins and where it ends, N. */
  a: number;
  b: number;
  name: string;
}

/** The belt from the crank on: each contact, over which the tension changes, and each span. */
function piecesOf({ belt }: StaticBelt, { pulleys }: BeltRunning, nameOf: (pulley: string) => string): Piece[] {
  let at = 0;
  return pulleys.flatMap(({ contact, arrivesN, leavesN }, k): Piece[] => {
    const { station, pulley, arc, leaves } = contact;
    const [from, off, to] = [at, at + arc, at + arc + leaves.length];
    at = to;
    return [
      { mark: { kind: 'pulley', station, pulley }, from, to: off, a: arrivesN, b: leavesN, name: nameOf(pulley) },
      { mark: { kind: 'span', belt: belt.id, index: k }, from: off, to, a: leavesN, b: leavesN, name: '' },
    ];
  });
}
