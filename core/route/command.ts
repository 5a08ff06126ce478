import { type Command, UsageProblem } from '../command';
import type { Drive } from '../drive';
import { searchRoutes } from './search';
import { routeReason } from './words';

/** `route FILE --belt ID [--top N]`: the routes that belt can run, best first. */
export const routeCommand: Command<Drive> = {
  name: 'route',
  usage: 'emery route FILE --belt ID [--top N]',
  options: ['belt', 'top'],
  prepare: ({ belt, top: asked = '10' }, usage) => {
    if (belt === undefined) throw usage;
    const top = Number(asked);
    if (!Number.isInteger(top) || top < 1)
      throw new UsageProblem(`--top must be a whole number, 1 or more, not ${asked}`);
    return (drive) => {
      if (!drive.belts.some(({ id }) => id === belt))
        throw new UsageProblem(`--belt names "${belt}", and the drive has no such belt`);
      const { searched, routes, complete, sets } = searchRoutes(drive, belt, { top });
      const printed = routes.map(({ reasons, ...route }) => ({
        ...route,
        reasons: reasons.map((reason) => routeReason(drive, reason)),
      }));
      return { searched, complete, sets, routes: printed };
    };
  },
};
