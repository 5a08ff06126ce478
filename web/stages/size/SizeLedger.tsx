import { ExperimentOutlined } from '@ant-design/icons';
import { Button, Input, Progress } from 'antd';
import { Fragment, useId } from 'react';
import { AskForBelt } from '../../ask-for/AskForBelt';
import { edit, useBench } from '../../state/bench';
import { BeltChoice } from '../../bench/BeltChoice';
import { FindingItem } from '../../bench/FindingItem';
import { FigureField } from '../../ui/FigureField';
import { LengthFigure } from '../../ui/LengthFigure';
import { percent } from '../../ui/percent';
import { StoppedSum } from '../../ui/StoppedSum';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { AdjusterFields } from './AdjusterFields';
import { MeasuredLedger } from './MeasuredLedger';
import { useSizing } from './SizingProvider';
import { TriedLedger } from './TriedLedger';
import { TogetherLedger } from './TogetherLedger';
import { usePointAt } from './use-point-at';
import { type Belt, changeBelt, pulleyLabel, stationLabel } from '@emery/core/drive';
import { formatLength, formatMm, fixed } from '@emery/core/quantity';
import { beltsInFront, DEFAULT_RESERVE_FRACTION, WORN_WIDTH_MM } from '@emery/core/seating';
import { readMarking, sectionFor } from '@emery/core/section';
import {
  askForBelt,
  candidateSentence,
  releaseWords,
  secondTo,
  sharingAdjuster,
  type SizeAnswer,
  sizeWords,
  VERDICT_WORDS,
} from '@emery/core/size';

type Sized = SizeAnswer['candidates'][number];

/** Size: which belt to bring home, and why. */
export default function SizeLedger() {
  const { drive, belt, unit, startWhatIf, dispatch } = useBench('drive', 'belt', 'unit', 'startWhatIf', 'dispatch');
  const { answer, progress, stopped } = useSizing();
  const source = drive.belts.find(({ id }) => id === belt?.id);
  if (!source || source.route.length < 2) {
    return (
      <>
        <h2>No route to size</h2>
        <p>Give the belt its route first, under Route. Then Emery works out the lengths that fit here.</p>
      </>
    );
  }
  return (
    <TypedPlace at={`belt ${source.id}`}>
      <BeltChoice />
      {!answer && progress !== null && (
        <Progress percent={Math.round(100 * progress)} showInfo={false} aria-label="Share of the sum done" />
      )}
      <StoppedSum stopped={stopped} />
      {answer && (
        <>
          <Answer answer={answer} source={source} />
          {answer.findings.length > 0 && (
            <ul className="findings" aria-label="Findings">
              {answer.findings.map((finding) => (
                <FindingItem key={finding.code} severity={finding.severity} words={sizeWords(finding, unit)} />
              ))}
            </ul>
          )}
          {answer.candidates.length > 0 && <Candidates answer={answer} source={source} />}
          {beltsInFront(drive, source.id).map((front) => (
            <p key={front.belt} className="quiet">
              Belt {drive.belts.findIndex(({ id }) => id === front.belt) + 1} runs in front of it
              {front.station !== null && ` at ${stationLabel(drive.stations.find(({ id }) => id === front.station)!)}`}:
              it comes off first, so renew both while you are there.
            </p>
          ))}
          {sharingAdjuster(drive, source)
            .slice(0, 1)
            .map((other) => (
              <TogetherLedger key={other.id} source={source} other={other} />
            ))}
        </>
      )}
      <MeasuredLedger key={`${source.id} measured`} source={source} combined={answer?.measured ?? null} />
      <TriedLedger key={`${source.id} tried`} source={source} answer={answer} />
      <Marking source={source} />
      <div className="fields">
        <FigureField
          key={`${source.id} reserve`}
          label={
            source.reserve === undefined
              ? 'Reserve for seating and stretch (a default)'
              : 'Reserve for seating and stretch'
          }
          unit="% of length"
          min={0}
          max={5}
          value={100 * (source.reserve ?? DEFAULT_RESERVE_FRACTION)}
          onCommit={(percent) => dispatch(edit((d) => changeBelt(d, source.id, { reserve: percent / 100 })))}
        />
      </div>
      <AdjusterFields key={source.id} source={source} />
      {startWhatIf && (
        <div>
          <p className="quiet">
            Another alternator or crank sheave? Change it as a what-if, under Survey, and compare old and new lengths
            here.
          </p>
          <Button icon={<ExperimentOutlined />} onClick={() => startWhatIf()}>
            Try changed parts
          </Button>
        </div>
      )}
    </TypedPlace>
  );
}

/** The length to bring home: the largest figure. */
function Answer({ answer, source }: { answer: SizeAnswer; source: Belt }) {
  const { drive, unit } = useBench('drive', 'unit');
  const { candidates, best, pair, window: between, lastOn, release } = answer;
  const belt = best === null ? null : candidates[best]!;
  const chance = belt?.chance ?? null;
  const fixed = answer.kind === null;
  const notSaid = answer.findings.some(({ code }) => code === 'no-adjuster');
  const [from, to] = [between.shortMark ?? between.slackEnd ?? null, between.longMark ?? between.tightEnd ?? null];
  const other = pair?.both.map((k) => candidates[k]!.lengthMm).find((mm) => mm !== belt?.lengthMm);
  const basis = sectionFor(source.section)!.basis;
  const next = belt && secondTo(belt.lengthMm, answer);
  return (
    <div className="answer" data-testid="size-answer">
      <div className="label">Recommended, {basis} length</div>
      {belt ? (
        <div className="answer-figure" data-best-mm={belt.lengthMm}>
          <LengthFigure mm={belt.lengthMm} unit={unit} />
          <span className="answer-other">
            <LengthFigure mm={belt.lengthMm} unit={unit === 'in' ? 'mm' : 'in'} />
          </span>
        </div>
      ) : (
        <div className="answer-none">{notSaid ? 'no adjuster given yet' : 'no length fits'}</div>
      )}
      {notSaid && typeof between.drawn === 'number' && (
        <p className="answer-note">
          Drawn length:{' '}
          <strong>
            <LengthFigure mm={between.drawn} unit={unit} />
          </strong>
          . Give this belt its adjuster below, or mark its centres as fixed.
        </p>
      )}
      {belt && (
        <AskForBelt
          ask={askForBelt(source, belt.lengthMm)}
          section={source.section}
          ribs={source.ribs ?? null}
          briefly
        />
      )}
      {belt && next !== null && (
        <p className="answer-note">
          If not in stock:{' '}
          <strong>{askForBelt(source, next).markings[0]?.text ?? askForBelt(source, next).plain}</strong>
        </p>
      )}
      <div className="answer-note">
        {chance !== null && `Fits with ${percent(chance)} chance. `}
        {chance !== null &&
          other !== undefined &&
          pair!.chance > chance + 0.005 &&
          `With ${formatLength(other, unit)} as well, one of the two fits with ${percent(pair!.chance)}. `}
        {fixed &&
          typeof belt?.tensionN === 'number' &&
          `Static tension ${Math.round(belt.tensionN)} N by default belt stiffness. `}
        {!fixed &&
          from !== null &&
          to !== null &&
          `From ${formatLength(from, unit)} to ${formatLength(to, unit)} ${answer.marks ? 'between the marks' : 'over the travel'}. `}
        {lastOn && `Fit it over ${pulleyLabel(drive, lastOn.pulley)} last. `}
        {release && releaseWords(drive, release)}
      </div>
    </div>
  );
}

function Candidates({ answer, source }: { answer: SizeAnswer; source: Belt }) {
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const { chosen, stock } = useSizing();
  const pointAt = usePointAt();
  const onShelf = (mm: number) => stock.find(({ lengthMm }) => Math.abs(lengthMm - mm) < 0.01)?.shelf ?? 0;
  const adjuster = answer.reads ? ADJUSTER_READ[answer.reads] : 'none';
  // On fixed centres a length is judged by the tension that it makes.
  const along = answer.marks ? 'Between marks' : 'Of travel';
  const placed = adjuster === 'none' ? 'Tension' : along;
  return (
    <table className="ledger-table size-table folds">
      <thead>
        <tr>
          <th>Length</th>
          <th>Verdict</th>
          <th className="figure">{placed}</th>
          <th className="figure">Reserve</th>
          <th className="figure">Chance</th>
        </tr>
      </thead>
      <tbody>
        {answer.candidates.map((candidate, k) => {
          const shown = chosen === candidate.lengthMm;
          return (
            <Fragment key={candidate.lengthMm}>
              <tr className={shown ? 'is-selected' : ''} onClick={() => pointAt(shown ? null : candidate)}>
                <td>
                  <button type="button" className="row-button" aria-expanded={shown}>
                    {k === answer.best ? '● ' : ''}
                    <LengthFigure mm={candidate.lengthMm} unit={unit} />
                  </button>
                  {(onShelf(candidate.lengthMm) > 0 || source.length === candidate.lengthMm) && (
                    <span className="size-note">
                      {source.length === candidate.lengthMm ? 'chosen' : `${onShelf(candidate.lengthMm)} in stock`}
                    </span>
                  )}
                </td>
                <td data-head="verdict">
                  <span className={`verdict is-${candidate.verdict}`}>
                    {VERDICT_MARKS[candidate.verdict]} {VERDICT_WORDS[candidate.verdict]}
                  </span>
                </td>
                <td className="figure" data-head={placed.toLowerCase()}>
                  {adjuster === 'none' ? newtonsOrDash(candidate.tensionN) : percentOrDash(candidate.position)}
                </td>
                <td className="figure" data-head="reserve">
                  {candidate.reserveMm > 0 ? <LengthFigure mm={candidate.reserveMm} unit={unit} places={0} /> : '—'}
                </td>
                <td className="figure" data-head="chance">
                  {candidate.chance === null ? '—' : percent(candidate.chance, true)}
                </td>
              </tr>
              {shown && (
                <tr className="candidate-why">
                  <td colSpan={5}>
                    <Why candidate={candidate} adjuster={adjuster} />
                    <AskForBelt
                      ask={askForBelt(source, candidate.lengthMm)}
                      section={source.section}
                      ribs={source.ribs ?? null}
                    />
                    <Button
                      type="primary"
                      onClick={() =>
                        dispatch(
                          edit((d) =>
                            changeBelt(d, source.id, {
                              length: source.length === candidate.lengthMm ? null : candidate.lengthMm,
                            }),
                          ),
                        )
                      }
                    >
                      {source.length === candidate.lengthMm ? 'Do not use this length' : 'Use this length'}
                    </Button>
                  </td>
                </tr>
              )}
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}

const VERDICT_MARKS: Record<Sized['verdict'], string> = {
  fits: '●',
  tight: '▲',
  slack: '▲',
  'will-not-go-on': '■',
  'out-of-travel': '■',
  rubs: '■',
  'not-known': '○',
};

function Why({ candidate, adjuster }: { candidate: Sized; adjuster: 'arm' | 'other' | 'none' }) {
  const { unit } = useBench('unit');
  const { tensionN, tensionAt, leastClearanceMm, armAngle, travel, worn } = candidate;
  return (
    <>
      <p>{candidateSentence(candidate, adjuster, unit)}</p>
      <p>
        {typeof armAngle === 'number' && `Arm at ${fixed(armAngle, 0)}°. `}
        {typeof travel === 'number' &&
          adjuster === 'other' &&
          `Taut ${formatLength(travel, unit)} from the slack end. `}
        {tensionN !== null && tensionWords(tensionN, tensionAt, adjuster)}
        {leastClearanceMm !== null && `Clearance ${formatLength(leastClearanceMm, unit, 0)} or more. `}
        {worn &&
          `Worn by ${formatMm(WORN_WIDTH_MM, 0)} of its width, it rides ${formatMm(worn.deeperMm)} deeper and is taut ${worn.position === null ? 'outside the travel' : `at ${Math.round(100 * worn.position)} %`}.`}
      </p>
      {candidate.findings.length > 0 && (
        <ul className="findings" aria-label="Findings on this length">
          {candidate.findings.map((finding) => (
            <FindingItem key={finding.code} severity={finding.severity} words={sizeWords(finding, unit)} />
          ))}
        </ul>
      )}
    </>
  );
}

/** A tension is what it is where the belt sits, or the most there can be: it says which. */
function tensionWords(tensionN: number, at: Sized['tensionAt'], adjuster: 'arm' | 'other' | 'none'): string {
  const newtons = `${Math.round(tensionN)} N`;
  if (at === 'tight-end')
    return `At most ${newtons} of tension, with the adjuster at its tight end, by default belt stiffness. `;
  return `${newtons} of tension, by ${adjuster === 'arm' ? 'the spring figures given' : 'default belt stiffness'}. `;
}

/** What is printed on the old belt, read, and looked at among the others. */
function Marking({ source }: { source: Belt }) {
  const { unit } = useBench('unit');
  const { lookAt, choose } = useSizing();
  const [text, setText] = useTyped('marking', '');
  const id = useId();
  const readings = text.trim() === '' ? [] : readMarking(text);
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        Marking on the old belt, or on one at the counter
      </label>
      <Input
        id={id}
        value={text}
        autoComplete="off"
        spellCheck={false}
        placeholder="such as 6PK1805"
        aria-describedby={`${id}-echo`}
        onChange={(event) => setText(event.target.value)}
      />
      <div id={`${id}-echo`}>
        {text.trim() !== '' && readings.length === 0 && (
          <p className="field-echo">No general marking scheme matches. Check for a worn character.</p>
        )}
        {readings.slice(0, 3).map((reading) => (
          <p key={`${reading.scheme} ${reading.lengthMm}`} className="marking-reading">
            {reading.section}
            {reading.ribs !== null && `, ${reading.ribs} ribs`}, {formatLength(reading.lengthMm, unit)} {reading.basis}
            {readings.length > 1 && <span className="quiet"> {percent(reading.likelihood)} likely</span>}{' '}
            {reading.section === source.section ? (
              <Button
                onClick={() => {
                  lookAt(reading.lengthMm);
                  choose(reading.lengthMm);
                }}
              >
                Show it
              </Button>
            ) : (
              <span className="quiet">not the section of this belt</span>
            )}
          </p>
        ))}
      </div>
    </div>
  );
}

/** What a belt is placed against, by what is read off its adjuster. */
const ADJUSTER_READ = { armAngle: 'arm', travel: 'other' } as const;

const newtonsOrDash = (force: number | null) => (force === null ? '—' : `${Math.round(force)} N`);
const percentOrDash = (share: number | null) => (share === null ? '—' : `${Math.round(100 * share)} %`);
