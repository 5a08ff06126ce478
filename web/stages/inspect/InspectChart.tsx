import type { KeyboardEvent, PointerEvent } from 'react';
import { lazyPart } from '../../parts/lazy-part';
import { edit, useBench } from '../../state/bench';
import { UnrolledBelt } from '../../views/unrolled/UnrolledBelt';
import { useInspect } from './InspectProvider';
import { useInspection } from './sums';
import './inspect.css';
import { type Check, INSPECT_CHECK_NAMES, type InspectFinding, pulleyLabel } from '@emery/core/drive';
import { changeFinding, findingsOf, foundNow, placesOf, repeatOf } from '@emery/core/inspect';
import { formatLength } from '@emery/core/quantity';

const WearChart = lazyPart('The wear', () => import('./WearChart'));

/** Unrolled belt with the damage that was marked on it; with the verdicts, how it wears over the distance. */
export default function InspectChart() {
  const { view } = useInspect();
  const { belt } = useBench('belt');
  const { items } = useInspection();
  const item = items.find(({ on, target }) => on === 'belt' && target === belt?.id);
  if (view === 'verdicts' && item?.wear) return <WearChart item={item} />;
  return <DamageStrip />;
}

/** A tap this near to a mark takes it away, px. */
const NEAR_PX = 9;

function DamageStrip() {
  const { drive, belt, unit, dispatch } = useBench('drive', 'belt', 'unit', 'dispatch');
  const { placing, began } = useInspect();
  const part = { on: 'belt', target: belt?.id ?? '' } as const;
  const found = belt ? findingsOf(drive, part).filter(({ places }) => places?.length) : [];
  const repeat = belt ? repeatOf(belt, placesOf(found)) : null;
  const taking = placing && belt ? foundNow(drive, part, placing, { at: began }) : undefined;
  const put = (finding: InspectFinding, places: readonly number[]) =>
    dispatch(edit((d) => changeFinding(d, finding.id, { places: places.length > 0 ? places : undefined })));
  return (
    <UnrolledBelt
      over={(x, { y, height, cordLength }) => {
        const at = (px: number) => Math.round(((px - x(0)) / (x(cordLength) - x(0))) * cordLength);
        const tap = (event: PointerEvent<SVGRectElement>) => {
          const px = event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
          const places = taking!.places ?? [];
          const near = places.find((place) => Math.abs(x(place) - px) < NEAR_PX);
          const mm = Math.max(0, Math.min(cordLength, at(px)));
          put(taking!, near === undefined ? [...places, mm] : places.filter((place) => place !== near));
        };
        const onKey = (event: KeyboardEvent) => {
          if (event.key !== 'Backspace' && event.key !== 'Delete') return;
          event.preventDefault();
          put(taking!, (taking!.places ?? []).slice(0, -1));
        };
        return (
          <g className="damage">
            {repeat &&
              beats(repeat.firstMm, repeat.turnMm, cordLength).map((mm) => (
                <path key={mm} className="damage-beat" d={`M${x(mm)} ${y - 12}v${height + 24}`} />
              ))}
            {repeat && (
              <text className="damage-repeat" x={x(0)} y={14}>
                Repeats each turn of {pulleyLabel(drive, repeat.pulley)}, {formatLength(repeat.turnMm, unit)}
              </text>
            )}
            {found.flatMap((finding) =>
              finding.places!.map((place, k) => (
                <g key={`${finding.id} ${k}`} transform={`translate(${x(place)} ${y + height / 2})`}>
                  <title>
                    {INSPECT_CHECK_NAMES[finding.check]}, {formatLength(place, unit)} from the chalk mark
                  </title>
                  <DamageMark check={finding.check} />
                </g>
              )),
            )}
            {taking && (
              <rect
                className="damage-take"
                role="button"
                tabIndex={0}
                aria-label={`Tap where: ${INSPECT_CHECK_NAMES[placing!]}. Delete removes the last one.`}
                x={x(0)}
                y={y - 14}
                width={x(cordLength) - x(0)}
                height={height + 28}
                onPointerUp={tap}
                onKeyDown={onKey}
              />
            )}
          </g>
        );
      }}
    />
  );
}

const beats = (first: number, turn: number, length: number) =>
  Array.from({ length: Math.max(0, Math.floor((length - first) / turn) + 1) }, (_, k) => first + k * turn);

/** A kind of damage as a sign: a notch, strands, a shine, beads, a drop; a stroke for what has none of its own. */
const SIGNS: { readonly [C in Check]?: string } = {
  chunks: 'M-6 -9H6L0 4Z',
  frayed: 'M-8 -9L-4 0L-8 9H-5L-1 0L-5 -9ZM1 -9L5 0L1 9H4L8 0L4 -9Z',
  glazed: 'M0 -9L5 0L0 9L-5 0Z',
  pilling: 'M-6 0a3 3 0 1 0 6 0a3 3 0 1 0 -6 0M1 0a3 3 0 1 0 6 0a3 3 0 1 0 -6 0',
  oil: 'M0 -9C5 -2 5 7 0 7S-5 -2 0 -9Z',
};

function DamageMark({ check }: { check: Check }) {
  return <path className={`damage-mark is-${check}`} d={SIGNS[check] ?? 'M0 -9V9'} />;
}
