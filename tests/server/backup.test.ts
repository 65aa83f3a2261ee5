import { createHash } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { newDrawing, newLine, newSketchLayer } from '#core/model/create'
import { applyPatches } from '#core/document/apply-patches'
import { makeEdit, walkOver } from '#core/document/edits'
import type { Drawing, Line, TraceSample } from '#core/model/model'
import { unzipped, zipOf } from '../../core/formats/archive/zip'
import { parseSvg } from '../../core/formats/svg/parse-svg'
import { withWholeTraces } from '#core/document/traces-apart'
import { limits, meddled } from './support/meddled'
import { readBackup } from '../../server/backup/read-backup'
import { restore } from '../../server/backup/restore'
import { backupOf } from '../../server/backup/write-backup'
import { readMigrations } from '../../server/database/migration-files'
import type { Store } from '../../server/database/store'
import { openStore } from '../../server/database/store'
import { handOut } from '../../server/task/hand-out'
import { databaseTrouble } from '../../server/http/database-trouble'
import { RunningServer, sentence } from './support/running-server'
import { polyline } from '../unit/support/paths'

const migrations = readMigrations('server/database/migrations')
let folder: string
let store: Store
const stores: Store[] = []

function fresh(): Store {
  const made = openStore(join(folder, `${stores.length}.db`), migrations)
  stores.push(made)
  return made
}

const items = (d: Drawing): Line[] => d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
const samples: TraceSample[] = [0, 1, 2].map((i) => ({ x: i * 10, y: i * i, t: i * 8, pressure: 0.5 }))

/** A drawing after `count` steps, with a trace, an undo, a checkpoint, a shelf. */
function worked(name: string, count = 60): string {
  const drawing = newDrawing(name)
  store.journal.create(drawing)
  let now = store.journal.head(drawing.id)!.drawing
  for (let i = 0; i < count; i++) {
    const line = newLine(
      polyline(i, 2, 30, i),
      i ? {} : { trace: { samples, device: 'pen', steadiness: 0.2, response: 1 } },
    )
    const made = makeEdit(
      now,
      `Line ${i}`,
      (d) => void d.layers.find((l) => l.kind === 'lines')!.items.push(line as never),
    )!
    expect(
      store.journal.append(drawing.id, { base: i, edits: [{ ...made.edit, pass: i % 2 ? 'weight' : 'lines' }] }),
    ).toEqual({ revision: i + 1 })
    now = store.journal.head(drawing.id)!.drawing
  }
  const { undo } = store.journal.open(drawing.id)!
  store.journal.append(drawing.id, { base: count, edits: [walkOver(undo.at(-1)!.edit, 'undo')] })
  store.checkpoints.add(drawing.id, count, 'Before Weight', 'weight')
  store.journal.drawings.shelve(drawing.id, store.shelves.of('Class 4b').id)
  return drawing.id
}

const backup = (from: Store, ids = from.whole.ids(true)): Uint8Array =>
  Buffer.concat([...backupOf(from, ids, '2026-11-28T10:00:00.000Z')])

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  store = fresh()
})

afterEach(() => {
  for (const s of stores.splice(0)) s.connection.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('a backup', () => {
  it('brought into an empty database gives it back, history and all', async () => {
    const picture = await sharp({ create: { width: 20, height: 10, channels: 3, background: '#ccc' } })
      .png()
      .toBuffer()
    const sha256 = createHash('sha256').update(picture).digest('hex')
    store.images.insert({ sha256, mediaType: 'image/png', width: 20, height: 10, bytes: picture })
    const ids = [worked('Radish bunch'), worked('Pea/pod: ✿', 3)]
    const sketch = newDrawing('Scanned')
    sketch.layers.unshift(newSketchLayer({ id: 's', image: sha256, x: 0, y: 0, width: 20, height: 10, angle: 0 }))
    store.journal.create(sketch)
    store.journal.drawings.markDeleted(ids[1]!, new Date().toISOString())
    store.profiles.replace(store.seats.first(), [
      { id: 'own', name: 'Own', stops: [{ at: 0, left: 1, right: 1 }], start: null, end: null },
    ])
    const hazel = store.seats.add('Hazel', '#2f6f8f')
    const palette = { name: 'Hedge', inks: [{ name: 'Leaf', colour: '#3a5a2a' }] }
    store.belongings.change(hazel.id, {
      choices: { studio: { size: 7.5, tapers: null }, lists: { palettes: true } },
      palettes: { put: [palette], gone: [], order: ['Hedge'] },
    })
    store.journal.drawings.handTo(ids[0]!, hazel.id)
    const task = store.tasks.add('Peas in rows', ids[0]!, true)
    handOut(store, { id: task, name: 'Peas in rows' }, ids[0]!, [hazel.id])
    store.tasks.add('Thrown away', ids[1]!, false)
    const bytes = backup(store)

    const other = fresh()
    expect(restore(other, await readBackup(bytes))).toEqual({
      added: ['Radish bunch', 'Pea/pod: ✿', 'Scanned', 'Peas in rows, Hazel'],
      here: [],
      copied: [],
    })
    for (const id of [...ids, sketch.id]) {
      // Fields of a document have no order.
      const plain = (s: Store): unknown => {
        const whole = s.whole.read(id)!
        return {
          ...whole,
          snapshots: whole.snapshots.map((x) => JSON.parse(x.document) as unknown),
          edits: whole.edits.map((e) => ({ ...e, patches: JSON.parse(e.patches) as unknown })),
        }
      }
      expect(plain(other)).toEqual(plain(store))
    }
    const there = other.seats.list().find((s) => s.name === 'Hazel')!
    expect(there).toMatchObject({ colour: '#2f6f8f', drawings: 2 })
    expect(other.tasks.whole()).toEqual(store.tasks.whole())
    expect(other.tasks.seatsOf(task)).toEqual(new Set([there.id]))
    expect(other.belongings.read(there.id)).toEqual(store.belongings.read(hazel.id))
    expect(other.journal.open(ids[0]!)).toEqual(store.journal.open(ids[0]!))
    expect(other.images.find(sha256)!.bytes.equals(picture)).toBe(true)
    expect(other.profiles.list(other.seats.first())).toEqual(store.profiles.list(store.seats.first()))
    expect(other.traces.find((items(store.journal.head(ids[0]!)!.drawing)[0]!.trace as { of: string }).of)).toEqual(
      samples,
    )
    expect(other.shelves.list().map((s) => s.name)).toEqual(['Class 4b'])
    // The same backup is made of it again.
    expect(Buffer.from(backup(other)).equals(Buffer.from(bytes))).toBe(true)
  })

  it('of a task brings it back beside what is here, and hands out what came in', async () => {
    const template = worked('Seed tray', 3)
    const hazel = store.seats.add('Hazel', '#2f6f8f')
    const task = store.tasks.add('Trays', template, false)
    handOut(store, { id: task, name: 'Trays' }, template, [hazel.id])
    const bytes = backup(store)
    // The template went another way here, and the task was taken down: its copy stands alone.
    const other = fresh()
    restore(other, await readBackup(bytes))
    other.tasks.remove(task)
    const head = other.journal.head(template)!
    const copies = other.journal.drawings.list().filter((c) => c.name === 'Trays, Hazel')
    expect(copies.map((c) => c.task)).toEqual([null])
    other.whole.erase([template])
    other.journal.create({ ...head.drawing, name: 'Seed tray, other' })
    restore(other, await readBackup(bytes))
    const beside = other.journal.drawings.list().find((c) => c.name === 'Seed tray from backup')!
    expect(other.tasks.whole()).toMatchObject([{ id: task, name: 'Trays', template: beside.id, guided: false }])
  })

  it('holds each drawing as an SVG that opens as it is', () => {
    const id = worked('Radish bunch', 4)
    const svg = unzipped(backup(store), limits).get('drawings/001 radish-bunch/drawing.svg')!
    const whole = withWholeTraces(store.journal.head(id)!.drawing, (h) => store.traces.find(h) ?? undefined)
    expect({ ...parseSvg(Buffer.from(svg).toString()).drawing, id }).toEqual(whole)
  })

  it('of a drawing whose old steps were let go gives what is left, with its checkpoints', async () => {
    const id = worked('Radish bunch', 30)
    store.checkpoints.add(id, 4, 'Four')
    store.connection.prepare('UPDATE edits SET made_at = ? WHERE revision <= 20').run('2026-01-01T00:00:00.000Z')
    expect(store.journal.letGoBefore(id, '2026-06-01T00:00:00.000Z')).toBe(20)
    const other = fresh()
    restore(other, await readBackup(backup(store)))
    expect(other.journal.open(id)).toEqual(store.journal.open(id))
    for (const revision of [4, 20, 25]) expect(other.journal.at(id, revision)).toEqual(store.journal.at(id, revision))
    expect(other.journal.at(id, 5)).toBeNull()
    // The step that brought the pen trace is gone: only documents name it.
    expect(other.traces.find((items(other.journal.head(id)!.drawing)[0]!.trace as { of: string }).of)).toEqual(samples)
    expect(other.checkpoints.list(id)).toEqual(store.checkpoints.list(id))
  })

  it('never writes over what is here: the same is left, another comes in beside', async () => {
    const id = worked('Radish bunch', 5)
    const bytes = backup(store)
    expect(restore(store, await readBackup(bytes))).toEqual({ added: [], here: ['Radish bunch'], copied: [] })
    // Gone further here: all of the backup is in it already.
    const head = store.journal.head(id)!
    store.journal.append(id, {
      base: head.revision,
      edits: [makeEdit(head.drawing, 'More', (d) => void (d.name = 'Radish, red'))!.edit],
    })
    expect(restore(store, await readBackup(bytes)).here).toEqual(['Radish bunch'])
    expect(store.journal.head(id)!.drawing.name).toBe('Radish, red')
    // In the bin: it is taken out.
    store.journal.drawings.markDeleted(id, new Date().toISOString())
    restore(store, await readBackup(bytes))
    expect(store.journal.drawings.list().map((c) => c.name)).toEqual(['Radish, red'])

    // On another machine it went another way.
    const other = fresh()
    restore(other, await readBackup(bytes))
    const there = other.journal.head(id)!
    other.journal.append(id, {
      base: there.revision,
      edits: [makeEdit(there.drawing, 'Else', (d) => void (d.layers[0]!.name = 'Else'))!.edit],
    })
    expect(restore(other, await readBackup(backup(store)))).toEqual({ added: [], here: [], copied: ['Radish, red'] })
    expect(other.journal.drawings.names().sort()).toEqual(['Radish bunch', 'Radish, red from backup'])
    const copy = other.journal.drawings.list().find((c) => c.name === 'Radish, red from backup')!
    expect(other.journal.open(copy.id)!.undo).toHaveLength(store.journal.open(id)!.undo.length + 1)
    expect(items(other.journal.head(copy.id)!.drawing)).toEqual(items(store.journal.head(id)!.drawing))
  })

  it('of a drawing that was thrown away here shows what the backup holds, not what was here last', async () => {
    const id = worked('Radish bunch', 2)
    const other = fresh()
    restore(other, await readBackup(backup(store)))
    // From here on the two go different ways, to the same revision.
    for (const [on, name] of [
      [store, 'Here'],
      [other, 'There'],
    ] as const) {
      const head = on.journal.head(id)!
      on.journal.append(id, {
        base: head.revision,
        edits: [makeEdit(head.drawing, name, (d) => void (d.layers[0]!.name = name))!.edit],
      })
    }
    expect(store.journal.head(id)!.drawing.layers[0]!.name).toBe('Here')
    store.journal.drawings.markDeleted(id, new Date().toISOString())
    store.whole.erase([id])
    expect(restore(store, await readBackup(backup(other))).added).toEqual(['Radish bunch'])
    expect(store.journal.head(id)!.drawing).toEqual(other.journal.head(id)!.drawing)
    // Nor is it where another process erased it and brought it back.
    const beside = openStore(join(folder, '0.db'), migrations)
    stores.push(beside)
    expect(beside.journal.head(id)!.drawing.layers[0]!.name).toBe('There')
    const third = fresh()
    restore(third, await readBackup(backup(store)))
    const was = third.journal.open(id)!
    third.journal.append(id, {
      base: was.revision,
      edits: [makeEdit(was.drawing, 'Third', (d) => void (d.layers[0]!.name = 'Third'))!.edit],
    })
    store.journal.append(id, {
      base: was.revision,
      edits: [makeEdit(was.drawing, 'Fourth', (d) => void (d.layers[0]!.name = 'Fourth'))!.edit],
    })
    expect(beside.journal.head(id)!.drawing.layers[0]!.name).toBe('Fourth')
    store.whole.erase([id])
    restore(store, await readBackup(backup(third)))
    expect(beside.journal.head(id)!.drawing.layers[0]!.name).toBe('Third')
  })

  it('that is damaged or made up is refused in a sentence, and nothing is written', async () => {
    worked('Radish bunch', 3)
    const good = backup(store)
    const long = backup(store, [worked('Snail', 60)])
    const about = 'drawings/001 radish-bunch/about.json'
    const history = 'drawings/001 radish-bunch/history.jsonl'
    const text = (files: Map<string, Uint8Array>, path: string, change: (t: string) => string): void =>
      void files.set(path, Buffer.from(change(Buffer.from(files.get(path)!).toString())))
    const cases: [string, Uint8Array, RegExp][] = [
      ['cut short', good.slice(0, good.length / 2), /no zip archive, or it is damaged/],
      ['not a zip', Buffer.from('PK but no zip'), /no zip archive/],
      ['empty', new Uint8Array(), /no zip archive/],
      ['another zip', zipOf([{ path: 'a.txt', bytes: new Uint8Array(3) }]), /no backup of Bellatrait/],
      ['a path that climbs', zipOf([{ path: '../../etc/passwd', bytes: new Uint8Array(3) }]), /leads out of it/],
      ['a path from the root', zipOf([{ path: '/etc/passwd', bytes: new Uint8Array(3) }]), /leads out of it/],
      ['a drive', zipOf([{ path: 'C:\\x', bytes: new Uint8Array(3) }]), /leads out of it/],
      [
        'a newer form',
        meddled(good, (f) => text(f, 'bellatrait.json', (t) => t.replace('"form": 1', '"form": 9'))),
        /newer Bellatrait/,
      ],
      [
        'a changed file',
        meddled(good, (f) => text(f, about, (t) => t.replace('Radish', 'Turnip')), false),
        /not as it was when/,
      ],
      ['a missing file', meddled(good, (f) => void f.delete(about), false), /it is missing/],
      [
        'a foreign date',
        meddled(good, (f) => text(f, about, (t) => t.replace(/"createdAt":"[^"]*"/, '"createdAt":"soon"'))),
        /a date is none/,
      ],
      [
        'a step left out',
        meddled(good, (f) =>
          text(f, 'drawings/001 radish-bunch/history.jsonl', (t) => t.split('\n').slice(1).join('\n')),
        ),
        /step 1 is missing/,
      ],
      [
        'a step that does not fit',
        meddled(good, (f) =>
          text(f, 'drawings/001 radish-bunch/history.jsonl', (t) =>
            t.replace(/"layers","[^"]*"/, '"layers","nowhere"'),
          ),
        ),
        /does not fit/,
      ],
      [
        'a document of another id',
        meddled(good, (f) =>
          text(f, 'drawings/001 radish-bunch/documents/0.json', (t) => t.replace(/"id":"[^"]*"/, '"id":"x"')),
        ),
        /of another drawing/,
      ],
      [
        'a document that is none',
        meddled(good, (f) => text(f, 'drawings/001 radish-bunch/documents/0.json', () => '{"layers":[]}')),
        /damaged/,
      ],
      [
        'a field of objects, spelled otherwise',
        meddled(good, (f) => text(f, about, (t) => t.replace('{', '{"\\u005f_proto__":{},'))),
        /no drawing has/,
      ],
      [
        'a document past the last step',
        meddled(
          good,
          (f) =>
            void f.set(
              'drawings/001 radish-bunch/documents/9.json',
              f.get('drawings/001 radish-bunch/documents/0.json')!,
            ),
        ),
        /comes after the last step, 4/,
      ],
      [
        'a document whose number no database holds',
        meddled(
          good,
          (f) =>
            void f.set(
              `drawings/001 radish-bunch/documents/${'9'.repeat(30)}.json`,
              f.get('drawings/001 radish-bunch/documents/0.json')!,
            ),
        ),
        /no number of a step/,
      ],
      [
        'a number of steps of thirty digits',
        meddled(good, (f) => text(f, about, (t) => t.replace(/"revision":\d+/, `"revision":${'9'.repeat(30)}`))),
        /damaged/,
      ],
      [
        'a document on the way that is another',
        meddled(long, (f) =>
          text(f, 'drawings/001 snail/documents/50.json', (t) => t.replace('"visible":true', '"visible":false')),
        ),
        /the document after "Line 49" is not what the history leads to/,
      ],
      [
        'an inverse that fits nothing',
        meddled(good, (f) =>
          text(f, history, (t) =>
            t.replace(
              /"inverse":\[\{"op":"remove","path":\["layers","[^"]*"/,
              '"inverse":[{"op":"remove","path":["layers","nowhere"',
            ),
          ),
        ),
        /what takes "Line 0" back does not fit/,
      ],
      [
        'a step that leads to no drawing',
        meddled(good, (f) => text(f, history, (t) => t.replace('"size":6', '"size":-6'))),
        /"Line 0" does not fit/,
      ],
      [
        'an edit twice',
        meddled(good, (f) =>
          text(f, history, (t) =>
            t.replace(
              /("id":")[^"]*(","kind":"edit","label":"Line 1")/,
              `$1${/"id":"([^"]*)","kind":"edit","label":"Line 0"/.exec(t)![1]!}$2`,
            ),
          ),
        ),
        /stands in it twice/,
      ],
      [
        'a checkpoint past the head',
        meddled(good, (f) =>
          text(f, about, (t) => t.replace(/"revision":3,"name":"Before/, '"revision":33,"name":"Before')),
        ),
        /past its last step/,
      ],
      [
        'a checkpoint twice',
        meddled(good, (f) =>
          text(f, about, (t) => t.replace(/"checkpoints":\[(\{[^}]*\})\]/, '"checkpoints":[$1,$1]')),
        ),
        /holds a checkpoint twice/,
      ],
      [
        'checkpoints that are none',
        meddled(good, (f) => text(f, about, (t) => t.replace(/"checkpoints":\[[^\]]*\]/, '"checkpoints":{}'))),
        /checkpoints cannot be used/,
      ],
      [
        'a checkpoint that is nothing',
        meddled(good, (f) => text(f, about, (t) => t.replace(/"checkpoints":\[/, '"checkpoints":[null,'))),
        /checkpoints\[0\]/,
      ],
      [
        "a pass's checkpoint twice",
        meddled(good, (f) =>
          text(f, about, (t) => t.replace(/"checkpoints":\[(\{"id":")([^}]*\})\]/, '"checkpoints":[$1$2,$1x$2]')),
        ),
        /holds a pass's checkpoint twice/,
      ],
      [
        'a day that is none',
        meddled(good, (f) =>
          text(f, about, (t) => t.replace(/"updatedAt":"\d{4}-\d\d-\d\d/, '"updatedAt":"2026-13-41')),
        ),
        /a date is none/,
      ],
      [
        'a checkpoint without a name',
        meddled(good, (f) => text(f, about, (t) => t.replace('"name":"Before Weight"', '"name":" "'))),
        /a checkpoint has no name/,
      ],
      [
        'a form before the first',
        meddled(good, (f) => text(f, 'bellatrait.json', (t) => t.replace('"form": 1', '"form": 0'))),
        /it says form 0/,
      ],
      [
        'a file that nobody names',
        meddled(good, (f) => void f.set('more.txt', new Uint8Array(2)), false),
        /was not there when the backup was made/,
      ],
      [
        'a line with a field that no line has',
        meddled(good, (f) => text(f, history, (t) => t.replace('"cover":false', '"cover":false,"shine":true'))),
        /"Line 0" does not fit/,
      ],
      [
        'a field of objects',
        meddled(good, (f) => text(f, about, (t) => t.replace('{', '{"__proto__":{},'))),
        /no drawing has/,
      ],
    ]
    const other = fresh()
    for (const [what, bytes, says] of cases) {
      const why = await readBackup(bytes).then(
        () => 'taken',
        (e: Error) => e.message,
      )
      expect([what, why]).toEqual([what, expect.stringMatching(says)])
    }
    expect(other.whole.ids(true)).toEqual([])
  })

  it('whose undo led elsewhere, as earlier versions wrote it, undoes exactly once it is in', async () => {
    const id = worked('Radish bunch', 3)
    const history = 'drawings/001 radish-bunch/history.jsonl'
    const bytes = meddled(
      backup(store),
      (f) =>
        void f.set(
          history,
          Buffer.from(
            Buffer.from(f.get(history)!)
              .toString()
              .replace(/"inverse":\[[^\]]*\]\}\]/, '"inverse":[]'),
          ),
        ),
    )
    const other = fresh()
    restore(other, await readBackup(bytes))
    const back = other.journal
      .open(id)!
      .undo.reduceRight((now, s) => applyPatches(now, s.edit.inverse), other.journal.head(id)!.drawing)
    expect(back).toStrictEqual(store.journal.at(id, 0))
  })

  it('that says it is small and is a bomb is not unpacked', () => {
    const huge = zipOf([{ path: 'a.bin', bytes: new Uint8Array(40e6) }])
    expect(huge.length).toBeLessThan(60_000)
    expect(() => unzipped(huge, { files: 10, bytes: 100e6 })).toThrow(/packed more tightly/)
    expect(() => unzipped(zipOf([{ path: 'a.bin', bytes: new Uint8Array(3e6) }]), { files: 10, bytes: 2e6 })).toThrow(
      /larger than 2 MB/,
    )
    // One that lies about its size is cut off there, and its hash does not fit.
    const lying = Buffer.from(huge)
    const central = lying.lastIndexOf(Buffer.from([0x50, 0x4b, 1, 2]))
    lying.writeUInt32LE(1000, central + 24)
    expect(unzipped(lying, { files: 10, bytes: 10e6 }).get('a.bin')!.length).toBe(1000)
    const many = zipOf(Array.from({ length: 30 }, (_, i) => ({ path: `f${i}`, bytes: new Uint8Array(1) })))
    expect(() => unzipped(many, { files: 20, bytes: 10e6 })).toThrow(/more than 20 files/)
  })

  it('comes in whole or not at all when the disk is full', async () => {
    for (let i = 0; i < 4; i++) worked(`Radish ${i}`, 40)
    const read = await readBackup(backup(store))
    const other = fresh()
    other.connection.pragma(`max_page_count = ${Number(other.connection.pragma('page_count', { simple: true })) + 20}`)
    let error: unknown
    try {
      restore(other, read)
    } catch (e) {
      error = e
    }
    expect(databaseTrouble(error)?.message).toMatch(/disk of the server is full/)
    expect(other.whole.ids(true)).toEqual([])
    other.connection.pragma('max_page_count = 100000')
    expect(restore(other, read).added).toHaveLength(4)
  })
})

describe('over the network', () => {
  const server = new RunningServer()
  beforeAll(() => server.start())
  afterAll(() => server.end())

  it('a backup is downloaded, of all or of some, and brought in again', async () => {
    const made: string[] = []
    for (const name of ['Clover', 'Bee'])
      made.push(
        ((await (await server.send('POST', '/api/drawings', { drawing: newDrawing(name) })).json()) as { id: string })
          .id,
      )
    const bytes = new Uint8Array(await (await server.ask(`/api/backup?id=${made[1]}`)).arrayBuffer())
    expect([...unzipped(bytes, limits).keys()].filter((p) => p.endsWith('.svg'))).toEqual([
      'drawings/001 bee/drawing.svg',
    ])
    expect(((await (await server.ask('/api/backup?check=1')).json()) as { bytes: number }).bytes).toBeGreaterThan(500)
    const all = await server.ask('/api/backup')
    expect(all.headers.get('content-type')).toBe('application/zip')
    const report = await server.ask('/api/backup', { method: 'POST', body: new Uint8Array(await all.arrayBuffer()) })
    expect(await report.json()).toEqual({ added: [], here: ['Clover', 'Bee'], copied: [] })
    const bad = await server.ask('/api/backup', { method: 'POST', body: 'nonsense' })
    expect([bad.status, await sentence(bad)]).toEqual([
      422,
      'This is no zip archive, or it is damaged. Download or copy it again.',
    ])
  })
})
