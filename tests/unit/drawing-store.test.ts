import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { newDrawing } from '#core/drawing/create'
import type { Edit } from '#core/drawing/edits'
import { applyEdit, makeEdit, walkOver } from '#core/drawing/edits'
import { replay } from '#core/drawing/history'
import type { Drawing } from '#core/drawing/model'
import type { OpenDrawing } from '#agreed/api'
import { plainLine } from './support/desk'

/** A server of one drawing in memory: a journal, pages of history, conflicts; it can be told to go away. */
class MemoryServer {
  journal: Edit[] = []
  away = false
  page = 200
  constructor(public drawing: Drawing) {}

  write(edit: Edit): void {
    this.drawing = applyEdit(this.drawing, edit)
    this.journal.push(edit)
  }

  private entries = () => this.journal.map((edit, i) => ({ revision: i + 1, madeAt: '', edit, kind: edit.kind }))

  open(): OpenDrawing {
    const { undo, redo } = replay(this.entries())
    return { drawing: this.drawing, revision: this.journal.length, undo: undo.slice(-this.page), redo, hasOlder: undo.length > this.page, recent: this.journal.map((e) => e.id) }
  }

  older(before: number) {
    const undo = replay(this.entries()).undo.filter((e) => e.revision < before)
    return { undo: undo.slice(-this.page), hasOlder: undo.length > this.page }
  }

  append(base: number, edits: Edit[]) {
    if (base !== this.journal.length) return { conflict: { revision: this.journal.length, missing: this.entries().slice(base) } }
    edits.forEach((e) => this.write(e))
    return { appended: { revision: this.journal.length } }
  }
}

let server: MemoryServer
let kept: Edit[]

vi.mock('~/network/outbox', () => ({
  keepEdit: (_id: string, edit: Edit) => Promise.resolve(void kept.push(edit)),
  pendingEdits: () => Promise.resolve([...kept]),
  forgetEdits: (_id: string, ids: Set<string>) => Promise.resolve(void (kept = kept.filter((e) => !ids.has(e.id)))),
}))
vi.mock('~/network/api', async (original) => ({
  ...(await original<object>()),
  openDrawing: () => Promise.resolve(server.open()),
  olderSteps: (_id: string, before: number) => Promise.resolve(server.older(before)),
  appendEdits: async (_id: string, base: number, edits: Edit[]) => {
    if (server.away) throw new (await import('~/network/api')).Refusal(0, 'away')
    return server.append(base, edits)
  },
}))

const { useDrawingStore } = await import('~/stores/drawing')

async function openStore() {
  setActivePinia(createPinia())
  const store = useDrawingStore()
  await store.open('d')
  await store.settled()
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
    for (const size of [7, 8, 9]) store.change((d) => void ((d.layers[0]!.items[0] as { weight: { size: number } }).weight.size = size))
    expect(store.changing).toBe(true)
    store.finish('Size')
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add', 'Size'])
    store.change((d) => void (d.name = 'Else'))
    store.drop()
    expect(store.drawing!.name).toBe('Start')
    expect(store.history.undo).toHaveLength(2)
    await store.settled()
    expect(server.drawing).toEqual(store.drawing)
  })

  it('a step changes only the line that changed', async () => {
    const store = await openStore()
    addLine(store)
    addLine(store, 5)
    store.change((d) => void ((d.layers[0]!.items[1] as { weight: { size: number } }).weight.size = 3))
    store.finish('Size')
    expect(store.history.undo.at(-1)!.patches.map((p) => p.path.slice(0, 4))).toEqual([['layers', 0, 'items', 1]])
  })

  it('undo and redo survive opening again', async () => {
    const first = await openStore()
    addLine(first)
    addLine(first)
    await first.undo()
    await first.settled()
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
    await first.settled()
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
  })

  it('edits that were kept but are known to the server are not made twice', async () => {
    const store = await openStore()
    addLine(store)
    await store.settled()
    kept = [...server.journal]
    const again = await openStore()
    expect(count(again)).toBe(1)
    expect(kept).toEqual([])
  })
})

describe('when another window was faster', () => {
  it('both changes are kept, undo takes back the right steps', async () => {
    const store = await openStore()
    addLine(store)
    await store.settled()
    server.write(rename(server.drawing, 'Elsewhere'))
    addLine(store, 5)
    await store.settled()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing).toMatchObject({ name: 'Elsewhere' })
    expect(count(store)).toBe(2)
    expect(store.history.undo.map((e) => e.label)).toEqual(['Add', 'Rename', 'Add'])
  })

  it('an undo on its way stays an undo', async () => {
    const store = await openStore()
    addLine(store)
    addLine(store, 5)
    await store.settled()
    server.write(rename(server.drawing, 'Elsewhere'))
    await store.undo()
    await store.settled()
    expect(store.drawing).toEqual(server.drawing)
    expect(replay(server.journal).undo.map((e) => e.id)).toEqual(store.history.undo.map((e) => e.id))
  })

  it('in the middle of a drag, the drag is let go and nothing else is lost', async () => {
    const store = await openStore()
    server.write(rename(server.drawing, 'Elsewhere'))
    addLine(store)
    store.change((d) => void (d.page.width = 99))
    await store.settled()
    store.finish('Drag')
    await store.settled()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.drawing).toMatchObject({ name: 'Elsewhere' })
    expect(count(store)).toBe(1)
  })

  it('a step that no longer fits is left out with a word', async () => {
    const store = await openStore()
    addLine(store)
    await store.settled()
    server.write(walkOver(server.journal[0]!, 'undo'))
    store.edit('Size', (d) => void ((d.layers[0]!.items[0] as { weight: { size: number } }).weight.size = 3))
    await store.settled()
    expect(store.drawing).toEqual(server.drawing)
    expect(store.notice).toContain('"Size" no longer fits')
    expect(kept).toEqual([])
  })
})
