import { Button } from 'antd';
import type { Stage } from '../stages/stage';
import { LengthFigure } from '../ui/LengthFigure';
import { type Drive, pulleyLabel } from '@emery/core/drive';
import { type BeltSolution, solveDrive } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

interface Props {
  before: Drive;
  after: Drive;
  unit: LengthUnit;
  onKeep: () => void;
  onThrowAway: () => void;
  /** The stage's own lines, beside length and wraps. */
  Lines: Stage['WhatIf'];
}

/** A what-if beside the present drive: what it changes in length, wraps and turns, to be kept or thrown away. */
export default function WhatIfPanel({ before, after, unit, Lines, onKeep, onThrowAway }: Props) {
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
      {Lines && <Lines before={before} after={after} unit={unit} />}
      <div className="button-row is-after">
        <Button type="primary" onClick={onKeep}>
          Keep it
        </Button>
        <Button onClick={onThrowAway}>Discard it</Button>
      </div>
    </section>
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
