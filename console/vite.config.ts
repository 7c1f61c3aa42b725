import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { alsoPacked } from './build/alsoPacked.ts';
import { chunks, sharedSoon } from './build/chunks.ts';

// In development the service runs beside the console: npx vite, with ./demo in another terminal.
export default defineConfig({
  plugins: [react(), sharedSoon(), alsoPacked()],
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:5820' } },
  build: { chunkSizeWarningLimit: 1500, rolldownOptions: { output: { codeSplitting: chunks } } },
});
