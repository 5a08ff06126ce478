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
  partLabel,
  reasonWords,
} from '@emery/core/noise';

/** Rows of the ranking, and how tall one is, px. */
const SHOWN = 7;
const ROW = 44;
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
  const others = next.filter((one) => one !== test).slice(0, OTHERS);
  return (
    <>
      {test ? (
        <section aria-label="Next test" className="next-test" data-test={test.test}>
          <div className="block-head">
            <h2>Next test</h2>
            <span className="quiet">
              {minutesWords(test.minutes)} · tells {test.gainBits.toFixed(2)} bits
            </span>
          </div>
          <TestCard ask={test} />
          {others.length > 0 && (
            <details className="test-how">
              <summary>Another one</summary>
              <ul className="at-hand">
                {others.map((one) => (
                  <li key={askKey(one)}>
                    <span>
                      {NOISE_TEST_NAMES[one.test]}
                      {(one.pulley ?? one.belt) && `, ${partLabel(drive, (one.pulley ?? one.belt)!)}`}{' '}
                      <span className="quiet">
                        {minutesWords(one.minutes)}, {one.gainBits.toFixed(2)} bits
                      </span>
                    </span>
                    <Button onClick={() => setPicked(askKey(one))}>This one</Button>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      ) : (
        <p className="settled">Every test that would tell something is made.</p>
      )}
      <Ranking />
      <p className="quiet">
        A bit is what one fair yes or no tells. The chances follow from Emery&rsquo;s own table of likelihoods, which is
        judgement and no statistics; two faults at once are possible, so the second figure says how likely a fault is
        there at all.
      </p>
    </>
  );
}

const minutesWords = (minutes: number) => (minutes < 1 ? 'half a minute' : `${minutes} min`);

/** The likeliest causes by their chance. Rows change places as the chances do, so that one sees what moved. */
function Ranking() {
  const { drive, diagnosis } = useDiagnosis();
  const { suspect, setSuspect } = useNoise();
  const [open, setOpen] = useState<string | null>(null);
  const shown = diagnosis.causes.slice(0, SHOWN);
  const key = ({ cause, id }: CauseChance) => `${cause} ${id}`;
  // Kept in one order in the page, and put in place by their rank: a row that rises is seen to rise.
  const inPage = [...shown].sort((a, b) => (key(a) < key(b) ? -1 : 1));
  const first = open ?? key(shown[0]!);
  const looked = diagnosis.causes.find((one) => key(one) === first) ?? shown[0]!;
  const rest = diagnosis.causes.slice(SHOWN).reduce((sum, { probability }) => sum + probability, 0);
  return (
    <section aria-label="Causes">
      <h2>What makes it</h2>
      <ul className="ranking" style={{ height: ROW * shown.length }}>
        {inPage.map((one) => {
          const rank = shown.indexOf(one);
          const here = key(one) === key(looked);
          return (
            <li
              key={key(one)}
              style={{ transform: `translateY(${rank * ROW}px)` }}
              data-cause={one.cause}
              data-part={one.id}
              data-rank={rank + 1}
            >
              <button
                type="button"
                className={`ranking-row${here ? ' is-here' : ''}`}
                aria-pressed={here}
                onClick={() => {
                  setOpen(key(one));
                  setSuspect(suspect === one.id && here ? null : one.id);
                }}
              >
                <span
                  className="ranking-bar"
                  style={{ width: `${(100 * one.probability) / shown[0]!.probability}%` }}
                />
                <span className="ranking-name">
                  {CAUSE_WORDS[one.cause].name} <span className="quiet">{partLabel(drive, one.id)}</span>
                </span>
                <strong>{chanceFigure(one.probability)}</strong>
              </button>
            </li>
          );
        })}
      </ul>
      {rest > 0.005 && (
        <p className="quiet">
          {diagnosis.causes.length - SHOWN} others together {chanceFigure(rest)}; not the drive at all{' '}
          {chanceFigure(diagnosis.elsewhere)}.
        </p>
      )}
      <CauseDetail one={looked} />
    </section>
  );
}

/** Why one cause is where it is, what would prove it wrong, and where it is put right. */
function CauseDetail({ one }: { one: CauseChance }) {
  const { drive, diagnosis } = useDiagnosis();
  const { select } = useBench('select');
  const { setView } = useNoise();
  const go = useGoToStage();
  const { name, what, cure } = CAUSE_WORDS[one.cause];
  const [speaksFor, speaksAgainst] = [
    one.reasons.filter(({ ratio }) => ratio > 1).slice(0, 2),
    one.reasons.filter(({ ratio }) => ratio < 1).slice(0, 2),
  ];
  const top = diagnosis.causes[0] === one;
  const stage = CURED_UNDER[one.cause];
  return (
    <div className="cause-detail" aria-label={`${name}, ${partLabel(drive, one.id)}`}>
      <h3>
        {name}, {partLabel(drive, one.id)}
      </h3>
      <p>
        {what} It is there with a chance of {chanceFigure(one.present)}, whether or not it makes this noise.
      </p>
      {[
        { title: 'For it', list: speaksFor },
        { title: 'Against it', list: speaksAgainst },
      ].map(
        ({ title, list }) =>
          list.length > 0 && (
            <div key={title}>
              <span className="label">{title}</span>
              <ul className="noise-why">
                {list.map((reason) => {
                  const words = reasonWords(drive, reason, one.cause);
                  return <li key={words}>{words}</li>;
                })}
              </ul>
            </div>
          ),
      )}
      {one.reasons.length === 0 && (
        <p className="quiet">Nothing speaks for it or against it yet but how common it is.</p>
      )}
      {top && diagnosis.disproof && (
        <p>
          <span className="label">What would speak most against it</span>
          <br />
          {answerWords(drive, diagnosis.disproof.answer)}.
        </p>
      )}
      <p>{cure}</p>
      <div className="button-row">
        {stage && (
          <Button
            onClick={() => {
              const station = stationOf(drive, one.id);
              if (station) select({ kind: 'pulley', station: station.id, pulley: one.id });
              go(stage);
            }}
          >
            Go to {STAGE_NAMES[stage]}
          </Button>
        )}
        <Button onClick={() => setView('after')}>It was put right</Button>
      </div>
    </div>
  );
}
