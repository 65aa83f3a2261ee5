import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { newDrawing } from '#core/model/create'
import type { Edit } from '#core/document/edits'
import { applyEdit, makeEdit, walkOver } from '#core/document/edits'
import { replay } from '#core/document/history'
import type { Drawing, Line } from '#core/model/model'
import type { OpenDrawing } from '#shared/edits'
import { plainLine } from './support/desk'
import { polygon } from './support/paths'

/** A server of one drawing in memory: a journal, pages of history, conflicts; it can be told to go away. */
class MemoryServer {
  journal: Edit[] = []
  away = false
  /** Label of the edits that this server refuses. */
  hates = ''
  page = 200
  constructor(public drawing: Drawing) {}

  write(edit: Edit): void {
    this.drawing = applyEdit(this.drawing, edit)
    this.journal.push(edit)
  }

  private entries = () => this.journal.map((edit, i) => ({ revision: i + 1, madeAt: '', edit, kind: edit.kind }))

  open(): OpenDrawing {
    const { undo, redo } = replay(this.entries())
    return {
      drawing: this.drawing,
      revision: this.journal.length,
      undo: undo.slice(-this.page),
      redo,
      hasOlder: undo.length > this.page,
      recent: this.journal.map((e) => e.id),
    }
  }

  older(before: number) {
    const undo = replay(this.entries()).undo.filter((e) => e.revision < before)
    return { undo: undo.slice(-this.page), hasOlder: undo.length > this.page }
  }

  append(base: number, edits: Edit[]) {
    if (base !== this.journal.length)
      return { conflict: { revision: this.journal.length, missing: this.entries().slice(base) } }
    edits.forEach((e) => this.write(e))
    return { appended: { revision: this.journal.length } }
  }
}

let server: MemoryServer
let kept: Edit[]
/** The browser keeps nothing. */
let closed = false

vi.mock('~/network/outbox', () => ({
  keepEdits: (_id: string, edits: Edit[], gone: string[] = []) => {
    const ids = new Set([...gone, ...edits.map((e) => e.id)])
    return Promise.resolve(void (kept = [...kept.filter((e) => !ids.has(e.id)), ...edits]))
  },
  pendingEdits: () => (closed ? Promise.reject(new Error('no storage')) : Promise.resolve([...kept])),
  forgetEdits: (_id: string, ids: string[]) => Promise.resolve(void (kept = kept.filter((e) => !ids.includes(e.id)))),
}))
vi.mock('~/network/kept-drawings', () => ({
  keepAcknowledged: () => Promise.resolve(),
  keepOpened: () => Promise.resolve(),
}))
vi.mock('~/network/api', async (original) => ({
  ...(await original<object>()),
  openDrawing: () => Promise.resolve({ opened: server.open(), bytes: new Blob() }),
  olderSteps: (_id: string, before: number) => Promise.resolve(server.older(before)),
  appendEdits: async (_id: string, base: number, edits: Edit[]) => {
    if (edits.some((e) => e.label === server.hates))
      throw new (await import('~/network/api')).Refusal(413, 'Too large.')
    if (server.away) throw new (await import('~/network/api')).Refusal(0, 'away')
    return server.append(base, edits)
  },
}))

const { useDrawingStore } = await import('~/stores/drawing')

async function openStore() {
  setActivePinia(createPinia())
  const store = useDrawingStore()
  await store.open('d')
  await store.allSent()
  return store
}

type Store = Awaited<ReturnType<typeof openStore>>
const count = (store: Store): number => store.drawing!.layers[0]!.items.length
const addLine = (store: Store, y = 0): void =>
  store.edit('Add', (d) => void d.layers[0]!.items.push(plainLine({ x: 0, y }, { x: 9, y }) as never))
const rename = (drawing: Drawing, name: string): Edit => makeEdit(drawing, 'Rename', (d) => void (d.name = name))!.edit

beforeEach(() => {
  server = new MemoryServer(newDrawing('Start'))
  kept = []
})

describe('the open drawing', () => {
  it('a change under the hand is one step, or none when it is dropped', async () => {
    const store = await openStore()
    addLine(store)
    for (const size of [7, 8, 9])
      store.change((d) => void ((d.layers[0]!.items[0] as { weight: { size: number } }).weight.size = size))
    expect(store.changing).toBe(true)
    store.finish('Size')
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add', 'Size'])
    store.change((d) => void (d.name = 'Else'))
    store.drop()
    expect(store.drawing!.name).toBe('Start')
    expect(store.history.undo).toHaveLength(2)
    await store.allSent()
    expect(server.drawing).toEqual(store.drawing)
  })

  it('a light that follows edits falls anew when the hand lets go, not on each move', async () => {
    const store = useDrawingStore()
    await store.open('d')
    store.edit(
      'Light',
      (d) => void (d.settings.light = { at: { x: -200, y: 100 }, strength: 1, softness: 0.6, live: true }),
    )
    const ring = (x: number): Line => ({
      ...plainLine({ x, y: 0 }, { x: x + 100, y: 0 }, 6),
      path: polygon(x, 0, x + 100, 0, x + 100, 100, x, 100),
    })
    store.edit(
      'Lay',
      (d) => void (d.layers[0]!.items as Line[]).push({ ...ring(0), id: 'moved' }, { ...ring(300), id: 'other' }),
    )
    const of = (id: string): Line => store.lines.find((l) => l.id === id)!
    const [moved, other] = [of('moved'), of('other')]
    expect(moved.weight.unlit).toBeDefined()
    for (const x of [5, 40, 90]) {
      store.change(
        (d) =>
          void (d.layers[0]!.items as Line[])
            .find((l) => l.id === 'moved')!
            .path.nodes.forEach((n) => void (n.at.y += x)),
      )
      expect(of('other')).toBe(other)
      expect(of('moved').weight).toBe(moved.weight)
    }
    store.finish('Move')
    expect(of('moved').weight).not.toEqual(moved.weight)
    await store.undo()
    expect(of('moved')).toEqual(moved)
  })

  it('a step changes only the line that changed', async () => {
    const store = await openStore()
    addLine(store)
    addLine(store, 5)
    store.change((d) => void ((d.layers[0]!.items[1] as { weight: { size: number } }).weight.size = 3))
    store.finish('Size')
    const [layer] = store.drawing!.layers
    expect(store.history.undo.at(-1)!.patches).toEqual([
      { op: 'replace', path: ['layers', layer!.id, 'items', layer!.items[1]!.id, 'weight', 'size'], value: 3 },
    ])
  })

  it('a value that no drawing may have is not made a step, and says so', async () => {
    const store = await openStore()
    addLine(store)
    for (const size of [Number.NaN, -1, 1e9]) {
      store.edit('Size', (d) => void ((d.layers[0]!.items[0] as Line).weight.size = size))
      store.change((d) => void ((d.layers[0]!.items[0] as Line).weight.size = size))
      store.finish('Size')
    }
    expect(store.notice).toMatch(/"Size" was not done/)
    expect((store.drawing!.layers[0]!.items[0] as Line).weight.size).toBe(10)
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add'])
    await store.allSent()
    expect(server.drawing).toEqual(store.drawing)
  })

  it('undo and redo survive opening again', async () => {
    const first = await openStore()
    addLine(first)
    addLine(first)
    await first.undo()
    await first.allSent()
    const again = await openStore()
    expect(count(again)).toBe(1)
    again.redo()
    expect(count(again)).toBe(2)
    await again.undo()
    await again.undo()
    expect(count(again)).toBe(0)
    expect(again.canUndo).toBe(false)
  })

  it('undo goes back past the page of history that came with the drawing', async () => {
    server.page = 3
    const first = await openStore()
    for (let i = 0; i < 10; i++) addLine(first, i)
    await first.allSent()
    const store = await openStore()
    expect(store.history.undo).toHaveLength(3)
    for (let i = 0; i < 10; i++) {
      expect(store.canUndo).toBe(true)
      await store.undo()
    }
    expect(count(store)).toBe(0)
    expect(store.canUndo).toBe(false)
    for (let i = 0; i < 10; i++) store.redo()
    expect(count(store)).toBe(10)
    await store.allSent()
  })

  it('opens where the browser cannot be asked for unsent steps, and says so', async () => {
    const told = vi.spyOn(console, 'error').mockReturnValue()
    closed = true
    const store = await openStore().finally(() => (closed = false))
    expect(store.drawing).toEqual(server.drawing)
    expect(store.notice).toContain('not sent yet')
    expect(told).toHaveBeenCalledOnce()
    expect((await openStore()).notice).toBe('')
    told.mockRestore()
  })

  it('edits that were kept but are known to the server are not made twice', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    kept = [...server.journal]
    const again = await openStore()
    expect(count(again)).toBe(1)
    await again.allSent()
    expect(kept).toEqual([])
  })
})

describe('when another window was faster', () => {
  it('both changes are kept, undo takes back the right steps', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    server.write(rename(server.drawing, 'Elsewhere'))
    addLine(store, 5)
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing).toMatchObject({ name: 'Elsewhere' })
    expect(count(store)).toBe(2)
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add', 'Rename', 'Add'])
  })

  it('a change of one line stays with that line, whatever became of the others', async () => {
    const store = await openStore()
    for (const y of [0, 5, 9]) addLine(store, y)
    await store.allSent()
    server.write(makeEdit(server.drawing, 'Delete', (d) => void d.layers[0]!.items.shift())!.edit)
    store.edit('Size', (d) => void ((d.layers[0]!.items[1] as Line).weight.size = 3))
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect((store.drawing!.layers[0]!.items as Line[]).map((l) => [l.path.nodes[0]!.at.y, l.weight.size])).toEqual([
      [5, 3],
      [9, 10],
    ])
  })

  it('the size here and the stops there are both kept, and so are two inks', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    const stops = [{ at: 0.5, left: 2, right: 1 }]
    const theirs = makeEdit(server.drawing, 'Stops', (d) => {
      ;(d.layers[0]!.items[0] as Line).weight.stops = stops
      d.inks.push({ id: 'moss', name: 'Moss', colour: '#4a6a3a' })
    })!
    server.write(theirs.edit)
    store.edit('Size', (d) => {
      ;(d.layers[0]!.items[0] as Line).weight.size = 3
      d.inks.push({ id: 'plum', name: 'Plum', colour: '#7a2b58' })
    })
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect((store.drawing!.layers[0]!.items[0] as Line).weight).toMatchObject({ size: 3, stops })
    expect(store.drawing!.inks.map((i) => i.id).sort()).toEqual(['black', 'moss', 'plum'])
    expect(store.notice).toContain('Both changes were kept')
  })

  it('where both changed the same thing, the notice says whose stands', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    server.write(makeEdit(server.drawing, 'Size', (d) => void ((d.layers[0]!.items[0] as Line).weight.size = 20))!.edit)
    store.edit('Heavier', (d) => void ((d.layers[0]!.items[0] as Line).weight.size = 3))
    await store.allSent()
    expect((server.drawing.layers[0]!.items[0] as Line).weight.size).toBe(3)
    expect(store.notice).toContain('the same thing as "Heavier"')
    expect(store.notice).not.toContain('Both changes were kept')
    // Taking it back brings back what the other window made, not what was here before.
    await store.undo()
    await store.allSent()
    expect((server.drawing.layers[0]!.items[0] as Line).weight.size).toBe(20)
  })

  it('a line deleted here and edited there comes back with the edit', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    server.write(makeEdit(server.drawing, 'Size', (d) => void ((d.layers[0]!.items[0] as Line).weight.size = 20))!.edit)
    server.away = true
    store.edit('Delete', (d) => void d.layers[0]!.items.shift())
    await store.undo()
    await store.allSent()
    server.away = false
    addLine(store, 7)
    await vi.waitFor(() => expect(server.drawing).toEqual(store.drawing), { timeout: 3000 })
    expect((server.drawing.layers[0]!.items[0] as Line).weight.size).toBe(20)
  })

  it('steps after one that was left out are still tried', async () => {
    const store = await openStore()
    for (const y of [0, 5]) addLine(store, y)
    await store.allSent()
    server.write(makeEdit(server.drawing, 'Delete', (d) => void d.layers[0]!.items.shift())!.edit)
    store.edit('Lost', (d) => void ((d.layers[0]!.items[0] as Line).weight.size = 3))
    store.edit('Kept', (d) => void ((d.layers[0]!.items[1] as Line).weight.size = 4))
    await store.allSent()
    expect(store.notice).toContain('"Lost" no longer fits')
    expect(store.drawing).toEqual(server.drawing)
    expect((store.drawing!.layers[0]!.items as Line[]).map((l) => l.weight.size)).toEqual([4])
    expect(store.history.undo.at(-1)!.label).toBe('Kept')
  })

  it('an undo of a step that was left out goes with it', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    const gone = server.drawing.layers[0]!.items[0]!.id
    server.write(makeEdit(server.drawing, 'Delete', (d) => void d.layers[0]!.items.shift())!.edit)
    store.edit('Remove', (d) => void d.layers[0]!.items.shift())
    await store.undo()
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing!.layers[0]!.items.map((i) => i.id)).not.toContain(gone)
  })

  it('an undo on its way becomes a step of its own, which can be undone in turn', async () => {
    const store = await openStore()
    addLine(store)
    addLine(store, 5)
    await store.allSent()
    server.write(rename(server.drawing, 'Elsewhere'))
    await store.undo()
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(count(store)).toBe(1)
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add', 'Add', 'Rename', 'Undo Add'])
    for (const [lines, name] of [
      [2, 'Elsewhere'],
      [2, 'Start'],
      [1, 'Start'],
      [0, 'Start'],
    ] as const) {
      await store.undo()
      expect([count(store), store.drawing!.name]).toEqual([lines, name])
    }
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(replay(server.journal).redo.map((e) => e.id)).toEqual(store.history.redo.map((e) => e.id))
  })

  it('an undo that was kept while the server was away is put right on opening', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    server.away = true
    await store.undo()
    await store.allSent()
    store.close()
    server.write(rename(server.drawing, 'Elsewhere'))
    server.away = false
    const again = await openStore()
    await again.allSent()
    expect(again.drawing).toEqual(server.drawing)
    expect(count(again)).toBe(0)
    expect(again.history.undo.map((e) => e.label)).toEqual(['Add', 'Rename', 'Undo Add'])
    expect(kept).toEqual([])
  })

  it('steps that another window found kept and sent already are not made twice', async () => {
    const store = await openStore()
    server.away = true
    addLine(store)
    addLine(store, 5)
    await store.allSent()
    server.write(kept[0]!)
    server.away = false
    addLine(store, 9)
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(count(store)).toBe(3)
    expect(store.notice).toBe('')
    expect(kept).toEqual([])
  })

  it('in the middle of a drag, the drag is let go and nothing else is lost', async () => {
    const store = await openStore()
    server.write(rename(server.drawing, 'Elsewhere'))
    addLine(store)
    store.change((d) => void (d.page.width = 99))
    await store.allSent()
    store.finish('Drag')
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing).toMatchObject({ name: 'Elsewhere' })
    expect(count(store)).toBe(1)
  })

  it('a step that no longer fits is left out with a word', async () => {
    const store = await openStore()
    addLine(store)
    await store.allSent()
    server.write(walkOver(server.journal[0]!, 'undo'))
    store.edit('Size', (d) => void ((d.layers[0]!.items[0] as { weight: { size: number } }).weight.size = 3))
    await store.allSent()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.notice).toContain('"Size" no longer fits')
    expect(kept).toEqual([])
  })
})

describe('when the server refuses a step', () => {
  it('it is taken back with a word, and the others are kept', async () => {
    const store = await openStore()
    server.hates = 'Bad'
    addLine(store)
    store.edit('Bad', (d) => void (d.name = 'Bad name'))
    addLine(store, 5)
    await store.allSent()
    expect(store.notice).toBe('Too large. It was taken back.')
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing!.name).toBe('Start')
    expect(count(store)).toBe(2)
    expect(store.saveState).toBe('saved')
    expect(kept).toEqual([])
  })
})
