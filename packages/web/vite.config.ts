import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const server = `http://127.0.0.1:${process.env.CADENCE_PORT ?? 4310}`;

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2023', chunkSizeWarningLimit: 700, assetsInlineLimit: 0 },
  worker: { format: 'es' },
  server: {
    host: '127.0.0.1',
    // The server takes only what comes from its own address.
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
