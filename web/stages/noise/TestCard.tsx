import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { AskCard } from '../../ui/AskCard';
import { KindCard } from '../KindCard';
import { useNoise } from './NoiseProvider';
import { useDiagnosis } from './sums';
import { type Ask, answerTest, askKey, outcomesOf, partLabel, takeBack, TEST_WORDS } from '@emery/core/noise';
import { type Drive, NOISE_TEST_NAMES, type NoiseTest } from '@emery/core/drive';
import { gradeByKind } from '@emery/core/inspect';

/** What a noise can be said to repeat with by ear; a part of the drive takes a rate, and that is listened for. */
const NAMES_NO_PART = ['engine', 'none'];

/**
 * One test with its outcomes: a tap says how it turned out, the same again takes it back. `brief` leaves out how it is
 * done until it is asked for.
 */
export function TestCard({ ask, brief = false }: { ask: Ask; brief?: boolean }) {
  const { drive, diagnosis } = useDiagnosis();
  const { dispatch } = useBench('dispatch');
  const { setView } = useNoise();
  const { test, pulley, belt } = ask;
  const words = TEST_WORDS[test];
  const known = diagnosis.evidence.counts.find((count) => askKey(count) === askKey(ask));
  const part = pulley ?? (drive.belts.length > 1 ? belt : undefined);
  const say = (outcome: string) =>
    dispatch(
      edit((d) =>
        known && (known.said ?? known.outcome) === outcome && known.from === 'hand'
          ? takeBack(d, ask)
          : answerTest(d, { ...ask, outcome }, { at: new Date().toISOString() }),
      ),
    );
  // What a hand feels of a pulley goes by its kind: that comes first, and the test once it is known.
  if (pulley !== undefined && asksKind(drive, pulley, test)) return <KindCard pulley={pulley} />;
  return (
    <AskCard
      label={NOISE_TEST_NAMES[test]}
      ask={
        brief ? (
          words.ask
        ) : (
          <>
            {words.ask}
            {part !== undefined && <span className="quiet"> {partLabel(drive, part)}</span>}
          </>
        )
      }
      how={<How ask={ask} />}
      brief={brief}
      first={
        test === 'repeat' ? (
          <Button type="primary" onClick={() => setView('listen')}>
            Let Emery listen
          </Button>
        ) : undefined
      }
      outcomes={outcomesOf(test).filter(({ outcome }) => test !== 'repeat' || NAMES_NO_PART.includes(outcome))}
      said={known?.said ?? known?.outcome}
      onSay={say}
    />
  );
}

/** Whether the kind of a pulley must be known before a test of it says anything. */
const asksKind = (drive: Drive, pulley: string, test: NoiseTest) =>
  outcomesOf(test).some(({ outcome }) => gradeByKind(drive, pulley, test, outcome) === 'ask');

/** How a test is made, what could hurt at it, and where people read it in two ways. */
function How({ ask: { test } }: { ask: Ask }) {
  const { how, caution, schools } = TEST_WORDS[test];
  return (
    <>
      <p>{how}</p>
      {caution && (
        <p className="caution">
          <strong aria-hidden>▲</strong> {caution}
        </p>
      )}
      {schools && <p className="quiet">{schools}</p>}
    </>
  );
}
