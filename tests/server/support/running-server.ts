import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = new URL('../../..', import.meta.url)

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })
}

/** The built server over a database file of its own, which outlives kills and restarts. */
export class RunningServer {
  readonly folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  readonly database = join(this.folder, 'test.db')
  address = ''
  private port = 0
  private child: ChildProcess | null = null
  /** What it said when it could not start. */
  said = ''

  /** @param env variables that it is started with, besides those of its own */
  constructor(public env: NodeJS.ProcessEnv = {}) {}

  async start(): Promise<void> {
    if (!existsSync(new URL('.output/server/index.mjs', root)))
      throw new Error('Build the application first: npm run build')
    // Started again it is where it was.
    const port = (this.port ||= await freePort())
    this.address = `http://127.0.0.1:${port}`
    this.child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, PORT: String(port), BELLATRAIT_DB: this.database, ...this.env },
      stdio: ['ignore', 'ignore', 'pipe'],
    })
    this.said = ''
    this.child.stderr!.on('data', (chunk: Buffer) => (this.said += chunk.toString()))
    for (let i = 0; i < 100; i++) {
      if (
        await fetch(`${this.address}/api/session`)
          .then((r) => r.ok)
          .catch(() => false)
      )
        return
      if (this.child.exitCode !== null) break
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('The server did not start.')
  }

  get pid(): number {
    return this.child!.pid!
  }

  /** Ends the process at once, as a crash would. */
  kill(): Promise<void> {
    return new Promise((resolve) => {
      if (!this.child || this.child.exitCode !== null) return resolve()
      this.child.once('exit', () => resolve())
      this.child.kill('SIGKILL')
      this.child = null
    })
  }

  async end(): Promise<void> {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }

  /** A request from one of the server's own pages. */
  ask(path: string, init: RequestInit = {}): Promise<Response> {
    return fetch(this.address + path, {
      ...init,
      headers: { origin: this.address, ...(init.headers as Record<string, string>) },
    })
  }

  send(method: string, path: string, body: unknown): Promise<Response> {
    return this.ask(path, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
  }
}

/** The sentence of a refusal. */
export const sentence = async (response: Response): Promise<string> =>
  ((await response.json()) as { data: { message: string } }).data.message
