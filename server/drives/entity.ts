import { EntitySchema } from 'typeorm';
import { changing } from '../storage/changing';
import type { Drive } from '@emery/core/drive';
import type { DriveSketch } from '@emery/core/path';

export interface DriveRow {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  saveId: string;
  updatedAt: Date;
  deletedAt: Date | null;
  /** Who saved it last on a device that is signed in; empty for the machine itself. */
  savedBy: string;
}

/** The document itself, apart from what lists and searches read, so that these stay small. */
export interface DriveDocumentRow {
  driveId: string;
  document: Drive;
  sketch: DriveSketch;
}

export const DriveEntity = new EntitySchema<DriveRow>({
  name: 'drive',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    vehicleId: { type: 'char', length: 36 },
    name: { type: 'varchar', length: 200 },
    ...changing,
    savedBy: { type: 'varchar', length: 80, default: '' },
  },
});

export const DriveDocument = new EntitySchema<DriveDocumentRow>({
  name: 'drive_document',
  columns: {
    driveId: { type: 'char', length: 36, primary: true },
    document: { type: 'simple-json' },
    sketch: { type: 'simple-json' },
  },
});
