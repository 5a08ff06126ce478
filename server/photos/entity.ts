import { EntitySchema } from 'typeorm';

/**
 * A picture, upright and without metadata, as JPEG. Named by the SHA-256 of its bytes, so the same picture is kept
 * once.
 */
export interface PhotoRow {
  hash: string;
  width: number;
  height: number;
  bytes: Buffer;
  createdAt: Date;
}

export const Photo = new EntitySchema<PhotoRow>({
  name: 'photo',
  columns: {
    hash: { type: 'char', length: 64, primary: true },
    width: { type: 'int' },
    height: { type: 'int' },
    bytes: { type: 'longblob' },
    createdAt: { type: 'datetime', precision: 3 },
  },
});
