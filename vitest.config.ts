import { availableParallelism } from 'node:os';
import vue from '@vitejs/plugin-vue';
import vuetify from 'vite-plugin-vuetify';
import { defineConfig } from 'vitest/config';

/** Long enough for a machine that is four times slower and busy: a test that hangs is ended, none is judged by its speed. */
const PATIENCE_MS = 120_000;

export default defineConfig({
  test: {
    // All processors: by default one stands idle.
    maxWorkers: availableParallelism(),
    projects: [
      {
        test: {
          name: 'core',
          environment: 'node',
          include: [
            'core/**/*.test.ts',
            'contract/**/*.test.ts',
            'lineage/**/*.test.ts',
            'words/**/*.test.ts',
            'cli/**/*.test.ts',
            'scripts/**/*.test.ts',
          ],
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
          testTimeout: PATIENCE_MS,
          hookTimeout: PATIENCE_MS,
        },
      },
      {
        plugins: [vue(), vuetify({ autoImport: true })],
        test: {
          name: 'web',
          environment: 'happy-dom',
          testTimeout: PATIENCE_MS,
          hookTimeout: PATIENCE_MS,
          setupFiles: ['web/test/setup.ts'],
          include: ['web/**/*.test.ts'],
          server: { deps: { inline: ['vuetify'] } },
        },
      },
    ],
  },
});
