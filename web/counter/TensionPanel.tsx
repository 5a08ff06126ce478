import type { ReactNode } from 'react';
import { Chips } from '../ui/Chips';
import { SomeOf } from '../ui/SomeOf';
import { useOneOf, useText, useUnit } from './asked';
import { BeltAsk, useBelt } from './belt-asked';
import { type AskedFigure, FigureAsk, LengthAsk, useFigure, useLength, useRead } from './fields';
import { KeepAsDrive } from './KeepAsDrive';
import { Headline } from './Headline';
import { DRIVABLE, keptDrive, type SpanAnswer, spanTension } from '@emery/core/counter';
import { ROLE_LABELS, type TensionWay, TENSION_WAY_WORDS } from '@emery/core/drive';
import { formatLength, N_PER_LBF, parseForce, fixed } from '@emery/core/quantity';
import { RUN_IN_MINUTES } from '@emery/core/loads';
import {
  CANNOT_TELL_WORDS,
  DEFAULT_HAND,
  fineFigure,
  forceFigure,
  type SpanReading,
  type SpanReads,
} from '@emery/core/tension';

const HOLDS = [
  { value: 'fixed', label: 'fixed centres' },
  { value: 'arm', label: 'a sprung arm' },
] as const;

/** One span: push, thumb, twist, gauge and pluck against each other, and what to set a new belt to. */
export default function TensionPanel() {
  const unit = useUnit();
  const belt = useBelt();
  const span = useLength('span', 'Free span', 5000);
  const [holds, setHolds] = useOneOf('holds', ['fixed', 'arm'] as const, 'fixed');
  const force = (text: string) => {
    const read = parseForce(text, unit === 'in' ? 'lbf' : 'N');
    return read.ok ? { ok: true as const, value: read.newtons } : read;
  };
  const push = useRead('push', force);
  const pushMm = useLength('in', 'Deflection', 200);
  const thumb = useLength('thumb', 'Deflection under a thumb', 200);
  const twist = useFigure('twist', 'Twist', 1, 360);
  const gauge = useRead('gauge', force);
  const pluck = useFigure('pluck', 'Pluck', 1, 2000);
  const aim = useRead('aim', force);
  const [driven, setDriven] = useText('drives');
  const drives = DRIVABLE.filter((role) => driven.split(' ').includes(role));
  const readings = readingsOf({ push, pushMm, thumb, twist, gauge, pluck });
  const arm = holds === 'arm';
  const answer =
    span.value === null
      ? null
      : spanTension({
          section: belt.section.name,
          ...(belt.ribs !== null && { ribs: belt.ribs }),
          spanMm: span.value,
          armHolds: arm,
          readings,
          ...(aim.value !== null && { aimN: aim.value }),
          drives,
        });
  const bare = unit === 'in' ? 'lbf' : 'N';
  return (
    <>
      <div className="counter-asks">
        <div className="fields">
          <LengthAsk label="Free span, rim to rim" ask={span} first />
          <BeltAsk belt={belt} />
          <Chips label="Tightened by" value={holds} options={HOLDS} onChange={setHolds} />
          {!arm && (
            <SomeOf
              label="It drives"
              values={drives}
              options={DRIVABLE.map((value) => ({ value, label: ROLE_LABELS[value] }))}
              onChange={(next) => setDriven(next.join(' '))}
            />
          )}
        </div>
        <h2>Readings on it, any of these</h2>
        <div className="fields">
          <FigureAsk
            label={`Push at mid-span, ${bare}`}
            ask={push}
            placeholder={unit === 'in' ? 'such as 10' : 'such as 45'}
          />
          <LengthAsk label="Deflection" ask={pushMm} />
          <LengthAsk label="Deflection under a thumb" ask={thumb} />
          <FigureAsk label="Twist, degrees" ask={twist} placeholder="such as 90" />
          <FigureAsk label={`Click gauge, ${bare}`} ask={gauge} text placeholder="such as 60 kgf" />
          <FigureAsk label="Pluck, Hz" ask={pluck} placeholder="such as 120" />
          <FigureAsk label={`Target tension, ${bare} (manual)`} ask={aim} text />
        </div>
      </div>
      {answer ? (
        <Told answer={answer} readings={readings} arm={arm}>
          <KeepAsDrive
            drive={() =>
              keptDrive('Belt from the counter', {
                section: belt.section.name,
                ...(belt.ribs !== null && { ribs: belt.ribs }),
                ...(answer.measured && { staticTension: answer.measured.at }),
              })
            }
          />
        </Told>
      ) : (
        <div className="counter-answer">
          <p className="counter-empty">
            Enter the free span. What each check should read appears here; add readings to see the tension.
          </p>
          <KeepAsDrive drive={null} />
        </div>
      )}
    </>
  );
}

function readingsOf(
  asks: Record<'push' | 'pushMm' | 'thumb' | 'twist' | 'gauge' | 'pluck', AskedFigure>,
): SpanReading[] {
  const value = (name: keyof typeof asks) => asks[name].value;
  return [
    ...(value('push') !== null && value('pushMm') !== null
      ? [{ id: 'push', way: 'push', newtons: value('push')!, mm: value('pushMm')! } as const]
      : []),
    ...(value('thumb') !== null ? [{ id: 'thumb', way: 'free-play', mm: value('thumb')! } as const] : []),
    ...(value('twist') !== null ? [{ id: 'twist', way: 'twist', degrees: value('twist')! } as const] : []),
    ...(value('gauge') !== null ? [{ id: 'gauge', way: 'gauge', newtons: value('gauge')! } as const] : []),
    ...(value('pluck') !== null ? [{ id: 'pluck', way: 'pluck', hz: value('pluck')! } as const] : []),
  ];
}

interface ToldProps {
  answer: SpanAnswer;
  readings: readonly SpanReading[];
  arm: boolean;
  children: ReactNode;
}

function Told({ answer, readings, arm, children }: ToldProps) {
  const unit = useUnit();
  const { measured, meanings, settings, most, from, reads } = answer;
  const force = (newtons: number) => forceFigure(newtons, unit);
  // Of a range the two ends of a new belt alone: what comes after follows once somebody says what it drives.
  const ends = [settings, ...(most ? [most] : [])].map(({ setN }) => setN);
  const inUnit = (per: number) => ends.map((newtons) => Math.round(newtons / per)).join(' to ');
  const setTo = `${inUnit(1)} N`;
  const byHand: [title: string, newtons: number, reads: SpanReads][] = most
    ? [
        ['new belt, light load', settings.setN, reads.fresh],
        ['new belt, heavy load', most.setN, reads.most!.fresh],
      ]
    : [
        ['new belt', settings.setN, reads.fresh],
        ['run in', settings.runInN, reads.runIn],
        ['set again below', settings.againBelowN, reads.again],
      ];
  const unmeasured = arm ? 'the arm sets it' : `new belt ${setTo}`;
  const columns: typeof byHand = [
    ...(measured && reads.measured
      ? ([['as it is', measured.at, reads.measured]] as [string, number, SpanReads][])
      : []),
    ...(arm ? [] : byHand),
  ];
  return (
    <div id="answer" className="counter-answer" aria-live="polite">
      <Headline>{measured ? `${Math.round(measured.at)} N ± ${Math.round(measured.sigma)}` : unmeasured}</Headline>
      {measured ? (
        <>
          <div className="label">Present tension</div>
          <div className="answer-figure" data-testid="tension-answer" data-newtons={measured.at}>
            {Math.round(measured.at)} N
            <span className="answer-other">
              ± {Math.round(measured.sigma)} N · {Math.round(measured.at / N_PER_LBF)} lbf
            </span>
          </div>
          {measured.disagree && (
            <p className="finding is-watch">
              <strong>The readings disagree.</strong> Take the odd one again, at mid-span.
            </p>
          )}
        </>
      ) : (
        <>
          <div className="label">{arm ? 'Set by a sprung arm' : 'Set a new belt to'}</div>
          <div className="answer-figure" data-testid="tension-setting">
            {arm ? 'nothing to set' : setTo}
            {!arm && <span className="answer-other">{inUnit(N_PER_LBF)} lbf</span>}
          </div>
          {!arm && most && (
            <p>
              <strong>Choose what it drives to get one figure.</strong> This range covers the lightest to the heaviest
              common load.
            </p>
          )}
        </>
      )}
      {meanings.length > 0 && (
        <ul className="counter-meanings" aria-label="What each reading means">
          {meanings.map(({ way, meaning }, k) => (
            <li key={readings[k]!.id}>
              <strong>{TENSION_WAY_WORDS[way].name}</strong>{' '}
              {typeof meaning === 'string'
                ? CANNOT_TELL_WORDS[meaning]
                : `${force(meaning.tensionN)} ± ${Math.round(Math.hypot(meaning.scatterN, meaning.sharedN))} N`}
            </li>
          ))}
        </ul>
      )}
      {columns.length > 0 && (
        <div className="counter-wide">
          <table className="ledger-table folds" aria-label="What each check reads">
            <thead>
              <tr>
                <th>Check</th>
                {columns.map(([title]) => (
                  <th key={title} className="figure">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>Tension</td>
                {columns.map(([title, newtons]) => (
                  <td key={title} className="figure" data-head={title}>
                    <strong>{Math.round(newtons)} N</strong>
                  </td>
                ))}
              </tr>
              {CHECKS.filter(({ arms }) => arms || !arm).map(({ way, of, text }) => (
                <tr key={way}>
                  <td>
                    {TENSION_WAY_WORDS[way].name} <span className="quiet">{of(columns[0]![2], unit)}</span>
                  </td>
                  {columns.map(([title, , read]) => (
                    <td key={title} className="figure" data-head={title}>
                      {text(read, unit)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="quiet">
        {arm
          ? 'A push moves the arm, not the belt: pluck the span, or read the pointer.'
          : `${SETTING_WORDS[from]} A new belt is set higher by a default of ${Math.round(100 * (settings.setN / settings.runInN - 1))} %: run it in for ${RUN_IN_MINUTES} minutes, set it again, and look again after some hundred km.`}
      </p>
      <p className="caution">
        <strong aria-hidden>▲</strong>
        <span>Engine off and key out before you touch a span. The manual’s tension takes precedence.</span>
      </p>
      {children}
    </div>
  );
}

/** What the settings rest on. */
const SETTING_WORDS: Record<SpanAnswer['from'], string> = {
  given: '',
  drives: 'By default loads for that accessory, not a specification.',
  range:
    'The load decides, and it is not known: this covers the lightest to the heaviest common load. Choose what it drives.',
  default: 'The settings are Emery’s default for such a belt, not a specification.',
};

/** By check, what it is done with and what it reads. A sprung arm yields to those that push. */
const CHECKS: {
  way: TensionWay;
  arms: boolean;
  of: (reads: SpanReads, unit: 'mm' | 'in') => string;
  text: (reads: SpanReads, unit: 'mm' | 'in') => string;
}[] = [
  {
    way: 'push',
    arms: false,
    of: ({ pushMm }, unit) => `to go in ${fineFigure(pushMm, unit)}`,
    text: ({ pushN }, unit) => forceFigure(pushN, unit),
  },
  {
    way: 'free-play',
    arms: false,
    of: (_reads, unit) => `of ${forceFigure(DEFAULT_HAND.thumbN, unit)} deflection`,
    text: ({ freePlayMm }, unit) => (unit === 'in' ? formatLength(freePlayMm, 'in') : fineFigure(freePlayMm)),
  },
  { way: 'twist', arms: true, of: () => 'by a quarter turn', text: ({ twistNm }) => `${fixed(twistNm, 2)} N·m` },
  {
    way: 'gauge',
    arms: true,
    of: () => 'shows',
    text: ({ gaugeKgf, gaugeLbf }) => `${fixed(gaugeKgf, 0)} kgf · ${fixed(gaugeLbf, 0)} lbf`,
  },
  { way: 'pluck', arms: true, of: () => 'sounds', text: ({ pluckHz }) => `${fixed(pluckHz, 0)} Hz` },
];
