import 'fake-indexeddb/auto'
import { fileURLToPath } from 'node:url'
import { createPinia, setActivePinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import type { Edit } from '#core/document/edits'
import { newDrawing, newLine } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { OpenDrawing } from '../../shared/edits'
import { openDatabase } from '../../server/database/connection'
import { readMigrations } from '../../server/database/migration-files'
import { Journal } from '../../server/database/journal'
import { keptDrawing } from '../../app/network/kept-drawings'
import { pendingEdits } from '../../app/network/outbox'
import { seeded } from '../unit/support/random-lines'
import { polyline } from '../unit/support/paths'
import { few } from '../unit/support/thorough'

const migrations = readMigrations(fileURLToPath(new URL('../../server/database/migrations', import.meta.url)))
const journal = new Journal(openDatabase(':memory:', migrations))

let r: () => number = Math.random
let away = false
const pause = (): Promise<void> => new Promise((done) => setTimeout(done, r() < 0.4 ? 0 : r() * 4))

/** The server as the network shows it: answers come late, some get lost on the way there or back. */
vi.mock('~/network/api', async (original) => {
  const { Refusal } = await original<typeof import('../../app/network/api')>()
  const lost = (): void => {
    if (away || r() < 0.06) throw new Refusal(0, 'away')
  }
  return {
    ...(await original<object>()),
    openDrawing: async (id: string) => {
      await pause()
      const text = JSON.stringify(journal.open(id))
      return { opened: JSON.parse(text) as unknown, bytes: new Blob([text]) }
    },
    appendEdits: async (id: string, base: number, edits: Edit[], head: string | null) => {
      await pause()
      lost()
      let result
      try {
        result = journal.append(id, JSON.parse(JSON.stringify({ base, edits, head })) as never)!
      } catch (e) {
        throw new Refusal((e as Error).name === 'SqliteError' ? 500 : 422, (e as Error).message)
      }
      await pause()
      lost()
      return 'conflict' in result ? { conflict: result.conflict } : { appended: result }
    },
  }
})

const { useDrawingStore } = await import('~/stores/drawing')
type Window = ReturnType<typeof useDrawingStore>

async function openWindow(id: string): Promise<Window> {
  setActivePinia(createPinia())
  const window = useDrawingStore()
  await window.open(id)
  return window
}

/** What a hand may do in a window, at random. */
function act(window: Window): void {
  const layer = window.drawing!.layers[0]!
  const n = layer.items.length
  const i = Math.floor(r() * n)
  const kind = Math.floor(r() * 7)
  if (kind === 0 || n === 0)
    window.edit('Add', (d) => void d.layers[0]!.items.push(newLine(polyline(r() * 99, 3)) as never))
  else if (kind === 1) window.edit('Delete', (d) => void d.layers[0]!.items.splice(i, 1))
  else if (kind === 2)
    window.edit('Size', (d) => void ((d.layers[0]!.items[i] as Line).weight.size = 1 + Math.floor(r() * 40)))
  else if (kind === 3)
    window.edit('Stops', (d) => void ((d.layers[0]!.items[i] as Line).weight.stops = [{ at: 0, left: r(), right: 1 }]))
  else if (kind === 4)
    window.edit('Ink', (d) => void d.inks.push({ id: `ink-${r()}`, name: 'Moss', colour: '#4a6a3a' }))
  else if (kind === 5) void window.undo()
  else window.redo()
}

async function run(seed: number): Promise<void> {
  r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const drawing = newDrawing(`Run ${seed}`)
  journal.create(drawing)
  const windows = await Promise.all([0, 1, 2].map(() => openWindow(drawing.id)))
  for (let step = 0; step < 40; step++) {
    const k = Math.floor(r() * 3)
    if (r() < 0.04) away = !away
    if (r() < 0.05) {
      windows[k]!.close()
      windows[k] = await openWindow(drawing.id)
    } else act(windows[k]!)
    if (r() < 0.6) await pause()
  }
  away = false
  // However it went, every window comes to rest: nothing is kept, and the next edit of each is saved.
  for (let round = 0; round < 400; round++) {
    for (const w of windows) await w.allSent()
    if (windows.every((w) => w.saveState === 'saved')) break
    await vi.advanceTimersByTimeAsync(400)
  }
  // What a window that was closed in the middle of it left behind is known to the server, or sent by the next that opens.
  // It may still be writing it down when the next one looks; then the one after that takes it up.
  for (let next = 0; next < 3 && (next === 0 || (await pendingEdits(drawing.id)).length); next++) {
    const fresh = await openWindow(drawing.id)
    for (let i = 0; i < 100 && (await fresh.allSent(), fresh.saveState !== 'saved'); i++)
      await vi.advanceTimersByTimeAsync(400)
    windows.push(fresh)
  }
  expect(await pendingEdits(drawing.id), `run ${seed}`).toEqual([])
  const server = JSON.parse(JSON.stringify(journal.head(drawing.id)!.drawing)) as Drawing
  for (const w of windows) {
    expect(w.saveState, `run ${seed}`).toBe('saved')
    // A window that was behind catches up with its next edit.
    w.edit('Last', (d) => void (d.name += '.'))
    for (let i = 0; i < 100 && (await w.allSent(), w.saveState !== 'saved'); i++) await vi.advanceTimersByTimeAsync(400)
    expect(JSON.parse(JSON.stringify(w.drawing)), `run ${seed}`).toEqual(
      JSON.parse(JSON.stringify(journal.head(drawing.id)!.drawing)),
    )
  }
  // What this browser would open without the server is what the server has, whichever windows heard of what.
  const head = JSON.parse(JSON.stringify(journal.open(drawing.id)!)) as OpenDrawing
  const here = JSON.parse(JSON.stringify(await keptDrawing(drawing.id))) as OpenDrawing
  expect(here.drawing, `run ${seed}`).toEqual(head.drawing)
  expect([here.revision, here.recent[0]]).toEqual([head.revision, head.recent[0]])
  expect(here.undo.map((e) => e.edit.id).slice(-20)).toEqual(head.undo.map((e) => e.edit.id).slice(-20))
  for (const ink of new Set(server.layers.flatMap((l) => (l.kind === 'lines' ? l.items.map((i) => i.ink) : []))))
    expect(server.inks.some((i) => i.id === ink)).toBe(true)
  // What is stored leads to what is there.
  let replayed: Drawing = drawing
  const { undo } = journal.open(drawing.id)!
  expect(undo.length).toBeGreaterThan(0)
  for (let revision = 1; ; revision++) {
    const at = journal.at(drawing.id, revision)
    if (!at) break
    replayed = at
  }
  expect(replayed).toEqual(journal.head(drawing.id)!.drawing)
  windows.forEach((w) => w.close())
}

describe('three windows on one drawing, over a network that loses answers', () => {
  for (let first = 1; first <= few(100, 400); first += 50) {
    it(`end alike and lose nothing, runs ${first} to ${first + 49}`, { timeout: 240_000 }, async () => {
      vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 1, toFake: ['setTimeout', 'clearTimeout'] })
      try {
        for (let seed = first; seed < first + 50; seed++) await run(seed)
      } finally {
        vi.useRealTimers()
      }
    })
  }
})
