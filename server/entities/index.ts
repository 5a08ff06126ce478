import { EntitySchema } from 'typeorm';
import type { Drive, Role } from '@emery/core/drive';
import type { DriveSketch } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';
import type { Surface } from '@emery/core/section';
import type { StockBelt } from '@emery/core/size';

/** The one shop this Emery serves. */
export interface ShopRow {
  id: number;
  name: string;
  unit: LengthUnit;
}

export interface VehicleRow {
  id: string;
  name: string;
  plate: string;
  odometer: number | null;
  odometerUnit: 'km' | 'mi' | 'h';
  notes: string;
  revision: number;
  /** The save that made this revision: the same save sent again is answered, not refused. */
  saveId: string;
  updatedAt: Date;
  deletedAt: Date | null;
}

export interface DriveRow {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  saveId: string;
  updatedAt: Date;
  deletedAt: Date | null;
}

/** The document itself, apart from what lists and searches read, so that these stay small. */
export interface DriveDocumentRow {
  driveId: string;
  document: Drive;
  sketch: DriveSketch;
}

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

/** A belt in the shop's own list. */
export interface StockRow extends StockBelt {
  id: number;
}

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

const changing = {
  revision: { type: 'int' },
  saveId: { type: 'varchar', length: 36 },
  updatedAt: { type: 'datetime', precision: 3 },
  deletedAt: { type: 'datetime', precision: 3, nullable: true },
} as const;

export const Shop = new EntitySchema<ShopRow>({
  name: 'shop',
  columns: {
    id: { type: 'int', primary: true },
    name: { type: 'varchar', length: 120 },
    unit: { type: 'varchar', length: 2 },
  },
});

export const Vehicle = new EntitySchema<VehicleRow>({
  name: 'vehicle',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    name: { type: 'varchar', length: 120 },
    plate: { type: 'varchar', length: 40 },
    odometer: { type: 'int', nullable: true },
    odometerUnit: { type: 'varchar', length: 2 },
    notes: { type: 'text' },
    ...changing,
  },
});

export const DriveEntity = new EntitySchema<DriveRow>({
  name: 'drive',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    vehicleId: { type: 'char', length: 36 },
    name: { type: 'varchar', length: 200 },
    ...changing,
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
