import fc from 'fast-check';

/*
 * In CI the property tests try the same cases every time, so that a failure there is the change's own and can be run
 * again. Elsewhere they try new ones at every run, which is how they find anything; EMERY_SEED names a seed by hand.
 */
const seed = process.env['EMERY_SEED'] ?? (process.env['CI'] ? '20261124' : undefined);
if (seed !== undefined) fc.configureGlobal({ seed: Number(seed) });
