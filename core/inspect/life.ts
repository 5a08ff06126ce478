import { type Belt, type Drive, kmPer, type OdometerUnit } from '../drive';
import { kindOf } from './parts';

/** How far a belt lasts where nothing of its wear is known, km. Defaults, by what it is made of; none is a promise. */
const LIFE_KM = { epdm: 150_000, neoprene: 90_000, vee: 80_000, toothed: 100_000 };

/** The life a belt is held to have while its own wear is unknown, in the odometer's unit. */
export interface Life {
  distance: number;
  unit: OdometerUnit;
  from: 'default' | 'shop' | 'manual';
  /** What is left of it, below zero where it is over; null where nobody wrote down when it was fitted. */
  left: number | null;
}

export function lifeOf(drive: Drive, belt: Belt, material: string, odometer: number | undefined): Life {
  const unit = drive.inspect?.odometerUnit ?? 'km';
  const kind = kindOf(belt);
  const km = kind === 'ribbed' ? LIFE_KM[material === 'neoprene' ? 'neoprene' : 'epdm'] : LIFE_KM[kind];
  const given = drive.inspect?.life;
  const distance = given?.distance ?? km / kmPer(unit);
  const fitted = belt.care?.fittedOdometer;
  const left = fitted === undefined || odometer === undefined ? null : distance - (odometer - fitted);
  return { distance, unit, from: given?.from ?? 'default', left };
}
