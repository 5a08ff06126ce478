/**
 * What the server answers and the interface asks for, in one place for both. `When` is how a time is held: the server's
 * `Date` goes over the wire as ISO 8601 text.
 */
import type { Drive } from '../drive';
import type { DriveSketch } from '../path';
import type { LengthUnit } from '../quantity';

export interface Shop {
  name: string;
  unit: LengthUnit;
}

export interface DriveListed<When = string> {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  updatedAt: When;
  sketch: DriveSketch;
}

export interface DriveOpened<When = string> extends Omit<DriveListed<When>, 'sketch'> {
  vehicleName: string;
  document: Drive;
}

/** A save of a drive over the revision it was drawn on; the same `saveId` sent again is the same save. */
export interface DriveSave {
  revision: number;
  saveId: string;
  document: Drive;
}

export interface VehicleFields {
  name: string;
  plate: string;
  odometer: number | null;
  odometerUnit: 'km' | 'mi' | 'h';
  notes: string;
}

export interface VehicleListed<When = string> extends VehicleFields {
  id: string;
  revision: number;
  updatedAt: When;
  drives: DriveListed<When>[];
}

/** One page of a list, with how many there are in all. */
export interface VehiclePage<When = string> {
  vehicles: VehicleListed<When>[];
  total: number;
}
export interface DrivePage<When = string> {
  drives: DriveListed<When>[];
  total: number;
}

/** Every length the shop's list has of one section and rib count, with how many lie on the shelf. */
export interface StockedLength {
  lengthMm: number;
  shelf: number;
}
