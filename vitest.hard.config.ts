import { defineConfig } from 'vitest/config';

/* npm run test:hard: the long forms of what npm test runs in short: hostile input, races, time zones, bad days of a machine. */
export default defineConfig({
  test: {
    name: 'hard',
    environment: 'node',
    include: ['server/test/hard/*.test.ts'],
    globalSetup: ['server/test/postgres.global.ts', 'server/test/hard/built.global.ts'],
    fileParallelism: false,
    testTimeout: 900_000,
    hookTimeout: 300_000,
  },
});
