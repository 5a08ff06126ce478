import { EntitySchema } from 'typeorm';
import type { Role } from '@emery/core/drive';
import type { Surface } from '@emery/core/section';

/** What the shop says an accessory may turn, rev/min. */
export interface SpeedBandRow {
  role: Role;
  least: number | null;
  continuous: number | null;
  burst: number | null;
}

/** A pulley that lies in the shop or can be had. */
export interface PulleyRow {
  id: string;
  label: string;
  role: Role | null;
  surface: Surface;
  diameter: number | null;
  teeth: number | null;
  grooves: number | null;
  setName: string | null;
  /** How many there are of it. */
  pieces: number;
  createdAt: Date;
}

export const SpeedBandEntity = new EntitySchema<SpeedBandRow>({
  name: 'speed_band',
  columns: {
    role: { type: 'varchar', length: 40, primary: true },
    least: { type: 'double', nullable: true },
    continuous: { type: 'double', nullable: true },
    burst: { type: 'double', nullable: true },
  },
});

export const PulleyEntity = new EntitySchema<PulleyRow>({
  name: 'pulley_at_hand',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    label: { type: 'varchar', length: 120 },
    role: { type: 'varchar', length: 40, nullable: true },
    surface: { type: 'varchar', length: 20 },
    diameter: { type: 'double', nullable: true },
    teeth: { type: 'int', nullable: true },
    grooves: { type: 'int', nullable: true },
    setName: { type: 'varchar', length: 80, nullable: true },
    pieces: { type: 'int', default: 1 },
    createdAt: { type: 'datetime', precision: 3 },
  },
});
