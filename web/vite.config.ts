import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

const api = process.env['LAUTA_API'] ?? 'http://127.0.0.1:4310';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src/offline',
      filename: 'sw.ts',
      registerType: 'prompt',
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm}'],
        // The code reader's wasm is the largest, about 1 MB.
        maximumFileSizeToCacheInBytes: 6 * 1024 * 1024,
      },
      manifest: {
        name: 'Lauta',
        short_name: 'Lauta',
        description: 'Catch, measure, claim: with the fish in the water.',
        start_url: '/',
        display: 'standalone',
        background_color: '#f4efe3',
        theme_color: '#f4efe3',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
          { src: '/lauta.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
    }),
  ],
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
