// What `npm run demo` and `npm test` share: packages, the build, Chromium. Each step runs only when it is needed.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('..', import.meta.url))
export const chromium = '/usr/bin/chromium'

const isWindows = process.platform === 'win32'

/** Runs a command in the project's folder; ends the process with its code when it fails. */
export function run(title, command, args, env = {}) {
  console.log(`\n== ${title}`)
  const started = Date.now()
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    shell: isWindows,
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...env },
  })
  if (status !== 0) {
    console.error(`\n${title} failed (${command} ${args.join(' ')}).`)
    process.exit(status || 1)
  }
  console.log(`== ${title}: done in ${Math.round((Date.now() - started) / 1000)} s`)
}

/** Runs several commands side by side, tells what each said once it is done, and ends the process when one fails. */
export async function runTogether(jobs) {
  console.log(`\n== ${jobs.map(([title]) => title).join(', ')}, side by side`)
  const done = jobs.map(([title, command, args]) => {
    const started = Date.now()
    const said = []
    const job = spawn(command, args, { cwd: root, shell: isWindows, stdio: ['ignore', 'pipe', 'pipe'] })
    for (const stream of [job.stdout, job.stderr]) stream.on('data', (chunk) => said.push(chunk))
    return new Promise((resolve) => {
      job.on('close', (status) => {
        process.stdout.write(Buffer.concat(said))
        console.log(`== ${title}: ${status ? 'failed' : 'done'} in ${Math.round((Date.now() - started) / 1000)} s`)
        resolve(status ?? 1)
      })
    })
  })
  const failed = (await Promise.all(done)).find(Boolean)
  if (failed) process.exit(failed)
}

/** Hash of the names and contents of files below some paths. */
function fingerprint(paths) {
  const hash = createHash('sha256')
  const add = (path) => {
    if (!existsSync(path)) return
    if (statSync(path).isDirectory()) for (const f of readdirSync(path).sort()) add(join(path, f))
    else hash.update(path.slice(root.length)).update(readFileSync(path))
  }
  for (const p of paths) add(join(root, p))
  return hash.digest('hex')
}

/** Runs `work` unless it ran before on the same sources; the mark lies beside what it made. Answers whether it ran. */
async function once(mark, sources, work) {
  const file = join(root, mark)
  const now = fingerprint(sources)
  if (existsSync(file) && readFileSync(file, 'utf8') === now) return false
  await work()
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(file, now)
  return true
}

/** @param beside jobs that need no compiled package: they run while the database driver compiles, or at once */
export async function installPackages(beside = []) {
  const installed = await once('node_modules/.bellatrait', ['package-lock.json'], async () => {
    run('Install packages', 'npm', ['ci', '--ignore-scripts'])
    run('Types of the application', 'npx', ['--no-install', 'nuxt', 'prepare'])
    await runTogether([['Compile the database driver (a few minutes)', 'npm', ['rebuild']], ...beside])
  })
  if (!installed && beside.length) await runTogether(beside)
}

/** @param beside jobs that do not need what is built: they run meanwhile, or at once */
export async function build(beside = []) {
  const sources = ['app', 'core', 'server', 'shared', 'public', 'nuxt.config.ts', 'package-lock.json']
  const isBuilt = await once('.output/.bellatrait', sources, () =>
    runTogether([['Build the application', 'npx', ['--no-install', 'nuxt', 'build']], ...beside]),
  )
  if (!isBuilt && beside.length) await runTogether(beside)
}

/** Debian's Chromium for the browser tests. */
export function installChromium() {
  if (existsSync(chromium)) return
  run('Look up packages', 'apt-get', ['update', '-qq'])
  run('Install Chromium', 'apt-get', ['install', '-y', '-qq', 'chromium'])
}
