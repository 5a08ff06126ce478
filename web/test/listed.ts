import type { DriveListed, VehicleListed } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';

const AT = '2026-11-01T08:00:00.000Z';

/** A vehicle as the shop's list has it, with its drives; something is due on the first. */
export function listedVehicle(id: string, drives: readonly Drive[]): VehicleListed {
  return {
    id,
    name: `Lorry ${id}`,
    plate: `TF ${id}`,
    odometer: 120_000,
    odometerUnit: 'km',
    notes: 'Bought used.',
    revision: 3,
    updatedAt: AT,
    drives: drives.map((drive, k): DriveListed => ({
      id: `${id}-d${k}`,
      vehicleId: id,
      name: drive.name ?? `Drive ${k}`,
      revision: 2,
      updatedAt: AT,
      sketch: sketchOf(drive),
      dues: k === 0 ? [due('Set the belt again', '2026-11-10'), due('Inspect the belt', '2026-12-01')] : [],
    })),
  };
}

const due = (text: string, expected: string): DriveListed['dues'][number] => ({
  key: text,
  kind: 'look',
  text,
  belt: null,
  day: expected,
  odometer: null,
  unit: null,
  from: 'written',
  plusMinus: null,
  expected,
});
