import { defineConfig } from 'vitest/config';

const common = {
  environment: 'node',
  globalSetup: ['server/test/postgres.global.ts', 'server/test/hard/built.global.ts'],
  testTimeout: 900_000,
  hookTimeout: 300_000,
} as const;

/** What measures how long others wait: alone on the machine. */
const MEASURED = ['hostile-input', 'slow-answers', 'linear'].map(
  (name) => `server/test/hard/${name}.test.ts`,
);

/*
 * npm run test:hard: the long forms of what npm test runs in short: hostile input, races, time zones, bad days of a machine. Bad
 * days are mostly waited for, so the others run beside them.
 */
export default defineConfig({
  test: {
    projects: [
      {
        test: {
          ...common,
          name: 'measured',
          include: MEASURED,
          maxWorkers: 1,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          ...common,
          name: 'beside-one-another',
          include: ['server/test/hard/*.test.ts'],
          exclude: MEASURED,
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
