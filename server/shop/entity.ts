import { EntitySchema } from 'typeorm';
import type { ShopLimit } from '@emery/core/drive';
import type { LengthUnit } from '@emery/core/quantity';

/** The one shop this Emery serves. */
export interface ShopRow {
  id: number;
  name: string;
  unit: LengthUnit;
  /** What an hour of its work costs; null where nobody said. */
  hourRate: number | null;
  /** What it holds for every drive, where an inspection goes by limits; null for none. */
  limits: readonly ShopLimit[] | null;
}

export const Shop = new EntitySchema<ShopRow>({
  name: 'shop',
  columns: {
    id: { type: 'int', primary: true },
    name: { type: 'varchar', length: 120 },
    unit: { type: 'varchar', length: 2 },
    hourRate: { type: 'double', nullable: true },
    limits: { type: 'simple-json', nullable: true },
  },
});
