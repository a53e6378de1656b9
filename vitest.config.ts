import { defineConfig } from 'vitest/config';

const node = { environment: 'node' as const, testTimeout: 30_000, hookTimeout: 60_000 };

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          ...node,
          name: 'unit',
          include: [
            'core/src/**/*.test.ts',
            'sim/src/**/*.test.ts',
            'contract/src/**/*.test.ts',
            'web/src/**/*.test.ts',
            'scripts/boundaries.test.ts',
          ],
        },
      },
      {
        test: {
          ...node,
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['scripts/machine/testDatabase.mjs'],
        },
      },
      {
        test: {
          ...node,
          name: 'machine',
          include: ['scripts/machine.test.ts'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
});
