import { Button } from 'antd';
import { Fragment, useMemo } from 'react';
import { LengthFigure } from '../ledger/LengthFigure';
import { SpeedCompare } from '../speed/SpeedCompare';
import type { Stage } from './bench-context';
import { type Drive, pulleyLabel } from '@emery/core/drive';
import { type BeltSolution, solveDrive } from '@emery/core/path';
import { formatLength, type LengthUnit } from '@emery/core/quantity';
import { sizeBelt, type Sizing } from '@emery/core/seating';
import { VERDICT_WORDS } from '@emery/core/size';

interface Props {
  before: Drive;
  after: Drive;
  unit: LengthUnit;
  onKeep: () => void;
  onThrowAway: () => void;
  /** At Size adjuster positions matter too, at Speeds what the shafts turn. */
  stage: Stage;
}

/** A what-if beside the present drive: what it changes in length, wraps and turns, to be kept or thrown away. */
export default function WhatIfPanel({ before, after, unit, stage, onKeep, onThrowAway }: Props) {
  const [old, now] = [solveDrive(before), solveDrive(after)];
  return (
    <section className="what-if" aria-label="What-if">
      <h2>What-if beside the present drive</h2>
      {now.belts.map((belt, index) => (
        <BeltChange
          key={belt.id}
          drive={after}
          before={old.belts.find(({ id }) => id === belt.id)}
          after={belt}
          name={now.belts.length > 1 ? `Belt ${index + 1}` : 'Belt'}
          unit={unit}
        />
      ))}
      {stage === 'speeds' && (
        <SpeedCompare
          effects={[
            { name: 'Now', drive: before },
            { name: 'What-if', drive: after },
          ]}
        />
      )}
      {stage === 'size' && <SizeChange before={before} after={after} unit={unit} />}
      <div className="button-row is-after">
        <Button type="primary" onClick={onKeep}>
          Keep it
        </Button>
        <Button onClick={onThrowAway}>Throw it away</Button>
      </div>
    </section>
  );
}

/** Adjuster windows, and where a belt that was taken sits, before and after. */
function SizeChange({ before, after, unit }: { before: Drive; after: Drive; unit: LengthUnit }) {
  const rows = useMemo(
    () =>
      after.belts.flatMap((belt, index) => {
        const lengths = typeof belt.length === 'number' && belt.length > 0 ? [belt.length] : [];
        const [was, is] = [sizeBelt(before, belt.id, { lengths }), sizeBelt(after, belt.id, { lengths })];
        return is
          ? [
              {
                id: belt.id,
                name: after.belts.length > 1 ? `Belt ${index + 1}` : 'Belt',
                length: lengths[0] ?? null,
                was,
                is,
              },
            ]
          : [];
      }),
    [before, after],
  );
  const range = (sizing: Sizing | null) => {
    const from = sizing?.window.shortMark ?? sizing?.window.slackEnd ?? null;
    const to = sizing?.window.longMark ?? sizing?.window.tightEnd ?? null;
    return from === null || to === null ? 'no window' : `${formatLength(from, unit)} to ${formatLength(to, unit)}`;
  };
  const sits = (sizing: Sizing | null) => {
    const candidate = sizing?.candidates[0];
    return candidate
      ? `${VERDICT_WORDS[candidate.verdict]}${candidate.position === null ? '' : `, ${Math.round(100 * candidate.position)} %`}`
      : 'no path';
  };
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th aria-label="Belt" />
          <th>Now</th>
          <th>What-if</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, name, length, was, is }) => (
          <Fragment key={id}>
            <tr>
              <td>{name} fits from</td>
              <td>{range(was)}</td>
              <td>{range(is)}</td>
            </tr>
            {length !== null && (
              <tr>
                <td>{formatLength(length, unit)} taken</td>
                <td>{sits(was)}</td>
                <td>{sits(is)}</td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

function BeltChange({
  drive,
  before,
  after,
  name,
  unit,
}: {
  drive: Drive;
  before: BeltSolution | undefined;
  after: BeltSolution;
  name: string;
  unit: LengthUnit;
}) {
  const [was, is] = [before?.length.mm ?? null, after.length.mm];
  const wraps = after.contacts.flatMap(({ pulley, wrapDeg }) => {
    const old = before?.contacts.find((contact) => contact.pulley === pulley)?.wrapDeg ?? null;
    return old !== null && wrapDeg !== null && Math.abs(old - wrapDeg) >= 0.5
      ? [`${pulleyLabel(drive, pulley)} ${Math.round(old)}° → ${Math.round(wrapDeg)}°`]
      : [];
  });
  return (
    <p>
      <strong>{name}:</strong> {was === null ? 'no length' : <LengthFigure mm={was} unit={unit} />} →{' '}
      {is === null ? 'no length' : <LengthFigure mm={is} unit={unit} />}
      {was !== null && is !== null && Math.abs(is - was) >= 0.05 && (
        <strong className="what-if-change">
          {' '}
          {is < was ? 'shorter by ' : 'longer by '}
          <LengthFigure mm={Math.abs(is - was)} unit={unit} />
        </strong>
      )}
      {wraps.length > 0 && <span className="quiet"> Wraps: {wraps.join(', ')}.</span>}
    </p>
  );
}
