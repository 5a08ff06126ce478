/** Finding the routes a belt can run, ranked. */
export { searchRoutes, type RouteFound, type RouteSearch, type RouteReason, type SearchControl } from './search';
export { carriedBy } from './carried';
