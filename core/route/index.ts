/** PathFinding the routes a belt can run, ranked. */
export { searchRoutes, type RouteFound, type RouteSearch, type RouteReason, type SearchControl } from './search';
export { proposeIdlers, type IdlerProposal, type IdlerSearch, type IdlerWish } from './idler';
export { carriedBy } from './carried';
export { routeReason } from './words';
export { routeCommand } from './command';
