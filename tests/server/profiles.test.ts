import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ShelfProfile } from '../../core/weight/shelf'
import { RunningServer, sentence } from './support/running-server'

const server = new RunningServer()
beforeAll(() => server.start())
afterAll(() => server.end())

const profile = (id: string, over: Partial<ShelfProfile> = {}): ShelfProfile => ({
  id,
  name: `Profile ${id}`,
  stops: [
    { at: 0, left: 1, right: 0.5 },
    { at: 1, left: 0, right: 0 },
  ],
  start: null,
  end: { length: 12, unit: 'px', tip: 0, ease: 'round' },
  ...over,
})
const listed = async (): Promise<ShelfProfile[]> => (await (await server.ask('/api/profiles')).json()) as ShelfProfile[]
const put = (profiles: unknown) => server.send('PUT', '/api/profiles', { profiles })

describe('the shelf of own profiles', () => {
  it('is empty, then kept whole and in order', async () => {
    expect(await listed()).toEqual([])
    const three = ['c', 'a', 'b'].map((id) => profile(id))
    expect((await put(three)).status).toBe(200)
    expect(await listed()).toEqual(three)
    expect((await put(three.slice(1))).status).toBe(200)
    expect((await listed()).map((p) => p.id)).toEqual(['a', 'b'])
  })

  it('that two windows changed keeps what both did', async () => {
    const base = ['a', 'b', 'c'].map((id) => profile(id))
    await put(base)
    const merge = async (profiles: ShelfProfile[]): Promise<ShelfProfile[]> =>
      (await (await server.send('PUT', '/api/profiles', { profiles, base })).json()) as ShelfProfile[]
    // One renames a, takes b off and adds d; the other, from the same shelf, puts c first, changes b and adds e.
    await merge([profile('a', { name: 'Stalk' }), profile('c'), profile('d')])
    const after = await merge([profile('c'), profile('a'), profile('b', { name: 'Vein' }), profile('e')])
    expect(after.map((p) => p.name)).toEqual(['Profile c', 'Stalk', 'Vein', 'Profile e', 'Profile d'])
    expect(await listed()).toEqual(after)
    await put(['a', 'b'].map((id) => profile(id)))
  })

  it('refuses what no profile may hold, and stays as it was', async () => {
    const before = await listed()
    for (const [bad, what] of [
      [[profile('x', { name: ' ' })], /needs a name/],
      [[profile('x', { stops: [] })], /stops/],
      [[profile('x', { stops: [{ at: 0, left: -1, right: 1 }] })], /left/],
      [[profile('x'), profile('x')], /one id/],
      [[null], /profiles\[0\]/],
      [{}, /profiles/],
      [Array.from({ length: 201 }, (_, i) => profile(String(i))), /200 profiles/],
    ] as const) {
      const response = await put(bad)
      expect(response.status).toBe(400)
      expect(await sentence(response)).toMatch(what)
    }
    expect(await listed()).toEqual(before)
  })

  it('takes no write from another site', async () => {
    const response = await server.ask('/api/profiles', {
      method: 'PUT',
      headers: { 'content-type': 'application/json', origin: 'http://elsewhere.example' },
      body: JSON.stringify({ profiles: [] }),
    })
    expect(response.status).toBe(403)
  })
})
