import { fixed } from '@emery/core/quantity';
import { PlainButton } from '../ui/PlainButton';
import { useText } from './asked';
import { BEND_WORDS, BENDS, type Bend, bendOf, type Riding } from '@emery/core/counter';

/** No drive has more pulleys than this that bend a belt back. */
const MOST = 12;

/** Bends as the address has them: `half,quarter,40`. */
function bendsOf(text: string): (Bend | number)[] {
  return text
    .split(',')
    .slice(0, MOST)
    .flatMap((part): (Bend | number)[] => {
      const said = part.trim();
      const known = BENDS.find((bend) => bend === said);
      const degrees = Number(said);
      if (known) return [known];
      return said !== '' && degrees >= 0 && degrees <= 350 ? [degrees] : [];
    });
}

/** The pulleys that the belt's back rides on, or those that are smooth under its drive side. */
export function useBends(on: Riding['on']) {
  const [text, put] = useText(on);
  const bends = bendsOf(text);
  return {
    riding: bends.map((bend): Riding => ({ on, bend })),
    add: (bend: Bend) => put([...bends, bend].slice(0, MOST).join()),
    put: (at: number, bend: Bend | number | null) =>
      put(bends.toSpliced(at, at < bends.length ? 1 : 0, ...(bend === null ? [] : [bend])).join()),
  };
}

/** A tap on a picture adds a pulley; each that was added can be told in degrees, and taken away. */
export function Bends({ on, label, bends }: { on: Riding['on']; label: string; bends: ReturnType<typeof useBends> }) {
  return (
    <div className="field is-wide" role="group" aria-label={label}>
      <span className="label">{label}</span>
      <div className="bend-pictures">
        {BENDS.map((bend) => (
          <button key={bend} type="button" className="bend-picture" onClick={() => bends.add(bend)}>
            <BendPicture bend={bend} on={on} />
            <span>+ {BEND_WORDS[bend]}</span>
          </button>
        ))}
      </div>
      {bends.riding.length === 0 && <p className="field-echo">None yet: add one for each such pulley.</p>}
      <ol className="bends">
        {bends.riding.map(({ bend }, k) => (
          <li key={k}>
            <span>{typeof bend === 'number' ? 'measured' : BEND_WORDS[bend]}</span>
            <input
              className="line-input"
              inputMode="numeric"
              aria-label={`Degrees of pulley ${k + 1}`}
              placeholder={`about ${fixed(bendOf(bend).degrees, 0)}°`}
              value={typeof bend === 'number' ? String(bend) : ''}
              onChange={({ target }) => {
                const degrees = Number(target.value.replace(/[^\d.]/g, ''));
                bends.put(k, target.value === '' ? nearest(bendOf(bend).degrees) : Math.min(350, degrees));
              }}
            />
            <PlainButton aria-label={`Remove pulley ${k + 1}`} onClick={() => bends.put(k, null)}>
              ✕
            </PlainButton>
          </li>
        ))}
      </ol>
    </div>
  );
}

const nearest = (degrees: number) =>
  BENDS.reduce((best, bend) =>
    Math.abs(bendOf(bend).degrees - degrees) < Math.abs(bendOf(best).degrees - degrees) ? bend : best,
  );

/** How each is drawn: the belt coming from the left at so many degrees and leaving as steeply, over a pulley. */
function BendPicture({ bend, on }: { bend: Bend; on: Riding['on'] }) {
  const half = (Math.min(250, bendOf(bend).degrees) * Math.PI) / 360;
  // Where the belt comes back past itself its ends are cut short, so that they do not cross.
  const [r, x, y, out] = [11, 32, on === 'back' ? 22 : 26, half > Math.PI / 2 ? 9 : 30];
  const up = on === 'back' ? 1 : -1;
  const at = (sign: number) => {
    const [cx, cy] = [x + sign * r * Math.sin(half), y + up * r * Math.cos(half)];
    return { cx, cy, ex: cx + sign * out * Math.cos(half), ey: cy - up * out * Math.sin(half) };
  };
  const [left, right] = [at(-1), at(1)];
  const sweep = on === 'back' ? 0 : 1;
  return (
    <svg viewBox="0 0 64 48" className="bend-svg" aria-hidden>
      <circle cx={x} cy={y} r={r - 2} fill="var(--metal)" stroke="var(--metal-edge)" />
      <path
        d={`M${left.ex} ${left.ey}L${left.cx} ${left.cy}A${r} ${r} 0 ${half > Math.PI / 2 ? 1 : 0} ${sweep} ${right.cx} ${right.cy}L${right.ex} ${right.ey}`}
        fill="none"
        stroke="var(--rubber)"
        strokeWidth="3.5"
      />
    </svg>
  );
}
