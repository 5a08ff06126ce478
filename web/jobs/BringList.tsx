import { AskForBelt } from '../ask-for/AskForBelt';
import './jobs.css';
import type { Drive } from '@emery/core/drive';
import { beltName, type BringList as List } from '@emery/core/job';
import { capital } from '@emery/core/quantity';

/** Bring list: each belt as it is asked for at a counter, what else would do, parts, bolts and tools. */
export function BringList({ drive, bring }: { drive: Drive; bring: List }) {
  return (
    <div className="bring">
      {bring.belts.map((belt) => (
        <section key={belt.belt} className="bring-belt" aria-label={capital(beltName(drive, belt.belt))}>
          <h2>
            {capital(beltName(drive, belt.belt))}
            <span className="quiet"> and one more as a spare</span>
          </h2>
          <AskForBelt ask={belt} section={belt.section} ribs={belt.ribs} large />
          {belt.number && <p>Number of the last one: {belt.number}.</p>}
          {belt.misfit && (
            <p className="finding is-fault">
              <strong>■ {Math.round(belt.misfit.lengthMm)} mm, as marked, cannot be fitted.</strong> This is the length
              that Size recommends.
            </p>
          )}
          {belt.from === 'size' && !belt.misfit && (
            <p className="quiet">No length chosen yet: using the length Size recommends.</p>
          )}
          {belt.second && (
            <div className="bring-second">
              <span className="label">If not in stock</span>
              <AskForBelt ask={belt.second} section={belt.section} ribs={belt.ribs} />
            </div>
          )}
        </section>
      ))}
      {bring.unknown.map((id) => (
        <p key={id} className="finding is-watch">
          <strong>{capital(beltName(drive, id))}: no length chosen yet.</strong> See Size.
        </p>
      ))}
      <Lines name="Parts to change" lines={bring.parts} />
      <Lines name="Bolts" lines={bring.bolts} />
      <Lines name="Tools" lines={bring.tools} />
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
