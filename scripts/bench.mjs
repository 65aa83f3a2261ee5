// Bundles the benchmarks the way the application is bundled, so that what is timed is what runs, and runs them: all, or
// the parts that are named (npm run bench -- hand), telling what got worse than the docs say.
import { mkdirSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
import { build as bundle } from 'esbuild'
import { build } from './setup.mjs'

await build()
mkdirSync('data/bench', { recursive: true })
await bundle({
  entryPoints: ['bench/run.ts'],
  outfile: 'data/bench/run.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
})
process.exitCode =
  spawnSync(process.execPath, ['data/bench/run.mjs', ...process.argv.slice(2)], { stdio: 'inherit' }).status ?? 1
