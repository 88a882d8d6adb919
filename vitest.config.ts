import vue from '@vitejs/plugin-vue';
import vuetify from 'vite-plugin-vuetify';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          environment: 'node',
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'cli/**/*.test.ts', 'scripts/**/*.test.ts'],
        },
      },
      {
        test: {
          name: 'server',
          environment: 'node',
          include: ['server/**/*.test.ts'],
          exclude: ['server/test/hard/**', '**/node_modules/**'],
          globalSetup: ['server/test/postgres.global.ts'],
          isolate: false,
          testTimeout: 20_000,
          hookTimeout: 60_000,
        },
      },
      {
        plugins: [vue(), vuetify({ autoImport: true })],
        test: {
          name: 'web',
          environment: 'happy-dom',
          include: ['web/**/*.test.ts'],
          server: { deps: { inline: ['vuetify'] } },
        },
      },
    ],
  },
});
