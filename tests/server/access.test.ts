import { readdirSync, readFileSync } from 'node:fs'
import { afterEach, describe, expect, it } from 'vitest'
import { isSession, LONGEST_SESSION, newSession } from '../../server/access/session'
import { Tries } from '../../server/access/tries'
import { RunningServer, sentence } from './support/running-server'

const PASS = 'thistle and burdock'
const OTHERS = { HOST: '0.0.0.0', NITRO_HOST: '0.0.0.0' }
let server: RunningServer

/** Every route there is, by its file: the method, and a path with something in each place. */
const ROUTES = readdirSync('server/api', { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.(get|post|put|patch|delete)\.ts$/.test(f))
  .map((f) => {
    const [, path, method] = /^(.*)\.(\w+)\.ts$/.exec(f.replaceAll('\\', '/'))!
    return [method!.toUpperCase(), `/api/${path!.replace(/\/?index$/, '').replace(/\[\w+\]/g, 'ab12')}`] as const
  })

/** The cookie of a session that begins with the passphrase. */
async function entered(pass = PASS): Promise<string> {
  const answer = await server.send('POST', '/api/session', { pass })
  expect(answer.status).toBe(200)
  const cookie = answer.headers.get('set-cookie')!
  expect(cookie).toMatch(/HttpOnly/i)
  expect(cookie).toMatch(/SameSite=Lax/i)
  return cookie.split(';')[0]!
}
const listed = async (cookie: string): Promise<number> =>
  (await server.ask('/api/drawings', { headers: { cookie } })).status

describe('a Desk that others can reach', () => {
  afterEach(() => server.end())

  it('does not start without a passphrase, and says what to do', { timeout: 60_000 }, async () => {
    for (const [env, why] of [
      [OTHERS, /BELLATRAIT_PASS/],
      [{ BELLATRAIT_NAMES: 'desk.example' }, /BELLATRAIT_PASS/],
      [{ ...OTHERS, BELLATRAIT_PASS: 'short' }, /8 to 200 letters/],
    ] as const) {
      server = new RunningServer(env)
      await expect(server.start()).rejects.toThrow()
      expect(server.said).toMatch(why)
      await server.end()
    }
  })

  it(
    'gives nothing of any route away without a session, or with one that is made up',
    { timeout: 60_000 },
    async () => {
      server = new RunningServer({ ...OTHERS, BELLATRAIT_PASS: PASS })
      await server.start()
      const cookie = await entered()
      const body = cookie.slice(0, cookie.lastIndexOf('.'))
      expect(ROUTES.length).toBeGreaterThan(30)
      for (const [method, path] of ROUTES) {
        if (path === '/api/session') continue
        for (const made of ['', 'bellatrait-session=1.99999999999.x.y', `${body}.AAAA`, body]) {
          const answer = await server.ask(path, { method, headers: made ? { cookie: made } : {} })
          expect([method, path, made, answer.status]).toEqual([method, path, made, 401])
        }
      }
      expect(await sentence(await server.ask('/api/drawings'))).toMatch(/locked/)
      for (const page of ['/', '/drawings/demo', '/practice/loops.inkml']) {
        const answer = await server.ask(page, { redirect: 'manual' })
        expect([answer.status, answer.headers.get('location')]).toEqual([302, `/enter?to=${encodeURIComponent(page)}`])
      }
      expect((await server.ask('/enter')).status).toBe(200)
      expect(await listed(cookie)).toBe(200)
    },
  )

  it('keeps the passphrase hashed, and a session over a start', { timeout: 60_000 }, async () => {
    server = new RunningServer({ ...OTHERS, BELLATRAIT_PASS: PASS })
    await server.start()
    const cookie = await entered()
    await server.kill()
    for (const end of ['', '-wal']) expect(readFileSync(server.database + end).includes(Buffer.from(PASS))).toBe(false)
    server.env = OTHERS
    await server.start()
    expect(await listed(cookie)).toBe(200)
    await server.kill()
    server.env = { ...OTHERS, BELLATRAIT_PASS: 'another one now' }
    await server.start()
    expect(await listed(cookie)).toBe(401)
    expect((await server.send('POST', '/api/session', { pass: PASS })).status).toBe(403)
    await entered('another one now')
  })

  it('makes a cookie that somebody took useless once all sessions are ended', { timeout: 60_000 }, async () => {
    server = new RunningServer({ ...OTHERS, BELLATRAIT_PASS: PASS })
    await server.start()
    const [mine, taken] = [await entered(), await entered()]
    expect((await server.ask('/api/sessions', { method: 'DELETE' })).status).toBe(401)
    expect((await server.ask('/api/sessions', { method: 'DELETE', headers: { cookie: mine } })).status).toBe(200)
    expect([await listed(mine), await listed(taken)]).toEqual([401, 401])
    expect(await listed(await entered())).toBe(200)
  })

  it('takes no more than a few tries, the right one neither until the wait is over', { timeout: 60_000 }, async () => {
    server = new RunningServer({ ...OTHERS, BELLATRAIT_PASS: PASS })
    await server.start()
    const statuses: number[] = []
    for (let i = 0; i < 8; i++)
      statuses.push((await server.send('POST', '/api/session', { pass: `thistle ${i}` })).status)
    expect(statuses.slice(0, 5)).toEqual([403, 403, 403, 403, 403])
    expect(statuses.slice(5)).toEqual([429, 429, 429])
    const answer = await server.send('POST', '/api/session', { pass: PASS })
    expect([answer.status, Number(answer.headers.get('retry-after'))]).toEqual([429, 1])
  })

  it('is open to this machine alone where no passphrase was named', { timeout: 60_000 }, async () => {
    server = new RunningServer()
    await server.start()
    expect(await (await server.ask('/api/session')).json()).toEqual({ locked: false, within: true })
    expect((await server.ask('/api/drawings')).status).toBe(200)
  })
})

describe('a session', () => {
  const access = { salt: Buffer.alloc(16), hash: Buffer.alloc(32), secret: Buffer.from('seven'), generation: 3 }
  it('is over after its time, in another generation, and under another signature', () => {
    const now = 1_700_000_000_000
    const cookie = newSession(access, now)
    const isOne = (of = access, at = now): boolean => isSession(cookie, of, at)
    expect([isOne(), isOne(access, now + (LONGEST_SESSION - 1) * 1000)]).toEqual([true, true])
    expect([
      isOne(access, now + LONGEST_SESSION * 1000),
      isOne({ ...access, generation: 4 }),
      isOne({ ...access, secret: Buffer.from('eight') }),
      isSession(cookie.replace('3.', '4.'), { ...access, generation: 4 }, now),
      isSession(undefined, access, now),
    ]).toEqual([false, false, false, false, false])
  })
})

describe('tries', () => {
  it('wait twice as long each time, of one address and of many, and are forgotten after an hour', () => {
    const tries = new Tries()
    const waits = Array.from({ length: 9 }, () => (tries.wrong('a', 1000), tries.wait('a', 1000)))
    expect(waits).toEqual([0, 0, 0, 0, 1000, 2000, 4000, 8000, 16_000])
    expect(tries.wait('b', 1000)).toBe(0)
    expect(tries.wait('a', 15_000)).toBe(2000)
    for (let i = 0; i < 55; i++) tries.wrong(`c${i}`, 20_000)
    expect(tries.wait('new', 20_000)).toBe(16_000)
    expect(tries.wait('a', 4_000_000)).toBe(0)
    tries.right('c1')
    expect(tries.wait('c1', 20_000)).toBe(16_000)
  })
})
