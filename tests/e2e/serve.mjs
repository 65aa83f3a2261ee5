// The built application over a fresh demo database, for the browser tests.
import { spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

process.env.BELLATRAIT_DB = join(mkdtempSync(join(tmpdir(), 'bellatrait-e2e-')), 'e2e.db')
const { status } = spawnSync('npx', ['--no-install', 'tsx', 'demo/seed.ts'], { stdio: 'inherit' })
if (status !== 0) process.exit(status ?? 1)
await import('../../scripts/start.mjs')
