import { EntitySchema } from 'typeorm';
import type { StockBelt } from '@emery/core/size';

/** A belt in the shop's own list. */
export interface StockRow extends StockBelt {
  id: number;
}

export const StockEntity = new EntitySchema<StockRow>({
  name: 'stock_belt',
  columns: {
    id: { type: 'int', primary: true, generated: true },
    section: { type: 'varchar', length: 40 },
    ribs: { type: 'int', nullable: true },
    lengthMm: { type: 'double' },
    code: { type: 'varchar', length: 60 },
    price: { type: 'double', nullable: true },
    shelf: { type: 'int' },
  },
});
