import { RIM_PLACES } from '@emery/core/align';

const SIZE = 168;
const RADIUS = 62;

/** The rim of a pulley with the places it can be read at, and its hub: one is taken with a thumb. */
export function RimDial({
  value,
  taken,
  onChange,
}: {
  /** Degrees counter-clockwise from +x; null at the hub. */
  value: number | null;
  /** Where it was read already. */
  taken: readonly (number | null)[];
  onChange: (at: number | null) => void;
}) {
  const places = [{ at: null as number | null, name: 'hub' }, ...RIM_PLACES];
  return (
    <div
      className="rim-dial"
      role="group"
      aria-label="Position on the rim, seen from the front"
      style={{ width: SIZE, height: SIZE }}
    >
      <svg width={SIZE} height={SIZE} aria-hidden>
        <circle cx={SIZE / 2} cy={SIZE / 2} r={RADIUS} />
        <circle cx={SIZE / 2} cy={SIZE / 2} r={RADIUS - 10} />
      </svg>
      {places.map(({ at, name }) => {
        const turn = ((at ?? 0) * Math.PI) / 180;
        const out = at === null ? 0 : RADIUS;
        const chosen = at === value;
        const state = taken.includes(at) ? { className: 'is-taken', mark: '●' } : { className: '', mark: '○' };
        return (
          <button
            key={name}
            type="button"
            aria-pressed={chosen}
            aria-label={at === null ? 'At the hub' : `At the ${name}`}
            className={chosen ? 'is-chosen' : state.className}
            style={{ left: SIZE / 2 + out * Math.cos(turn), top: SIZE / 2 - out * Math.sin(turn) }}
            onClick={() => onChange(at)}
          >
            <span aria-hidden>{chosen ? '✛' : state.mark}</span>
          </button>
        );
      })}
    </div>
  );
}
