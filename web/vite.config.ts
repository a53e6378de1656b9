import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const api = process.env['LAUTA_API'] ?? 'http://127.0.0.1:4310';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [{ name: 'react', test: /node_modules[\\/](react|react-dom|react-router|scheduler)[\\/]/ }],
        },
      },
    },
  },
  // For `npm run dev`: the pages reload by themselves, everything else comes from the running server, which must see
  // the host that the page was opened at, or its same-origin check refuses every write.
  server: { host: '127.0.0.1', port: 4311, proxy: { '/api': { target: api, changeOrigin: false } } },
});
