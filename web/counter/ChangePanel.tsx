import type { ReactNode } from 'react';
import { FigureAsk, LengthAsk, useFigure, useLength, useRead } from './fields';
import { useText, useUnit } from './asked';
import { ShareLink } from './KeepAsDrive';
import { aroundToDiameter, onRules, parsePitch, shimToDiameter, turnsToMm } from '@emery/core/counter';
import {
  formatInches,
  formatInchesDecimal,
  formatMm,
  formatTorque,
  parseTorque,
  TORQUE_UNITS,
  fixed,
} from '@emery/core/quantity';

/** Small change: what a mechanic would otherwise turn over on the back of a box. */
export default function ChangePanel() {
  return (
    <div className="counter-changes">
      <Inches />
      <Torque />
      <Thread />
      <Shim />
      <Around />
      <div className="counter-share">
        <ShareLink />
      </div>
    </div>
  );
}

function Change({ title, asks, children }: { title: string; asks: ReactNode; children: ReactNode }) {
  return (
    <section className="counter-change" aria-label={title}>
      <h2>{title}</h2>
      <div className="fields counter-asks">{asks}</div>
      <div className="counter-changed" aria-live="polite">
        {children}
      </div>
    </section>
  );
}

/** A small length in both units, decimals in either. */
function Both({ mm }: { mm: number }) {
  const [first, second] =
    useUnit() === 'in' ? [formatInchesDecimal(mm, 3), formatMm(mm, 2)] : [formatMm(mm, 2), formatInchesDecimal(mm, 3)];
  return (
    <p className="counter-figure">
      {first} <span className="answer-other">{second}</span>
    </p>
  );
}

function Inches() {
  const length = useLength('len', 'A length', 100_000);
  const mm = length.value;
  return (
    <Change title="Inches and mm" asks={<LengthAsk label="A length, either way" ask={length} first />}>
      {mm !== null && (
        <>
          <p className="counter-figure" data-testid="inches">
            {formatMm(mm, 2)} <span className="answer-other">{formatInchesDecimal(mm, 4)}</span>
          </p>
          <p>
            {onRules(mm).map(({ denominator, mm: mark, offMm }) => (
              <span key={denominator} className="counter-rule">
                <strong>{formatInches(mark, denominator)}</strong>{' '}
                <span className="quiet">
                  nearest {denominator === 32 ? '32nd' : `${denominator}th`}
                  {Math.abs(offMm) < 0.005 ? ', exactly' : `, ${offMm > 0 ? '+' : '−'}${fixed(Math.abs(offMm), 2)} mm`}
                </span>
              </span>
            ))}
          </p>
        </>
      )}
    </Change>
  );
}

function Torque() {
  const torque = useRead('torque', (text) => {
    const read = parseTorque(text);
    return read.ok ? { ok: true, value: read.nm } : read;
  });
  return (
    <Change
      title="N·m and lbf·ft"
      asks={<FigureAsk label="A torque" ask={torque} text placeholder="such as 35 lbf·ft; without a unit it is N·m" />}
    >
      {torque.value !== null && (
        <p className="counter-figure" data-testid="torque">
          {TORQUE_UNITS.map((unit, k) => (
            <span key={unit} className={k === 0 ? '' : 'answer-other'}>
              {formatTorque(torque.value!, unit)}{' '}
            </span>
          ))}
        </p>
      )}
    </Change>
  );
}

function Thread() {
  const pitch = useRead('pitch', (text) => {
    const read = parsePitch(text);
    return read.ok ? { ok: true, value: read.mm } : read;
  });
  const turns = useFigure('turns', 'Turns', 0.01, 500);
  const [both] = useText('both');
  const mm =
    pitch.value === null || turns.value === null
      ? null
      : turnsToMm(turns.value, both === '' ? [pitch.value] : [pitch.value, pitch.value]);
  return (
    <Change
      title="Turns of a thread"
      asks={
        <>
          <FigureAsk label="Pitch" ask={pitch} text placeholder="1.5, or 24 tpi" />
          <FigureAsk label="Turns" ask={turns} placeholder="such as 2.5" />
          <BothEnds />
        </>
      }
    >
      {mm !== null && <Both mm={mm} />}
    </Change>
  );
}

/** A link with a left-hand and a right-hand thread closes by both. */
function BothEnds() {
  const [both, put] = useText('both');
  return (
    <label className="counter-check">
      <input type="checkbox" checked={both !== ''} onChange={({ target }) => put(target.checked ? 'yes' : '')} />
      Left-hand and right-hand thread: both ends move
    </label>
  );
}

function Shim() {
  const shim = useLength('shim', 'Shim', 50);
  const angle = useFigure('angle', 'Groove angle', 10, 90, { start: '36' });
  return (
    <Change
      title="Remove a shim from a split sheave"
      asks={
        <>
          <LengthAsk label="Thickness removed" ask={shim} />
          <FigureAsk label="Groove angle, degrees" ask={angle} />
        </>
      }
    >
      {shim.value !== null && angle.value !== null && (
        <>
          <Both mm={shimToDiameter(shim.value, angle.value)} />
          <p className="quiet">larger diameter where the belt runs. 36° is a default: measure the sheave.</p>
        </>
      )}
    </Change>
  );
}

function Around() {
  const around = useLength('round', 'Once round');
  const tape = useLength('tape', 'Tape', 10);
  const mm = around.value === null ? null : aroundToDiameter(around.value, tape.value ?? 0);
  return (
    <Change
      title="Circumference to diameter"
      asks={
        <>
          <LengthAsk label="Once round the rim" ask={around} />
          <LengthAsk label="Thickness of the tape, if it counts" ask={tape} />
        </>
      }
    >
      {mm !== null && <Both mm={mm} />}
    </Change>
  );
}
