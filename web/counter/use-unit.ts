import { useShop } from '../api/shop';
import type { LengthUnit } from '@emery/core/quantity';

/** The shop's unit; inches until the shop has said. */
export const useUnit = (): LengthUnit => useShop().data?.unit ?? 'in';
