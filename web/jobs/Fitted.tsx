import { AskCard } from '../ui/AskCard';
import { CommittedText } from './CommittedText';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import { beltName, type BeltFitted, type BringBelt, fittedWords } from '@emery/core/job';
import { capital } from '@emery/core/quantity';

const WHY = [
  { outcome: 'worn', label: 'Worn out' },
  { outcome: 'broke', label: 'Broken' },
  { outcome: 'in-passing', label: 'Still sound' },
] as const;

/** Belt fitted: of each belt whether it is a new one, its number, and why the old one came off. */
export function Fitted({ job, hand: { run, happens } }: { job: JobOpened; hand: JobInHand }) {
  const { sheet, signedAt } = job;
  const fixed = signedAt !== null;
  return (
    <section className="sheet job-fitted" aria-label="Belt fitted">
      <h2>Belt fitted</h2>
      {sheet.off.map((belt) => {
        const said = run.belts.get(belt);
        const name = capital(beltName(sheet.drive, belt));
        const bring = sheet.bring.belts.find((entry) => entry.belt === belt);
        // Only what is said now goes along, so that two who say something of one belt take nothing from one another.
        const put = (change: Partial<BeltFitted>) => happens({ kind: 'belt', belt, ...change });
        if (fixed)
          return (
            <p key={belt}>
              <strong>{name}</strong> {said ? FITTED_WORDS[said.fitted === 'new' ? 'new' : 'same'] : 'not recorded'}
              {said?.marking && `, ${said.marking}`}
              {said?.number && `, number ${said.number}`}
            </p>
          );
        return (
          <AskCard
            key={belt}
            label={name}
            ask={
              <>
                {name}
                {bring && <span className="quiet"> {bring.markings[0]?.text ?? bring.plain}</span>}
              </>
            }
            outcomes={[
              { outcome: 'new', label: 'New belt fitted' },
              { outcome: 'same', label: 'Same belt refitted' },
            ]}
            said={said?.fitted}
            onSay={(fitted) => put({ fitted })}
          >
            {said?.fitted === 'new' && (
              <>
                <CommittedText
                  label="Marking"
                  value={said.marking ?? ''}
                  max={60}
                  onCommit={(marking) => put({ marking })}
                />
                <MarkingDoubt marking={said.marking} asked={bring} />
              </>
            )}
            {said && (
              <CommittedText
                label="Serial number"
                value={said.number ?? ''}
                max={60}
                onCommit={(number) => put({ number })}
              />
            )}
            {said?.fitted === 'new' && (
              <AskCard
                label={`Reason for removal: ${name}`}
                ask="Reason for removal of the old belt"
                outcomes={WHY}
                said={said.why}
                onSay={(why) => put({ why })}
              />
            )}
          </AskCard>
        );
      })}
    </section>
  );
}

interface DoubtProps {
  /** The belt it is said of, where that is not plain from where it stands; then it is no news either. */
  name?: string;
  marking: string | undefined;
  asked: BringBelt | undefined;
}

/** Told where the belt that went on is not the one that the card asked for: at once, and once more at the sign-off. */
export function MarkingDoubt({ name, marking, asked }: DoubtProps) {
  const doubt = fittedWords(marking, asked);
  return doubt === null ? null : (
    <p className="finding is-watch" role={name === undefined ? 'alert' : undefined}>
      <strong>
        {name === undefined ? '' : `${name}: `}
        {marking}.
      </strong>{' '}
      {doubt}
    </p>
  );
}

const FITTED_WORDS = { new: 'new belt', same: 'same belt' };
