import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/**
 * Dependencies point one way: web, server and cli use core; core uses none of them, and they do not use one another.
 */
const only = (folder, banned, packages) => ({
  files: [`${folder}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.{ts,tsx}', '**/test/**'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...banned.map((name) => ({
            regex: `^(@emery/${name}|(\\.\\./)+${name})(/|$)`,
            message: `${folder} may not depend on ${name}.`,
          })),
          ...packages.map((regex) => ({ regex, message: `${folder} has no interface and does no input or output.` })),
        ],
      },
    ],
  },
});

const NOT_IN_CORE = [
  ...['web', 'server', 'cli'].map((name) => ({
    regex: `^(@emery/${name}|(\\.\\./)+${name})(/|$)`,
    message: `core may not depend on ${name}.`,
  })),
  ...['^node:', '^react', '^antd', '^express', '^typeorm', '^d3-(selection|zoom)'].map((regex) => ({
    regex,
    message: 'core has no interface and does no input or output.',
  })),
];

/**
 * Core in layers: a folder imports only from those before it, by the folder's index. Stages stand beside one another
 * and import none of their own rank; so a stage can be taken out whole.
 */
const LAYERS = [
  ['numeric', 'quantity', 'command'],
  ['section'],
  ['finding'],
  ['drive'],
  ['together'],
  ['accessory', 'sound'],
  ['path'],
  ['adjuster'],
  ['loads'],
  ['seating', 'planes', 'start'],
  ['survey'],
  ['route', 'size', 'speeds', 'tension', 'align'],
  // What these weigh is what the others found; the counter asks them without a drive.
  ['inspect', 'counter'],
  ['noise'],
  ['job'],
  ['records'],
  ['api'],
  ['specimens'],
];
const layers = LAYERS.flatMap((names, at) =>
  names.map((folder) => {
    const below = [folder, ...LAYERS.slice(0, at).flat()];
    const others = LAYERS.flat().filter((name) => !below.includes(name));
    return {
      files: [`core/${folder}/**/*.ts`],
      ignores: ['**/*.test.ts'],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...NOT_IN_CORE,
              {
                regex: `^(\\.\\./)+(${[...others, 'test'].join('|')})(/|$)`,
                message: `core/${folder} imports only from the folders below it: ${below.slice(1).join(', ') || 'none'}.`,
              },
              {
                // Pictures are a part of the survey, with an index of their own.
                regex: `^(\\.\\./)+(${LAYERS.flat().join('|')})/(?!photo$)`,
                message: 'Import what a folder offers from its index.',
              },
            ],
          },
        ],
      },
    };
  }),
);

export default tseslint.config(
  { ignores: ['**/dist/**', '.emery/**', 'node_modules/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  { files: ['**/*.mjs', 'scripts/**'], languageOptions: { globals: globals.node } },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: { ...globals.node, ...globals.commonjs } },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    languageOptions: { globals: globals.browser },
    ...reactHooks.configs.flat['recommended-latest'],
  },
  {
    files: ['**/*.{ts,tsx,mjs}'],
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, argsIgnorePattern: '^_' }],
    },
  },
  {
    // A promise that nobody waits for fails unseen: it is awaited, or `void` says that it is meant.
    files: ['**/*.{ts,tsx}'],
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ['scripts/*.ts'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
  {
    // A chain of conditions is a table, a switch or early returns.
    files: ['core/**/*.ts', 'web/**/*.{ts,tsx}', 'server/**/*.ts', 'cli/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}', '**/test/**'],
    rules: { 'no-nested-ternary': 'error' },
  },
  ...layers,
  only('web', ['server', 'cli'], ['^node:']),
  only('server', ['web', 'cli'], []),
  only('cli', ['web', 'server'], []),
  { files: ['scripts/**'], rules: { 'no-console': 'off' } },
  prettier,
  {
    // What Prettier cannot break: long comments. Sentences for the screen may run on.
    rules: {
      'max-len': [
        'error',
        {
          code: 120,
          ignoreStrings: true,
          ignoreTemplateLiterals: true,
          ignoreRegExpLiterals: true,
          ignorePattern: '^\\s*(test|describe)\\(',
        },
      ],
    },
  },
);
