import { PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useRef, useState } from 'react';
import { Dialog } from '../../ui/Dialog';
import { steady } from '../../ui/steady';
import { edit, useBenchStores, useDrive } from '../../state/bench';
import { ROLE_OPTIONS } from './role-options';
import './add-pulley.css';
import { addStation, type Drive, newStation, type Role } from '@emery/core/drive';
import { beltBounds } from '@emery/core/path';

/**
 * Adds a shaft with one pulley of a role, somewhere clear of the others. The roles are asked for on a sheet of their
 * own that comes without moving: a list that hangs on the button goes along when a sum that is just done moves the
 * page, and a thumb then takes another role, or none.
 */
export const AddPulley = steady(function AddPulley({
  onAdded,
}: {
  onAdded: (station: string, pulley: string) => void;
}) {
  const bench = useBenchStores();
  const first = useDrive(({ stations }) => stations.length === 0);
  const [asking, setAsking] = useState(false);
  const likeliest = useRef<HTMLButtonElement>(null);
  const add = (role: Role) => {
    setAsking(false);
    const { drive, dispatch } = bench.get();
    const { x, y } = freeSpot(drive, role);
    const made = newStation(drive, role, x, y, drive.belts[0]?.section ?? 'PK');
    dispatch(edit((d) => addStation(d, made)));
    onAdded(made.id, made.pulleys[0]!.id);
  };
  return (
    <>
      <Button type={first ? 'primary' : 'default'} icon={<PlusOutlined />} onClick={() => setAsking(true)}>
        Add pulley
      </Button>
      {asking && (
        <Dialog title="Which pulley?" onClose={() => setAsking(false)} first={likeliest} stays still>
          <div className="role-choices">
            {ROLE_OPTIONS.map(({ value, label }, at) => (
              <Button key={value} ref={at === 0 ? likeliest : null} size="large" onClick={() => add(value)}>
                {label}
              </Button>
            ))}
          </div>
        </Dialog>
      )}
    </>
  );
});

/**
 * The crank at the datum, where that is free; anything else above and beside what is there, clear of it, and of the
 * datum as long as the crank is still to come.
 */
function freeSpot(drive: Drive, role: Role): { x: number; y: number } {
  const held = drive.stations.some((station) => station.role === 'crankshaft')
    ? drive.stations
    : [...(role === 'crankshaft' ? [] : [{ x: 0, y: 0, pulleys: [] }]), ...drive.stations];
  const { minX, minY, maxX, maxY } = beltBounds(drive);
  const clear = (x: number, y: number) =>
    held.every((s) => Math.hypot(s.x - x, s.y - y) > Math.max(120, ...s.pulleys.map((p) => p.diameter ?? 0)) / 2 + 95);
  if (role === 'crankshaft' && clear(0, 0)) return { x: 0, y: 0 };
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
