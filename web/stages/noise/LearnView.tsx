import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { useBench } from '../../state/bench';
import { useStore } from '../../state/store';
import { play, playing, stopPlaying } from '../../sound/player';
import { useEngineRpm } from './sums';
import type { NoiseKind } from '@emery/core/drive';
import {
  heardHz,
  KIND_WORDS,
  type Lesson,
  lessonsOf,
  lessonWords,
  practiceRound,
  type PracticeRound,
  soundOfLesson,
} from '@emery/core/noise';
import { capital, fixed } from '@emery/core/quantity';

const keyOf = ({ kind, rate, bearing }: Lesson) => `${kind} ${rate.what} ${rate.id} ${bearing?.part ?? ''}`;

/** Hearing it: each kind of noise made from this drive's own rates, and blind practice with a score. */
export default function LearnView() {
  const { drive } = useBench('drive');
  const { rpm } = useEngineRpm();
  const lessons = lessonsOf(drive, rpm);
  const [kind, setKind] = useState<NoiseKind>('chirp');
  const kinds = (Object.keys(KIND_WORDS) as NoiseKind[]).filter((key) => lessons.some((lesson) => lesson.kind === key));
  const now = useStore(playing);
  const taught = lessons.filter((lesson) => lesson.kind === kind).sort((a, b) => heardHz(a) - heardHz(b));
  return (
    <>
      <section aria-label="Play the sound">
        <h2>Play the sound</h2>
        <p>
          <strong>Simulated.</strong> Made from this drive&rsquo;s own frequencies at {Math.round(rpm)} rev/min.
        </p>
        <Segmented<NoiseKind>
          block
          value={kind}
          options={kinds.map((kind) => ({ value: kind, label: KIND_WORDS[kind].name }))}
          onChange={setKind}
          aria-label="Kind of noise"
        />
        <ul className="at-hand">
          {taught.map((lesson) => (
            <li key={keyOf(lesson)}>
              <span>
                {capital(lessonWords(drive, lesson))}{' '}
                <span className="quiet">{fixed(heardHz(lesson), heardHz(lesson) < 100 ? 1 : 0)} Hz</span>
              </span>
              <Button
                aria-label={`${now === keyOf(lesson) ? 'Stop' : 'Play'} ${kind} of ${lessonWords(drive, lesson)}`}
                onClick={() =>
                  now === keyOf(lesson)
                    ? stopPlaying()
                    : play(keyOf(lesson), soundOfLesson(drive, rpm, lesson, { seed: 7 }))
                }
              >
                {now === keyOf(lesson) ? '■ Stop' : '▶ Play'}
              </Button>
            </li>
          ))}
        </ul>
      </section>
      <Practice key={rpm} lessons={lessons} rpm={rpm} />
    </>
  );
}

interface Round extends PracticeRound {
  seed: number;
  said: string | null;
}

/** Blind practice: a noise in an engine bay, and which it was. */
function Practice({ lessons, rpm }: { lessons: readonly Lesson[]; rpm: number }) {
  const { drive } = useBench('drive');
  const [round, setRound] = useState<Round | null>(null);
  const [score, setScore] = useState({ right: 0, of: 0 });
  const now = useStore(playing);
  const playRound = ({ hidden, seed }: Round) =>
    play('practice', soundOfLesson(drive, rpm, hidden, { seed, seconds: 5, bay: true }));
  const begin = () => {
    const drawn = practiceRound(lessons, Math.random);
    if (!drawn) return;
    const next = { ...drawn, seed: Math.ceil(1e6 * Math.random()), said: null };
    setRound(next);
    playRound(next);
  };
  const say = (lesson: Lesson) => {
    if (!round || round.said !== null) return;
    const right = keyOf(lesson) === keyOf(round.hidden);
    setRound({ ...round, said: keyOf(lesson) });
    setScore(({ right: so, of }) => ({ right: so + Number(right), of: of + 1 }));
  };
  return (
    <section aria-label="Blind practice" className="practice">
      <div className="block-head">
        <h2>Blind practice</h2>
        {score.of > 0 && (
          <strong data-testid="practice-score">
            {score.right} of {score.of} right
          </strong>
        )}
      </div>
      {!round ? (
        <>
          <p>A noise of this drive in a simulated engine bay, with speech and hiss. Choose which it is.</p>
          <Button type="primary" onClick={begin}>
            ▶ Start
          </Button>
        </>
      ) : (
        <>
          <div className="button-row">
            <Button onClick={() => (now === 'practice' ? stopPlaying() : playRound(round))}>
              {now === 'practice' ? '■ Stop' : '▶ Play again'}
            </Button>
            {round.said !== null && (
              <Button type="primary" onClick={begin}>
                Next
              </Button>
            )}
          </div>
          <ul className="practice-choices" aria-label="Which noise is it?">
            {round.choices.map((lesson) => {
              const right = keyOf(lesson) === keyOf(round.hidden);
              const said = round.said === keyOf(lesson);
              const wrong = said ? '✗ ' : '';
              const mark = right ? '✓ ' : wrong;
              const shown = round.said === null ? '' : mark;
              return (
                <li key={keyOf(lesson)}>
                  <Button block disabled={round.said !== null && !right && !said} onClick={() => say(lesson)}>
                    {shown}
                    {KIND_WORDS[lesson.kind].name}, {lessonWords(drive, lesson)}
                  </Button>
                </li>
              );
            })}
          </ul>
          {round.said !== null && (
            <p role="status">
              Answer: {round.hidden.kind} of {lessonWords(drive, round.hidden)}, {fixed(heardHz(round.hidden), 1)} a
              second.
            </p>
          )}
        </>
      )}
    </section>
  );
}
