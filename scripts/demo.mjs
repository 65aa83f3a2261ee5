// One command from a fresh clone to the application with its demo drawings.
import { createServer } from 'node:net'
import { join } from 'node:path'
import { build, installPackages, root, run } from './setup.mjs'

const FIRST_PORT = Number(process.env.PORT ?? 4310)

/** The first free port from `port` on. */
function freePort(port) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(freePort(port + 1)))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(port)))
  })
}

await installPackages()
await build()
process.env.BELLATRAIT_DB ??= join(root, 'data', 'demo.db')
run('Draw the demo', 'npx', ['--no-install', 'tsx', 'demo/seed.ts'])

const port = await freePort(FIRST_PORT)
process.env.PORT = String(port)
await import('./start.mjs')
console.log(`\nBellatrait is ready: http://127.0.0.1:${port}\nStop it with Ctrl+C.`)
