import rescue from '../../demo/1-rescue-truck.emery.json';
import pickup from '../../demo/2-hill-farm-pickup.emery.json';
import groomer from '../../demo/4-snow-groomer.emery.json';
import climb from '../../demo/5-hill-climb-car.emery.json';
import type { Drive } from '../drive';

/** Drives of the demo shop: a serpentine with an arm, two V-belts, a jackshaft, teeth. Files, so of no type yet. */
export const DEMO = { rescue, pickup, groomer, climb } as unknown as Record<
  'rescue' | 'pickup' | 'groomer' | 'climb',
  Drive
>;
