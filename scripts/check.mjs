// The quick look before a commit: lint of what changed, all types, and the unit tests that reach what changed.
import { execFileSync, spawn } from 'node:child_process'
import { existsSync } from 'node:fs'

const git = (...args) => execFileSync('git', args, { encoding: 'utf8' }).split('\n').filter(Boolean)
/** Changed since a commit (the last one, if none is named), new files too. */
const base = process.argv[2] ?? 'HEAD'
const changed = [
  ...new Set([...git('diff', '--name-only', base), ...git('ls-files', '--others', '--exclude-standard')]),
].filter((f) => existsSync(f))
const code = changed.filter((f) => /\.(ts|vue|mjs)$/.test(f))
if (!code.length) {
  console.log(`No code changed since ${base}.`)
  process.exit(0)
}

function run(what, ...args) {
  const began = Date.now()
  return new Promise((resolve) => {
    const chunks = []
    const job = spawn('npx', ['--no-install', ...args], { stdio: ['ignore', 'pipe', 'pipe'] })
    for (const stream of [job.stdout, job.stderr]) stream.on('data', (c) => chunks.push(c))
    job.on('close', (status) => {
      console.log(`${status ? 'FAILED' : 'ok'}  ${what}, ${Math.round((Date.now() - began) / 1000)} s`)
      if (status) process.stdout.write(Buffer.concat(chunks))
      resolve(status ?? 1)
    })
  })
}

const results = await Promise.all([
  run('types', 'vue-tsc', '-b', '--noEmit'),
  run(`lint of ${code.length} files`, 'eslint', ...code).then(
    async (lint) =>
      (await run(
        'unit tests that reach them',
        'vitest',
        'related',
        '--run',
        '--project',
        'unit',
        '--passWithNoTests',
        ...code,
      )) || lint,
  ),
])
process.exitCode = results.some(Boolean) ? 1 : 0
