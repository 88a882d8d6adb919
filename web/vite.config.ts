import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';

/** Where the server is while the interface is being edited: it also serves the public pages. */
const API_ORIGIN = process.env['API_ORIGIN'] ?? 'http://127.0.0.1:4180';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    // Beside each file as it is sent, so that the server does not compress the same again for everybody.
    compression({ include: /assets\/.*\.(js|css|svg)$/, algorithms: ['brotliCompress', 'gzip'] }),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: {
        name: 'Karyotome',
        short_name: 'Karyotome',
        description: 'Records and honest genetic claims for ball python breeders',
        start_url: '/today',
        display: 'standalone',
        background_color: '#f3eee4',
        theme_color: '#2e4a3f',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
        shortcuts: [
          { name: 'Rounds', url: '/rounds' },
          { name: 'Feeding night', url: '/today/feeding' },
        ],
      },
      workbox: {
        // The whole application, so that every place opens without a connection; what it shows is read from the server.
        globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
        maximumFileSizeToCacheInBytes: 6_000_000,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/(api|p|c)\//],
      },
    }),
  ],
  // The server puts the nonce of each answer there (server/src/http/app-page.ts).
  html: { cspNonce: '{{nonce}}' },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 800 },
  server: {
    proxy: Object.fromEntries(['/api', '/p/', '/c/', '/p-assets/'].map((path) => [path, API_ORIGIN])),
  },
  optimizeDeps: { include: ['vuetify/components/*', 'vuetify/directives'] },
});
