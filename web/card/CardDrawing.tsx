import { shortName } from '../ui/short-name';
import { placeLabels } from '../views/front/labels';
import { type CardFrame, cardScale } from './routing-card';
import { type Drive, stationLabel } from '@emery/core/drive';
import { beltOutline, solveDrive, spanMidpoints } from '@emery/core/path';
import { bodyRadiusMm, sectionFor } from '@emery/core/section';

/** Characters of a name: in full if that has room, then shorter. */
const FORMS = [18, 12, 8, 5] as const;

/** Room above the drawing and beside it that names may have, px. Under it the code may stand. */
const ROUND = 8;

/**
 * A drive on paper: black on white, with plain attributes, so that it is the same in print, in a file and in the
 * browser. Its names keep their size, whatever the frame.
 */
export function CardDrawing({ drive, frame }: { drive: Drive; frame: CardFrame }) {
  const { k, x, y } = cardScale(drive, frame);
  const size = Math.min(17, frame.width / 34);
  const { belts } = solveDrive(drive);
  const sections = new Map(
    drive.belts.flatMap((belt) =>
      belt.route.map(({ pulley }) => [pulley, sectionFor(belt.section, belt.sectionOverrides)] as const),
    ),
  );
  const shafts = drive.stations.map((station) => {
    const radii = station.pulleys.map((pulley) => Math.max(4, bodyRadiusMm(pulley, sections.get(pulley.id) ?? null)));
    return { station, radii, x: station.x * k + x, y: -station.y * k + y, r: Math.max(...radii) * k };
  });
  // Names stay on the ground of the drawing: beside it stands text.
  const [left, top] = [frame.left - ROUND, frame.top - ROUND];
  const onGround = (at: { x: number; y: number }) => ({ x: at.x * k + x - left, y: -at.y * k + y - top });
  const labels = placeLabels(
    shafts.map(({ station, x: cx, y: cy, r }) => ({
      id: station.id,
      x: cx - left,
      y: cy - top,
      r,
      free: r - (station.pulleys[0]!.surface === 'vee' ? 9 * k : 4),
      forms: FORMS.map((limit) => ({
        width: shortName(stationLabel(station), limit).length * 0.65 * size + 8,
        height: 1.3 * size,
      })),
    })),
    {
      circles: shafts.map(({ x: cx, y: cy, r }) => ({ x: cx - left, y: cy - top, r })),
      lines: belts.flatMap(({ spans }) =>
        spans.map(({ start, end }) => ({ start: onGround(start), end: onGround(end) })),
      ),
      width: frame.width + 2 * ROUND,
      height: frame.height + ROUND,
    },
  );
  return (
    <g>
      <g transform={`translate(${x} ${y}) scale(${k})`} fill="none" stroke="#000">
        {shafts.map(({ station, radii }) =>
          radii.map((r, index) => (
            <circle
              key={`${station.id} ${index}`}
              cx={station.x}
              cy={-station.y}
              r={r}
              strokeWidth={1.6 / k}
              fill={index === 0 ? '#f1f1f1' : 'none'}
            />
          )),
        )}
        {shafts.map(({ station }) => (
          <circle key={station.id} cx={station.x} cy={-station.y} r={3 / k} fill="#000" />
        ))}
        {belts.map((belt, index) => {
          const section = sectionFor(drive.belts[index]!.section)!;
          // The second belt is told from the first by its line, not by a colour.
          return (
            <g key={belt.id}>
              <path
                d={beltOutline(belt, 2.6)}
                strokeWidth={3}
                strokeDasharray={section.kind === 'vee' ? undefined : '2.2 2.2'}
                stroke="#666"
              />
              <path d={beltOutline(belt)} strokeWidth={3} strokeDasharray={index % 2 === 1 ? '14 4' : undefined} />
            </g>
          );
        })}
        {belts.flatMap((belt) =>
          spanMidpoints(belt).map(({ from, to, x: mx, y: my, directionDeg, length }) =>
            length * k < 24 ? null : (
              <path
                key={`${belt.id} ${from} ${to}`}
                d="M-9 -7L9 0L-9 7Z"
                fill="#fff"
                strokeWidth={1.6}
                transform={`translate(${mx} ${-my}) scale(${1 / k}) rotate(${-directionDeg})`}
              />
            ),
          ),
        )}
      </g>
      {labels.map(({ id, x: lx, y: ly, form, leader }) => (
        <g key={id} transform={`translate(${left} ${top})`}>
          {leader && (
            <line
              x1={leader.start.x}
              y1={leader.start.y}
              x2={leader.end.x}
              y2={leader.end.y}
              stroke="#000"
              strokeWidth={1}
            />
          )}
          <text x={lx} y={ly + 0.35 * size} fontSize={size} fontWeight="bold" textAnchor="middle">
            {shortName(stationLabel(shafts.find(({ station }) => station.id === id)!.station), FORMS[form] ?? FORMS[0])}
          </text>
        </g>
      ))}
    </g>
  );
}
