/**
 * What the server answers and the interface asks for, in one place for both. `When` is how a time is held: the server's
 * `Date` goes over the wire as ISO 8601 text.
 */
import type { Drive, KeptPicture, OdometerUnit, ShopLimit } from '../drive';
import type { BringList, CardStep, JobEstimate, JobEvent } from '../job';
import type { DriveSketch } from '../path';
import type { LengthUnit } from '../quantity';
import type { BeltLife, Due, StoryKind, Survival } from '../records';
import type { GrowthDefaults } from '../size';

export {
  AUDIT_KINDS,
  type AuditEntry,
  type AuditKind,
  type BringCode,
  type CodeState,
  type DeviceListed,
  type EndedWhy,
  type FeedListed,
  type Me,
  type PersonListed,
  type Role,
  type SharingState,
  STAFF_ROLES,
  type StaffRole,
} from './access';

export interface Shop {
  name: string;
  unit: LengthUnit;
  /** What an hour of its work costs; null where nobody said. */
  hourRate: number | null;
  /** What it holds for every drive, where an inspection goes by limits; null for none. */
  limits: readonly ShopLimit[] | null;
}

export interface DriveListed<When = string> {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  updatedAt: When;
  sketch: DriveSketch;
  /** What is due on it, the first to come first. */
  dues: DueExpected[];
}

export interface DriveOpened<When = string> extends Omit<DriveListed<When>, 'sketch' | 'dues'> {
  vehicleName: string;
  /** Who saved it last on a device that is signed in; empty where nobody is known. */
  savedBy: string;
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

/** Something due, with the day on which it is expected by the vehicle's usual use. */
export interface DueExpected extends Due {
  expected: string | null;
}

/** The vehicle and the drive that something belongs to, in a list over the whole shop. */
export interface WhoseDrive {
  vehicleId: string;
  vehicleName: string;
  plate: string;
  vehicleOdometer: number | null;
  odometerUnit: OdometerUnit;
  driveId: string;
  driveName: string;
}
export interface DueListed extends DueExpected, WhoseDrive {
  id: number;
}
export interface DuePage {
  dues: DueListed[];
  total: number;
  /** Of all that was searched: due by now, and within the days ahead that count as soon. */
  due: number;
  soon: number;
}

/** A belt that is on, anywhere in the shop. */
export interface BeltOn extends Omit<BeltLife, 'from' | 'to' | 'why'>, WhoseDrive {
  id: number;
  kind: string;
  ranKm: number | null;
  fittedAt: string | null;
  fittedOdometer: number | null;
}
export interface BeltsOnPage {
  belts: BeltOn[];
  total: number;
  /** What was understood of the search. */
  understood: string;
}

/** One thing that happened, anywhere in the shop. */
export interface RecordListed extends WhoseDrive {
  id: number;
  jobId: string | null;
  kind: StoryKind;
  at: string | null;
  readingAt: number | null;
  unit: OdometerUnit | null;
  belt: string | null;
  title: string;
  detail: string;
  pictures: KeptPicture[];
}
export interface RecordPage {
  records: RecordListed[];
  total: number;
}

/** A row of belts from before Emery, and where it goes; or why it cannot be taken in. */
export type HistoryPlaced =
  | { ok: true; vehicle: string; drive: string; belt: string; text: string; there: boolean }
  | { ok: false; problem: string };
/** What a list of old belts would bring, or has brought. */
export interface HistoryAnswer {
  rows: HistoryPlaced[];
  taken: number;
}

/** How long belts of one kind last, by the shop's own records. */
export interface LivesAnswer {
  kinds: { kind: string; belts: number; ended: number }[];
  kind: string | null;
  survival: Survival;
}

/** How belts of one section seat and grow by the shop's own sittings; null where it has none. */
export interface GrowthAnswer {
  growth: Required<GrowthDefaults> | null;
}

/** What a job is done by, as it was when it was begun: it changes no more, whatever becomes of the drive. */
export interface JobSheet {
  drive: Drive;
  unit: LengthUnit;
  /** The belt that it is done for; null for all of them. */
  belt: string | null;
  off: string[];
  on: string[];
  steps: CardStep[];
  bring: BringList;
  /** What it was estimated to take when it began. */
  estimate?: JobEstimate;
}

export interface JobListed<When = string> {
  id: string;
  vehicleId: string;
  driveId: string;
  name: string;
  startedAt: When;
  startedBy: string;
  signedAt: When | null;
  signedBy: string | null;
}

export interface JobOpened<When = string> extends JobListed<When> {
  vehicleName: string;
  plate: string;
  odometerUnit: OdometerUnit;
  /** The vehicle's last reading, to hold the job's against. */
  vehicleOdometer: number | null;
  sheet: JobSheet;
  events: JobEvent[];
  /** The number of the last event; those after it are asked for by it. */
  seq: number;
}

/** What happened at a job since an event. */
export interface JobNews<When = string> {
  events: JobEvent[];
  seq: number;
  signedAt: When | null;
  signedBy: string | null;
}

export {
  DEVICE_KINDS,
  type DeviceKind,
  type HereDevice,
  type HereTab,
  type LiveMessage,
  type Pointing,
  type Take,
  TAKE_KINDS,
  type TakeKind,
  TAKE_STATES,
  type TakeState,
  type Topic,
} from './live';

export {
  type BackupAge,
  type BackupListed,
  type BackupState,
  type DiskState,
  type Health,
  type PastListed,
  type PastOpened,
  type PastPage,
  type SlowAnswer,
} from './keep';
