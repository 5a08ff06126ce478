import { fixed } from '@emery/core/quantity';
import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { QuantityField } from '../../ui/QuantityField';
import { useTyped } from '../../ui/typed-text';
import { useTensionSums } from './sums';
import { changeStation, type Strut } from '@emery/core/drive';

/** A hydraulic strut that pushes the arm: where its eyes are, and its force over the stroke. */
export function StrutFields() {
  const { drive, belt } = useTensionSums();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const [stroke, setStroke] = useTyped<number | null>('stroke', null);
  const [force, setForce] = useTyped<number | null>('force', null);
  const id = belt!.standing.contacts[belt!.standing.arm!]!.station;
  const station = drive.stations.find((station) => station.id === id)!;
  const { adjuster } = station;
  if (adjuster?.kind !== 'sprung-arm') return null;
  const { strut } = adjuster;
  const set = (next: Strut | undefined) => {
    const { strut: _old, ...rest } = adjuster;
    dispatch(edit((d) => changeStation(d, id, { adjuster: next ? { ...rest, strut: next } : rest })));
  };
  if (!strut) {
    const start = (): Strut => ({
      anchor: { x: adjuster.pivot.x, y: adjuster.pivot.y - 90 },
      lug: { x: (adjuster.pivot.x + station.x) / 2, y: (adjuster.pivot.y + station.y) / 2 },
      closed: 80,
      points: [{ stroke: 0, force: 300 }],
    });
    return (
      <div className="button-row">
        <Button onClick={() => set(start())}>Add a hydraulic strut</Button>
      </div>
    );
  }
  const places = [
    ['anchor', 'Fixed eye'],
    ['lug', 'Eye on the arm'],
  ] as const;
  return (
    <section aria-label="Hydraulic strut">
      <h2>Hydraulic strut</h2>
      <p className="quiet">
        Enter its eyes from the crank with the arm as drawn, and its force over the stroke from closed. If it works
        without a spring, set the spring torque to 0 under Size. The first figures are starting values: measure them.
      </p>
      <div className="fields">
        {places.flatMap(([field, label]) =>
          (['x', 'y'] as const).map((axis) => (
            <QuantityField
              key={field + axis}
              label={`${label}, ${axis === 'x' ? 'right' : 'up'}`}
              mm={strut[field][axis]}
              unit={unit}
              signed
              onCommit={(mm) => set({ ...strut, [field]: { ...strut[field], [axis]: mm } })}
            />
          )),
        )}
        <QuantityField
          label="Closed length, eye to eye"
          mm={strut.closed}
          unit={unit}
          onCommit={(mm) => set({ ...strut, closed: mm })}
        />
      </div>
      <ul className="reading-list" aria-label="Force over stroke">
        {strut.points.map((point) => (
          <li key={point.stroke}>
            <span className="reading-name">
              {fixed(point.stroke, 1)} mm out: {Math.round(point.force)} N
            </span>
            <Button
              icon={<DeleteOutlined />}
              disabled={strut.points.length === 1}
              aria-label={`Remove ${fixed(point.stroke, 1)} mm`}
              onClick={() => set({ ...strut, points: strut.points.filter((other) => other !== point) })}
            />
          </li>
        ))}
      </ul>
      <div className="fields">
        <FigureField
          label="Stroke"
          unit="mm"
          value={stroke}
          min={0}
          max={500}
          onCommit={setStroke}
          onClear={() => setStroke(null)}
        />
        <FigureField
          label="Force"
          unit="N"
          value={force}
          min={0}
          max={20_000}
          onCommit={setForce}
          onClear={() => setForce(null)}
        />
      </div>
      <div className="button-row">
        <Button
          disabled={stroke === null || force === null}
          onClick={() => {
            const points = [
              ...strut.points.filter((point) => point.stroke !== stroke),
              { stroke: stroke!, force: force! },
            ];
            set({ ...strut, points: points.sort((a, b) => a.stroke - b.stroke) });
            setStroke(null);
            setForce(null);
          }}
        >
          Add this point
        </Button>
        <Button onClick={() => set(undefined)}>Remove the strut</Button>
      </div>
    </section>
  );
}
