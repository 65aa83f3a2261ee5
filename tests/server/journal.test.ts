import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine } from '#core/model/create'
import type { Edit } from '#core/document/edits'
import { applyEdit, makeEdit, walkOver } from '#core/document/edits'
import { keptApart, wholeTrace } from '#core/model/line-trace'
import type { Drawing, KeptTrace, Line, PenTrace } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { openDatabase } from '../../server/database/connection'
import { OtherJournal, UnfitEdit } from '../../server/database/journal'
import { readMigrations } from '../../server/database/migration-files'
import type { Store } from '../../server/database/store'
import { openStore } from '../../server/database/store'
import { polyline } from '../unit/support/paths'

const migrations = readMigrations(fileURLToPath(new URL('../../server/database/migrations', import.meta.url)))
const path = newLine(polyline(1, 2, 30, 4)).path

let folder: string
let store: Store
let drawing: Drawing

const reopen = (): void => {
  store.connection.close()
  store = openStore(join(folder, 'a.db'), migrations)
}

/** Edits that each add a line, and the drawing after them. */
function additions(from: Drawing, count: number): { edits: Edit[]; after: Drawing } {
  let after = from
  const edits: Edit[] = []
  for (let i = 0; i < count; i++) {
    const made = makeEdit(after, `Line ${i}`, (d) => void d.layers[0]!.items.push(newLine(path) as never))!
    after = made.drawing
    edits.push(made.edit)
  }
  return { edits, after }
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  store = openStore(join(folder, 'a.db'), migrations)
  drawing = newDrawing('Clover')
  store.journal.create(drawing)
})

afterEach(() => {
  store.connection.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('the database', () => {
  it('runs each migration once', () => {
    reopen()
    reopen()
    expect(store.connection.prepare('SELECT count(*) AS n FROM migrations').get()).toEqual({ n: migrations.length })
  })

  it('leaves nothing of a migration that fails', () => {
    const bad = [
      ...migrations,
      { name: '9999-bad.sql', sql: 'CREATE TABLE half (x TEXT); CREATE TABLE half (x TEXT);' },
    ]
    const file = join(folder, 'b.db')
    expect(() => openDatabase(file, bad)).toThrow(/already exists/)
    const db = openDatabase(file, migrations)
    expect(db.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'half'").get()).toEqual({ n: 0 })
    db.close()
  })

  it('keeps foreign keys and the write-ahead log on, and has each step on the disk before it says so', () => {
    // 2 is FULL: a power cut loses nothing that was acknowledged.
    expect(store.connection.pragma('synchronous', { simple: true })).toBe(2)
    expect(store.connection.pragma('journal_mode', { simple: true })).toBe('wal')
    expect(store.connection.pragma('foreign_keys', { simple: true })).toBe(1)
  })
})

describe('pen traces', () => {
  const samples = Array.from({ length: 40 }, (_, i) => ({ x: i * 3, y: (i * 7) % 11, t: i * 8, pressure: 0.5 }))
  const drawn = newLine(path, { trace: { samples, device: 'pen', steadiness: 0.4, response: 1 } })
  const traceIn = (d: Drawing): KeptTrace => (d.layers[0]!.items[0] as Line).trace as KeptTrace

  it('come with the edit that names them first, and lie apart', () => {
    const kept = keptApart(drawn.trace as PenTrace)
    const { edit, drawing: after } = makeEdit(
      drawing,
      'Draw',
      (d) => void d.layers[0]!.items.push({ ...drawn, trace: kept.trace } as never),
    )!
    expect(
      store.journal.append(drawing.id, { base: 0, edits: [{ ...edit, traces: { [kept.trace.of]: kept.samples } }] }),
    ).toEqual({ revision: 1 })
    reopen()
    expect(store.journal.head(drawing.id)!.drawing).toEqual(after)
    expect(store.traces.find(kept.trace.of)).toEqual(kept.samples)
    expect(store.journal.open(drawing.id)!.undo[0]!.edit).toEqual(edit)
    expect(store.traces.find('0'.repeat(64))).toBeNull()
  })

  it('that are not what they say are refused, and nothing of the edit is kept', () => {
    const { edit } = makeEdit(drawing, 'Draw', (d) => void (d.name = 'Drawn'))!
    expect(() =>
      store.journal.append(drawing.id, { base: 0, edits: [{ ...edit, traces: { ['a'.repeat(64)]: samples } }] }),
    ).toThrow(UnfitEdit)
    expect(store.journal.head(drawing.id)!.revision).toBe(0)
    expect(store.traces.find('a'.repeat(64))).toBeNull()
  })

  it('that a line brings with it, in an edit or a whole drawing, lie apart as well', () => {
    const { edit } = makeEdit(drawing, 'Draw', (d) => void d.layers[0]!.items.push(drawn as never))!
    store.journal.append(drawing.id, { base: 0, edits: [edit] })
    const whole = newDrawing('Brought in', { layers: [{ ...drawing.layers[0]!, items: [drawn] } as never] })
    store.journal.create(whole)
    const [a, b] = [drawing, whole].map((d) => traceIn(store.journal.head(d.id)!.drawing))
    expect(a!.of).toBe(b!.of)
    expect(wholeTrace(a!, store.traces.find(a!.of)!).samples).toEqual(samples)
  })
})

describe('appending', () => {
  it('answers the new head, and the drawing is there after a restart', () => {
    const { edits, after } = additions(drawing, 3)
    expect(store.journal.append(drawing.id, { base: 0, edits })).toEqual({ revision: 3 })
    reopen()
    expect(store.journal.head(drawing.id)).toEqual({ revision: 3, drawing: after })
    expect(store.journal.drawings.list()[0]).toMatchObject({ name: 'Clover', lineCount: 3, revision: 3 })
  })

  it('from an old head is a conflict that names what is missing', () => {
    const first = additions(drawing, 2)
    store.journal.append(drawing.id, { base: 0, edits: first.edits })
    const other = additions(drawing, 1)
    const answer = store.journal.append(drawing.id, { base: 0, edits: other.edits })
    expect(answer).toMatchObject({ conflict: { revision: 2 } })
    const { conflict } = answer as { conflict: { missing: { edit: Edit }[] } }
    expect(conflict.missing.map((m) => m.edit.id)).toEqual(first.edits.map((e) => e.id))
    expect(store.journal.head(drawing.id)!.revision).toBe(2)
  })

  it('to a journal that was put back to an older copy is told, not saved', () => {
    const { edits } = additions(drawing, 3)
    store.journal.append(drawing.id, { base: 0, edits: edits.slice(0, 2) })
    expect(() => store.journal.append(drawing.id, { base: 7, edits: edits.slice(2) })).toThrow(OtherJournal)
    expect(() => store.journal.append(drawing.id, { base: 2, head: edits[0]!.id, edits: edits.slice(2) })).toThrow(
      OtherJournal,
    )
    expect(store.journal.append(drawing.id, { base: 2, head: edits[1]!.id, edits: edits.slice(2) })).toEqual({
      revision: 3,
    })
  })

  it('an id that the journal has from before the base is named, not written again; one that stands twice is refused', () => {
    const { edits } = additions(drawing, 3)
    store.journal.append(drawing.id, { base: 0, edits: edits.slice(0, 2) })
    expect(store.journal.append(drawing.id, { base: 2, edits: [edits[0]!, edits[2]!] })).toEqual({
      conflict: { revision: 2, missing: [], known: [edits[0]!.id] },
    })
    expect(() => store.journal.append(drawing.id, { base: 2, edits: [edits[2]!, edits[2]!] })).toThrow(UnfitEdit)
    expect(store.journal.head(drawing.id)!.revision).toBe(2)
  })

  it('what JSON cannot hold is refused rather than stored as something else', () => {
    const { edits } = additions(drawing, 1)
    store.journal.append(drawing.id, { base: 0, edits })
    const line = (edits[0]!.patches[0]!.value as { id: string }).id
    const at = ['layers', drawing.layers[0]!.id, 'items', line]
    const edit = (patches: Patch[]): Edit => ({
      id: globalThis.crypto.randomUUID(),
      kind: 'edit',
      label: 'Odd',
      patches,
      inverse: [],
    })
    const wild = polyline(Infinity, 0)
    expect(() =>
      store.journal.append(drawing.id, {
        base: 1,
        edits: [edit([{ op: 'replace', path: [...at, 'path'], value: wild }])],
      }),
    ).toThrow(UnfitEdit)
    // A layer taken away and put back as another kind does not inherit what was in it.
    const layer = drawing.layers[0]!
    store.journal.append(drawing.id, {
      base: 1,
      edits: [
        edit([
          { op: 'replace', path: [...at, 'cover'], value: true },
          { op: 'remove', path: ['layers', layer.id] },
          { op: 'add', path: ['layers', 0], value: { ...layer, kind: 'sketch', items: [] } },
        ]),
      ],
    })
    expect(store.journal.head(drawing.id)!.drawing.layers[0]).toMatchObject({ kind: 'sketch', items: [] })
    reopen()
    expect(store.journal.head(drawing.id)!.drawing.layers[0]).toMatchObject({ kind: 'sketch', items: [] })
  })

  it('the same batch again writes nothing twice', () => {
    const { edits, after } = additions(drawing, 4)
    store.journal.append(drawing.id, { base: 0, edits: edits.slice(0, 2) })
    expect(store.journal.append(drawing.id, { base: 0, edits })).toEqual({ revision: 4 })
    expect(store.journal.append(drawing.id, { base: 0, edits })).toEqual({ revision: 4 })
    expect(store.journal.head(drawing.id)!.drawing).toEqual(after)
  })

  it('an edit that cannot be applied takes the whole batch back', () => {
    const { edits } = additions(drawing, 2)
    const torn: Edit = {
      id: 'torn',
      kind: 'edit',
      label: 'Torn',
      patches: [{ op: 'replace', path: ['layers', 'nowhere', 'name'], value: 'x' }],
      inverse: [],
    }
    expect(() => store.journal.append(drawing.id, { base: 0, edits: [...edits, torn] })).toThrow(UnfitEdit)
    expect(store.journal.head(drawing.id)).toEqual({ revision: 0, drawing })
  })

  it.each<[string, (layer: string, line: string) => Patch]>([
    [
      'a NaN width',
      (layer, line) => ({
        op: 'replace',
        path: ['layers', layer, 'items', line, 'weight'],
        value: { ...evenWeight(4), size: null },
      }),
    ],
    [
      'a negative width',
      (layer, line) => ({ op: 'replace', path: ['layers', layer, 'items', line, 'weight'], value: evenWeight(-2) }),
    ],
    [
      'a path without nodes',
      (layer, line) => ({
        op: 'replace',
        path: ['layers', layer, 'items', line, 'path'],
        value: { nodes: [], closed: false },
      }),
    ],
    ['an opacity of 7', (layer) => ({ op: 'replace', path: ['layers', layer, 'opacity'], value: 7 })],
    ['a name of nothing', () => ({ op: 'replace', path: ['name'], value: '' })],
    [
      'a line that is there already',
      (layer, line) => ({ op: 'add', path: ['layers', layer, 'items', 0], value: { ...newLine(path), id: line } }),
    ],
    ['a line that is none', (layer) => ({ op: 'add', path: ['layers', layer, 'items', 0], value: { id: 'fresh' } })],
    ['another id', () => ({ op: 'replace', path: ['id'], value: 'else' })],
    [
      'another id of a line',
      (layer, line) => ({ op: 'replace', path: ['layers', layer, 'items', line, 'id'], value: 'else' }),
    ],
    ['a prototype', () => ({ op: 'replace', path: ['__proto__', 'polluted'], value: true })],
    [
      'a prototype of a line',
      (layer, line) => ({
        op: 'replace',
        path: ['layers', layer, 'items', line, '__proto__'],
        value: { polluted: true },
      }),
    ],
  ])('%s is refused', (_name, bad) => {
    const { edits, after } = additions(drawing, 1)
    store.journal.append(drawing.id, { base: 0, edits })
    const [layer] = after.layers
    const edit: Edit = {
      id: 'bad',
      kind: 'edit',
      label: 'Bad',
      patches: [bad(layer!.id, layer!.items[0]!.id)],
      inverse: [],
    }
    expect(() => store.journal.append(drawing.id, { base: 1, edits: [edit] })).toThrow(UnfitEdit)
    expect(store.journal.head(drawing.id)!.drawing).toEqual(after)
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined()
  })

  it('to no drawing answers nothing', () => {
    expect(store.journal.append('nobody', { base: 0, edits: additions(drawing, 1).edits })).toBeNull()
  })
})

describe('snapshots and undo', () => {
  it('a long life is read from the last snapshot and the edits after it', () => {
    const { edits, after } = additions(drawing, 137)
    for (const [i, edit] of edits.entries()) store.journal.append(drawing.id, { base: i, edits: [edit] })
    reopen()
    expect(store.journal.head(drawing.id)).toEqual({ revision: 137, drawing: after })
    const rows = store.connection.prepare('SELECT revision FROM snapshots ORDER BY revision').all()
    expect(rows).toEqual([{ revision: 0 }, { revision: 50 }, { revision: 100 }])
  })

  it('undo is one more edit, and next week it still works', () => {
    const { edits, after } = additions(drawing, 2)
    store.journal.append(drawing.id, { base: 0, edits })
    reopen()
    const { undo } = store.journal.open(drawing.id)!
    const back = walkOver(undo.at(-1)!.edit, 'undo')
    expect(store.journal.append(drawing.id, { base: 2, edits: [back] })).toEqual({ revision: 3 })
    expect(store.journal.head(drawing.id)!.drawing).toEqual(applyEdit(after, back))
    expect(store.journal.head(drawing.id)!.drawing.layers[0]!.items).toHaveLength(1)
  })

  it('the history is sent in pages', () => {
    const { edits } = additions(drawing, 230)
    store.journal.append(drawing.id, { base: 0, edits })
    const open = store.journal.open(drawing.id)!
    expect(open.undo).toHaveLength(200)
    expect(open.hasOlder).toBe(true)
    const older = store.journal.older(drawing.id, open.undo[0]!.revision)
    expect(older.undo.map((o) => o.edit.id)).toEqual(edits.slice(0, 30).map((e) => e.id))
    expect(older.hasOlder).toBe(false)
  })

  it('undos that reach past a page still leave the right steps on both sides', () => {
    const { edits } = additions(drawing, 260)
    const undos = edits
      .slice(100)
      .reverse()
      .map((e) => walkOver(e, 'undo'))
    store.journal.append(drawing.id, { base: 0, edits: [...edits, ...undos] })
    const open = store.journal.open(drawing.id)!
    expect(open.drawing.layers[0]!.items).toHaveLength(100)
    expect(open.undo.at(-1)!.edit.id).toBe(edits[99]!.id)
    expect(open.redo.at(-1)!.edit.id).toBe(edits[100]!.id)
    expect(open.redo).toHaveLength(160)
    const again = walkOver(open.redo.at(-1)!.edit, 'redo')
    store.journal.append(drawing.id, { base: 420, edits: [again] })
    expect(store.journal.head(drawing.id)!.drawing.layers[0]!.items).toHaveLength(101)
  })

  it('names the newest edits, so that a resent one is known', () => {
    const { edits } = additions(drawing, 3)
    store.journal.append(drawing.id, { base: 0, edits })
    expect(store.journal.open(drawing.id)!.recent.sort()).toEqual(edits.map((e) => e.id).sort())
  })
})

describe('thumbnails', () => {
  it('are kept for the newest revision alone, also over a restart', () => {
    store.thumbnails.keep(drawing.id, 3, '<svg/>')
    store.thumbnails.keep(drawing.id, 5, '<svg id="five"/>')
    // One that was begun earlier and finished later does not take its place.
    store.thumbnails.keep(drawing.id, 4, '<svg id="four"/>')
    reopen()
    expect([3, 4, 5, 6].map((r) => store.thumbnails.find(drawing.id, r))).toEqual([
      undefined,
      undefined,
      '<svg id="five"/>',
      undefined,
    ])
  })
})

describe('the Desk', () => {
  it('a drawing taken off can be put back', () => {
    const { drawings } = store.journal
    expect(drawings.markDeleted(drawing.id, '2026-01-01')).toBe(true)
    expect(drawings.list()).toEqual([])
    expect(store.journal.head(drawing.id)).toBeNull()
    expect(drawings.markDeleted(drawing.id, null)).toBe(true)
    expect(store.journal.head(drawing.id)!.drawing).toEqual(drawing)
  })
})
