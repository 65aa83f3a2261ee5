import Database from 'better-sqlite3'
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Line } from '#core/model/model'
import { PLAIN_DELIVERY } from '../../core/formats/delivery/settings'
import { zipOf } from '../../core/formats/archive/zip'
import type { OpenDrawing } from '../../shared/edits'
import type { ManyState } from '../../shared/desk'
import { RunningServer, sentence } from './support/running-server'

const server = new RunningServer()
const left = join(tmpdir(), 'bellatrait-delivery-999999-left')
beforeAll(async () => {
  mkdirSync(left, { recursive: true })
  await server.start()
})
afterAll(() => server.end())

/** Many lines of many nodes: so many megabytes of JSON. */
const manyLines = (count: number): Line[] =>
  Array.from({ length: count }, (_, k) =>
    newLine({
      nodes: Array.from({ length: 400 }, (_, i) => ({
        at: { x: i + 0.125, y: ((k * 37 + i) % 500) + 0.5 },
        in: null,
        out: { x: i + 0.625, y: k % 500 },
        joint: 'corner' as const,
      })),
      closed: false,
    }),
  )

/** How many requests, one after the other, are answered before `slow` is. */
async function answeredDuring(slow: Promise<unknown>): Promise<number> {
  let over = false
  void slow.then(
    () => (over = true),
    () => (over = true),
  )
  let count = 0
  while (!over) {
    await server.ask('/api/drawings')
    if (!over) count++
  }
  return count
}

describe('what is heavy', () => {
  let id = ''
  let head: Drawing
  it('holds nobody up while it is saved, opened and backed up', { timeout: 120_000 }, async () => {
    id = (
      (await (
        await server.send('POST', '/api/drawings', {
          drawing: newDrawing('Heavy', { layers: [newLinesLayer('Lines')] }),
        })
      ).json()) as { id: string }
    ).id
    const { drawing } = (await (await server.ask(`/api/drawings/${id}`)).json()) as OpenDrawing
    const made = makeEdit(drawing, 'Very much', (d) => void d.layers[0]!.items.push(...(manyLines(400) as never[])))!
    head = made.drawing
    const saved = server.send('POST', `/api/drawings/${id}/edits`, { base: 0, edits: [made.edit] })
    expect(await answeredDuring(saved)).toBeGreaterThan(5)
    expect(await (await saved).json()).toEqual({ revision: 1 })
    const opened = server.ask(`/api/drawings/${id}`).then((r) => r.json())
    expect(await answeredDuring(opened)).toBeGreaterThan(5)
    expect(((await opened) as OpenDrawing).drawing.layers[0]!.items).toHaveLength(400)
    const backup = server.ask('/api/backup').then((r) => r.arrayBuffer())
    expect(await answeredDuring(backup)).toBeGreaterThan(5)
    // What was saved by the one process is known to the other: a small step on top.
    const small = makeEdit(head, 'Name it', (d) => void (d.name = 'Heavy, named'))!
    expect(
      await (await server.send('POST', `/api/drawings/${id}/edits`, { base: 1, edits: [small.edit] })).json(),
    ).toEqual({ revision: 2 })
    const names = ((await (await server.ask('/api/drawings')).json()) as { name: string }[]).map((d) => d.name)
    expect(names).toContain('Heavy, named')
  })

  it('is refused by what is said of it, before it is unpacked', { timeout: 60_000 }, async () => {
    const zeros = new Uint8Array(40e6)
    const bomb = zipOf([
      { path: 'bellatrait.json', bytes: new TextEncoder().encode('{}') },
      { path: 'a', bytes: zeros },
    ])
    const refused = server.ask('/api/backup', { method: 'POST', body: bomb as Uint8Array<ArrayBuffer> })
    const answer = await refused
    expect([answer.status, await sentence(answer)]).toEqual([422, expect.stringContaining('packed more tightly')])
  })

  it(
    'waits for a database that another program holds without holding up whoever reads',
    { timeout: 60_000 },
    async () => {
      const { id: light } = (await (
        await server.send('POST', '/api/drawings', {
          drawing: newDrawing('Light', {
            layers: [
              newLinesLayer('Lines', [
                newLine({
                  nodes: [20, 90].map((x) => ({ at: { x, y: 30 }, in: null, out: null, joint: 'corner' as const })),
                  closed: false,
                }),
              ]),
            ],
          }),
        })
      ).json()) as { id: string }
      const other = new Database(server.database)
      other.exec('BEGIN IMMEDIATE')
      const save = server.send('POST', '/api/drawings', { drawing: newDrawing('Waits') })
      // A picture that cannot be kept is shown all the same.
      expect((await server.ask(`/api/drawings/${light}/thumbnail`)).status).toBe(200)
      setTimeout(() => other.exec('ROLLBACK'), 1500)
      expect(await answeredDuring(save)).toBeGreaterThan(5)
      expect((await save).status).toBe(201)
      other.close()
    },
  )

  it(
    'no more than two deliveries begin, however many are asked for at once, and nothing is left of those that died',
    { timeout: 60_000 },
    async () => {
      expect(existsSync(left)).toBe(false)
      const all = await Promise.all(
        Array.from({ length: 20 }, () =>
          server.send('POST', '/api/deliveries', { ids: [id, id, id], settings: PLAIN_DELIVERY }),
        ),
      )
      expect(all.map((r) => r.status).sort()).toEqual([202, 202, ...new Array<number>(18).fill(429)])
      for (const r of all)
        if (r.status === 202)
          await server.ask(`/api/deliveries/${((await r.json()) as ManyState).id}`, { method: 'DELETE' })
      expect(readdirSync(tmpdir()).filter((f) => f.startsWith('bellatrait-delivery-999999'))).toEqual([])
    },
  )
})

it('the process for what is heavy ends with its server, also when that dies before it is there', async () => {
  const other = new RunningServer()
  await other.start()
  await other.kill()
  const itsProcesses = (): string[] =>
    readdirSync('/proc').filter((pid) => {
      try {
        return /^\d+$/.test(pid) && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(other.database)
      } catch {
        return false
      }
    })
  await expect.poll(itsProcesses, { timeout: 15_000, interval: 200 }).toEqual([])
  await other.end()
})
