import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { newDrawing, newLine } from '#core/model/create'
import type { Edit, EditKind } from '#core/document/edits'
import { makeEdit, walkOver } from '#core/document/edits'
import { mostToLetGo, replay } from '#core/document/history'
import type { Drawing } from '#core/model/model'
import { emptyOldBin } from '../../server/database/bin'
import { OtherJournal } from '../../server/database/journal'
import { readMigrations } from '../../server/database/migration-files'
import type { Store } from '../../server/database/store'
import { openStore } from '../../server/database/store'
import type { DrawingCard, Shelf } from '../../shared/desk'
import { RunningServer, sentence } from './support/running-server'
import { polyline } from '../unit/support/paths'

let folder: string
let store: Store

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  store = openStore(join(folder, 'a.db'), readMigrations('server/database/migrations'))
})

afterEach(() => {
  store.connection.close()
  rmSync(folder, { recursive: true, force: true })
})

const line = () => newLine(polyline(1, 2, 30, 4))

/** Appends an edit; answers the drawing after it. */
function append(id: string, edit: (now: Drawing) => Edit): Drawing {
  const head = store.journal.head(id)!
  store.journal.append(id, { base: head.revision, edits: [edit(head.drawing)] })
  return store.journal.head(id)!.drawing
}

const adds = (now: Drawing): Edit => makeEdit(now, 'Add', (d) => void d.layers[0]!.items.push(line() as never))!.edit
const dated = (id: string, upTo: number, at: string): unknown =>
  store.connection.prepare('UPDATE edits SET made_at = ? WHERE drawing_id = ? AND revision <= ?').run(at, id, upTo)

describe('old steps', () => {
  it('that go leave what is left just as it could be walked before', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom<EditKind>('edit', 'edit', 'undo', 'redo'), { maxLength: 30 }),
        fc.nat(30),
        (kinds, limit) => {
          const journal = kinds.map((kind, i) => ({ kind, i }))
          const n = mostToLetGo(kinds, limit)
          expect(n).toBeLessThanOrEqual(Math.min(limit, kinds.length))
          const [whole, rest] = [replay(journal), replay(journal.slice(n))]
          expect(rest.redo).toEqual(whole.redo)
          expect(rest.undo).toEqual(whole.undo.slice(whole.undo.length - rest.undo.length))
        },
      ),
      { numRuns: 3000 },
    )
  })

  it('go only as far as nothing later walks over them; checkpoints and the drawing stay', () => {
    const drawing = newDrawing('Clover')
    store.journal.create(drawing)
    const states = [store.journal.head(drawing.id)!.drawing]
    for (let i = 0; i < 8; i++) states.push(append(drawing.id, adds))
    store.checkpoints.add(drawing.id, 3, 'Three')
    store.checkpoints.add(drawing.id, 5, 'Five')
    dated(drawing.id, 6, '2026-01-01T00:00:00.000Z')
    expect(store.journal.letGoBefore(drawing.id, '2026-06-01T00:00:00.000Z')).toBe(6)
    expect(store.journal.open(drawing.id)).toMatchObject({ revision: 8, drawing: states[8], hasOlder: false })
    expect(store.journal.open(drawing.id)!.undo).toHaveLength(2)
    expect([3, 5, 6, 7, 8].map((r) => store.journal.at(drawing.id, r))).toEqual([
      states[3],
      states[5],
      states[6],
      states[7],
      states[8],
    ])
    expect([0, 2, 4].map((r) => store.journal.at(drawing.id, r))).toEqual([null, null, null])
    // A window that knows only an older state is told apart, not given a journal with a gap.
    expect(() => store.journal.append(drawing.id, { base: 4, edits: [adds(states[4]!)] })).toThrow(OtherJournal)
    expect(store.journal.letGoBefore(drawing.id, '2026-06-01T00:00:00.000Z')).toBe(0)
    expect(store.journal.letGoBefore('nowhere', '2026-06-01T00:00:00.000Z')).toBeNull()
    // Many edits later the checkpoints' documents are still there, and that from which the journal goes on.
    for (let i = 0; i < 240; i++) append(drawing.id, adds)
    expect([3, 5, 6].map((r) => store.journal.at(drawing.id, r))).toEqual([states[3], states[5], states[6]])
    // An undo back to the first step that is left keeps all of them.
    for (let i = 0; i < 5; i++)
      append(drawing.id, () => walkOver(store.journal.open(drawing.id)!.undo.at(-1)!.edit, 'undo'))
    dated(drawing.id, 1000, '2026-01-01T00:00:00.000Z')
    const before = store.whole.size(drawing.id).history
    expect(store.journal.letGoBefore(drawing.id, '2026-06-01T00:00:00.000Z')).toBe(237)
    expect(store.whole.size(drawing.id).history).toBeLessThan(before / 2)
    expect(store.journal.open(drawing.id)!.redo).toHaveLength(5)
  })
})

describe('the bin', () => {
  it('is emptied of what has lain there for thirty days, with the pictures that nothing else names', () => {
    const sha = 'a'.repeat(64)
    const other = 'b'.repeat(64)
    // Named by a step of the other drawing alone.
    const step = 'c'.repeat(64)
    for (const [i, sha256] of [sha, other, step].entries())
      store.images.insert({ sha256, mediaType: 'image/png', width: 1, height: 1, bytes: Buffer.alloc(3 * i + 2) })
    expect(store.images.totalBytes()).toBe(2 + 5 + 8)
    const sketch = (image: string) => ({
      id: image,
      name: 'S',
      kind: 'sketch' as const,
      visible: true,
      locked: false,
      opacity: 1,
      items: [{ id: 'i', image, x: 0, y: 0, width: 1, height: 1, angle: 0 }],
    })
    const old = newDrawing('Old', {
      layers: [
        sketch(sha),
        { ...sketch(other), items: [{ ...sketch(other).items[0]!, id: 'j' }] },
        { ...sketch(step), items: [{ ...sketch(step).items[0]!, id: 'k' }] },
      ],
    })
    const kept = newDrawing('Kept', { layers: [sketch(other)] })
    store.journal.create(old)
    store.journal.create(kept)
    append(old.id, (now) => makeEdit(now, 'Rename', (d) => void (d.name = 'Older'))!.edit)
    append(
      kept.id,
      (now) =>
        makeEdit(
          now,
          'Bring in a sketch',
          (d) => void d.layers.push({ ...sketch(step), items: [{ ...sketch(step).items[0]!, id: 'm' }] }),
        )!.edit,
    )
    store.journal.drawings.markDeleted(old.id, '2026-10-01T00:00:00.000Z')
    expect(emptyOldBin(store, new Date('2026-10-30T23:59:00Z'))).toBe(0)
    expect(emptyOldBin(store, new Date('2026-10-31T00:01:00Z'))).toBe(1)
    expect(store.whole.ids(true)).toEqual([kept.id])
    expect([sha, other, step].map((s) => store.images.find(s)?.sha256)).toEqual([undefined, other, step])
    expect(store.images.totalBytes()).toBe(5 + 8)
    expect(
      store.connection.prepare('SELECT (SELECT count(*) FROM edits) + (SELECT count(*) FROM snapshots)').pluck().get(),
    ).toBe(2)
  })
})

describe('over the network', () => {
  const server = new RunningServer()
  beforeAll(() => server.start())
  afterAll(() => server.end())
  const answer = async <T>(r: Promise<Response>): Promise<T> => (await (await r).json()) as T
  const cards = (bin = ''): Promise<DrawingCard[]> => answer(server.ask(`/api/drawings${bin}`))
  const create = async (name: string, drawing = newDrawing(name)): Promise<string> =>
    (await answer<{ id: string }>(server.send('POST', '/api/drawings', { drawing }))).id
  const act = (ids: string[], what: string, more = {}): Promise<Response> =>
    server.send('POST', '/api/desk', { ids, act: what, ...more })

  it('drawings lie on shelves, which are named, renamed and taken down', async () => {
    const [a, b] = [await create('A'), await create('B')]
    const shelf = await answer<Shelf>(server.send('POST', '/api/shelves', { name: ' Class 4b ' }))
    expect(shelf.name).toBe('Class 4b')
    const again = await server.send('POST', '/api/shelves', { name: 'class 4B' })
    expect([again.status, await sentence(again)]).toEqual([409, 'There is a shelf "class 4B" already.'])
    expect(await answer(act([a, b, 'nowhere'], 'shelve', { shelf: shelf.id }))).toEqual({ done: 2 })
    expect(
      (await cards())
        .filter((c) => c.shelf === shelf.id)
        .map((c) => c.id)
        .sort(),
    ).toEqual([a, b].sort())
    expect((await act([a], 'shelve', { shelf: 'nowhere' })).status).toBe(404)
    expect((await server.send('PATCH', `/api/shelves/${shelf.id}`, { name: 'Class 5b' })).status).toBe(200)
    expect(await answer<Shelf[]>(server.ask('/api/shelves'))).toEqual([{ id: shelf.id, name: 'Class 5b' }])
    expect((await server.ask(`/api/shelves/${shelf.id}`, { method: 'DELETE' })).status).toBe(200)
    expect((await cards()).filter((c) => c.shelf)).toEqual([])
    expect((await server.send('POST', '/api/shelves', { name: ' ' })).status).toBe(400)
  })

  it('drawings go into the bin, come back, and only from there are thrown away', async () => {
    const [a, b] = [
      await create('C', newDrawing('C', { layers: [{ ...newDrawing('x').layers[0]!, items: [line()] } as never] })),
      await create('D'),
    ]
    const refused = await act([a], 'erase')
    expect([refused.status, await sentence(refused)]).toEqual([
      409,
      'Only drawings in the bin are thrown away. Put this one into the bin first.',
    ])
    await act([a, b], 'bin')
    expect((await cards('?bin=1')).find((c) => c.id === a)?.deletedAt).toMatch(/^2/)
    await act([b], 'restore')
    expect(await answer(act([a], 'erase'))).toEqual({ done: 1 })
    expect((await cards('?bin=1')).some((c) => c.id === a)).toBe(false)
    expect((await act([], 'bin')).status).toBe(400)
    expect((await act([a], 'burn')).status).toBe(400)
  })

  it('are copied with or without their history, and weighed; the card knows the pass and what Proof finds', async () => {
    const id = await create('E')
    const first = await answer<{ drawing: Drawing }>(server.ask(`/api/drawings/${id}`))
    await server.send('POST', `/api/drawings/${id}/edits`, {
      base: 0,
      edits: [{ ...adds(first.drawing), pass: 'lines' }],
    })
    await server.send('POST', `/api/drawings/${id}/checkpoints`, { name: 'One' })
    const open = (of: string): Promise<{ undo: { edit: Edit }[]; drawing: Drawing; revision: number }> =>
      answer(server.ask(`/api/drawings/${of}`))
    const plain = await answer<{ id: string }>(server.send('POST', `/api/drawings/${id}/copy`, { name: 'E copy' }))
    expect(await open(plain.id)).toMatchObject({ undo: [], drawing: { name: 'E copy' } })
    const whole = await answer<{ id: string }>(
      server.send('POST', `/api/drawings/${id}/copy`, { name: 'E again', history: true }),
    )
    expect((await open(whole.id)).undo.map((u) => [u.edit.label, u.edit.pass])).toEqual([
      ['Add', 'lines'],
      ['Rename to E again', undefined],
    ])
    expect(await answer(server.ask(`/api/drawings/${whole.id}/checkpoints`))).toHaveLength(1)
    const branch = await answer<{ id: string }>(
      server.send('POST', `/api/drawings/${id}/copy`, { name: 'E begun', revision: 0 }),
    )
    expect((await open(branch.id)).drawing.layers[0]!.items).toEqual([])
    expect((await server.send('POST', `/api/drawings/${id}/copy`, { name: 'E', revision: 9 })).status).toBe(404)
    expect((await answer<{ bytes: number }>(server.ask(`/api/drawings/${id}/size`))).bytes).toBeGreaterThan(500)
    const { findings } = await answer<{ findings: number }>(server.ask(`/api/drawings/${id}/findings`))
    expect(findings).toBeGreaterThan(0)
    expect((await cards()).find((c) => c.id === id)).toMatchObject({ pass: 'lines', findings, template: false })
    await act([id], 'template')
    expect((await cards()).find((c) => c.id === id)?.template).toBe(true)
  })

  it('a first visit to a pass sets one checkpoint, with a picture', async () => {
    const id = await create(
      'F',
      newDrawing('F', { layers: [{ ...newDrawing('x').layers[0]!, items: [line()] } as never] }),
    )
    const set = (): Promise<{ id: string }> =>
      answer(server.send('POST', `/api/drawings/${id}/checkpoints`, { name: 'Before Weight', pass: 'weight' }))
    const made = await set()
    expect(await set()).toEqual(made)
    expect(await (await server.ask(`/api/drawings/${id}/checkpoints/${made.id}/picture`)).text()).toContain('<path')
    expect((await server.ask(`/api/drawings/${id}/checkpoints/nowhere/picture`)).status).toBe(404)
    expect((await server.send('POST', `/api/drawings/${id}/checkpoints`, { name: 'X', pass: 'lunch' })).status).toBe(
      400,
    )
  })
})
