import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

// In development the service runs beside the console: npx vite, with ./demo in another terminal.
export default defineConfig({
  plugins: [react()],
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:5820' } },
  build: { chunkSizeWarningLimit: 1500 },
});
