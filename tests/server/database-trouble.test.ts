import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
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
})
