import react from '@vitejs/plugin-react';
import { defineConfig, type InlineConfig } from 'vite';
import { VitePWA, type VitePWAOptions } from 'vite-plugin-pwa';
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

/** Emery in the browser itself: installed like an app, and opened with the server away. */
const KEPT: Partial<VitePWAOptions> = {
  // A new version waits until it is taken: `offline/service-worker.ts`.
  registerType: 'prompt',
  injectRegister: null,
  manifest: {
    id: '/',
    name: 'Emery',
    short_name: 'Emery',
    description: 'Sizing, routing, tensioning and aligning accessory drives.',
    start_url: '/',
    scope: '/',
    display: 'standalone',
    background_color: '#dde2e1',
    theme_color: '#1f5a4a',
    icons: [
      { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/mark-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/mark-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/mark-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['index.html', '*.{svg,png,js}', 'assets/*.{js,css,woff2}'],
    globIgnores: ['sw.js', 'workbox-*.js'],
    maximumFileSizeToCacheInBytes: 6e6,
    // Every page is the same file; what the server answers is kept by the page, which knows whose it is.
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    inlineWorkboxRuntime: true,
  },
};

export default defineConfig(async ({ command }) => ({
  ...made,
  plugins: [...made.plugins!, ...(command === 'build' ? [VitePWA(KEPT)] : [])],
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
