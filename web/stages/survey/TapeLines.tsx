import { type Drive, type ReadingKind, stationOf } from '@emery/core/drive';
import { isTape, type SurveyFit } from '@emery/core/survey';

interface Props {
  drive: Drive;
  fit: SurveyFit | null;
  asked: { from: string; to: string } | null;
  radii: ReadonlyMap<string, number>;
  scale: number;
}

/** Where each tape lay, rim to rim, and where the next one is to lie. In mm, y down. */
export function TapeLines({ drive, fit, asked, radii, scale }: Props) {
  const suspects = new Set(fit?.readings.filter(({ suspect }) => suspect).map(({ id }) => id));
  const lines = (drive.survey?.readings ?? [])
    .filter(({ kind }) => isTape(kind))
    .map(({ id, kind, from, to }) => ({
      id,
      line: tapeLine(drive, kind, from!, to, radii),
      state: suspects.has(id) ? 'is-suspect' : '',
    }));
  const next = asked && { id: 'asked', line: tapeLine(drive, 'outer', asked.from, asked.to, radii), state: 'is-asked' };
  return (
    <g className="tapes" aria-hidden>
      {[...lines, ...(next ? [next] : [])].map(({ id, line, state }) =>
        line === null ? null : (
          <g key={id} className={`tape-line ${state}`}>
            <line {...line} />
            {state === 'is-asked' &&
              [1, 2].map((end) => (
                <circle key={end} cx={end === 1 ? line.x1 : line.x2} cy={end === 1 ? line.y1 : line.y2} r={5 / scale} />
              ))}
          </g>
        ),
      )}
    </g>
  );
}

/** From far rim to far rim, near rim to near rim, or centre to centre, along the line of the centres. */
function tapeLine(drive: Drive, kind: ReadingKind, from: string, to: string, radii: ReadonlyMap<string, number>) {
  const [a, b] = [stationOf(drive, from), stationOf(drive, to)];
  if (!a || !b) return null;
  const apart = Math.hypot(b.x - a.x, b.y - a.y);
  if (apart < 1e-6) return null;
  const [ux, uy] = [(b.x - a.x) / apart, (b.y - a.y) / apart];
  const out = RIMS_OUT[kind] ?? 0;
  const [ra, rb] = [(radii.get(from) ?? 0) * out, (radii.get(to) ?? 0) * out];
  return { x1: a.x - ux * ra, y1: -(a.y - uy * ra), x2: b.x + ux * rb, y2: -(b.y + uy * rb) };
}

/** Toward which rims of its pulleys a tape reaches from their centres: the far ones, or the near ones. */
const RIMS_OUT: Readonly<Record<string, number>> = { outer: 1, gap: -1 };
