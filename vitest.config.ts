import { defineConfig } from 'vitest/config';

/** Some read a dozen photographs: seconds each by themselves, ten times that on a busy machine. */
const node = { environment: 'node' as const, testTimeout: 240_000, hookTimeout: 240_000 };

export default defineConfig({
  test: {
    // By default one core is left alone: with two that is half of the machine.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          ...node,
          name: 'unit',
          // Pure functions: a process anew for each file would spend half of the time on loading.
          isolate: false,
          include: [
            'core/src/**/*.test.ts',
            'vision/src/**/*.test.ts',
            'words/src/**/*.test.ts',
            'sim/src/**/*.test.ts',
            'contract/src/**/*.test.ts',
            'web/src/**/*.test.ts',
            'scripts/dependencies.test.ts',
            'scripts/docs.test.ts',
            'scripts/assertions.test.ts',
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
          // Minutes of faults are for `npm run attack`.
          include: ['scripts/machine.test.ts', ...(process.env['LAUTA_ATTACK'] ? ['scripts/faults.test.ts'] : [])], // prettier-ignore
        },
      },
    ],
  },
});
