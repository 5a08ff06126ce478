import { steady } from '../../ui/steady';
import { PlusOutlined } from '@ant-design/icons';
import { Button, Dropdown } from 'antd';
import { edit, useBenchStores, useDrive } from '../../state/bench';
import { ROLE_OPTIONS } from './role-options';
import { addStation, type Drive, newStation, type Role } from '@emery/core/drive';
import { beltBounds } from '@emery/core/path';

/** Adds a shaft with one pulley of a role, somewhere clear of the others. */
export const AddPulley = steady(function AddPulley({
  onAdded,
}: {
  onAdded: (station: string, pulley: string) => void;
}) {
  const bench = useBenchStores();
  const first = useDrive(({ stations }) => stations.length === 0);
  const add = (role: Role) => {
    const { drive, dispatch } = bench.get();
    const { x, y } = freeSpot(drive, role);
    const made = newStation(drive, role, x, y, drive.belts[0]?.section ?? 'PK');
    dispatch(edit((d) => addStation(d, made)));
    onAdded(made.id, made.pulleys[0]!.id);
  };
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: ROLE_OPTIONS.map(({ value, label }) => ({ key: value, label })),
        onClick: ({ key }) => add(key as Role),
        style: { maxHeight: 420, overflow: 'auto' },
      }}
    >
      <Button type={first ? 'primary' : 'default'} icon={<PlusOutlined />}>
        Add pulley
      </Button>
    </Dropdown>
  );
});

/** The crank at the datum; anything else above and beside what is there, clear of it. */
function freeSpot(drive: Drive, role: Role): { x: number; y: number } {
  if (drive.stations.length === 0 || (role === 'crankshaft' && !drive.stations.some((s) => s.role === 'crankshaft')))
    return { x: 0, y: 0 };
  const { minX, minY, maxX, maxY } = beltBounds(drive);
  const clear = (x: number, y: number) =>
    drive.stations.every(
      (s) => Math.hypot(s.x - x, s.y - y) > Math.max(...s.pulleys.map((p) => p.diameter ?? 120)) / 2 + 95,
    );
  for (let ring = 0; ring < 12; ring += 1) {
    for (let step = 0; step < 12; step += 1) {
      const angle = Math.PI / 2 - (step % 2 === 0 ? 1 : -1) * Math.ceil(step / 2) * (Math.PI / 6);
      const x = Math.round((minX + maxX) / 2 + (160 + ring * 60) * Math.cos(angle));
      const y = Math.round((minY + maxY) / 2 + (160 + ring * 60) * Math.sin(angle));
      if (clear(x, y)) return { x, y };
    }
  }
  return { x: Math.round(maxX + 100), y: Math.round(maxY) };
}
