import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

/** Tests that take a part of what they could, and all of it in `npm run soak`. */
const WITH_MORE = [
  'unit/cling',
  'unit/definition/lines',
  'unit/fronts',
  'unit/fuzz/lines',
  'unit/icons',
  'unit/ink-session',
  'unit/propose-lines',
  'unit/regions',
  'unit/repetition',
  'unit/svg-sets',
  'unit/tuck',
  'unit/turn-back',
  'server/windows',
].map((name) => `tests/${name}.test.ts`)

export default defineConfig({
  define: { __ENGINE_VERSION__: JSON.stringify('under test') },
  resolve: { alias: { '~': fileURLToPath(new URL('./app', import.meta.url)) } },
  test: {
    // Left to itself it keeps one processor free, which on two is half of them.
    maxWorkers: availableParallelism(),
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          include: ['tests/unit/**/*.test.ts'],
          environment: 'node',
          testTimeout: 60_000,
          provide: { thorough: false },
        },
      },
      {
        extends: true,
        test: {
          name: 'soak',
          include: ['tests/soak/**/*.test.ts', ...WITH_MORE],
          provide: { thorough: true },
          environment: 'node',
          testTimeout: 3_600_000,
          disableConsoleIntercept: true,
        },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          environment: 'node',
          testTimeout: 60_000,
          provide: { thorough: false },
        },
      },
    ],
  },
})
