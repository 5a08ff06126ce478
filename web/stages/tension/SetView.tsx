import { Button } from 'antd';
import { useMemo } from 'react';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { useTyped } from '../../ui/typed-text';
import { ArmPanel } from './ArmPanel';
import { useTensionSums } from './sums';
import {
  type BeltCare,
  changeBelt,
  changeStation,
  lastOdometer,
  type OdometerUnit,
  stationLabel,
} from '@emery/core/drive';
import { formatLength, odometerDoubtWords, fixed } from '@emery/core/quantity';
import { limitOrDefault } from '@emery/core/accessory';
import {
  hotRise,
  targetTension,
  newBeltFigures,
  nextLookAfter,
  RUN_IN_MINUTES,
  WARM_KELVIN,
  windowOf,
} from '@emery/core/loads';
import {
  DEFAULT_BAR,
  fineFigure,
  forceFigure,
  type Setting,
  settingFor,
  sharedSettings,
  type SharedSetting,
  shortForce,
} from '@emery/core/tension';
import { adjusterKind } from '@emery/core/adjuster';
import { useNow } from '../../ui/use-now';

/** How to get the belt to the tension it should have; a sprung arm is looked at in place of set. */
export default function SetView() {
  const { belt } = useTensionSums();
  return belt!.standing.arm !== null ? <ArmPanel /> : <SetByHand />;
}

function SetByHand() {
  const { drive, tension, states, belt } = useTensionSums();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const { source, standing } = belt!;
  const window = useMemo(() => windowOf(tension, source.id, states, limitOrDefault)!, [tension, source, states]);
  const aim = targetTension(window);
  const [asked, setAsked] = useTyped<number | null>('target', null);
  const [barMm, setBarMm] = useTyped('bar', DEFAULT_BAR.lengthMm);
  const toN = asked ?? Math.round(aim ?? standing.tensionN);
  const setting = useMemo(
    () => settingFor(drive, standing, toN, { ...DEFAULT_BAR, lengthMm: barMm }),
    [drive, standing, toN, barMm],
  );
  const shared = useMemo(
    () => (setting ? sharedSettings(drive, tension.staticBelts, source.id, setting) : []),
    [drive, tension, source, setting],
  );
  const station = setting && drive.stations.find(({ id }) => id === setting.station)!;
  const change = toN - standing.tensionN;
  return (
    <>
      <p className="caution">
        <strong>Caution</strong> Engine off and key out. Slacken pivot and lock bolts before the adjuster is turned;
        never lever on a housing or a fan, and stop before a bolt near its limit snaps.
      </p>
      <div className="fields">
        <FigureField
          label="Present tension"
          unit="N"
          value={standing.tensionN}
          min={0}
          max={20_000}
          onCommit={(newtons) => dispatch(edit((d) => changeBelt(d, source.id, { staticTension: newtons })))}
          onClear={() => dispatch(edit((d) => changeBelt(d, source.id, { staticTension: undefined })))}
        />
        <FigureField
          label={asked === null ? 'Set it to (target tension)' : 'Set it to'}
          unit="N"
          value={toN}
          min={0}
          max={20_000}
          onCommit={setAsked}
          onClear={() => setAsked(null)}
        />
      </div>
      {setting && station ? (
        <section aria-label="Adjuster movement">
          <div className="label">
            {change >= 0 ? 'Tighten' : 'Slacken'} at {stationLabel(station)}
          </div>
          <div className="answer-figure is-second" data-testid="setting" data-mm={setting.mm ?? ''}>
            <MoveFigure setting={setting} unit={unit} />
          </div>
          <p>{moveSentence(setting, change, (newtons) => forceFigure(newtons, unit))}</p>
          <Threads setting={setting} />
          {setting.barN !== null && (
            <>
              <div className="fields">
                <FigureField
                  label="Pry bar, hand to fulcrum"
                  unit="mm"
                  value={barMm}
                  min={100}
                  max={2000}
                  onCommit={setBarMm}
                />
              </div>
              <p>
                A bar of {formatLength(barMm, unit, 0)} that acts {DEFAULT_BAR.tipMm} mm from its fulcrum holds it with{' '}
                <strong>{forceFigure(setting.barN, unit)}</strong> at the hand. Friction at the bolts adds to that.
              </p>
            </>
          )}
          {setting.shims && (
            <table className="ledger-table" aria-label="Shims taken out">
              <thead>
                <tr>
                  <th>Taken out</th>
                  <th className="figure">adds</th>
                  <th className="figure">its speed</th>
                </tr>
              </thead>
              <tbody>
                {setting.shims.map(({ out, addsN, ratioPercent }) => (
                  <tr key={out}>
                    <td>{fineFigure(out, unit)}</td>
                    <td className="figure">{forceFigure(addsN, unit)}</td>
                    <td className="figure">
                      {ratioPercent > 0 ? '+' : '−'}
                      {fixed(Math.abs(ratioPercent), 1)} %
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {setting.mm !== null && Math.abs(change) >= 1 && (
            <div className="button-row">
              <Button onClick={() => dispatch(edit((d) => changeBelt(d, source.id, { staticTension: toN })))}>
                Done: present tension is {Math.round(toN)} N
              </Button>
            </div>
          )}
          {shared.length > 0 && <Shared shared={shared} change={change} />}
          <p className="quiet">
            Cord stiffness is a default, and brackets flex. Move it, turn the engine twice by hand, and check.
          </p>
        </section>
      ) : (
        <p>
          No adjuster tightens this belt, or it does not lengthen the path at its present position.{' '}
          {source.length
            ? 'Its own stretch holds it: only another length changes the tension.'
            : 'Give a shaft its adjuster under Size.'}
        </p>
      )}
      <NewBelt />
    </>
  );
}

function MoveFigure({ setting: { mm, turns, kind }, unit }: { setting: Setting; unit: 'mm' | 'in' }) {
  if (mm === null) return <>past its end</>;
  const size = Math.abs(mm);
  if (adjusterKind(kind).setting?.inTurns && turns !== null)
    return (
      <>
        {fixed(Math.abs(turns), 1)} turns <span className="answer-other">{fineFigure(size, unit)} of the link</span>
      </>
    );
  return (
    <>
      {fineFigure(size, unit).replace(/ \(.*$/, '')}
      {turns !== null && (
        <span className="answer-other">{fixed(Math.abs(turns), 1)} turns of its screw, if it has one</span>
      )}
    </>
  );
}

function moveSentence({ mm, perMm, kind }: Setting, change: number, force: (newtons: number) => string): string {
  const what = adjusterKind(kind).setting?.mmOf ?? 'travel';
  if (mm === null)
    return `Not enough adjuster travel left. 1 mm of ${what} changes the tension by ${force(perMm)}; use a shorter belt.`;
  return `${force(Math.abs(change))} ${change >= 0 ? 'more' : 'less'}, by ${fixed(Math.abs(mm), 1)} mm. 1 mm of ${what} changes the tension by ${force(perMm)}.`;
}

/** What a turn of each thread moves. */
function Threads({ setting: { pitches, pitchGiven, station } }: { setting: Setting }) {
  const { dispatch } = useBench('dispatch');
  if (pitches.length === 0) return null;
  const put = (index: number, mm: number) =>
    dispatch(
      edit((d) => {
        const { adjuster } = d.stations.find(({ id }) => id === station)!;
        const byHand = adjuster && adjusterKind(adjuster.kind).setting;
        if (!byHand) return d;
        const next = pitches.map((pitch, k) => (k === index ? mm : pitch));
        return changeStation(d, station, { adjuster: byHand.withPitches(adjuster, next) });
      }),
    );
  return (
    <div className="fields">
      {pitches.map((pitch, index) => (
        <FigureField
          key={index}
          label={`${pitches.length === 1 ? 'Pitch of its screw' : LINK_ENDS[index]}${pitchGiven ? '' : ' (a default)'}`}
          unit="mm"
          value={pitch}
          min={0.2}
          max={10}
          onCommit={(mm) => put(index, mm)}
        />
      ))}
    </div>
  );
}

/** Other belts on the shaft that this adjuster moves: which first, and where each then stands. */
function Shared({ shared, change }: { shared: readonly SharedSetting[]; change: number }) {
  const { drive } = useTensionSums();
  const { unit } = useBench('unit');
  const name = (id: string) => `Belt ${drive.belts.findIndex((belt) => belt.id === id) + 1}`;
  const force = (newtons: number) => forceFigure(newtons, unit);
  return (
    <ul className="remedies" aria-label="Belts that share it">
      {shared.map(({ belt, sameAdjuster, perMm, thenN }) => (
        <li key={belt}>
          <strong>{name(belt)}</strong> {sharedWords(sameAdjuster, perMm, force)}
          {thenN !== null && Math.abs(change) >= 1 && ` Its tension is then ${force(thenN)}.`}
          {sameAdjuster && ' Set for the belt that needs more, and check both.'}
        </li>
      ))}
    </ul>
  );
}

/** Set, run in, set again, look again. */
function NewBelt() {
  const { drive, tension, states, belt } = useTensionSums();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const { source, standing } = belt!;
  const figures = useMemo(
    () => newBeltFigures(windowOf(tension, source.id, states, limitOrDefault)!),
    [tension, source, states],
  );
  const rise = useMemo(() => hotRise(drive, standing), [drive, standing]);
  const [km, setKm] = useTyped('odometer', null as number | null);
  const [counts, setCounts] = useTyped<OdometerUnit>('odometer unit', unit === 'in' ? 'mi' : 'km');
  const care = source.care ?? {};
  const put = (change: Partial<BeltCare>) =>
    dispatch(
      edit((d) =>
        changeBelt(d, source.id, { care: { ...d.belts.find(({ id }) => id === source.id)!.care, ...change } }),
      ),
    );
  if (!figures) return null;
  const force = (newtons: number) => forceFigure(newtons, unit);
  const now = () => new Date().toISOString();
  return (
    <section className="new-belt" aria-label="A new belt">
      <h2>A new belt</h2>
      <ol className="three-figures">
        <li>
          <span className="label">Set, new belt</span>
          <strong>{shortForce(figures.setN)}</strong>
        </li>
        <li>
          <span className="label">Set again, after run-in</span>
          <strong>{shortForce(figures.runInN)}</strong>
        </li>
        <li>
          <span className="label">Next inspection: at least</span>
          <strong>{shortForce(figures.againBelowN)}</strong>
        </li>
      </ol>
      {figures.held && <p className="quiet">The first figure is limited by the bearing load limits.</p>}
      {rise > 0 && (
        <p>
          Set it cold. A block {WARM_KELVIN} K warmer adds about <strong>{force(rise)}</strong>.
        </p>
      )}
      <RunIn care={care} put={put} />
      <div className="fields">
        <Choice
          label="Odometer unit"
          value={counts}
          options={(['km', 'mi', 'h'] as const).map((value) => ({ value, label: value }))}
          onChange={setCounts}
        />
        <FigureField
          label="Odometer now"
          unit={counts}
          value={km ?? care.fittedOdometer ?? null}
          min={0}
          max={1e7}
          doubtOf={(reading) => odometerDoubtWords(reading, lastOdometer(drive), counts)}
          onCommit={setKm}
          onClear={() => setKm(null)}
        />
      </div>
      <div className="button-row">
        <Button
          onClick={() => {
            const at = now();
            put({ setAgainAt: at, ...nextLookAfter(at, km ?? care.fittedOdometer, counts) });
          }}
        >
          Set again: schedule the next inspection
        </Button>
      </div>
      {care.nextLookAt && (
        <p role="status">
          Next inspection by {care.nextLookAt.slice(0, 10)}
          {care.nextLookOdometer !== undefined && `, or at ${Math.round(care.nextLookOdometer)} on the odometer`}. The
          distance is a default; the service manual takes precedence.
        </p>
      )}
    </section>
  );
}

/** The minutes of the run-in, counted down; they go on while the page is closed. */
function RunIn({ care, put }: { care: BeltCare; put: (change: Partial<BeltCare>) => void }) {
  const minutes = care.runInMinutes ?? RUN_IN_MINUTES;
  const ends = care.runInFrom ? Date.parse(care.runInFrom) + minutes * 60_000 : null;
  const { now, look } = useNow(ends);
  const left = ends === null ? null : (ends - now) / 1000;
  const runs = left !== null && left > 0;
  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
  return (
    <div className="run-in">
      <FigureField
        label={care.runInMinutes === undefined ? 'Run-in (a default)' : 'Run-in'}
        unit="minutes"
        value={minutes}
        min={1}
        max={120}
        onCommit={(value) => put({ runInMinutes: value })}
      />
      {runs ? (
        <>
          <strong className="run-in-clock" role="timer">
            {clock(left)}
          </strong>
          <Button onClick={() => put({ runInFrom: undefined })}>Stop</Button>
        </>
      ) : (
        <Button
          onClick={() => {
            look();
            put({ runInFrom: new Date().toISOString(), fittedAt: care.fittedAt ?? new Date().toISOString() });
          }}
        >
          Start the run-in
        </Button>
      )}
      {left !== null && left <= 0 && <span role="status">● Run-in done. Engine off, then set it again.</span>}
    </div>
  );
}

const LINK_ENDS = ['Pitch, right-hand end', 'Pitch, left-hand end'];

/** What moving this adjuster does to another belt on its shaft. */
function sharedWords(sameAdjuster: boolean, perMm: number, force: (newtons: number) => string): string {
  if (sameAdjuster) return `has no other adjuster: the same move sets it, ${force(Math.abs(perMm))} for each mm.`;
  const change =
    perMm < 0
      ? `pulls the shaft the other way: as this one tightens it slackens, ${force(-perMm)} for each mm.`
      : `gains ${force(perMm)} for each mm.`;
  return `${change} Set this one first, with that one slack, then that one by its own adjuster.`;
}
