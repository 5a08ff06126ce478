import './jobs.css';
import type { Drive } from '@emery/core/drive';
import { beltName, type BringList as List } from '@emery/core/job';
import { capital, formatInches, formatMm } from '@emery/core/quantity';
import type { AskFor } from '@emery/core/section';

/** What to bring: each belt as it is asked for at a counter, what else would do, parts, bolts and tools. */
export function BringList({ drive, bring }: { drive: Drive; bring: List }) {
  return (
    <div className="bring">
      {bring.belts.map((belt) => (
        <section key={belt.belt} className="bring-belt" aria-label={capital(beltName(drive, belt.belt))}>
          <h2>
            {capital(beltName(drive, belt.belt))}
            <span className="quiet"> and the same again as a spare</span>
          </h2>
          <Ask ask={belt} basis={belt.basis} large />
          {belt.number && <p>The last one had the number {belt.number}.</p>}
          {belt.from === 'size' && (
            <p className="quiet">Nobody said which length it has: this is the one that Size would bring home.</p>
          )}
          {belt.second && (
            <div className="bring-second">
              <span className="label">If they have none</span>
              <Ask ask={belt.second} basis={belt.basis} />
            </div>
          )}
        </section>
      ))}
      {bring.unknown.map((id) => (
        <p key={id} className="finding is-watch">
          <strong>{capital(beltName(drive, id))}: no length fits.</strong> Look under Size first.
        </p>
      ))}
      <Lines name="Parts to be changed" lines={bring.parts} />
      <Lines name="Bolts" lines={bring.bolts} />
      <Lines name="Tools" lines={bring.tools} />
    </div>
  );
}

function Ask({
  ask: { lengthMm, markings, plain },
  basis,
  large = false,
}: {
  ask: AskFor;
  basis: string;
  large?: boolean;
}) {
  const [first, ...others] = markings;
  return (
    <div className={large ? 'bring-ask is-large' : 'bring-ask'}>
      <strong className="bring-marking">{first?.text ?? plain}</strong>
      <span className="bring-length">
        {formatMm(lengthMm, 0)} · {formatInches(lengthMm)} {basis}
      </span>
      {others.length > 0 && <span className="quiet">or {others.map(({ text }) => text).join(', ')}</span>}
      {first && <span className="quiet">{plain}</span>}
    </div>
  );
}

function Lines({ name, lines }: { name: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={name}>
      <h2>{name}</h2>
      <ul className="bring-lines">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
