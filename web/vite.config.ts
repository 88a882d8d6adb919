import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import vuetify from 'vite-plugin-vuetify';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue(), vuetify({ autoImport: true })],
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 800 },
  server: { proxy: { '/api': process.env['API_ORIGIN'] ?? 'http://127.0.0.1:4180' } },
  optimizeDeps: { include: ['vuetify/components/*', 'vuetify/directives'] },
});
