import { DeleteOutlined } from '@ant-design/icons';
import { Button, Segmented } from 'antd';
import { useMemo } from 'react';
import { edit, useBench, useSelected } from '../../state/bench';
import { useStore } from '../../state/store';
import { Choice } from '../../ui/Choice';
import { useNarrow } from '../../ui/use-narrow';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { hand } from './hand';
import { HandPanel } from './HandPanel';
import { PluckPanel } from './PluckPanel';
import { ReadingForm } from './ReadingForm';
import { useTensionSums } from './sums';
import {
  BELT_AGE_WORDS,
  changeBelt,
  pulleyLabel,
  TENSION_WAY_WORDS,
  TENSION_WAYS,
  type TensionReading,
  type TensionWay,
} from '@emery/core/drive';
import { formatLength, fixed } from '@emery/core/quantity';
import { limitOrDefault } from '@emery/core/accessory';
import { targetTension, type StaticBelt, windowOf } from '@emery/core/loads';
import {
  CANNOT_TELL_WORDS,
  cannotTell,
  combineReadings,
  fineFigure,
  forceFigure,
  latestOf,
  meaningOf,
  meaningsOf,
  readingsNow,
  type SpanChecks,
  waysOf,
  shortForce,
  forcePlusMinus,
} from '@emery/core/tension';

/** The span that a check is about: the one in hand, else the longest. */
function useSpan(standing: StaticBelt): [number, (index: number) => void] {
  const selected = useSelected();
  const { select } = useBench('select');
  const belt = standing.belt.id;
  const held = selected?.kind === 'span' && selected.belt === belt ? selected.index : null;
  const longest = standing.spans.reduce((best, { length }, k) => (length > standing.spans[best]!.length ? k : best), 0);
  return [
    held !== null && held < standing.spans.length ? held : longest,
    (index) => select({ kind: 'span', belt, index }),
  ];
}

/** All tension checks for one span: what each should read, and what a reading means. */
export default function CheckView() {
  const { drive, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const { standing, source } = belt!;
  const [index, take] = useSpan(standing);
  const [way, setWay] = useTyped<TensionWay>('way', usualWay(standing));
  const span = standing.spans[index]!;
  const name = (id: string) => pulleyLabel(drive, id);
  // In the hand the reading that is taken comes before what the other methods would read.
  const narrow = useNarrow();
  const schools = <Schools index={index} way={way} setWay={setWay} />;
  return (
    <>
      <p className="caution">
        <strong>Caution</strong> Engine off, key out, and let it cool: pipes beside the belt are hot, and fans start by
        themselves.
      </p>
      <Choice
        label="Span, or tap one"
        value={String(index)}
        options={standing.spans.map(({ from, to, length }, k) => ({
          value: String(k),
          label: `${name(from)} → ${name(to)}, ${formatLength(length, unit, 0)}`,
        }))}
        onChange={(k) => take(Number(k))}
      />
      {!narrow && schools}
      <TypedPlace at={`${way} ${span.from} ${span.to}`} key={`${way} ${index}`}>
        {way === 'pluck' && <PluckPanel index={index} />}
        <ReadingForm way={way} index={index} />
      </TypedPlace>
      {narrow && schools}
      <Measured />
      <Readings readings={source.tensionReadings ?? []} />
      <HandPanel index={index} />
    </>
  );
}

/** Teeth are checked by a quarter turn, a sprung arm's belt by its note, others by a push. */
function usualWay({ arm, contacts }: StaticBelt): TensionWay {
  if (contacts.some(({ gripExponent }) => gripExponent === null)) return 'twist';
  return arm === null ? 'push' : 'pluck';
}

/** What each school reads on the span, as the belt stands and as it should be. */
function Schools({
  index,
  way: chosen,
  setWay,
}: {
  index: number;
  way: TensionWay;
  setWay: (way: TensionWay) => void;
}) {
  const { tension, states, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const own = useStore(hand);
  const { standing, source } = belt!;
  const aim = useMemo(
    () => targetTension(windowOf(tension, source.id, states, limitOrDefault)!),
    [tension, source, states],
  );
  const now = useMemo(() => waysOf(standing, standing.tensionN, own)[index]!, [standing, own, index]);
  const wanted = useMemo(() => (aim === null ? null : waysOf(standing, aim, own)[index]!), [standing, own, index, aim]);
  const why = cannotTell(standing, chosen, now.lengthMm);
  return (
    <>
      <table className="ledger-table schools" aria-label="All tension checks for this span">
        <thead>
          <tr>
            <th>Method</th>
            <th className="figure">at present tension</th>
            <th className="figure">at target tension</th>
          </tr>
        </thead>
        <tbody>
          {TENSION_WAYS.map((way) => {
            const silent = cannotTell(standing, way, now.lengthMm) !== null;
            return (
              <tr key={way} className={way === chosen ? 'is-selected' : ''} onClick={() => setWay(way)}>
                <td>
                  <button type="button" className="row-button" aria-pressed={way === chosen}>
                    {TENSION_WAY_WORDS[way].name}
                  </button>
                </td>
                {silent ? (
                  <td className="figure" colSpan={2}>
                    <span className="quiet">not usable on this span</span>
                  </td>
                ) : (
                  <>
                    <td className="figure">
                      {way === 'pointer' ? `${fixed(standing.armAngle!, 0)}°` : figureOf(way, now, unit, own.twistNm)}
                    </td>
                    <td className="figure">
                      {way === 'pointer' || !wanted ? '—' : figureOf(way, wanted, unit, own.twistNm)}
                    </td>
                  </>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="quiet">{why ? CANNOT_TELL_WORDS[why] : TENSION_WAY_WORDS[chosen].hint}</p>
    </>
  );
}

function figureOf(way: Exclude<TensionWay, 'pointer'>, checks: SpanChecks, unit: 'mm' | 'in', twistNm: number): string {
  switch (way) {
    case 'push':
      return `${forceFigure(checks.pushN)} in ${fineFigure(checks.pushMm, unit)}`;
    case 'free-play':
      return fineFigure(checks.freePlayMm, unit);
    case 'twist': {
      const degrees = (90 * twistNm) / checks.twistNm;
      return `${degrees > 180 ? 'over 180' : Math.round(degrees)}° (90° takes ${fixed(checks.twistNm, 2)} N·m)`;
    }
    case 'gauge':
      return `${fixed(checks.gaugeKgf, 0)} kgf, ${fixed(checks.gaugeLbf, 0)} lbf`;
    case 'pluck':
      return `${fixed(checks.pluckHz, 0)} Hz`;
  }
}

/** What all readings that count come to together. */
function Measured() {
  const { drive, belt } = useTensionSums();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  useStore(hand);
  const { standing, source } = belt!;
  const [which, setWhich] = useTyped<'all' | 'latest'>('which', 'latest');
  const readings = readingsNow(drive, source);
  const latest = latestOf(readings);
  const counted = which === 'all' ? readings : latest;
  const meanings = meaningsOf(drive, standing, counted, hand.get());
  const combined = combineReadings(meanings);
  if (!combined) return null;
  return (
    <section aria-label="Measured">
      <div data-testid="measured" data-measured={combined.at}>
        <div className="label">
          Measured, {meanings.length === 1 ? '1 reading' : `${meanings.length} readings`} together
        </div>
        <div className="answer-figure is-second">
          {forceFigure(combined.at, unit)} <span className="answer-other">± {shortForce(combined.sigma)}</span>
        </div>
        <p className="quiet">
          ± is one standard deviation: two thirds of the time within it, 19 times in 20 within twice it.
        </p>
      </div>
      {combined.disagree && (
        <p className="finding is-watch" role="alert">
          <span className="finding-word">
            <span aria-hidden>▲</span> Watch
          </span>
          <strong>The methods disagree.</strong>{' '}
          {combined.schools
            .map(({ way, at, sigma }) => `${TENSION_WAY_WORDS[way].name} says ${forcePlusMinus(at, sigma)}`)
            .join('; ')}
          . Read the odd one again.
        </p>
      )}
      {latest.length < readings.length && (
        <Segmented
          value={which}
          options={[
            { value: 'latest', label: 'Latest readings' },
            { value: 'all', label: 'All readings' },
          ]}
          onChange={setWhich}
          aria-label="Which readings count"
        />
      )}
      {standing.arm === null && Math.abs(combined.at - standing.tensionN) > 0.5 && (
        <div className="button-row is-after">
          <Button
            type="primary"
            onClick={() =>
              dispatch(edit((d) => changeBelt(d, source.id, { staticTension: Math.round(combined.at * 10) / 10 })))
            }
          >
            Take {shortForce(combined.at)} as present tension
          </Button>
        </div>
      )}
    </section>
  );
}

function Readings({ readings }: { readings: readonly TensionReading[] }) {
  const { drive, belt } = useTensionSums();
  const { dispatch } = useBench('dispatch');
  const own = useStore(hand);
  const { standing, source } = belt!;
  if (readings.length === 0) return null;
  const remove = (id: string) =>
    dispatch(
      edit((d) =>
        changeBelt(d, source.id, {
          tensionReadings: d.belts
            .find((belt) => belt.id === source.id)!
            .tensionReadings!.filter((reading) => reading.id !== id),
        }),
      ),
    );
  return (
    <ul className="reading-list" aria-label="Readings">
      {readings.map((reading) => {
        const meaning = meaningOf(drive, standing, reading, own);
        const { name } = TENSION_WAY_WORDS[reading.way];
        return (
          <li key={reading.id}>
            <span className="reading-name">
              <strong>{name}</strong>
              {reading.simulated && ', simulated'}
              {reading.span && `, ${pulleyLabel(drive, reading.span.from)} → ${pulleyLabel(drive, reading.span.to)}`}
              {reading.when && `, ${BELT_AGE_WORDS[reading.when]}`}:{' '}
              {typeof meaning === 'string'
                ? CANNOT_TELL_WORDS[meaning]
                : forcePlusMinus(meaning.tensionN, Math.hypot(meaning.scatterN, meaning.sharedN))}
            </span>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove the reading by ${name}`}
              onClick={() => remove(reading.id)}
            />
          </li>
        );
      })}
    </ul>
  );
}
