import { useBands } from '../api/speeds';
import { AskForBelt } from '../ask-for/AskForBelt';
import { FindingItem } from '../bench/FindingItem';
import { Thumbnail } from '../bench/Thumbnail';
import { LengthFigure } from '../ui/LengthFigure';
import { useOneOf, useText, useUnit } from './asked';
import { BeltAsk, useBelt } from './belt-asked';
import { type AskedFigure, FigureAsk, LengthAsk, PickAsk, useFigure, useLength } from './fields';
import { KeepAsDrive } from './KeepAsDrive';
import { Headline } from './Headline';
import { DEFAULT_MARKS } from '@emery/core/accessory';
import {
  counterWords,
  pulleysFindings,
  type PulleySize,
  type PulleySpeed,
  pulleySpeeds,
  type TwoPulleys,
  twoPulleys,
} from '@emery/core/counter';
import { type Role, ROLE_LABELS, ROLES } from '@emery/core/drive';
import { findingWords, sketchOf } from '@emery/core/path';
import { formatLength, fixed } from '@emery/core/quantity';
import { askFor, readMarking, type Section } from '@emery/core/section';
import {
  BAND_SOURCE_WORDS,
  explainRatio,
  PLACE_WORDS,
  ratioFigure,
  ratioReadingWords,
  ratioStatement,
  readRatio,
  rpmFigure,
  type SizeWanted,
  speedFindings,
  speedWords,
} from '@emery/core/speeds';

const DRIVEN: readonly Role[] = ROLES.filter(
  (role) => role !== 'crankshaft' && role !== 'idler' && role !== 'tensioner',
);

/** Two pulleys and a belt: ratio both ways, speeds, length or distance, what is too fast and what to fit instead. */
export default function PulleysPanel() {
  const belt = useBelt();
  const { section } = belt;
  const [role, setRole] = useOneOf('role', DRIVEN, 'alternator');
  const name = ROLE_LABELS[role];
  const crank = useSize('crank', 'On the crank', section);
  const other = useSize('other', `On the ${name.toLowerCase()}`, section);
  const distance = useLength('distance', 'Between the shafts');
  const [marking, setMarking] = useText('belt');
  const rpm = useFigure('rpm', 'Engine speed', 50, 20_000, { whole: true });
  const [claim, setClaim] = useText('ratio');
  const printed =
    marking.trim() === '' ? null : readMarking(marking).find((reading) => reading.section === section.name);
  const both = distance.value !== null && printed;
  const found =
    crank.size && other.size
      ? twoPulleys({
          section: section.name,
          ...(belt.ribs !== null && { ribs: belt.ribs }),
          crank: crank.size,
          other: other.size,
          role,
          distanceMm: distance.value,
          lengthMm: distance.value === null ? (printed?.lengthMm ?? null) : null,
        })
      : null;
  const claimed = claim.trim() === '' ? null : readRatio(claim);
  return (
    <>
      <div className="counter-asks">
        <div className="fields">
          <SizeAsk label="On the crank" size={crank} section={section} first />
          <SizeAsk label={`On the ${name.toLowerCase()}`} size={other} section={section} />
          <PickAsk
            label="What it drives"
            value={role}
            options={DRIVEN.map((value) => ({ value, label: ROLE_LABELS[value] }))}
            onChange={setRole}
          />
          <BeltAsk belt={belt} />
          <LengthAsk label="Between the shafts" ask={distance} />
          <FigureAsk
            label="Or the belt's marking"
            text
            placeholder={section.kind === 'vee' ? 'such as AV10x1000' : 'such as 6PK1000'}
            ask={{
              text: marking,
              put: setMarking,
              value: null,
              problem:
                marking.trim() !== '' && !printed
                  ? `No general marking scheme for ${section.name} matches. Change the section, or check the figure.`
                  : null,
              echo: printed
                ? `reads ${formatLength(printed.lengthMm, 'mm')}${both ? '; the distance takes precedence' : ''}`
                : '',
            }}
          />
          <FigureAsk label="Engine speed, rev/min" ask={rpm} placeholder="such as 3000" />
          <FigureAsk
            label="A ratio to check"
            text
            placeholder="such as 2.8, 1:2.8 or 180 %"
            ask={{
              text: claim,
              put: setClaim,
              value: null,
              problem: claim.trim() !== '' && !claimed ? 'Write a ratio such as 2.8, 1:2.8 or 180 %.' : null,
              echo: '',
            }}
          />
        </div>
      </div>
      {found ? (
        <Found found={found} role={role} name={name} section={section} ribs={belt.ribs} rpm={rpm.value} claim={claim} />
      ) : (
        <div className="counter-answer">
          <p className="counter-empty">
            Enter both {section.kind === 'toothed' ? 'tooth counts' : 'diameters'}. Ratio and speeds appear here as you
            type; distance or marking can follow.
          </p>
          <KeepAsDrive drive={null} />
        </div>
      )}
    </>
  );
}

interface AskedSize {
  ask: AskedFigure;
  size: PulleySize | null;
}

/** Across a pulley, or its teeth where the belt has teeth. */
function useSize(name: string, label: string, { kind }: Section): AskedSize {
  const length = useLength(name, label, 2000);
  const teeth = useFigure(`${name}-teeth`, label, 6, 400);
  if (kind !== 'toothed') return { ask: length, size: length.value === null ? null : { diameter: length.value } };
  const isInteger = teeth.value !== null && Number.isInteger(teeth.value);
  return { ask: teeth, size: isInteger ? { teeth: teeth.value! } : null };
}

function SizeAsk({
  label,
  size: { ask },
  section,
  first = false,
}: {
  label: string;
  size: AskedSize;
  section: Section;
  first?: boolean;
}) {
  return section.kind === 'toothed' ? (
    <FigureAsk label={`${label}, teeth`} ask={ask} first={first} />
  ) : (
    <LengthAsk label={label} ask={ask} first={first} />
  );
}

interface FoundProps {
  found: TwoPulleys;
  role: Role;
  name: string;
  section: Section;
  ribs: number | null;
  rpm: number | null;
  claim: string;
}

function Found({ found, name, section, ribs, rpm, claim }: FoundProps) {
  const unit = useUnit();
  const { drive, station, ratio, lengthMm, distanceMm, wrapDeg, solution } = found;
  const { turns, reciprocal } = ratioStatement(ratio, DEFAULT_MARKS.idle);
  const asked = drive.belts[0]!.length ?? null;
  const bad = [
    ...pulleysFindings(found).map((finding) => ({ ...finding, words: counterWords(finding, unit) })),
    ...(wrapDeg === null ? [] : solution.belts[0]!.findings).map((finding) => ({
      ...finding,
      words: findingWords(drive, finding, unit),
    })),
  ];
  return (
    <div id="answer" className="counter-answer" aria-live="polite">
      <Headline>
        × {ratioFigure(ratio)}
        {lengthMm !== null && distanceMm !== null && (
          <>
            {' '}
            · {asked === null ? 'belt' : 'shafts'}{' '}
            <LengthFigure mm={asked === null ? lengthMm : distanceMm} unit={unit} />
          </>
        )}
      </Headline>
      <div className="label">{name} turns</div>
      <div className="answer-figure" data-testid="ratio-answer" data-ratio={ratio}>
        × {ratioFigure(ratio)}
        {rpm !== null && <span className="answer-other">{rpmFigure(ratio * rpm)} rev/min</span>}
      </div>
      <p className="answer-note">
        {turns} {reciprocal}
      </p>
      <Claim found={found} name={name} claim={claim} />
      {bad.length > 0 && (
        <ul className="findings" aria-label="Findings">
          {bad.map(({ code, severity, words }) => (
            <FindingItem key={code} severity={severity} words={words} />
          ))}
        </ul>
      )}
      <SpeedRows found={found} name={name} rpm={rpm} />
      {lengthMm !== null && distanceMm !== null && (
        <div className="pulleys-belt">
          <Thumbnail sketch={sketchOf(drive)} label="The two pulleys with the belt" />
          <div>
            <div className="label">{asked === null ? `Belt, ${section.basis} length` : 'Between the shafts'}</div>
            <div
              className="answer-figure is-second"
              data-testid="pulleys-answer"
              data-mm={asked === null ? lengthMm : distanceMm}
            >
              <LengthFigure mm={asked === null ? lengthMm : distanceMm} unit={unit} />
              <span className="answer-other">
                <LengthFigure mm={asked === null ? lengthMm : distanceMm} unit={unit === 'in' ? 'mm' : 'in'} />
              </span>
            </div>
            <p className="answer-note">
              Wraps {fixed(wrapDeg!.crank, 0)}° of the crank and {fixed(wrapDeg!.other, 0)}° of the other.
            </p>
          </div>
        </div>
      )}
      {lengthMm !== null && (
        <AskForBelt
          ask={askFor({ section: section.name, ribs, lengthMm: asked ?? lengthMm })}
          section={section.name}
          ribs={ribs}
        />
      )}
      <KeepAsDrive drive={() => drive} stage={station && wrapDeg ? 'speeds' : 'survey'} />
    </div>
  );
}

const AT_WORDS: Record<PulleySpeed['at'], string> = {
  asked: 'asked for',
  idle: 'idle',
  cruise: 'cruise',
  redline: 'redline',
};

/** What the shaft turns at the engine's marks and at the speed asked for, against its band; and what to fit instead. */
function SpeedRows({ found, name, rpm }: { found: TwoPulleys; name: string; rpm: number | null }) {
  const unit = useUnit();
  const { drive, station, solution } = found;
  const { rows, source, fastest, tooFast } = pulleySpeeds(found, rpm, useBands(true).data?.bands);
  const sizeWords = ({ station: at, diameter, teeth }: SizeWanted) =>
    `${teeth === undefined ? formatLength(diameter!, unit) : `${teeth} teeth`} on the ${at === station ? name.toLowerCase() : 'crank'}`;
  return (
    <>
      <table className="ledger-table" aria-label="Speeds">
        <thead>
          <tr>
            <th>Engine at</th>
            <th className="figure">{name}</th>
            <th>Is</th>
            <th className="figure">Belt, m/s</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ at, engineRpm, rpm: turns, place, beltMetresPerSecond }) => (
            <tr key={at}>
              <td>
                {rpmFigure(engineRpm)} <span className="quiet">{AT_WORDS[at]}</span>
              </td>
              <td className="figure">{rpmFigure(turns)}</td>
              <td>
                {PLACE_WORDS[place].mark} {PLACE_WORDS[place].word}
              </td>
              <td className="figure">{fixed(beltMetresPerSecond, 1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        Limits are {BAND_SOURCE_WORDS[source]}; idle, cruise and redline are Emery’s defaults. The maker’s figure takes
        precedence.
      </p>
      {tooFast && (
        <ul className="findings" aria-label="Which size instead">
          <FindingItem
            severity="watch"
            words={{
              title: `At ${rpmFigure(fastest.engineRpm)} rev/min it is ${rpmFigure(tooFast.by)} above ${rpmFigure(tooFast.limit)}.`,
              why: 'That is its continuous limit.',
              todo: `${tooFast.instead.map(sizeWords).join(', or ')} would bring it there.`,
            }}
          />
        </ul>
      )}
      <ul className="findings" aria-label="Belt limits">
        {speedFindings(drive, fastest.engineRpm, solution).map((finding) => (
          <FindingItem
            key={`${finding.code} ${finding.pulley}`}
            severity={finding.severity}
            words={speedWords(drive, finding, unit)}
          />
        ))}
      </ul>
    </>
  );
}

/** How somebody came to a ratio: rightly, or by which of the usual slips. */
function Claim({ found: { drive, station }, name, claim }: { found: TwoPulleys; name: string; claim: string }) {
  const claimed = claim.trim() === '' ? null : readRatio(claim);
  const explained = claimed && explainRatio(drive, station, claimed);
  if (!explained) return null;
  const [first] = explained.readings;
  return (
    <ul className="findings" aria-label="The ratio to check">
      <FindingItem
        severity={first?.slip === 'right' || first?.slip === 'share' ? 'note' : 'watch'}
        words={{
          title: `${claim.trim()}:`,
          why: first
            ? ratioReadingWords(drive, first, explained.truth, name)
            : `No known mistake gives that figure. ${name} turns ${ratioFigure(explained.truth)} times for each crank turn.`,
          todo: '',
        }}
      />
    </ul>
  );
}
