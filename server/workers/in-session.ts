import { mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Book } from '#core/recall/book'
import type { InkSession } from '../../core/ink/open-ink'
import { openInk } from '../../core/ink/open-ink'
import type { Drawing } from '#core/model/model'

/** Put in as the server is built: a digest of the core's code; empty while it is developed. */
declare const __ENGINE_VERSION__: string

/** What is kept of one drawing takes so much at most, and all files, bytes. */
const MOST_OF_ONE = 96 * 2 ** 20
const MOST_OF_ALL = 512 * 2 ** 20

/** So much must be new for a file to be written, bytes. */
const LEAST = 16 * 1024

/** So long work goes on before what was made so far is kept, ms: it may be given up before its end. */
const EACH = 1200

/**
 * What `work` makes in a session on a drawing, which finds what was worked out before in a file, and keeps there what it
 * works out: whoever is given up half way goes on from there the next time.
 */
export function inSession<T>(drawing: Drawing, file: string, work: (session: InkSession) => Generator<number, T>): T {
  const book = __ENGINE_VERSION__ ? new Book(__ENGINE_VERSION__) : null
  const known = pageIn(file)
  if (known) book?.read(known)
  const session = openInk(drawing, book)
  const steps = work(session)
  for (let since = performance.now(); ;) {
    const step = steps.next()
    if (step.done) {
      session.keepWholes()
      write(file, book, true)
      return step.value
    }
    if (performance.now() - since < EACH) continue
    write(file, book, false)
    since = performance.now()
  }
}

/** The page in a file, which is used now; null where there is none. */
function pageIn(file: string): Uint8Array | null {
  try {
    const bytes = readFileSync(file)
    utimesSync(file, new Date(), new Date())
    // In a buffer of its own, where numbers begin at multiples of eight.
    return new Uint8Array(bytes)
  } catch {
    return null
  }
}

/** Writes all that is known in place of what was; whatever keeps it from that, it is worked out again another time. */
function write(file: string, book: Book | null, isDone: boolean): void {
  if (!book || book.fresh < LEAST) return
  try {
    const page = isDone ? book.rewritten() : book.everything()
    if (page.length > MOST_OF_ONE) return
    mkdirSync(dirname(file), { recursive: true })
    writeFileSync(`${file}.${process.pid}`, page)
    renameSync(`${file}.${process.pid}`, file)
    if (isDone) giveBack(dirname(file))
  } catch (e) {
    console.error('What was worked out could not be kept:', (e as Error).message)
  }
}

/** Takes away the files that were not used for longest where all take too much. */
function giveBack(folder: string): void {
  const files = readdirSync(folder)
    .map((name) => join(folder, name))
    .map((path) => ({ path, ...statSync(path) }))
    .sort((a, b) => b.mtimeMs - a.mtimeMs)
  let all = 0
  for (const { path, size } of files) if ((all += size) > MOST_OF_ALL) rmSync(path, { force: true })
}
