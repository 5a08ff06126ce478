import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
  // The browser's own address goes along, for the server answers only pages of its own origin. The modules in web/api
  // are source, not requests.
  server: {
    host: '127.0.0.1',
    proxy: {
      '^/api/(?!\\w+\\.ts)': { target: `http://127.0.0.1:${process.env['EMERY_PORT'] ?? 4680}`, changeOrigin: false },
    },
  },
});
