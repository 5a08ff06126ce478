import { Button } from 'antd';
import { useMemo } from 'react';
import type { OpenDrive } from '../state/open-drives';
import { useStore } from '../state/store';
import { useQuestions } from '../state/use-open-drive';
import { timeOfDay } from '../ui/day-and-time';
import { QUESTION, questionTitle } from './words';
import './together.css';
import { driveDifferences } from '@emery/core/drive';
import type { LengthUnit } from '@emery/core/quantity';
import { type Question, withMine } from '@emery/core/together';

/** So many differences of one question are told. */
const SHOWN = 6;

/** What two people changed, one thing at a time: theirs stands until somebody chooses mine. */
export function Questions({ open: { saver, store }, unit }: { open: OpenDrive; unit: LengthUnit }) {
  const questions = useQuestions(saver);
  const [question] = questions;
  if (!question) return null;
  return (
    <OneQuestion
      key={question.id}
      question={question}
      store={store}
      unit={unit}
      left={questions.length - 1}
      onAnswer={(whose) => saver.answer(question.id, whose)}
    />
  );
}

interface Props {
  question: Question;
  store: OpenDrive['store'];
  unit: LengthUnit;
  left: number;
  onAnswer: (whose: 'mine' | 'theirs') => void;
}

function OneQuestion({ question, store, unit, left, onAnswer }: Props) {
  const { present } = useStore(store);
  const differences = useMemo(
    () => driveDifferences(withMine(present, question.changes), present, unit),
    [present, question, unit],
  );
  const [first] = differences;
  const field = differences.length === 1 ? first?.field : undefined;
  const { by, at } = question;
  const title = questionTitle(question);
  return (
    <section className="question" role="alertdialog" aria-label={QUESTION.label}>
      <h2>
        ■ {title}
        {at !== '' && <span className="quiet"> {QUESTION.at(timeOfDay(new Date(at)))}</span>}
      </h2>
      {field ? (
        <p className="question-what">{field.name}</p>
      ) : (
        <ul>
          {differences.slice(0, SHOWN).map(({ path, text }) => (
            <li key={`${path} ${text}`}>{text}</li>
          ))}
          {differences.length > SHOWN && <li>{QUESTION.more(differences.length - SHOWN)}</li>}
        </ul>
      )}
      <div className="button-row">
        <Button size="large" onClick={() => onAnswer('mine')}>
          {field ? QUESTION.mineIs(field.ours) : QUESTION.mine}
        </Button>
        <Button size="large" onClick={() => onAnswer('theirs')}>
          {field ? QUESTION.theirsIs(field.others, by) : QUESTION.theirs}
        </Button>
        <span className="quiet">
          {QUESTION.lead} {left > 0 && QUESTION.left(left)}
        </span>
      </div>
    </section>
  );
}
