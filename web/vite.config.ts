import react from '@vitejs/plugin-react';
import { defineConfig, type InlineConfig } from 'vite';
import { bundleNames } from './bundles';

/** What the PDF maker is built without. */
const LEFT_OUT = ['brotli/decompress.js', '@noble/ciphers/aes', 'png-js'];
const leftOut = `${import.meta.dirname}/paper/left-out.ts`;

const made: InlineConfig = {
  root: import.meta.dirname,
  plugins: [react()],
  resolve: { alias: LEFT_OUT.map((find) => ({ find, replacement: leftOut })) },
  build: { target: 'es2022' },
};

export default defineConfig(async ({ command }) => ({
  ...made,
  build: {
    ...made.build,
    sourcemap: false,
    chunkSizeWarningLimit: 900,
    // One style sheet: its rules stand in one order, whichever page comes first.
    cssCodeSplit: false,
    ...(command === 'build' && {
      rolldownOptions: {
        output: {
          codeSplitting: { groups: [{ name: await bundleNames(made), includeDependenciesRecursively: false }] },
        },
      },
    }),
  },
  // The browser's own address goes along, for the server answers only pages of its own origin. The modules in web/api
  // are source, not requests.
  server: {
    host: '127.0.0.1',
    proxy: {
      '^/api/(?!\\w+\\.ts)': { target: `http://127.0.0.1:${process.env['EMERY_PORT'] ?? 4680}`, changeOrigin: false },
    },
  },
}));
