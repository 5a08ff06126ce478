import { Button } from 'antd';
import { useState } from 'react';
import { useGoToStage } from '../../bench/use-go-to-stage';
import { useBench } from '../../state/bench';
import { useNoise } from './NoiseProvider';
import { useDiagnosis, useNextTest } from './sums';
import { TestCard } from './TestCard';
import { NOISE_TEST_NAMES, type NoiseCause, stationOf } from '@emery/core/drive';
import {
  answerWords,
  askKey,
  CAUSE_WORDS,
  type CauseChance,
  chanceFigure,
  gainWords,
  partLabel,
  reasonWords,
} from '@emery/core/noise';

/** Rows of the ranking, and how tall one is, px. */
const SHOWN = 7;
const ROW = 44;
/** Of one cause so many parts are offered to look at. */
const PARTS_SHOWN = 8;
/** Other tests that are offered beside the best. */
const OTHERS = 4;

/** Where a cause is put right. */
const CURED_UNDER: Partial<Record<NoiseCause, string>> = {
  misaligned: 'align',
  'wrong-groove': 'align',
  loose: 'tension',
  tight: 'tension',
  'wrong-length': 'size',
};
const STAGE_NAMES: Readonly<Record<string, string>> = { align: 'Align', tension: 'Tension', size: 'Size' };

/** What makes the noise, ranked; and the next test worth its minute. */
export default function CausesView() {
  const { drive, diagnosis } = useDiagnosis();
  const { next } = diagnosis;
  const { setPicked } = useNoise();
  const test = useNextTest();
  const others = next.filter((other) => other !== test).slice(0, OTHERS);
  return (
    <>
      {test ? (
        <section aria-label="Next test" className="next-test" data-test={test.test}>
          <div className="block-head">
            <h2>Next test</h2>
            <span className="quiet">
              {minutesWords(test.minutes)} · {gainWords(test.gainBits)}
            </span>
          </div>
          <TestCard ask={test} />
          {others.length > 0 && (
            <details className="test-how">
              <summary>Another test</summary>
              <ul className="at-hand">
                {others.map((other) => (
                  <li key={askKey(other)}>
                    <span>
                      {NOISE_TEST_NAMES[other.test]}
                      {(other.pulley ?? other.belt) && `, ${partLabel(drive, (other.pulley ?? other.belt)!)}`}{' '}
                      <span className="quiet">
                        {minutesWords(other.minutes)}, {gainWords(other.gainBits)}
                      </span>
                    </span>
                    <Button onClick={() => setPicked(askKey(other))}>This test</Button>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      ) : (
        <p className="settled">
          {diagnosis.stops.length > 0
            ? 'Correct what stops the engine first: every remaining test needs it running.'
            : 'Every useful test is done.'}
        </p>
      )}
      <Ranking />
      <p className="quiet">
        The percentages come from Emery&rsquo;s own table, which is judgement, not statistics. Two faults at once are
        possible: the second figure is the chance that the fault exists at all.
      </p>
    </>
  );
}

const minutesWords = (minutes: number) => (minutes < 1 ? 'half a minute' : `${minutes} min`);

/** What makes the noise that is nothing of the drive: a row like the others, so that all of them come to one. */
const NOT_THE_DRIVE = 'elsewhere';

/**
 * The likeliest causes by their chance, each with all its parts, and the chance that it is not the drive. Rows change
 * places as the chances do, so that one sees what moved.
 */
function Ranking() {
  const { drive, diagnosis } = useDiagnosis();
  const { suspect, setSuspect } = useNoise();
  const [open, setOpen] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = diagnosis.groups.slice(0, SHOWN);
  const rows = [
    ...shown.map(({ cause, probability, parts }) => ({
      key: cause as string,
      name: CAUSE_WORDS[cause].name,
      where: parts.length === 1 ? partLabel(drive, parts[0]!.id) : `first check ${partLabel(drive, parts[0]!.id)}`,
      part: parts[0]!.id,
      probability,
    })),
    { key: NOT_THE_DRIVE, name: 'Not the drive', where: '', part: '', probability: diagnosis.elsewhere },
  ].sort((a, b) => b.probability - a.probability);
  // Kept in one order in the page, and put in place by their rank: a row that rises is seen to rise.
  const inPage = [...rows].sort((a, b) => (a.key < b.key ? -1 : 1));
  const first = shown.some(({ cause }) => cause === open) ? open : shown[0]!.cause;
  const looked = shown.find(({ cause }) => cause === first) ?? shown[0]!;
  const part = looked.parts.find(({ id }) => id === chosen) ?? looked.parts[0]!;
  const rest = diagnosis.groups.slice(SHOWN).reduce((sum, { probability }) => sum + probability, 0);
  const max = rows[0]!.probability;
  return (
    <section aria-label="Causes">
      <h2>Likely cause</h2>
      <ul className="ranking" style={{ height: ROW * rows.length }}>
        {inPage.map((cause) => {
          const rank = rows.indexOf(cause);
          const here = cause.key === looked.cause;
          return (
            <li
              key={cause.key}
              style={{ transform: `translateY(${rank * ROW}px)` }}
              data-cause={cause.key}
              data-part={cause.part}
              data-rank={rank + 1}
            >
              <button
                type="button"
                className={`ranking-row${here ? ' is-here' : ''}`}
                aria-pressed={here}
                disabled={cause.key === NOT_THE_DRIVE}
                onClick={() => {
                  setOpen(cause.key);
                  setChosen(null);
                  setSuspect(suspect === cause.part && here ? null : cause.part);
                }}
              >
                <span className="ranking-bar" style={{ width: `${(100 * cause.probability) / max}%` }} />
                <span className="ranking-name">
                  {cause.name} <span className="quiet">{cause.where}</span>
                </span>
                <strong>{chanceFigure(cause.probability)}</strong>
              </button>
            </li>
          );
        })}
      </ul>
      {rest > 0.005 && (
        <p className="quiet">
          {diagnosis.groups.length - SHOWN} other causes together {chanceFigure(rest)}.
        </p>
      )}
      {looked.parts.length > 1 && (
        <div className="button-row is-after" role="group" aria-label={`${CAUSE_WORDS[looked.cause].name}, by part`}>
          {looked.parts.slice(0, PARTS_SHOWN).map(({ id, probability }) => (
            <Button
              key={id}
              type={id === part.id ? 'primary' : 'default'}
              aria-pressed={id === part.id}
              onClick={() => {
                setChosen(id);
                setSuspect(id);
              }}
            >
              {partLabel(drive, id)} {chanceFigure(probability)}
            </Button>
          ))}
        </div>
      )}
      <CauseDetail one={part} />
    </section>
  );
}

/** Why one cause is where it is, what would prove it wrong, and where it is put right. */
function CauseDetail({ one: chance }: { one: CauseChance }) {
  const { drive, diagnosis } = useDiagnosis();
  const { select } = useBench('select');
  const { setView } = useNoise();
  const go = useGoToStage();
  const { name, what, cure } = CAUSE_WORDS[chance.cause];
  const [speaksFor, speaksAgainst] = [
    chance.reasons.filter(({ ratio }) => ratio > 1).slice(0, 2),
    chance.reasons.filter(({ ratio }) => ratio < 1).slice(0, 2),
  ];
  const top = diagnosis.causes[0] === chance;
  const stage = CURED_UNDER[chance.cause];
  return (
    <div className="cause-detail" aria-label={`${name}, ${partLabel(drive, chance.id)}`}>
      <h3>
        {name}, {partLabel(drive, chance.id)}
      </h3>
      <p>
        {what} Chance that it exists: {chanceFigure(chance.present)}, whether or not it causes this noise.
      </p>
      {[
        { title: 'Evidence for it', list: speaksFor },
        { title: 'Evidence against it', list: speaksAgainst },
      ].map(
        ({ title, list }) =>
          list.length > 0 && (
            <div key={title}>
              <span className="label">{title}</span>
              <ul className="noise-why">
                {list.map((reason) => {
                  const words = reasonWords(drive, reason, chance);
                  return <li key={words}>{words}</li>;
                })}
              </ul>
            </div>
          ),
      )}
      {chance.reasons.length === 0 && <p className="quiet">No evidence yet; the figure is how common it is.</p>}
      {top && diagnosis.disproof && (
        <p>
          <span className="label">Best test against it</span>
          <br />
          {answerWords(drive, diagnosis.disproof.answer)}.
        </p>
      )}
      <p>{cure}</p>
      <div className="button-row">
        {stage && (
          <Button
            onClick={() => {
              const station = stationOf(drive, chance.id);
              if (station) select({ kind: 'pulley', station: station.id, pulley: chance.id });
              go(stage);
            }}
          >
            Go to {STAGE_NAMES[stage]}
          </Button>
        )}
        <Button onClick={() => setView('after')}>Repaired</Button>
      </div>
    </div>
  );
}
