// Dates are read the same wherever the tests run.
process.env.TZ = 'UTC';

const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      target: 'es2022',
      transform: { react: { runtime: 'automatic' } },
    },
    module: { type: 'commonjs' },
  },
];

const project = (name, environment) => ({
  displayName: name,
  rootDir: import.meta.dirname,
  roots: [`<rootDir>/${name}`],
  testEnvironment: environment,
  testMatch: ['**/*.test.{ts,tsx}'],
  transform: { '\\.[jt]sx?$': swc },
  setupFiles: ['<rootDir>/scripts/steady-seed.ts'],
  ...(process.env.EMERY_MUTANTS && { setupFilesAfterEnv: ['<rootDir>/scripts/mutant.ts'] }),
  moduleNameMapper: {
    '\\.css$': '<rootDir>/scripts/empty.cjs',
    // They ship as .mjs, which Jest never transforms; this is the same build in the older form.
    '^(d3-[a-z-]+)$': '<rootDir>/node_modules/$1/dist/$1.min.js',
  },
  // The packages that ship ES modules only.
  transformIgnorePatterns: [
    '/node_modules/(?!(d3-[a-z-]+|internmap|@ant-design/[a-z-]+|age-encryption|@noble/[a-z-]+|@scure/base)/)',
  ],
});

export default {
  testTimeout: 120_000,
  testSequencer: '<rootDir>/scripts/longest-first.cjs',
  projects: [
    project('core', 'node'),
    {
      ...project('server', 'node'),
      globalSetup: '<rootDir>/server/test/global-setup.mjs',
      globalTeardown: '<rootDir>/server/test/global-teardown.mjs',
    },
    project('cli', 'node'),
    {
      ...project('web', 'jsdom'),
      setupFiles: ['<rootDir>/scripts/steady-seed.ts', '<rootDir>/scripts/jsdom-lacks.ts'],
    },
  ],
};
