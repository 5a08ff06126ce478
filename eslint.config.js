import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/**
 * Dependencies point one way: web, server and cli use core; core uses none of them, and they do not use one another.
 */
const only = (folder, banned, packages = []) => ({
  files: [`${folder}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.{ts,tsx}'],
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

export default tseslint.config(
  { ignores: ['**/dist/**', '.emery/**', 'node_modules/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  { files: ['**/*.mjs', 'scripts/**'], languageOptions: { globals: globals.node } },
  { files: ['**/*.cjs'], languageOptions: { globals: { ...globals.node, ...globals.commonjs } } },
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
  only('core', ['web', 'server', 'cli'], ['^node:', '^react', '^antd', '^express', '^typeorm', '^d3-(selection|zoom)']),
  only('web', ['server', 'cli'], ['^node:']),
  only('server', ['web', 'cli']),
  only('cli', ['web', 'server']),
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
