import { EntitySchema } from 'typeorm';
import type { PartKind } from '@emery/core/align';

/** A hub, pump or spacer in the shop's own list. */
export interface PartRow {
  id: string;
  label: string;
  kind: PartKind;
  mm: number;
  plusMinus: number | null;
  price: number | null;
  /** How many there are of it. */
  pieces: number;
  createdAt: Date;
}

export const PartEntity = new EntitySchema<PartRow>({
  name: 'part_at_hand',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    label: { type: 'varchar', length: 80 },
    kind: { type: 'varchar', length: 20 },
    mm: { type: 'double' },
    plusMinus: { type: 'double', nullable: true },
    price: { type: 'double', nullable: true },
    pieces: { type: 'int', default: 1 },
    createdAt: { type: 'datetime', precision: 3 },
  },
});
