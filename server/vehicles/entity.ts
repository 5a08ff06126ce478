import { randomUUID } from 'node:crypto';
import { EntitySchema } from 'typeorm';
import type { VehicleFields } from '@emery/core/api';
import { changing } from '../storage/changing';

export interface VehicleRow {
  id: string;
  name: string;
  plate: string;
  odometer: number | null;
  odometerUnit: 'km' | 'mi' | 'h';
  /** When the odometer was read; where it is null, when the vehicle was saved. */
  odometerAt: Date | null;
  notes: string;
  revision: number;
  /** The save that made this revision: the same save sent again is answered, not refused. */
  saveId: string;
  updatedAt: Date;
  deletedAt: Date | null;
}

export const Vehicle = new EntitySchema<VehicleRow>({
  name: 'vehicle',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    name: { type: 'varchar', length: 120 },
    plate: { type: 'varchar', length: 40 },
    odometer: { type: 'int', nullable: true },
    odometerUnit: { type: 'varchar', length: 2 },
    odometerAt: { type: 'datetime', precision: 3, nullable: true },
    notes: { type: 'text' },
    ...changing,
  },
});

/** A vehicle to insert: revision 1, saved now. */
export function newVehicle(body: Partial<VehicleFields> & { name: string }): VehicleRow {
  const { name, plate = '', odometer = null, odometerUnit = 'km', notes = '' } = body;
  return {
    id: randomUUID(),
    name,
    plate,
    odometer,
    odometerUnit,
    odometerAt: odometer === null ? null : new Date(),
    notes,
    revision: 1,
    saveId: randomUUID(),
    updatedAt: new Date(),
    deletedAt: null,
  };
}
