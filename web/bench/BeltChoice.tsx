import { Segmented } from 'antd';
import { useBench } from '../state/bench';

/** Which belt is in hand, where a drive has several. */
export function BeltChoice() {
  const { drive, belt, setBelt } = useBench('drive', 'belt', 'setBelt');
  if (drive.belts.length < 2 || !belt) return null;
  return (
    <Segmented
      block
      value={belt.id}
      options={drive.belts.map(({ id, section, ribs }, index) => ({
        value: id,
        label: `Belt ${index + 1} · ${ribs ? `${ribs} ribs` : section}`,
      }))}
      onChange={setBelt}
      aria-label="Selected belt"
    />
  );
}
