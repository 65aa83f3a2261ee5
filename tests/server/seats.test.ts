import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing, newSketchLayer } from '#core/model/create'
import type { Drawing } from '#core/model/model'
import { unzipped, zipped } from '../../core/formats/archive/zip'
import type { Belongings } from '../../core/formats/studio/belongings'
import type { NamedNib } from '../../core/weight/nibs'
import { NIBS } from '../../core/weight/nibs'
import type { DrawingCard } from '../../shared/desk'
import type { OpenTask, Seat, Task } from '../../shared/seats'
import type { StudioPreview } from '../../shared/studio-file'
import { RunningServer, sentence } from './support/running-server'

const server = new RunningServer()
beforeAll(() => server.start())
afterAll(() => server.end())

const read = async <T>(path: string): Promise<T> => (await (await server.ask(path)).json()) as T
const seats = (): Promise<Seat[]> => read<Seat[]>('/api/seats')
const drawings = (): Promise<DrawingCard[]> => read<DrawingCard[]>('/api/drawings')
const belongings = (id: string): Promise<Belongings> => read<Belongings>(`/api/seats/${id}/belongings`)
const change = (id: string, what: unknown): Promise<Response> =>
  server.send('PATCH', `/api/seats/${id}/belongings`, what)

async function seat(name: string, colour = '#2f6f8f'): Promise<Seat> {
  const made = await server.send('POST', '/api/seats', { name, colour })
  expect(made.status).toBe(201)
  return (await made.json()) as Seat
}

async function drawn(drawing: Drawing, of: string | null): Promise<string> {
  const made = await server.send('POST', '/api/drawings', { drawing, seat: of })
  return ((await made.json()) as { id: string }).id
}

const nib = (id: string, size: number): NamedNib => ({
  id,
  name: `Nib ${id}`,
  size,
  variation: 0.3,
  roundness: 0.4,
  angle: 15,
})
const put = (...nibs: NamedNib[]) => ({ nibs: { put: nibs, gone: [], order: nibs.map((n) => n.id) } })

describe('seats', () => {
  it('are one at first, are added, named, and taken away; the last one stays', async () => {
    const [first, ...others] = await seats()
    expect([first!.name, others.length]).toEqual(['First seat', 0])
    expect((await server.ask(`/api/seats/${first!.id}`, { method: 'DELETE' })).status).toBe(409)
    const { id } = await seat('Hazel')
    expect((await server.send('POST', '/api/seats', { name: 'hazel', colour: '#000000' })).status).toBe(409)
    expect((await server.send('POST', '/api/seats', { name: ' ', colour: '#000000' })).status).toBe(400)
    expect((await server.send('POST', '/api/seats', { name: 'Wren', colour: 'red' })).status).toBe(400)
    expect((await server.send('PATCH', `/api/seats/${id}`, { colour: '#123456' })).status).toBe(200)
    expect((await server.send('PATCH', `/api/seats/${id}`, { name: 'Hazel T.' })).status).toBe(200)
    expect((await seats())[1]).toEqual({ id, name: 'Hazel T.', colour: '#123456', drawings: 0 })
    // What is theirs stays on the Desk, and is nobody's.
    const theirs = await drawn(newDrawing('Left behind'), id)
    expect((await seats())[1]!.drawings).toBe(1)
    await change(id, put(nib('a', 2)))
    expect((await server.ask(`/api/seats/${id}`, { method: 'DELETE' })).status).toBe(200)
    expect((await drawings()).find((d) => d.id === theirs)).toMatchObject({ seat: null, name: 'Left behind' })
    expect((await server.ask(`/api/seats/${id}/belongings`)).status).toBe(404)
  })

  it('have each their own; two windows of one keep what both did', async () => {
    const [a, b] = [await seat('Own A'), await seat('Own B')]
    await change(a.id, { choices: { studio: { size: 3, bend: 'rod' } }, ...put(nib('a', 2), nib('b', 4)) })
    await change(b.id, { choices: { studio: { size: 9 } } })
    // One window changed b and added c; the other, from the same list, took a away and put b first.
    await change(a.id, { nibs: { put: [nib('b', 5), nib('c', 6)], gone: [], order: ['a', 'b', 'c'] } })
    await change(a.id, { choices: { studio: { size: 4 } }, nibs: { put: [], gone: ['a'], order: ['b'] } })
    const of = await belongings(a.id)
    expect(of.nibs).toEqual([nib('b', 5), nib('c', 6), ...NIBS])
    expect(of.choices).toEqual({ studio: { size: 4, bend: 'rod' } })
    expect(await belongings(b.id)).toMatchObject({ choices: { studio: { size: 9 } }, own: [], nibs: NIBS })
    const profile = { id: 'p', name: 'Stalk', stops: [{ at: 0, left: 1, right: 0.5 }], start: null, end: null }
    expect((await server.send('PUT', `/api/profiles?seat=${a.id}`, { profiles: [profile] })).status).toBe(200)
    expect(await read(`/api/profiles?seat=${a.id}`)).toEqual([profile])
    expect(await read(`/api/profiles?seat=${b.id}`)).toEqual([])
    expect((await server.ask('/api/profiles?seat=nobody')).status).toBe(404)
    // With several seats nobody's go into somebody's.
    expect((await server.send('PUT', '/api/profiles', { profiles: [] })).status).toBe(409)
  })

  it('keep nothing of a change of which a part cannot be kept', async () => {
    const { id } = await seat('Careful')
    await change(id, put(nib('a', 2)))
    const bad = await change(id, { choices: { studio: { size: 5 } }, ...put(nib('b', -1)) })
    expect([bad.status, await sentence(bad)]).toEqual([400, expect.stringContaining('size')])
    expect(await belongings(id)).toMatchObject({ choices: {}, nibs: [nib('a', 2), ...NIBS] })
  })

  it('are handed drawings, and copies are of whoever makes them', async () => {
    const [a, b] = [await seat('Hand A'), await seat('Hand B')]
    const ids = [await drawn(newDrawing('One'), a.id), await drawn(newDrawing('Two'), a.id)]
    const hand = (to: string) => server.send('POST', '/api/desk', { ids: ids.slice(1), act: 'hand over', seat: to })
    expect((await hand('nobody')).status).toBe(404)
    expect(await (await hand(b.id)).json()).toEqual({ done: 1 })
    const copy = await server.send('POST', `/api/drawings/${ids[0]!}/copy`, { name: 'Copy', history: true, seat: b.id })
    const all = new Map((await drawings()).map((d) => [d.id, d.seat]))
    expect([...ids, ((await copy.json()) as { id: string }).id].map((id) => all.get(id))).toEqual([a.id, b.id, b.id])
  })
})

describe('a task', () => {
  it('gives each seat a copy once, shows all of them, and leaves them when it is taken down', async () => {
    const [teacher, ...pupils] = await Promise.all(['Teacher', 'Ash', 'Beech', 'Cedar'].map((n) => seat(`Task ${n}`)))
    const from = await drawn(newDrawing('Leaf to ink'), teacher!.id)
    const body = { name: 'Leaves', template: from, seats: pupils.slice(0, 2).map((p) => p.id), guided: true }
    expect((await server.send('POST', '/api/tasks', { ...body, seats: [] })).status).toBe(400)
    expect((await server.send('POST', '/api/tasks', { ...body, template: 'none' })).status).toBe(404)
    const { id, copies } = (await (await server.send('POST', '/api/tasks', body)).json()) as Task
    expect(copies).toBe(2)
    // Whoever has a copy keeps it.
    const later = await server.send('POST', `/api/tasks/${id}/copies`, { seats: pupils.map((p) => p.id) })
    expect(await later.json()).toEqual({ copies: 1 })
    const task = await read<OpenTask>(`/api/tasks/${id}`)
    expect(task).toMatchObject({ name: 'Leaves', copies: 3, hasTemplate: true })
    expect(task.cards.map((c) => [c.name, c.seat]).sort()).toEqual(
      pupils.map((p) => [`Leaves, ${p.name}`, p.id]).sort(),
    )
    expect(await read(`/api/drawings/${task.cards[0]!.id}`)).toMatchObject({ guided: true })
    expect(await read(`/api/drawings/${from}`)).not.toHaveProperty('guided')
    // Where what it hands out is gone, nobody else gets one.
    await server.send('POST', '/api/desk', { ids: [from], act: 'bin' })
    expect((await server.send('POST', `/api/tasks/${id}/copies`, { seats: [teacher!.id] })).status).toBe(409)
    expect((await server.ask(`/api/tasks/${id}`, { method: 'DELETE' })).status).toBe(200)
    expect(await read('/api/tasks')).toEqual([])
    expect((await drawings()).filter((d) => d.name.startsWith('Leaves,')).map((d) => d.task)).toEqual([
      null,
      null,
      null,
    ])
  })
})

describe('a studio file', () => {
  const file = async (id: string, query = ''): Promise<Uint8Array> => {
    const answer = await server.ask(`/api/seats/${id}/studio${query}`)
    expect(answer.status).toBe(200)
    return new Uint8Array(await answer.arrayBuffer())
  }
  const bring = (id: string, bytes: Uint8Array, query = ''): Promise<Response> =>
    server.ask(`/api/seats/${id}/studio${query}`, { method: 'POST', body: Buffer.from(bytes) })

  it('takes to another seat what is picked of it, after saying what that would do', async () => {
    const [from, to] = [await seat('Studio of Wren'), await seat('Studio of Ida')]
    await change(from.id, {
      ...put(nib('a', 2), nib('b', 4), nib('c', 8)),
      keys: { put: [{ was: 'f', is: 'j' }], gone: [], order: ['f'] },
    })
    const profile = (id: string, left: number) => ({
      ...{ id, name: 'Stalk', start: null, end: null },
      stops: [{ at: 0, left, right: 0.5 }],
    })
    await server.send('PUT', `/api/profiles?seat=${from.id}`, { profiles: [profile('p', 1)] })
    await server.send('PUT', `/api/profiles?seat=${to.id}`, { profiles: [profile('q', 2)] })
    await change(to.id, put(nib('b', 4), nib('c', 3)))
    const picture = await sharp({ create: { width: 21, height: 10, channels: 3, background: '#caa' } })
      .png()
      .toBuffer()
    const image = createHash('sha256').update(picture).digest('hex')
    await server.ask('/api/images', { method: 'POST', body: new Uint8Array(picture) })
    const template = newDrawing('Packet')
    template.layers.unshift(newSketchLayer({ id: 's', image, x: 0, y: 0, width: 21, height: 10, angle: 0 }))
    await server.send('POST', '/api/desk', { ids: [await drawn(template, from.id)], act: 'template' })

    const bytes = await file(from.id)
    const names = [...unzipped(bytes, { files: 100, bytes: 1e7 }).keys()]
    expect(names).toContain(`pictures/${image}.png`)
    expect(names).toContain('templates/001 packet/drawing.svg')
    const { from: whose, things } = (await (await bring(to.id, bytes)).json()) as StudioPreview
    expect(whose).toBe('Studio of Wren')
    expect(things.map((t) => [t.kind, t.name, t.state])).toEqual([
      ['nibs', 'Nib a', 'new'],
      ['nibs', 'Nib b', 'same'],
      ['nibs', 'Nib c', 'changed'],
      ...NIBS.map((n) => ['nibs', n.name, 'same']),
      ['profiles', 'Stalk', 'clash'],
      ['keys', 'one key of their own', 'new'],
      ['templates', 'Packet', 'same'],
    ])
    // Looking changes nothing; then all but the nib that would be written over.
    expect((await belongings(to.id)).nibs).toEqual([nib('b', 4), nib('c', 3), ...NIBS])
    expect((await bring(to.id, bytes, '?take=10')).status).toBe(409)
    expect((await bring(to.id, bytes, `?take=100${'0'.repeat(NIBS.length)}110`)).status).toBe(200)
    const now = await belongings(to.id)
    expect(now.nibs).toEqual([nib('b', 4), nib('c', 3), ...NIBS, nib('a', 2)])
    expect(now.keys).toEqual([{ was: 'f', is: 'j' }])
    const shelf = await read<{ id: string; name: string }[]>(`/api/profiles?seat=${to.id}`)
    expect(shelf.map((p) => p.id)).toEqual(['q', 'p'])
    expect(new Set(shelf.map((p) => p.name)).size).toBe(2)
    expect((await drawings()).filter((d) => d.template)).toHaveLength(1)
    // What is picked on the way out leaves alone.
    expect([...unzipped(await file(to.id, '?kind=keys'), { files: 9, bytes: 1e6 }).keys()]).toEqual([
      'bellatrait-studio.json',
      'keys.json',
    ])
    expect((await server.ask(`/api/seats/${to.id}/studio?kind=passwords`)).status).toBe(400)
  })

  it('that is none, or is damaged, is refused by a sentence, and nothing is brought in', async () => {
    const { id } = await seat('Studio of nobody')
    const zip = (files: Record<string, unknown>): Uint8Array =>
      Buffer.concat([
        ...zipped(
          Object.entries(files).map(([path, value]) => ({
            path,
            bytes: new TextEncoder().encode(JSON.stringify(value)),
          })),
        ),
      ])
    const about = { form: 1, from: 'Wren' }
    for (const [bytes, why] of [
      [new TextEncoder().encode('no archive'), /./],
      [zip({ 'a.json': 1 }), /no studio file/],
      [zip({ 'bellatrait-studio.json': { form: 2, from: 'Wren' } }), /newer/],
      [zip({ 'bellatrait-studio.json': about, 'nibs.json': [nib('a', 2), nib('a', 3)] }), /nibs\.json.*twice/],
      [zip({ 'bellatrait-studio.json': about, 'nibs.json': [{ id: 'a' }] }), /nibs\.json/],
      [zip({ 'bellatrait-studio.json': about, 'templates/001 x/document.json': { id: 'x' } }), /document\.json/],
    ] as const) {
      const answer = await bring(id, bytes, '?take=1')
      expect([answer.status, await sentence(answer)]).toEqual([422, expect.stringMatching(why)])
    }
    expect(await belongings(id)).toMatchObject({ choices: {}, own: [] })
  })
})
