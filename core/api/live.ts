/** What devices are told of one another, as server and interface exchange it. */

/** What a device is to whoever stands at it. */
export const DEVICE_KINDS = ['phone', 'tablet', 'computer'] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];

/** Where somebody is: the drive that a page shows, its stage, the part in hand. */
export interface HereTab {
  tab: string;
  drive: string | null;
  stage: string;
  /** What is in hand, as the address of a bench has it: `pulley alt-1`; empty for nothing. */
  part: string;
}

/** A device that has Emery open, and who is at it. */
export interface HereDevice {
  device: string;
  name: string;
  kind: DeviceKind;
  tabs: HereTab[];
  /** The device that it follows. */
  follows: string | null;
}

/** What somebody points at, mm from the crank. */
export interface Pointing {
  drive: string;
  at: { x: number; y: number } | null;
  part: string;
}

/** What a phone can be asked to take. */
export const TAKE_KINDS = ['picture', 'sound', 'reading'] as const;
export type TakeKind = (typeof TAKE_KINDS)[number];
/** `none` where the phone cannot or would not. */
export const TAKE_STATES = ['asked', 'seen', 'ready', 'sending', 'done', 'none'] as const;
export type TakeState = (typeof TAKE_STATES)[number];

/** What one device asks another to take, and how far that is. */
export interface Take {
  id: string;
  /** The device that asks, and the one that is asked; null for whichever opens its address. */
  from: string;
  to: string | null;
  /** Who asks. */
  by: string;
  kind: TakeKind;
  /** What for, in the bench's words, and the unit of a reading. */
  label: string;
  unit: string;
  state: TakeState;
  /** Of what is being sent, per cent. */
  part: number;
  /** A picture that the server keeps, or what was written. */
  result: { hash: string; width: number; height: number } | { text: string } | null;
}

/** Lists that a device may show, by the first word of what the interface keeps them under. */
export type Topic =
  | 'shop'
  | 'vehicles'
  | 'deleted'
  | 'drive'
  | 'dues'
  | 'records'
  | 'jobs'
  | 'job'
  | 'stock'
  | 'bands'
  | 'pulleys'
  | 'parts';

/** One message of the stream. */
export type LiveMessage =
  /** The stream stands; what the device has open is to be caught up with. */
  | { kind: 'hello'; seq: number; gap: boolean }
  | { kind: 'drive'; seq: number; drive: string; version: unknown }
  | { kind: 'lists'; seq: number; topics: Topic[]; jobs: string[]; drives: string[] }
  | { kind: 'here'; seq: number; here: HereDevice }
  | { kind: 'point'; seq: number; device: string; pointing: Pointing }
  | { kind: 'take'; seq: number; take: Take };
