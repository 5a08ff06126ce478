import { Button } from 'antd';
import { DeleteOutlined } from '@ant-design/icons';
import { edit, useBench } from '../../state/bench';
import { AskCard } from '../../ui/AskCard';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { useTyped } from '../../ui/typed-text';
import { useNoise } from './NoiseProvider';
import { useDiagnosis } from './sums';
import {
  dueAfter,
  lastOdometer,
  ODOMETER_UNITS,
  ODOMETER_WORDS,
  type OdometerUnit,
  removeItem,
} from '@emery/core/drive';
import { odometerDoubtWords, grouped } from '@emery/core/quantity';
import { CAUSE_WORDS, cureDone, LISTEN_AGAIN_WORDS, listenedAgain, partLabel } from '@emery/core/noise';

/** Causes that are offered to be put right. */
const OFFERED = 12;

const HEARD = [
  { outcome: 'quiet', label: 'Quiet' },
  { outcome: 'back', label: 'Noise is back' },
] as const;

/** After the repair: what was put right, and whether it stayed quiet right after, after 500 km and after 2,000 km. */
export default function AfterView() {
  const { drive, diagnosis } = useDiagnosis();
  const { dispatch } = useBench('dispatch');
  const { setView } = useNoise();
  const cures = drive.noise?.cures ?? [];
  const key = ({ cause, id }: { cause: string; id: string }) => `${cause} ${id}`;
  // What stops the engine is put right first, whatever makes the noise.
  const stops = new Set(diagnosis.stops.map(key));
  const offered = [
    ...diagnosis.causes.filter((cause) => stops.has(key(cause))),
    ...diagnosis.causes.filter((cause) => !stops.has(key(cause))),
  ].slice(0, OFFERED);
  const [chosen, setChosen] = useTyped<string>('cause', '');
  const [odometer, setOdometer] = useTyped<number | null>('odometer', null);
  const cause = offered.find((offer) => key(offer) === chosen) ?? offered[0]!;
  const stamp = () => ({ at: new Date().toISOString(), ...(odometer !== null && { odometer }) });
  const [odometerUnit, setOdometerUnit] = useTyped<OdometerUnit>('unit', 'km');
  const done = () =>
    dispatch(
      edit((d) =>
        cureDone(d, { cause: cause.cause, part: cause.id, ...stamp(), ...(odometer !== null && { odometerUnit }) }),
      ),
    );
  return (
    <>
      {cures.map((cure) => (
        <section key={cure.id} className="cure" aria-label={`Repair: ${CAUSE_WORDS[cure.cause].name}`}>
          <div className="block-head">
            <h2>
              {CAUSE_WORDS[cure.cause].name}, {partLabel(drive, cure.part)}
            </h2>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove the repair of ${partLabel(drive, cure.part)}`}
              onClick={() => dispatch(edit((d) => removeItem(d, 'noise.cures', cure.id)))}
            />
          </div>
          <p className="quiet">
            Repaired {cure.at?.slice(0, 10)}
            {cure.odometer !== undefined && `, at ${grouped(cure.odometer)} ${cure.odometerUnit ?? 'on the odometer'}`}
          </p>
          {dueAfter(cure).map(({ when, at }) => {
            const heard = cure.listened?.find((listening) => listening.when === when);
            const say = (outcome: 'quiet' | 'back') =>
              dispatch(
                edit((d) => listenedAgain(d, cure.id, when, heard?.outcome === outcome ? null : outcome, stamp())),
              );
            return (
              <AskCard
                key={when}
                label={`Listen again ${LISTEN_AGAIN_WORDS[when]}`}
                ask={
                  <>
                    Listen again {LISTEN_AGAIN_WORDS[when]}
                    {at !== null && when !== 'now' && (
                      <span className="quiet">
                        {' '}
                        at {grouped(at)} {cure.odometerUnit}
                      </span>
                    )}
                  </>
                }
                outcomes={HEARD}
                said={heard?.outcome}
                onSay={say}
              />
            );
          })}
          {cure.listened?.some(({ outcome }) => outcome === 'back') && (
            <Button onClick={() => setView('clues')}>Check again</Button>
          )}
        </section>
      ))}
      <section aria-label="Repaired" className="clues">
        <h2>Record a repair</h2>
        <p>
          A new belt&rsquo;s coating hides a fault for some hundreds of kilometres. So listen again now, after 500 km
          and after 2,000 km. Evidence recorded before the repair no longer counts.
        </p>
        <Choice
          label="Cause"
          value={key(cause)}
          options={offered.map((cause) => ({
            value: key(cause),
            label: `${CAUSE_WORDS[cause.cause].name}, ${partLabel(drive, cause.id)}`,
          }))}
          onChange={setChosen}
        />
        <FigureField
          label="Odometer"
          value={odometer}
          unit="as read"
          min={0}
          max={10_000_000}
          doubtOf={(reading) => odometerDoubtWords(reading, lastOdometer(drive), odometerUnit)}
          onCommit={setOdometer}
          onClear={() => setOdometer(null)}
        />
        <Choice
          label="Odometer unit"
          value={odometerUnit}
          options={ODOMETER_UNITS.map((unit) => ({ value: unit, label: ODOMETER_WORDS[unit] }))}
          onChange={setOdometerUnit}
        />
        <Button type="primary" onClick={done}>
          Record repair
        </Button>
      </section>
    </>
  );
}
