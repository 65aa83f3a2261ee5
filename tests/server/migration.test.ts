import { copyFileSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { expect, it } from 'vitest'
import { applyEdit } from '#core/document/edits'
import { hashOfSamples, wholeTrace } from '#core/model/line-trace'
import type { Drawing, KeptTrace, Line } from '#core/model/model'
import { shapesOf } from '../../core/ink/shapes-of'
import { readMigrations } from '../../server/database/migration-files'
import { openStore } from '../../server/database/store'

/** Written by the version before the fifth migration: strokes drawn, moved, flipped, retouched, undone. */
const FIXTURE = 'tests/server/fixtures/before-0005.db'
const ID = 'before-0005'
const items = (d: Drawing): Line[] => d.layers[0]!.items as Line[]

function opened(from = FIXTURE) {
  const file = join(mkdtempSync(join(tmpdir(), 'bellatrait-migration-')), 'old.db')
  copyFileSync(from, file)
  return openStore(file, readMigrations('server/database/migrations'))
}

it('a drawing of the version before opens as it was, with its shapes, traces and retouches', () => {
  const { journal, traces, connection, seats } = opened()
  const { drawing, revision } = journal.open(ID)!
  // Since the sixth: the pass that it reached, no shelf, a journal that is whole.
  expect(journal.drawings.list().find((c) => c.id === ID)).toMatchObject({
    pass: 'shapes',
    shelf: null,
    template: false,
    findings: null,
    deletedAt: null,
    // Since the eighth: whoever drew before there were seats has the first.
    seat: seats.first(),
    task: null,
  })
  expect(journal.drawings.find(ID)!.firstRevision).toBe(0)
  expect(revision).toBe(10)
  // What that version made of it, to the last digit; how far that lies from the ink is measured at other places now.
  const { shapes, nodesAfter, deviation, waiting } = shapesOf(drawing)
  expect({ nodesAfter, waiting }).toEqual({ nodesAfter: 15, waiting: 3 })
  expect(Math.abs(deviation - 0.34316)).toBeLessThan(0.003)
  expect(shapes[0]!.contours[0]!.nodes[0]!.at).toEqual({ x: 38.85629000650657, y: 182.55198569061136 })
  expect(drawing.amendments!.map((a) => [a.kind, a.kind === 'retouch' && a.at])).toEqual([
    ['retouch', { x: 60, y: 60 }],
    ['retouch', { x: 80, y: 90 }],
    ['retouch', { x: 60, y: 60 }],
  ])
  expect(new Set(drawing.amendments!.map((a) => a.id)).size).toBe(3)
  const tables = connection
    .prepare(
      'SELECT group_concat(patches || inverse) FROM edits UNION ALL SELECT group_concat(document) FROM snapshots',
    )
    .pluck()
    .all()
    .join('')
  expect(tables).not.toContain('"samples"')
  for (const line of items(drawing)) {
    const trace = line.trace as KeptTrace
    const samples = traces.find(trace.of)!
    expect(hashOfSamples(samples)).toBe(trace.of)
    const [first] = wholeTrace(trace, samples).samples
    expect(Math.hypot(first!.x - line.path.nodes[0]!.at.x, first!.y - line.path.nodes[0]!.at.y)).toBeLessThan(0.01)
  }
})

it('its steps can all be taken back and brought again', () => {
  const { journal } = opened()
  const { drawing, undo } = journal.open(ID)!
  expect(undo.map((s) => s.edit.label)).toEqual([
    'Draw freehand',
    'Move',
    'Flip',
    'Simplify 0.4 px',
    'Retouch',
    'Retouch',
    'Steadiness',
    'Take it out',
  ])
  const states = [drawing]
  for (const { edit } of [...undo].reverse()) states.push(applyEdit(states.at(-1)!, { patches: edit.inverse }))
  expect(
    states.map((d) => [items(d).length, d.amendments?.length ?? 0, +(d.settings.shapes.simplify / 2).toFixed(6)]),
  ).toEqual([
    [2, 3, 0.4],
    [3, 3, 0.4],
    [3, 3, 0.4],
    [3, 1, 0.4],
    [3, 0, 0.4],
    [3, 0, 0.15],
    [3, 0, 0.15],
    [3, 0, 0.15],
    [2, 0, 0.15],
  ])
  let again = states.at(-1)!
  for (const { edit } of undo) again = applyEdit(again, edit)
  expect(again).toEqual(drawing)
})

/** Written by the version before the sixth migration. */
it('drawings of the version before the Desk had shelves lie on it with the pass that they reached, history and checkpoints as they were', () => {
  const { journal, checkpoints, shelves } = opened('tests/server/fixtures/before-0006.db')
  expect(
    Object.fromEntries(journal.drawings.list().map((c) => [c.id, [c.pass, c.shelf, c.template, c.findings]])),
  ).toEqual({
    sketch: ['sketch', null, false, null],
    lines: ['lines', null, false, null],
    weight: ['weight', null, false, null],
    fill: ['fill', null, false, null],
  })
  expect(journal.drawings.list('in the bin').map((c) => [c.id, c.deletedAt])).toEqual([
    ['gone', '2026-11-01T10:00:00.000Z'],
  ])
  const { drawing, undo, redo, revision } = journal.open('lines')!
  expect([revision, items(drawing).length, undo.length, redo.length, undo[0]!.edit.pass]).toEqual([
    4,
    2,
    2,
    1,
    undefined,
  ])
  expect(checkpoints.list('lines')).toMatchObject([{ name: 'Two lines', revision: 2, pass: null }])
  expect(items(journal.at('lines', 3)!)).toHaveLength(3)
  expect(shelves.list()).toEqual([])
})

it('a database that a newer version used, or that is no Desk, is refused and not written to', () => {
  const file = join(mkdtempSync(join(tmpdir(), 'bellatrait-migration-')), 'other.db')
  const migrations = readMigrations('server/database/migrations')
  for (const [sql, why] of [
    [
      "CREATE TABLE migrations (name TEXT PRIMARY KEY, applied_at TEXT NOT NULL); INSERT INTO migrations VALUES ('9999-later.sql', 'x')",
      'newer Bellatrait',
    ],
    ['DROP TABLE migrations; CREATE TABLE recipes (name TEXT)', 'something else'],
  ] as const) {
    const db = new Database(file)
    db.exec(sql)
    db.close()
    const before = readFileSync(file)
    expect(() => openStore(file, migrations)).toThrow(why)
    expect(readFileSync(file).equals(before)).toBe(true)
  }
})
