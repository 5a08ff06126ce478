const { default: Sequencer } = require('@jest/test-sequencer');

/*
 * The files of tests that take longest, longest first, so that none of them begins when the others have ended. Jest
 * knows by itself how long each took the last time; this is for a fresh clone.
 */
const LONGEST = [
  'server/lag.test.ts',
  'server/files/archive.test.ts',
  'core/tension/pluck.test.ts',
  'core/noise/listen.test.ts',
  'core/inspect/ribs/ribs.test.ts',
  'cli/process.test.ts',
  'core/survey/photo/photo.test.ts',
  'web/stages/stages.test.ts',
  'server/hostile.test.ts',
  'core/seating/size-belt.test.ts',
  'core/noise/diagnose.test.ts',
  'server/migrations.test.ts',
];

module.exports = class LongestFirst extends Sequencer {
  sort(tests) {
    const rank = ({ path }) => {
      const found = LONGEST.findIndex((name) => path.endsWith(`/${name}`));
      return found < 0 ? LONGEST.length : found;
    };
    return super.sort(tests).sort((a, b) => rank(a) - rank(b));
  }
};
