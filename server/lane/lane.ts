import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { request } from 'node:http'
import type { IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { H3Event } from 'h3'
import { sendStream, setResponseHeader, setResponseStatus } from 'h3'
import { refuse } from '../http/refuse'

/** Set in the process that is the lane. */
const MARK = 'BELLATRAIT_LANE'

/** Longest time for the lane to be there, ms. */
const LONGEST_START = 15_000

/** Whether this process is the lane for heavy requests itself. */
export const isLane = (): boolean => process.env[MARK] === '1'

/** Where the built server is, for a second process of it; null where that is not known, as while it is developed. */
function entry(): string | null {
  const [, started = ''] = process.argv
  return process.env.BELLATRAIT_SERVER ?? (/[\\/]server[\\/]index\.mjs$/.test(started) ? started : null)
}

/** A second process of this server on the same database, reached through a socket: what is heavy holds up nobody there. */
class Lane {
  private readonly folder = mkdtempSync(join(tmpdir(), 'bellatrait-lane-'))
  readonly socket = join(this.folder, 'socket')
  readonly ready: Promise<void>
  private readonly child: ChildProcess

  constructor(server: string, gone: () => void) {
    const env = { ...process.env }
    delete env.PORT
    delete env.NITRO_PORT
    // It ends with this process, however that ends: its end of the channel tells it.
    this.child = spawn(process.execPath, [server], {
      env: { ...env, NITRO_UNIX_SOCKET: this.socket, [MARK]: '1' },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    this.ready = new Promise((resolve, reject) => {
      const timer = setTimeout(() => reject(new Error('The lane for heavy requests did not start.')), LONGEST_START)
      this.child.once('message', () => resolve())
      this.child.once('exit', (code) => reject(new Error(`The lane for heavy requests ended with ${code}.`)))
      void this.child.once('exit', () => clearTimeout(timer))
      this.child.once('message', () => clearTimeout(timer))
    })
    this.ready.catch((e: unknown) => console.error(e))
    this.child.once('exit', () => {
      rmSync(this.folder, { recursive: true, force: true })
      gone()
    })
    this.child.unref()
    this.child.channel?.unref()
  }

  end(): void {
    this.child.kill()
  }
}

/** Whether heavy requests go to another process than this one. */
export const hasLane = (): boolean => !isLane() && entry() !== null

let lane: Lane | null = null

/** The lane, started where there is none; null where there can be none. */
export function laneAtHand(): Lane | null {
  const server = isLane() ? null : entry()
  if (!server) return null
  return (lane ??= new Lane(server, () => (lane = null)))
}

export const endLane = (): void => lane?.end()

/** In the lane: says that requests can come. */
export function beLane(): void {
  process.send?.('ready')
}

/** Ends this process, the lane, with the one that started it, which may be gone already. */
export function endWithParent(): void {
  if (!process.connected) process.exit(0)
  process.once('disconnect', () => process.exit(0))
}

/** Lets the lane answer a request. */
export async function answeredBy({ ready, socket }: Lane, event: H3Event): Promise<void> {
  await ready.catch(() => {
    throw refuse(503, 'The server could not take this up. Start it again.')
  })
  const answer = await asked(socket, event)
  setResponseStatus(event, answer.statusCode, answer.statusMessage)
  for (const [name, value] of Object.entries(answer.headers))
    if (value !== undefined && name !== 'connection' && name !== 'transfer-encoding')
      setResponseHeader(event, name as 'etag', value as string)
  return sendStream(event, answer)
}

function asked(socketPath: string, { node: { req, res } }: H3Event): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const up = request({ socketPath, method: req.method, path: req.url, headers: req.headers }, resolve)
    up.once('error', (e) =>
      reject(
        res.destroyed
          ? e
          : refuse(
              503,
              'This took more memory than the server has, or it was stopped. Nothing was changed. Make it smaller, or try again.',
            ),
      ),
    )
    // Whoever asked went away: so can the work.
    res.once('close', () => up.destroy())
    req.pipe(up)
  })
}
