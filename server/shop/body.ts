import { number, object, optionalList, string } from '../http/fields';
import { MOST_SHOP_LIMITS, shopLimit } from '@emery/core/drive';

/** What a shop says of itself, as it is typed and as archives carry it. */
export const shopBody = object({
  name: string().trim().min(1, 'needs a name').max(120, 'must be 120 characters at most'),
  unit: string().oneOf(['in', 'mm'], 'must be in or mm'),
  limits: optionalList(shopLimit, MOST_SHOP_LIMITS).nullable(),
  hourRate: number().min(0, 'must be 0 or more').max(1e6, 'must be 1,000,000 at most').nullable(),
}).required();

/** A change of it. With limits goes the list that they were seen to be: another one meanwhile is not overwritten. */
export const shopChange = shopBody.shape({
  limitsWere: optionalList(shopLimit, MOST_SHOP_LIMITS).nullable(),
});
