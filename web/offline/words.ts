import { plural } from '@emery/core/quantity';

/** What is said while the server is away, and of what waits for it. */
export const AWAY = {
  away: 'No server.',
  kept: (at: string) => `Shown as this device kept it, ${at}.`,
  goesOn: 'Emery goes on; changes are kept on this device.',
  waits: (drives: number) => `${plural(drives, 'drive')} ${drives === 1 ? 'waits' : 'wait'} to be sent.`,
  refused: (problem: string) => `A new drive was not taken by the server. ${problem}`,
  withoutVehicle: 'Save without a vehicle',
  discard: 'Discard the drive',
} as const;
