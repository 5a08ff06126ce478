import { DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useId } from 'react';
import { edit, useBench, useBenchStores, useDrive, useSelected } from '../../state/bench';
import { useOwnText } from '../../ui/use-own-text';
import { QuantityField } from '../../ui/QuantityField';
import { TypedPlace } from '../../ui/typed-text';
import { type Drive, freeIdIn, type Obstacle, obstacleLabel, putItem, removeItem } from '@emery/core/drive';
import { type EditGroup, runOfEdits } from '../../state/drive-history';

/** What stands in the belt's way and is no pulley: listed, added, measured. */
export function ObstacleLedger() {
  const bench = useBenchStores();
  const { select, dispatch } = useBench('select', 'dispatch');
  const selected = useSelected();
  const obstacles = useDrive((drive) => drive.obstacles) ?? [];
  const chosen = selected?.kind === 'obstacle' ? obstacles.find(({ id }) => id === selected.id) : undefined;
  const add = (arm: boolean) => {
    const made = newObstacle(bench.get().drive, arm);
    dispatch(edit((d) => putItem(d, 'obstacles', made)));
    select({ kind: 'obstacle', id: made.id });
  };
  return (
    <div>
      <div className="block-head">
        <span className="label">Obstacles</span>
        <span className="button-row">
          <Button icon={<PlusOutlined />} onClick={() => add(false)}>
            Bolt
          </Button>
          <Button icon={<PlusOutlined />} onClick={() => add(true)}>
            Arm
          </Button>
        </span>
      </div>
      <div className="button-row is-after">
        {obstacles.map(({ id }) => (
          <Button
            key={id}
            type={chosen?.id === id ? 'primary' : 'default'}
            onClick={() => select({ kind: 'obstacle', id })}
          >
            {obstacleLabel({ obstacles }, id)}
          </Button>
        ))}
      </div>
      {chosen && (
        <TypedPlace at={`obstacle ${chosen.id}`}>
          <ObstacleFields key={chosen.id} obstacle={chosen} />
        </TypedPlace>
      )}
    </div>
  );
}

function ObstacleFields({ obstacle }: { obstacle: Obstacle }) {
  const { unit, dispatch, select } = useBench('unit', 'dispatch', 'select');
  const nameId = useId();
  const { id, label, x, y, to, diameter } = obstacle;
  const change = (fields: Partial<Obstacle>, group?: EditGroup) =>
    dispatch(
      edit(
        (d) =>
          putItem(d, 'obstacles', { ...(d.obstacles?.find((obstacle) => obstacle.id === id) ?? obstacle), ...fields }),
        group,
      ),
    );
  const name = useOwnText(label ?? '', (text) => change({ label: text }, runOfEdits(`obstacle label ${id}`)));
  return (
    <>
      <div className="fields">
        <div className="field">
          <label className="label" htmlFor={nameId}>
            Name
          </label>
          <Input id={nameId} placeholder={to ? 'Arm' : 'Bolt'} maxLength={80} {...name} />
        </div>
        <QuantityField
          label={to ? 'Width' : 'Across'}
          mm={diameter}
          unit={unit}
          onCommit={(mm) => change({ diameter: mm })}
        />
        <QuantityField label="Right of crank (x)" mm={x} unit={unit} signed onCommit={(mm) => change({ x: mm })} />
        <QuantityField label="Above crank (y)" mm={y} unit={unit} signed onCommit={(mm) => change({ y: mm })} />
        {to && (
          <>
            <QuantityField
              label="Other end, right (x)"
              mm={to.x}
              unit={unit}
              signed
              onCommit={(mm) => change({ to: { ...to, x: mm } })}
            />
            <QuantityField
              label="Other end, up (y)"
              mm={to.y}
              unit={unit}
              signed
              onCommit={(mm) => change({ to: { ...to, y: mm } })}
            />
          </>
        )}
      </div>
      <div className="button-row is-after">
        <Button
          danger
          icon={<DeleteOutlined />}
          onClick={() => {
            select(null);
            dispatch(edit((d) => removeItem(d, 'obstacles', id)));
          }}
        >
          Remove it
        </Button>
      </div>
    </>
  );
}

/** A bolt or an arm of a common size, above the middle of the drive, to be dragged to its place. */
function newObstacle(drive: Drive, arm: boolean): Obstacle {
  const id = freeIdIn('obstacle', drive.obstacles);
  const count = Math.max(1, drive.stations.length);
  const [x, y] = [
    drive.stations.reduce((sum, s) => sum + s.x, 0) / count,
    drive.stations.reduce((sum, s) => sum + s.y, 0) / count,
  ].map(Math.round) as [number, number];
  return {
    id,
    label: arm ? 'Arm' : 'Bolt',
    x,
    y,
    diameter: arm ? 24 : 16,
    ...(arm && { to: { x: x + 80, y: y + 20 } }),
  };
}
