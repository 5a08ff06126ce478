import { type Belt, type Drive, type InspectFinding, kmPer, momentOf, type OdometerUnit } from '../drive';
import { kindOf } from './parts';

/** How far a belt lasts where nothing of its wear is known, km. Defaults, by what it is made of; none is a promise. */
const LIFE_KM = { epdm: 150_000, neoprene: 90_000, vee: 80_000, toothed: 100_000 };

/** How many years it lasts, however little it runs. Defaults, as before. */
const LIFE_YEARS = { epdm: 8, neoprene: 5, vee: 5, toothed: 6 };

/** The life a belt is held to have while its own wear is unknown, in the odometer's unit. */
export interface Life {
  distance: number;
  unit: OdometerUnit;
  from: 'default' | 'shop' | 'manual';
  /** What is left of it, below zero where it is over; null where nobody wrote down when it was fitted. */
  left: number | null;
}

/** Which of the defaults a belt goes by. */
const materialOf = (belt: Belt, material: string): keyof typeof LIFE_KM => {
  const kind = kindOf(belt);
  if (kind !== 'ribbed') return kind;
  return material === 'neoprene' ? 'neoprene' : 'epdm';
};

export function lifeOf(drive: Drive, belt: Belt, material: string, odometer: number | undefined): Life {
  const unit = drive.inspect?.odometerUnit ?? 'km';
  const made = materialOf(belt, material);
  const given = drive.inspect?.life;
  const distance = given?.distance ?? LIFE_KM[made] / kmPer(unit);
  const fitted = belt.care?.fittedOdometer;
  const left = fitted === undefined || odometer === undefined ? null : distance - (odometer - fitted);
  return { distance, unit, from: given?.from ?? 'default', left };
}

/** A belt ages by years as well as by distance, and the sooner counts. */
export interface BeltAge {
  /** How many it is held to last: a default. */
  years: number;
  /** The day on which it is that old, ISO 8601; null where nobody dated its fitting, nor anything found of it. */
  day: string | null;
  /** What its age is counted from: its fitting; or the first look at it, and it is older than that. */
  from: 'fitted' | 'first-seen';
  /** Whether it was that old at the last look. */
  over: boolean;
}

export function ageOf(belt: Belt, material: string, findings: readonly Pick<InspectFinding, 'at'>[]): BeltAge {
  const years = LIFE_YEARS[materialOf(belt, material)];
  const fitted = momentOf(belt.care?.fittedAt);
  const seen = findings.flatMap(({ at }) => momentOf(at) ?? []);
  const start = fitted ?? (seen.length > 0 ? Math.min(...seen) : null);
  const from = fitted === null ? 'first-seen' : 'fitted';
  if (start === null) return { years, day: null, from, over: false };
  const day = new Date(start);
  day.setUTCFullYear(day.getUTCFullYear() + years);
  const year = day.getUTCFullYear();
  return {
    years,
    day: year >= 1000 && year < 9999 ? day.toISOString().slice(0, 10) : null,
    from,
    over: seen.length > 0 && Math.max(...seen) >= day.getTime(),
  };
}
