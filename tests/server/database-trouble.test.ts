import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import Database from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing } from '#core/model/create'
import { databaseTrouble } from '../../server/http/database-trouble'
import { RunningServer } from './support/running-server'

/** What an error of a real database file comes out as. */
function told(work: () => unknown): { status: number; message: string } | null {
  try {
    work()
  } catch (e) {
    const trouble = databaseTrouble(e)
    return trouble && { status: trouble.statusCode, message: trouble.message }
  }
  return null
}

describe('a database that cannot be written', () => {
  const folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  const file = join(folder, 'a.db')
  afterAll(() => rmSync(folder, { recursive: true, force: true }))

  it('is full, or read-only: a sentence says so', () => {
    const db = new Database(file)
    db.exec('CREATE TABLE t (a TEXT)')
    db.pragma(`max_page_count = ${String(db.pragma('page_count', { simple: true }))}`)
    const fill = (): unknown => db.prepare('INSERT INTO t VALUES (?)').run('x'.repeat(100_000))
    expect(told(fill)).toMatchObject({
      status: 507,
      message: expect.stringContaining('disk of the server is full') as string,
    })
    db.close()
    const reader = new Database(file, { readonly: true })
    expect(told(() => reader.exec("INSERT INTO t VALUES ('y')"))).toMatchObject({
      status: 503,
      message: expect.stringContaining('may not write') as string,
    })
    reader.close()
    expect(
      told(() => {
        throw new Error('another')
      }),
    ).toBeNull()
  })
})

/** Holds the database for 2 ms at a time, with hardly a pause. */
const HOLDS_AND_LETS_GO = `
  const Database = require('better-sqlite3')
  const db = new Database(require('node:worker_threads').workerData)
  const pause = (ms) => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms)
  for (;;) {
    try {
      db.exec('BEGIN IMMEDIATE')
      pause(2)
      db.exec('COMMIT')
    } catch (e) {
      if (!/^SQLITE_BUSY/.test(e.code)) throw e
    }
    pause(0.3)
  }
`

describe('a database that another program holds', () => {
  const server = new RunningServer()
  beforeAll(() => server.start())
  afterAll(() => server.end())

  it('is told, nothing is lost, and saving goes on once it is let go', { timeout: 60_000 }, async () => {
    const save = (): Promise<Response> =>
      server.ask('/api/drawings', {
        method: 'POST',
        body: JSON.stringify({ drawing: newDrawing('Held') }),
        headers: { 'content-type': 'application/json' },
      })
    const other = new Database(server.database)
    other.exec('BEGIN IMMEDIATE')
    const refused = await save()
    expect(refused.status).toBe(503)
    expect(((await refused.json()) as { message: string }).message).toContain('Another program holds')
    other.exec('ROLLBACK')
    other.close()
    expect((await save()).status).toBe(201)
  })

  it('again and again, between one write and the next: a copy is made once', { timeout: 60_000 }, async () => {
    const headers = { 'content-type': 'application/json' }
    const made = await server.ask('/api/drawings', {
      method: 'POST',
      body: JSON.stringify({ drawing: newDrawing('Once') }),
      headers,
    })
    const { id } = (await made.json()) as { id: string }
    const restless = new Worker(HOLDS_AND_LETS_GO, { eval: true, workerData: server.database })
    const names = Array.from({ length: 40 }, (_, i) => `Once, copy ${i}`)
    try {
      for (const name of names) {
        const body = JSON.stringify({ name, history: false })
        expect((await server.ask(`/api/drawings/${id}/copy`, { method: 'POST', body, headers })).status).toBe(201)
      }
    } finally {
      await restless.terminate()
    }
    const desk = (await (await server.ask('/api/drawings')).json()) as { name: string }[]
    expect(
      desk
        .map((d) => d.name)
        .filter((n) => n.startsWith('Once, copy'))
        .sort(),
    ).toEqual(names.sort())
  })
})
