/** When a drive is listened to again after a cure. */
export const LISTEN_AGAIN = ['now', 'soon', 'later'] as const;
export type ListenAgain = (typeof LISTEN_AGAIN)[number];

/** How far on a drive is listened to again, km: a new belt's coating hides a fault for some hundreds. Defaults. */
export const LISTEN_AFTER_KM: Record<ListenAgain, number> = { now: 0, soon: 500, later: 2000 };

/** What an odometer counts: km, miles, or hours of the engine. */
export const ODOMETER_UNITS = ['km', 'mi', 'h'] as const;
export type OdometerUnit = (typeof ODOMETER_UNITS)[number];
const KM_PER_MILE = 1.609344;
/** An hour of an engine stands for so many km. A default. */
const KM_PER_HOUR = 40;
const KM_PER: Record<OdometerUnit, number> = { km: 1, mi: KM_PER_MILE, h: KM_PER_HOUR };
/** How many km one of an odometer's unit stands for. */
export const kmPer = (unit: OdometerUnit): number => KM_PER[unit];
