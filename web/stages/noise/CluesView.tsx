import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { BeltChoice } from '../../bench/BeltChoice';
import { useGoToStage } from '../../bench/use-go-to-stage';
import { edit, useBench, useSelected } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { useTyped } from '../../ui/typed-text';
import { useDiagnosis } from './sums';
import { TestCard } from './TestCard';
import { NOISE_TEST_NAMES, type NoiseTest, pulleyLabel, stationOf } from '@emery/core/drive';
import { type Ask, askKey, answerWords, STAGE_WORDS, takeBack, testsOf } from '@emery/core/noise';

const OF_DRIVE: readonly NoiseTest[] = [
  'kind',
  'water',
  'under-load',
  'only-cold',
  'only-hot',
  'only-wet',
  'one-speed',
  'charge-lamp',
  'engine-hot',
];

/** Everything that can be seen, heard or tried, one tap each, with what counts already. */
export default function CluesView() {
  const { drive, diagnosis } = useDiagnosis();
  const { belt, select } = useBench('belt', 'select');
  const selected = useSelected();
  const pulleys = testsOf(drive);
  const inHand = selected?.kind === 'pulley' ? stationOf(drive, selected.pulley)?.id : undefined;
  const [chosen, setChosen] = useTyped<string>('pulley', pulleys[0]?.pulley ?? '');
  const pulley = pulleys.find((pulley) => stationOf(drive, pulley.pulley)?.id === inHand)?.pulley ?? chosen;
  const at = pulleys.find((candidate) => candidate.pulley === pulley) ?? pulleys[0];
  const ofBelt = (Object.keys(NOISE_TEST_NAMES) as NoiseTest[]).filter((test) => BELT_TESTS.includes(test));
  return (
    <>
      {diagnosis.evidence.counts.length > 0 && <Counted />}
      <section aria-label="The noise" className="clues">
        <h2>The noise</h2>
        {OF_DRIVE.map((test) => (
          <TestCard key={test} ask={{ test }} brief />
        ))}
      </section>
      {belt && (
        <section aria-label="The belt" className="clues">
          <h2>The belt</h2>
          <BeltChoice />
          {ofBelt.map((test) => (
            <TestCard key={test} ask={{ test, belt: belt.id }} brief />
          ))}
          <Dressing />
        </section>
      )}
      {at && (
        <section aria-label="One pulley" className="clues">
          <h2>One pulley</h2>
          <Choice
            label="Pulley"
            value={at.pulley}
            options={pulleys.map((pulley) => ({ value: pulley.pulley, label: pulleyLabel(drive, pulley.pulley) }))}
            onChange={(id) => {
              setChosen(id);
              select({ kind: 'pulley', station: stationOf(drive, id)!.id, pulley: id });
            }}
          />
          {at.tests.map((test) => (
            <TestCard key={test} ask={{ test, pulley: at.pulley }} brief />
          ))}
        </section>
      )}
    </>
  );
}

const BELT_TESTS: readonly NoiseTest[] = [
  'new-belt',
  'dust',
  'edge-wear',
  'flapping',
  'surface',
  'ribs',
  'slack',
  'taut',
  'belt-off',
  'length-doubt',
];

/** Evidence already: taken back with one tap, or looked up where it was found. */
function Counted() {
  const { drive, diagnosis } = useDiagnosis();
  const { dispatch } = useBench('dispatch');
  const go = useGoToStage();
  return (
    <section aria-label="Evidence">
      <h2>Evidence</h2>
      <ul className="at-hand">
        {diagnosis.evidence.counts.map(({ from, at, simulated, said, ...answer }) => {
          // As it was said, whatever the kind of pulley makes of it.
          const words = answerWords(drive, { ...answer, outcome: said ?? answer.outcome });
          const ask: Ask = answer;
          return (
            <li key={askKey(ask)}>
              <span>
                {words}{' '}
                <span className="quiet">
                  {from === 'hand' ? (at ?? '').slice(0, 10) : `found under ${STAGE_WORDS[from]}`}
                  {simulated && ' simulated'}
                </span>
              </span>
              {from === 'hand' ? (
                <Button
                  icon={<DeleteOutlined />}
                  aria-label={`Remove: ${words}`}
                  onClick={() => dispatch(edit((d) => takeBack(d, ask)))}
                />
              ) : (
                <Button onClick={() => go(from)}>Show</Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The two schools of dressing, told plainly. */
function Dressing() {
  return (
    <details className="schools-of">
      <summary>Belt dressing: two opinions</summary>
      <p>
        <strong>Never.</strong> It hides the fault for a day. It softens and harms EPDM, the material of nearly all
        belts now.
      </p>
      <p>
        <strong>In an emergency.</strong> Some use it on old neoprene belts, to get home.
      </p>
      <p>Emery never counts it as a repair. Find the cause.</p>
    </details>
  );
}
