import { DeleteOutlined, PlusOutlined, SearchOutlined } from '@ant-design/icons';
import { Button, Checkbox, Progress } from 'antd';
import { useMemo, useState } from 'react';
import { usePulleys } from '../../api/speeds';
import { edit, useBench } from '../../state/bench';
import { useCoreRun } from '../../state/use-core-sum';
import { CountField } from '../../ui/CountField';
import { FigureField } from '../../ui/FigureField';
import { StoppedSum } from '../../ui/StoppedSum';
import { useTyped } from '../../ui/typed-text';
import { PulleysAtHand } from './PulleysAtHand';
import { SpeedCompare } from './SpeedCompare';
import { useSpeeds } from './SpeedsProvider';
import { type Drive, pulleyLabel, type Station, stationLabel } from '@emery/core/drive';
import { formatLength, formatMm, grouped } from '@emery/core/quantity';
import {
  asPulley,
  bandOf,
  placeIn,
  type PulleyAnswer,
  type PulleyChange,
  type PulleySearch,
  rpmFigure,
  setsOf,
  sizesFor,
  speedReason,
  type SpeedTarget,
  withPulley,
} from '@emery/core/speeds';

/** Which pulley to change: sizes that give a wanted speed, and pulleys at hand that meet every target. */
export default function PulleysLedger({ station, ratio }: { station: Station; ratio: number }) {
  const { drive } = useBench('drive');
  const [targets, setTargets] = useState<readonly SpeedTarget[]>([]);
  const put = (target: SpeedTarget) =>
    setTargets((now) => [
      ...now.filter((other) => other.station !== target.station || other.engineRpm !== target.engineRpm),
      target,
    ]);
  const standing = targets.filter((target) => drive.stations.some(({ id }) => id === target.station));
  return (
    <>
      {station.role === 'crankshaft' ? (
        <p>Select an accessory to set its target speed.</p>
      ) : (
        <WantedSpeed key={station.id} station={station} ratio={ratio} onTarget={put} />
      )}
      {standing.length > 0 && (
        <ul className="targets" aria-label="Targets">
          {standing.map((target) => (
            <li key={`${target.station} ${target.engineRpm}`}>
              <span>{targetWords(drive, target)}</span>
              <Button
                icon={<DeleteOutlined />}
                aria-label={`Remove the target for ${stationLabel(drive.stations.find(({ id }) => id === target.station)!)}`}
                onClick={() => setTargets((now) => now.filter((other) => other !== target))}
              />
            </li>
          ))}
        </ul>
      )}
      <PulleyFinder targets={standing} />
      <Sets />
      <PulleysAtHand />
    </>
  );
}

function targetWords(drive: Drive, { station, engineRpm, min, max }: SpeedTarget): string {
  const name = stationLabel(drive.stations.find(({ id }) => id === station)!);
  const range = rangeWords(min, max);
  return `${name}: ${range} at engine speed ${rpmFigure(engineRpm)}`;
}

/** Puts a changed pulley in: into a what-if beside the present drive, or into the one that is under way. */
function useTry(): (changes: readonly PulleyChange[]) => void {
  const { startWhatIf, dispatch } = useBench('startWhatIf', 'dispatch');
  return (changes) => {
    const change = (drive: Drive) => changes.reduce(withPulley, drive);
    if (startWhatIf) startWhatIf(change);
    else dispatch(edit(change));
  };
}

/** What the accessory in hand should turn, and the sizes that would make it. */
function WantedSpeed({
  station,
  ratio,
  onTarget,
}: {
  station: Station;
  ratio: number;
  onTarget: (target: SpeedTarget) => void;
}) {
  const { drive, unit } = useBench('drive', 'unit');
  const { engineRpm, marks, bands } = useSpeeds();
  const { band } = bandOf(station, bands);
  const tryIt = useTry();
  // Start from what its band asks for where it is out of it: at redline above its limit, at idle below its least.
  const fast = placeIn(band, ratio * marks.redline) === 'too-fast' || placeIn(band, ratio * marks.redline) === 'beyond';
  const slow = placeIn(band, ratio * marks.idle) === 'too-slow';
  const notFast = slow ? marks.idle : engineRpm;
  const [at, setAt] = useTyped('at', fast ? marks.redline : notFast);
  const [min, setMin] = useTyped<number | null>('least', fast || !slow ? null : band.least);
  const [max, setMax] = useTyped<number | null>('most', fast ? band.continuous : null);
  // Aim a little inside a bound.
  const aim = max !== null && min !== null ? (min + max) / 2 : (max ?? min);
  const sizes = aim === null ? [] : sizesFor(drive, station.id, aim, at);
  const [lacks, setLacks] = useState(false);
  const crossed = min !== null && max !== null && min > max;
  const target = { station: station.id, engineRpm: at, min, max };
  return (
    <section aria-label="Wanted speed">
      <h2>What {stationLabel(station)} should turn</h2>
      <div className="fields is-three">
        <FigureField label="With the engine at" unit="rev/min" value={at} min={1} max={30_000} onCommit={setAt} />
        <FigureField
          label="at least"
          unit="rev/min"
          value={min}
          min={1}
          max={100_000}
          onCommit={setMin}
          onClear={() => setMin(null)}
        />
        <FigureField
          label="at most"
          unit="rev/min"
          value={max}
          min={1}
          max={100_000}
          onCommit={setMax}
          onClear={() => setMax(null)}
        />
      </div>
      {crossed && (
        <p className="field-echo is-wrong">
          At least {rpmFigure(min)} and at most {rpmFigure(max)}: the first must be smaller.
        </p>
      )}
      {sizes.length > 0 && (
        <>
          <p>
            It turns {rpmFigure(ratio * at)} there now. To turn {rpmFigure(aim!)}, change one pulley to this size:
          </p>
          <ul className="sizes">
            {sizes.map((size) => (
              <li key={size.pulley}>
                <span className="size-words">
                  {pulleyLabel(drive, size.pulley)}{' '}
                  <strong>
                    {size.teeth !== undefined ? `${size.teeth} teeth` : formatLength(size.diameter!, unit)}
                  </strong>
                  {size.teeth === undefined && unit === 'in' && ` (${formatMm(size.diameter!)})`}
                  <span className="quiet">
                    {' '}
                    now {size.teeth !== undefined ? size.now : formatLength(size.now, unit)}
                    {size.teeth !== undefined && `, gives ${rpmFigure(size.rpm)}`}
                  </span>
                </span>
                <Button
                  aria-label={`Try ${pulleyLabel(drive, size.pulley)} at this size`}
                  onClick={() => tryIt([{ pulley: size.pulley, to: asPulley(size, drive) }])}
                >
                  Try it
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      {lacks && min === null && max === null && (
        <p className="field-echo is-wrong" role="alert">
          Enter the lowest or the highest speed there, in rev/min.
        </p>
      )}
      <Button
        icon={<PlusOutlined />}
        onClick={() => (min === null && max === null ? setLacks(true) : !crossed && onTarget(target))}
      >
        Set as a target
      </Button>
    </section>
  );
}

/** Looks through the pulleys at hand for those that meet the targets. */
function PulleyFinder({ targets }: { targets: readonly SpeedTarget[] }) {
  const { drive } = useBench('drive');
  const { bands } = useSpeeds();
  const atHand = usePulleys().data?.pulleys;
  const [changes, setChanges] = useState(2);
  const [found, setFound] = useState<{ search: PulleySearch; drive: Drive; targets: readonly SpeedTarget[] } | null>(
    null,
  );
  const { progress, stopped, run, cancel } = useCoreRun('pulleys', (search, asked) =>
    setFound({ search, drive: asked.drive, targets: asked.targets }),
  );
  if (targets.length === 0)
    return <p className="quiet">Set a target, for one accessory or several. Then Emery checks the pulleys at hand.</p>;
  return (
    <section aria-label="Pulleys that meet the targets">
      <div className="fields">
        <CountField
          label="Pulleys to change at most"
          value={changes}
          max={4}
          onCommit={(count) => setChanges(count ?? 2)}
        />
      </div>
      <div className="button-row">
        <Button
          type="primary"
          icon={<SearchOutlined />}
          disabled={!atHand || progress !== null}
          onClick={() => run({ drive, targets, atHand: atHand!, bands, changes })}
        >
          Choose from {atHand?.length ?? 0} pulleys at hand
        </Button>
        {progress !== null && <Button onClick={cancel}>Cancel</Button>}
      </div>
      {progress !== null && (
        <Progress percent={Math.round(100 * progress)} showInfo={false} aria-label="Share of the search done" />
      )}
      <StoppedSum stopped={stopped} />
      {found && (
        <Answers
          search={found.search}
          base={found.drive}
          stale={found.drive !== drive || found.targets.length !== targets.length}
        />
      )}
    </section>
  );
}

function Answers({ search, base, stale }: { search: PulleySearch; base: Drive; stale: boolean }) {
  const [beside, setBeside] = useState<readonly PulleyAnswer[]>([]);
  const { unit } = useBench('unit');
  const tryIt = useTry();
  const compared = useMemo(
    () => [
      { name: 'Now', drive: base },
      ...beside.map((answer) => ({
        name: `Choice ${search.answers.indexOf(answer) + 1}`,
        drive: answer.changes.reduce(withPulley, base),
      })),
    ],
    [base, beside, search],
  );
  return (
    <>
      <p className="quiet" role="status">
        {grouped(search.searched)} combinations checked
        {stale && '; the drive or the targets have changed since, so search again'}.
      </p>
      <ol className="pulley-answers">
        {search.answers.map((answer, k) => {
          const { changes, reasons } = answer;
          const meets = reasons.filter(({ code }) => code === 'meets' || code === 'misses').every(({ good }) => good);
          return (
            <li key={k} className={meets ? 'is-met' : ''}>
              <strong>
                {meets ? '● ' : '▲ '}
                {changes.length === 0 ? 'All pulleys as they are' : changes.map(({ to }) => to.label).join(' and ')}
              </strong>
              <p>{sentence(reasons.map((reason) => speedReason(base, reason, unit)))}</p>
              {changes.length > 0 && (
                <div className="button-row">
                  <Button aria-label={`Try choice ${k + 1}`} onClick={() => tryIt(changes)}>
                    Try it
                  </Button>
                  <Checkbox
                    checked={beside.includes(answer)}
                    disabled={!beside.includes(answer) && beside.length > 1}
                    onChange={({ target }) =>
                      setBeside((now) => (target.checked ? [...now, answer] : now.filter((other) => other !== answer)))
                    }
                  >
                    Side by side
                  </Checkbox>
                </div>
              )}
            </li>
          );
        })}
      </ol>
      {beside.length > 0 && <SpeedCompare effects={compared} />}
    </>
  );
}

function sentence(reasons: readonly string[]): string {
  const text = reasons.filter(Boolean).join('; ');
  return text === '' ? '' : `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}

/** Under- and overdrive sets at hand, beside the present drive. */
function Sets() {
  const { drive } = useBench('drive');
  const atHand = usePulleys().data?.pulleys;
  const tryIt = useTry();
  const sets = useMemo(() => setsOf(drive, atHand ?? []), [drive, atHand]);
  const compared = useMemo(
    () => [
      { name: 'Now', drive },
      ...sets.slice(0, 2).map(({ set, changes }) => ({ name: set, drive: changes.reduce(withPulley, drive) })),
    ],
    [drive, sets],
  );
  const [open, setOpen] = useState(false);
  if (sets.length === 0) return null;
  return (
    <section aria-label="Sets">
      <h2>Sets at hand</h2>
      {open && <SpeedCompare effects={compared} />}
      <div className="button-row">
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : 'Side by side'}
        </Button>
        {sets.map(({ set, changes }) => (
          <Button key={set} onClick={() => tryIt(changes)}>
            Try {set}
          </Button>
        ))}
      </div>
    </section>
  );
}

/** What a shaft is to turn: at least, at most, or both. */
function rangeWords(min: number | null, max: number | null): string {
  if (min !== null && max !== null) return `${rpmFigure(min)} to ${rpmFigure(max)}`;
  return min !== null ? `${rpmFigure(min)} or more` : `${rpmFigure(max!)} or less`;
}
