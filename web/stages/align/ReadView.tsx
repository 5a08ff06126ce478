import { fixed } from '@emery/core/quantity';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, Segmented, Switch } from 'antd';
import { useEffect, useId, useMemo, useRef, type RefObject } from 'react';
import { edit, useBench } from '../../state/bench';
import { MarkedRow } from '../../bench/MarkedRow';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { QuantityField } from '../../ui/QuantityField';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { useAlign } from './AlignProvider';
import { OffsetField, useOffset } from './OffsetField';
import { RimDial } from './RimDial';
import { useAlignSums, useReadingPlace } from './sums';
import {
  ALIGN_TOOL_WORDS,
  changeAlign,
  degreeFigure,
  keepReading,
  movedUnderLoad,
  offsetFigure,
  placeWords,
  shortFigure,
  shortOffset,
  simulatedLaser,
  SUSPECT_WORDS,
  tiltFigure,
} from '@emery/core/align';
import { ALIGN_TOOLS, type AlignReading, type AlignTool, pulleyLabel, removeItem, stationOf } from '@emery/core/drive';
import {
  datumOf,
  pitchOf,
  type Plane,
  planeOf,
  readingsOf,
  SEAT_SIGMA,
  sigmaOf,
  steepnessDeg,
  TOOL_SIGMA,
} from '@emery/core/planes';

/** Readings go in; the planes they give come out below. */
export function ReadView() {
  const { loaded, setLoaded } = useAlign();
  const { alignment } = useAlignSums();
  if (!alignment) return null;
  return (
    <>
      <Segmented
        block
        value={loaded ? 'load' : 'rest'}
        options={[
          { value: 'rest', label: 'Engine off' },
          { value: 'load', label: 'Engine pulling' },
        ]}
        onChange={(set) => setLoaded(set === 'load')}
        aria-label="State of the engine"
      />
      {loaded ? (
        <p className="caution">
          <strong>Caution</strong> Stay out of arm&rsquo;s reach of the belt. Read by laser or camera only, with a
          helper at the wheel and nobody else near.
        </p>
      ) : (
        <p className="caution">
          <strong>Caution</strong> Engine off, key out, battery off: your hand is between belt and fan.
        </p>
      )}
      <Form />
      {loaded ? <Loaded /> : <Planes />}
      <Kept />
      <Datum />
    </>
  );
}

/** What is read next, in one line, and where it goes in. */
function Form() {
  const { drive, alignment } = useAlignSums();
  const { place, suggested } = useReadingPlace();
  const { setPlace, loaded } = useAlign();
  const { dispatch, unit, select } = useBench('dispatch', 'unit', 'select');
  const { belt, section } = alignment!;
  const datum = datumOf(drive, belt.id);
  const on = [...new Set(belt.route.map(({ pulley }) => pulley))];
  const { pulley, at } = place!;
  const [tool, setTool] = useTyped<AlignTool>('tool', 'straightedge');
  const using: AlignTool = loaded && tool !== 'camera' ? 'laser' : tool;
  // Only what comes of that Enter takes the focus: an undo, which changes what is read next as well, leaves it.
  const goesOn = useRef(false);
  useEffect(() => {
    goesOn.current = false;
  });
  const taken = readingsOf(drive, pulley, loaded ? 'load' : 'rest').map((reading) => reading.at ?? null);
  const take = (id: string) => select({ kind: 'pulley', station: stationOf(drive, id)!.id, pulley: id });
  return (
    <section aria-label="A reading">
      <p className="read-next">
        {suggested ? (
          <>
            <strong>
              Read {pulleyLabel(drive, suggested.pulley)} {placeWords(suggested.at)} next
            </strong>
            {suggested.beforeDeg !== undefined && suggested.afterDeg !== undefined
              ? `: it reduces the ± of its runs from ${degreeFigure(suggested.beforeDeg)} to ${degreeFigure(suggested.afterDeg)}.`
              : ', at the same place as at rest.'}
          </>
        ) : (
          <strong>
            {loaded ? 'Every reading at rest now has one under load.' : 'Known well enough. More readings add little.'}
          </strong>
        )}
      </p>
      <div className="read-form">
        <div className="read-fields">
          <Choice
            label="Pulley, or tap one"
            value={pulley}
            options={on.map((id) => ({
              value: id,
              label: `${pulleyLabel(drive, id)}${id === datum ? ', the datum' : ''}`,
            }))}
            onChange={take}
          />
          <Choice
            label="Tool"
            value={using}
            options={(loaded ? (['laser', 'camera'] as const) : ALIGN_TOOLS).map((value) => ({
              value,
              label: ALIGN_TOOL_WORDS[value].name,
            }))}
            onChange={setTool}
          />
        </div>
        <RimDial value={at} taken={taken} onChange={(next) => setPlace({ pulley, at: next })} />
      </div>
      <TypedPlace at={pulley} key={`${pulley} ${at} ${loaded}`}>
        <Figures
          pitch={pitchOf(section)}
          tool={using}
          goesOn={goesOn}
          keep={(reading, goOn) => {
            goesOn.current = goOn;
            dispatch(
              edit((d) =>
                keepReading(d, {
                  tool: using,
                  pulley,
                  ...(at !== null && { at }),
                  ...(loaded && { load: true }),
                  date: new Date().toISOString(),
                  ...reading,
                }),
              ),
            );
            // On to the one that tells most.
            setPlace(null);
            select(null);
          }}
          laser={(turned) => simulatedLaser(drive).read(pulley, at, { load: loaded, turned })}
        />
      </TypedPlace>
      <p className="quiet">{ALIGN_TOOL_WORDS[using].hint} Out is away from the engine.</p>
      {unit === 'in' && <p className="quiet">A number without a unit is inches; enter thousandths as 40 thou.</p>}
    </section>
  );
}

/** How far, which side, how sure; or the laser that ships with Emery. */
function Figures({
  pitch,
  tool,
  goesOn,
  keep,
  laser,
}: {
  pitch: number;
  tool: AlignTool;
  /** True from an Enter until what is read next stands there. */
  goesOn: RefObject<boolean>;
  /** Keeps a reading; ended with Enter, the hand goes on to the next. */
  keep: (reading: Pick<AlignReading, 'mm'> & Partial<AlignReading>, goOn: boolean) => void;
  laser: (turned: number) => { mm: number; plusMinus: number };
}) {
  const { unit } = useBench('unit');
  const [out, setOut] = useTyped('out', true);
  const [plusMinus, setPlusMinus] = useTyped<number | null>('plus or minus', null);
  const [turned, setTurned] = useTyped('turned', false);
  const forget = useForgetTyped();
  const mm = useOffset(unit, pitch, out);
  const id = useId();
  const half = turned ? { turned: 180 } : {};
  const done = (goOn: boolean) => {
    if (mm === null) return;
    keep({ mm, ...(plusMinus !== null && { plusMinus }), ...half }, goOn);
    forget();
  };
  return (
    <>
      <div className="fields">
        <OffsetField
          label="Offset"
          pitch={pitch}
          unit={unit}
          out={out}
          onOut={setOut}
          onEnter={() => done(true)}
          goesOn={goesOn}
        />
        <div className="field">
          <span className="label">Direction</span>
          <Segmented
            block
            value={out ? 'out' : 'in'}
            options={[
              { value: 'out', label: 'Out' },
              { value: 'in', label: 'In' },
            ]}
            onChange={(side) => setOut(side === 'out')}
            aria-label="Direction of the offset"
          />
        </div>
        <FigureField
          label="±"
          unit="mm"
          value={plusMinus}
          min={0.01}
          max={20}
          onCommit={setPlusMinus}
          onClear={() => setPlusMinus(null)}
        />
        <div className="switch-line is-field">
          <Switch id={id} checked={turned} onChange={setTurned} />
          <label htmlFor={id}>After half a turn of the pulley</label>
        </div>
      </div>
      <div className="button-row">
        <Button type="primary" disabled={mm === null} onClick={() => done(false)}>
          Record reading
        </Button>
        {tool === 'laser' && (
          <Button
            onClick={() => {
              keep({ ...laser(turned ? 180 : 0), ...half, simulated: true }, false);
              forget();
            }}
          >
            Read the simulated laser
          </Button>
        )}
      </div>
      <p className="quiet">
        Without a ± Emery takes ± {TOOL_SIGMA[tool]} mm, a default. ± is one standard deviation: the true value is
        within it about 2 times in 3, and within twice it 19 times in 20.
      </p>
    </>
  );
}

/** Where every pulley stands, by its readings. */
function Planes() {
  const { drive, alignment, after } = useAlignSums();
  const { unit } = useBench('unit');
  const { planes, belt } = (after ?? alignment)!;
  const datum = datumOf(drive, belt.id);
  const once = [...new Map(planes.map((plane) => [plane.pulley, plane])).values()];
  return (
    <table className="ledger-table" aria-label="Pulley positions">
      <thead>
        <tr>
          <th>Pulley</th>
          <th className="figure">offset</th>
          <th className="figure">±</th>
          <th className="figure">tilt</th>
        </tr>
      </thead>
      <tbody>
        {once.map((plane) => (
          <MarkedRow key={plane.pulley} mark={{ kind: 'pulley', station: plane.station, pulley: plane.pulley }}>
            <td>
              <button type="button" className="row-button">
                {pulleyLabel(drive, plane.pulley)}
              </button>
            </td>
            {plane.pulley === datum || (plane.readings.length === 0 && plane.offset === 0) ? (
              <td className="figure" colSpan={3}>
                <span className="quiet">{plane.pulley === datum ? 'the datum' : 'not measured'}</span>
              </td>
            ) : (
              <>
                <td className="figure">{shortOffset(plane.offset, unit)}</td>
                <td className="figure">{shortFigure(Math.sqrt(plane.covariance[0]!), unit)}</td>
                <td className="figure">
                  {tiltText(plane)}
                  {plane.wobble && (
                    <span className="quiet">
                      {' '}
                      wobbles {degreeFigure(steepnessDeg([plane.wobble.x, plane.wobble.y]))}
                    </span>
                  )}
                </td>
              </>
            )}
          </MarkedRow>
        ))}
      </tbody>
    </table>
  );
}

/** How a plane is tipped; a dash where its readings do not tell. */
const tiltText = ({ tilt, tiltsSeen }: Plane) => (tiltsSeen === 0 ? '—' : tiltFigure(tilt));

/** What moved when the engine pulled. */
function Loaded() {
  const { drive, belt } = useAlignSums();
  const { unit } = useBench('unit');
  const moves = useMemo(() => movedUnderLoad(drive, belt!.id), [drive, belt]);
  const alone = belt!.route.filter(
    ({ pulley }) => readingsOf(drive, pulley, 'load').length > 0 && !moves.some((move) => move.pulley === pulley),
  );
  if (moves.length === 0 && alone.length === 0)
    return (
      <p className="quiet">
        Read a pulley at rest and then under load: if it moves, check its bracket, bearing or hub.
      </p>
    );
  return (
    <>
      <table className="ledger-table" aria-label="Movement under load">
        <thead>
          <tr>
            <th>Pulley</th>
            <th className="figure">moves</th>
            <th className="figure">tips</th>
            <th>check</th>
          </tr>
        </thead>
        <tbody>
          {moves.map(({ pulley, movedMm, plusMinusMm, tiltDeg, moved, suspects }) => (
            <tr key={pulley}>
              <td>{pulleyLabel(drive, pulley)}</td>
              <td className="figure">
                {Math.abs(movedMm) < 0.05 ? '0' : offsetFigure(movedMm, unit)} ± {fixed(plusMinusMm, 1)}
              </td>
              <td className="figure">{degreeFigure(tiltDeg)}</td>
              <td>{moved ? `▲ ${SUSPECT_WORDS[suspects[0]!]}` : '● does not move'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {alone.map(({ pulley }) => (
        <p key={pulley} className="quiet">
          {pulleyLabel(drive, pulley)} moves {offsetFigure(planeOf(drive, belt!.id, pulley, 'load').offset, unit)} under
          load. Read it at rest as well.
        </p>
      ))}
    </>
  );
}

/** Every reading, newest first; those from before something was moved are told apart. */
function Kept() {
  const { drive, belt } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const { loaded } = useAlign();
  const [past, setPast] = useTyped('show past', false);
  const on = new Set(belt!.route.map(({ pulley }) => pulley));
  const own = (drive.align?.readings ?? []).filter(({ pulley, load }) => on.has(pulley) && (load ?? false) === loaded);
  const old = own.filter((reading) => reading.past);
  const shown = own.filter((reading) => past || !reading.past).reverse();
  if (own.length === 0) return null;
  return (
    <section aria-label="Readings">
      <h2>{own.length - old.length === 1 ? '1 reading' : `${own.length - old.length} readings`}</h2>
      <ul className="reading-list" aria-label="Readings">
        {shown.map((reading) => (
          <li key={reading.id}>
            <span className="reading-name">
              <strong>{pulleyLabel(drive, reading.pulley)}</strong> {placeWords(reading.at)}
              {reading.turned ? ', after half a turn' : ''}: {offsetFigure(reading.mm, unit)} ±{' '}
              {shortFigure(sigmaOf(reading), unit)}, {ALIGN_TOOL_WORDS[reading.tool].name.toLowerCase()}
              {reading.simulated && ', simulated'}
              {reading.past && ', before it was moved'}
            </span>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove the reading of ${pulleyLabel(drive, reading.pulley)} ${placeWords(reading.at)}`}
              onClick={() => dispatch(edit((d) => removeItem(d, 'align.readings', reading.id)))}
            />
          </li>
        ))}
      </ul>
      {old.length > 0 && (
        <Button onClick={() => setPast(!past)}>
          {past ? 'Hide' : 'Show'} {old.length} from before something was moved
        </Button>
      )}
    </section>
  );
}

/** Datum, for a straightedge. */
function Datum() {
  const { drive, belt } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const by = drive.align?.readings?.some(({ tool }) => tool === 'straightedge');
  const { faceMm = 0, straightedgeMm = 0 } = drive.align?.datum ?? {};
  if (!by) return null;
  const change = (next: object) => dispatch(edit((d) => changeAlign(d, { datum: { ...d.align?.datum, ...next } })));
  return (
    <section aria-label="Datum">
      <h2>Straightedge on {pulleyLabel(drive, datumOf(drive, belt!.id) ?? '')}</h2>
      <div className="fields">
        <QuantityField
          label="Contact length on the crank pulley"
          mm={faceMm}
          unit={unit}
          onCommit={(mm) => change({ faceMm: mm })}
        />
        <QuantityField
          label="Straightedge length"
          mm={straightedgeMm}
          unit={unit}
          onCommit={(mm) => change({ straightedgeMm: mm })}
        />
      </div>
      <p className="quiet">
        {faceMm > 0
          ? `Placed again for each pulley, ± ${drive.align?.datum?.plusMinus ?? SEAT_SIGMA} mm at each end of the contact: the further away the pulley, the larger the ±.`
          : 'Taken as perfectly true until you enter its contact length on the crank pulley.'}
      </p>
    </section>
  );
}
