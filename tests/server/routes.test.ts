import { request } from 'node:http'
import { crc32, deflateSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer, newSketchLayer } from '#core/model/create'
import type { Edit } from '#core/document/edits'
import { makeEdit } from '#core/document/edits'
import type { Drawing } from '#core/model/model'
import type { ImageInfo } from '../../shared/api'
import type { Conflict, OpenDrawing } from '../../shared/edits'
import { LIMITS } from '../../shared/api'
import { RunningServer, sentence } from './support/running-server'
import { polyline } from '../unit/support/paths'

const server = new RunningServer()
beforeAll(() => server.start())
afterAll(() => server.end())

const line = () => newLine(polyline(1, 2, 90, 40))

async function create(body: object = { name: 'Bee' }): Promise<string> {
  const response = await server.send('POST', '/api/drawings', body)
  expect(response.status).toBe(201)
  return ((await response.json()) as { id: string }).id
}

const open = async (id: string): Promise<OpenDrawing> =>
  (await (await server.ask(`/api/drawings/${id}`)).json()) as OpenDrawing

const addLine = (drawing: Drawing, label = 'Add'): { drawing: Drawing; edit: Edit } =>
  makeEdit(drawing, label, (d) => void d.layers[0]!.items.push(line() as never))!

describe('addresses and names that are none', () => {
  it('answer in words of our own, whatever is to be done there', async () => {
    const page = await fetch(`${server.address}/nothing/here`, { headers: { accept: 'text/html' } })
    expect([page.status, page.headers.get('content-type')]).toEqual([404, 'text/html; charset=utf-8'])
    expect(await page.text()).toMatch(/There is nothing at this address\.[^]*<a href="\/">Go to the Desk<\/a>/)
    for (const method of ['PUT', 'DELETE', 'POST'])
      for (const path of ['/', '/drawings/x'])
        expect([method, path, (await server.ask(path, { method })).status]).toEqual([method, path, 405])
    expect((await server.ask('/nothing', { method: 'DELETE' })).status).toBe(404)
    const api = await server.ask('/api/nothing')
    expect([api.status, await sentence(api)]).toEqual([404, 'There is nothing to GET at /api/nothing.'])
    expect((await fetch(server.address)).status).toBe(200)
  })

  it('that every object has by birth are refused, however they are spelled', async () => {
    const id = await create()
    const edits = {
      base: 0,
      edits: [
        {
          id: 'e',
          kind: 'edit',
          label: 'Odd',
          patches: [{ op: 'add', path: ['layers', (await open(id)).drawing.layers[0]!.id, 'items', 0], value: line() }],
          inverse: [],
        },
      ],
    }
    const spelled = (body: unknown, name: string): string => JSON.stringify(body).replace(/^\{/, `{"${name}":{},`)
    for (const [method, path] of [
      ['POST', '/api/drawings'],
      ['POST', `/api/drawings/${id}/edits`],
      ['POST', `/api/drawings/${id}/checkpoints`],
      ['PUT', '/api/profiles'],
      ['POST', '/api/shelves'],
      ['POST', '/api/desk'],
      ['POST', '/api/deliveries'],
      ['PATCH', `/api/drawings/${id}`],
    ] as const) {
      const answer = await server.ask(path, {
        method,
        body: spelled({ a: 1 }, '\\u005f_proto__'),
        headers: { 'content-type': 'application/json' },
      })
      expect([path, answer.status, await sentence(answer)]).toEqual([
        path,
        400,
        expect.stringContaining('names fields that no drawing has'),
      ])
    }
    const inLine = JSON.stringify(edits).replace('"cover":false', '"cover":false,"\\u0074oString":1')
    expect(
      (
        await server.ask(`/api/drawings/${id}/edits`, {
          method: 'POST',
          body: inLine,
          headers: { 'content-type': 'application/json' },
        })
      ).status,
    ).toBe(400)
    const unknown = JSON.stringify(edits).replace('"cover":false', '"cover":false,"shine":true')
    const refused = await server.ask(`/api/drawings/${id}/edits`, {
      method: 'POST',
      body: unknown,
      headers: { 'content-type': 'application/json' },
    })
    expect([refused.status, await sentence(refused)]).toEqual([
      422,
      expect.stringContaining('a field that no drawing has: shine'),
    ])
    expect((await open(id)).revision).toBe(0)
  })

  it('are told of by their own words, not by their paths', async () => {
    const drawing = newDrawing('Tall', { page: { width: 100, height: 200_000, unit: 'mm', pxPerMm: 6 } })
    const refused = await server.send('POST', '/api/drawings', { drawing })
    expect(await sentence(refused)).toContain('the height of the page is more than 100000')
  })
})

describe('drawings', () => {
  it('are created, listed, opened, renamed, taken off and put back', async () => {
    const id = await create()
    expect(await open(id)).toMatchObject({ revision: 0, undo: [], redo: [], hasOlder: false, drawing: { name: 'Bee' } })
    expect((await server.send('PATCH', `/api/drawings/${id}`, { name: 'Clover and bee' })).status).toBe(200)
    expect((await open(id)).drawing.name).toBe('Clover and bee')
    expect((await server.ask(`/api/drawings/${id}`, { method: 'DELETE' })).status).toBe(200)
    expect((await server.ask(`/api/drawings/${id}`)).status).toBe(404)
    const off = (await (await server.ask('/api/drawings?bin=1')).json()) as { id: string; name: string }[]
    expect(off.find((d) => d.id === id)).toMatchObject({ name: 'Clover and bee' })
    expect((await server.send('POST', '/api/desk', { ids: [id], act: 'restore' })).status).toBe(200)
    const list = (await (await server.ask('/api/drawings')).json()) as { id: string }[]
    expect(list.some((d) => d.id === id)).toBe(true)
  })

  it('brought in whole get an id of their own', async () => {
    const drawing = newDrawing('Watering can', { layers: [newLinesLayer('A', [line()])] })
    const id = await create({ drawing })
    expect(id).not.toBe(drawing.id)
    expect((await open(id)).drawing.layers).toEqual(drawing.layers)
  })

  it('have a thumbnail that keeps nobody waiting, however slow they are to derive', { timeout: 30_000 }, async () => {
    const slow = {
      ...line(),
      path: {
        nodes: Array.from({ length: 1500 }, (_, i) => ({
          at: { x: (i * 7919) % 700, y: (i * 104729) % 500 },
          in: null,
          out: null,
          joint: 'corner' as const,
        })),
        closed: false,
      },
    }
    const id = await create({ drawing: newDrawing('Slow', { layers: [newLinesLayer('A', [slow])] }) })
    let longest = 0
    const thumbnail = server.ask(`/api/drawings/${id}/thumbnail`).then((r) => r.text())
    for (let done = false; !done;) {
      void thumbnail.then(() => (done = true))
      const start = performance.now()
      await server.ask('/api/drawings')
      longest = Math.max(longest, performance.now() - start)
      await new Promise((next) => setTimeout(next, 20))
    }
    expect(await thumbnail).toContain('<path')
    expect(longest).toBeLessThan(2000)
  })

  it('of a sketch alone show the sketch', async () => {
    const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#888888' } })
      .png()
      .toBuffer()
    const { sha256 } = (await (
      await server.ask('/api/images', { method: 'POST', body: new Uint8Array(bytes) })
    ).json()) as { sha256: string }
    const sketch = newSketchLayer({ id: 's', image: sha256, x: 0, y: 0, width: 60, height: 40, angle: 0 })
    const id = await create({ drawing: newDrawing('Sketch', { layers: [sketch, newLinesLayer('A')] }) })
    expect(await (await server.ask(`/api/drawings/${id}/thumbnail`)).text()).toContain(
      '<image href="data:image/jpeg;base64,',
    )
  })

  it('have a thumbnail of their real outlines that follows edits', async () => {
    const id = await create()
    const empty = await (await server.ask(`/api/drawings/${id}/thumbnail`)).text()
    expect(empty).not.toContain('<path')
    const { edit } = addLine((await open(id)).drawing)
    await server.send('POST', `/api/drawings/${id}/edits`, { base: 0, edits: [edit] })
    const response = await server.ask(`/api/drawings/${id}/thumbnail`)
    expect(response.headers.get('content-type')).toContain('image/svg+xml')
    expect(await response.text()).toMatch(/<path [^>]*d="M[^"]+Z"/)
  })

  it.each(['', '/thumbnail', '/edits?before=3'])('that do not exist are told so%s', async (path) => {
    const response = await server.ask(`/api/drawings/nobody${path}`)
    expect(response.status).toBe(404)
    expect(await sentence(response)).toMatch(/no such drawing/i)
  })

  it('do not take a name that is empty or too long', async () => {
    const id = await create()
    expect((await server.send('PATCH', `/api/drawings/${id}`, { name: '  ' })).status).toBe(400)
    expect((await server.send('PATCH', `/api/drawings/${id}`, { name: 'x'.repeat(300) })).status).toBe(400)
  })
})

describe('edits', () => {
  it('are appended, and an old base answers 409 with what is missing', async () => {
    const id = await create()
    const { drawing } = await open(id)
    const [a, b] = [addLine(drawing, 'A'), addLine(drawing, 'B')]
    expect(await (await server.send('POST', `/api/drawings/${id}/edits`, { base: 0, edits: [a.edit] })).json()).toEqual(
      { revision: 1 },
    )
    const late = await server.send('POST', `/api/drawings/${id}/edits`, { base: 0, edits: [b.edit] })
    expect(late.status).toBe(409)
    const conflict = (await late.json()) as Conflict
    expect(conflict.revision).toBe(1)
    expect(conflict.missing.map((m) => m.edit.label)).toEqual(['A'])
  })

  it('that make no sense are refused and change nothing', async () => {
    const id = await create()
    const bad = {
      id: 'x',
      kind: 'edit',
      label: 'Bad',
      patches: [{ op: 'replace', path: ['page'], value: { width: -5 } }],
      inverse: [],
    }
    const answer = await server.send('POST', `/api/drawings/${id}/edits`, { base: 0, edits: [bad] })
    expect(answer.status).toBe(422)
    expect(await sentence(answer)).toMatch(/"Bad" could not be saved/)
    for (const body of [
      {},
      { base: -1, edits: [bad] },
      { base: 0, edits: [] },
      { base: 0, edits: [{ ...bad, kind: 'magic' }] },
      { base: 0, edits: [{ ...bad, patches: [{ op: 'eval', path: [] }] }] },
    ]) {
      expect((await server.send('POST', `/api/drawings/${id}/edits`, body)).status).toBe(400)
    }
    expect((await open(id)).revision).toBe(0)
  })

  it('that are not JSON, or too large, are refused', async () => {
    const id = await create()
    expect((await server.ask(`/api/drawings/${id}/edits`, { method: 'POST', body: '{{{' })).status).toBe(400)
    const large = await server
      .ask(`/api/drawings/${id}/edits`, { method: 'POST', body: 'x'.repeat(LIMITS.document + 1) })
      .catch(() => null)
    // The server may hang up before the whole body has left; either way it says no and stays up.
    if (large) {
      expect(large.status).toBe(413)
      expect(await sentence(large)).toMatch(/larger than 64 MB/)
    }
    expect((await open(id)).revision).toBe(0)
  })
})

describe('a crash in the middle of saves', () => {
  it('loses no acknowledged edit', async () => {
    const id = await create({ name: 'Crash' })
    let { drawing } = await open(id)
    let acknowledged = 0
    const work = (async () => {
      for (let i = 0; i < 400; i++) {
        const made = addLine(drawing, `Line ${i}`)
        const response = await server
          .send('POST', `/api/drawings/${id}/edits`, { base: i, edits: [made.edit] })
          .catch(() => null)
        if (!response?.ok) return
        drawing = made.drawing
        acknowledged = ((await response.json()) as { revision: number }).revision
      }
    })()
    await new Promise((resolve) => setTimeout(resolve, 400))
    await server.kill()
    await work
    expect(acknowledged).toBeGreaterThan(3)
    await server.start()
    const after = await open(id)
    expect(after.revision).toBeGreaterThanOrEqual(acknowledged)
    expect(after.drawing.layers[0]!.items.slice(0, acknowledged)).toEqual(
      drawing.layers[0]!.items.slice(0, acknowledged),
    )
  })
})

/** A black PNG of one bit a pixel, put together by hand: encoders take minutes over one so large. */
function blackPng(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
    const frame = Buffer.alloc(8)
    frame.writeUInt32BE(data.length, 0)
    frame.writeUInt32BE(crc32(body), 4)
    return Buffer.concat([frame.subarray(0, 4), body, frame.subarray(4)])
  }
  const header = Buffer.alloc(13)
  header.writeUInt32BE(width, 0)
  header.writeUInt32BE(height, 4)
  header[8] = 1
  const rows = Buffer.alloc(height * (1 + Math.ceil(width / 8)))
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

describe('pictures', () => {
  const upload = (body: Buffer | string) =>
    server.ask('/api/images', { method: 'POST', body: typeof body === 'string' ? body : new Uint8Array(body) })
  const png = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#eee' } })
      .png()
      .toBuffer()

  it('are kept by their content and sent back byte by byte', async () => {
    const bytes = await png(40, 30)
    const response = await upload(bytes)
    expect(response.status).toBe(201)
    const info = (await response.json()) as { sha256: string }
    expect(info).toMatchObject({ width: 40, height: 30, mediaType: 'image/png' })
    const back = await server.ask(`/api/images/${info.sha256}`)
    expect(Buffer.from(await back.arrayBuffer()).equals(bytes)).toBe(true)
    expect((await (await upload(bytes)).json()) as object).toEqual(info)
  })

  it('JPEG is taken, the way it is turned included', async () => {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#eee' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer()
    expect(await (await upload(bytes)).json()).toMatchObject({ width: 30, height: 40, mediaType: 'image/jpeg' })
  })

  it('WebP is taken', async () => {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#eee' } })
      .webp()
      .toBuffer()
    expect(await (await upload(bytes)).json()).toMatchObject({ width: 40, height: 30, mediaType: 'image/webp' })
  })

  it('a text named .png, nothing at all, another format and half a picture are refused', async () => {
    const half = (
      await sharp({
        create: {
          width: 400,
          height: 300,
          channels: 3,
          background: '#eee',
          noise: { type: 'gaussian', mean: 128, sigma: 30 },
        },
      })
        .png()
        .toBuffer()
    ).subarray(0, 5000)
    const gif = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#eee' } })
      .gif()
      .toBuffer()
    for (const [body, status, message] of [
      ['I am a text', 415, /not a PNG, JPEG or WebP/],
      ['', 400, /empty/],
      [gif, 415, /not a PNG, JPEG or WebP/],
      [half, 415, /damaged/],
      ['<svg xmlns="http://www.w3.org/2000/svg"/>', 415, /not a PNG, JPEG or WebP/],
    ] as const) {
      const response = await upload(body)
      expect(response.status).toBe(status)
      expect(await sentence(response)).toMatch(message)
    }
  })

  it('30,000 x 30,000 pixels are refused by their header, before they are unpacked', async () => {
    const response = await upload(blackPng(30_000, 30_000))
    expect(response.status).toBe(413)
    expect(await sentence(response)).toMatch(/30000 x 30000 pixels/)
  })

  it(
    'gives a part of a picture no larger than it is looked at, turned as its file says, out of a scan of 60 megapixels',
    { timeout: 60_000 },
    async () => {
      // Dark in its right lower part; on its side in the file.
      const dark = await sharp({ create: { width: 1500, height: 1000, channels: 3, background: '#222' } })
        .png()
        .toBuffer()
      const scan = await sharp({
        create: { width: 8600, height: 6900, channels: 3, background: '#eee' },
        limitInputPixels: false,
      })
        .composite([{ input: dark, left: 7100, top: 5900 }])
        .jpeg({ quality: 60 })
        .withMetadata({ orientation: 6 })
        .toBuffer()
      const { sha256 } = (await (await upload(scan)).json()) as ImageInfo
      const part = async (query: string) => {
        const answer = await server.ask(`/api/images/${sha256}/part${query}`)
        return sharp(Buffer.from(await answer.arrayBuffer()))
          .removeAlpha()
          .raw()
          .toBuffer({ resolveWithObject: true })
      }
      const whole = await part('')
      expect([whole.info.width, whole.info.height]).toEqual([2311, 2880])
      // Turned to the right, what was right and low lies left and low.
      const at = ({ data, info }: typeof whole, x: number, y: number): number =>
        data[3 * (Math.floor(y * info.height) * info.width + Math.floor(x * info.width))]!
      expect([at(whole, 0.05, 0.95), at(whole, 0.95, 0.95), at(whole, 0.05, 0.05)].map((v) => v > 128)).toEqual([
        false,
        true,
        true,
      ])
      const corner = await part('?x=0&y=0.8&width=0.2&height=0.2')
      // Px by px: no part of it is lost.
      expect([corner.info.width, corner.info.height]).toEqual([1380, 1720])
      expect([at(corner, 0.5, 0.5), at(corner, 0.95, 0.5)].map((v) => v > 128)).toEqual([false, true])
      expect((await server.ask(`/api/images/${sha256}/part?x=2`)).status).toBe(400)
      expect((await server.ask(`/api/images/${'a'.repeat(64)}/part`)).status).toBe(404)
    },
  )

  it('that are not there are told so, also by odd names', async () => {
    for (const sha of ['a'.repeat(64), '..%2f..%2fetc%2fpasswd'])
      expect((await server.ask(`/api/images/${sha}`)).status).toBe(404)
  })
})

describe('safety', () => {
  it('writes from another page, or from none, are refused', async () => {
    for (const origin of ['http://elsewhere.example', 'null']) {
      const response = await fetch(`${server.address}/api/drawings`, {
        method: 'POST',
        body: '{}',
        headers: { origin },
      })
      expect(response.status).toBe(403)
    }
    expect((await fetch(`${server.address}/api/drawings`, { method: 'POST', body: '{}' })).status).toBe(403)
  })

  it('requests under a foreign name are refused, read or write, files and all', async () => {
    const under = (host: string, path: string, method = 'GET') =>
      new Promise<number>((resolve, reject) => {
        request(`${server.address}${path}`, { method, headers: { host, origin: `http://${host}` } }, (r) =>
          resolve(r.resume().statusCode!),
        )
          .on('error', reject)
          .end()
      })
    const port = new URL(server.address).port
    for (const path of ['/', '/api/drawings', '/mark.svg']) {
      expect(await under('elsewhere.example', path)).toBe(421)
      expect(await under(`elsewhere.example:${port}`, path)).toBe(421)
      expect(await under(`localhost:${port}`, path)).toBe(200)
      expect(await under(`127.0.0.1:${port}`, path)).toBe(200)
    }
    expect(await under(`elsewhere.example:${port}`, '/api/drawings', 'POST')).toBe(421)
  })

  it('what no route answers is told so, by any method, and every answer has the safe headers', async () => {
    for (const [method, path] of [
      ['GET', '/api/nothing'],
      ['DELETE', '/api/drawings'],
      ['PUT', '/api/images/a'],
      ['GET', '/api/drawings/a/b/c'],
    ] as const) {
      const response = await server.ask(path, { method })
      expect(response.status, path).toBe(404)
      expect(await sentence(response)).toContain(method)
    }
    for (const path of ['/', '/mark.svg', '/_nuxt/nothing.js', '/api/nothing', '/api/drawings', '/drawings/x']) {
      const { headers } = await server.ask(path)
      expect(headers.get('x-content-type-options'), path).toBe('nosniff')
      expect(headers.get('referrer-policy'), path).toBe('no-referrer')
      expect(headers.get('cross-origin-opener-policy'), path).toBe('same-origin')
      expect(headers.get('cross-origin-resource-policy'), path).toBe('same-origin')
    }
  })

  it('odd bodies are refused by a sentence, never by a failure', async () => {
    const id = await create()
    const odd = ['__proto__', 'toString', 'constructor', 'length'].flatMap((key) => [
      `{"base":0,"edits":[{"id":"a","kind":"edit","label":"Odd","inverse":[],"patches":[{"op":"replace","path":["${key}"],"value":1}]}]}`,
      `{"base":0,"edits":[{"id":"a","kind":"edit","label":"Odd","inverse":[],"patches":[{"op":"replace","path":["settings","${key}"],"value":{"${key}":1}}]}]}`,
      `{"base":0,"edits":[{"id":"a","kind":"edit","label":"Odd","inverse":[],"patches":[{"op":"add","path":["layers",0],"value":{"${key}":{}}}]}]}`,
      `{"${key}":{"base":0},"edits":{"${key}":[]}}`,
      `{"base":"${key}","edits":[null]}`,
      `[[["${key}"]]]`,
    ])
    for (const body of [...odd, 'null', '7', '[]', '"x"', '{"base":1e400,"edits":[]}']) {
      for (const [method, path] of [
        ['POST', `/api/drawings/${id}/edits`],
        ['POST', '/api/drawings'],
        ['PUT', '/api/profiles'],
        ['PATCH', `/api/drawings/${id}`],
        ['POST', `/api/drawings/${id}/checkpoints`],
      ] as const) {
        const response = await server.ask(path, { method, body, headers: { 'content-type': 'application/json' } })
        expect(response.status, `${method} ${path} ${body}`).toBeLessThan(500)
        if (response.status >= 400) expect(await sentence(response)).toMatch(/[.?]$/)
      }
    }
    expect((await open(id)).drawing).toMatchObject({ layers: [{ kind: 'lines' }] })
  })

  it('pages carry a policy that lets only our own scripts run', async () => {
    const response = await fetch(server.address)
    const policy = response.headers.get('content-security-policy')!
    const nonce = /'nonce-([^']+)'/.exec(policy)![1]!
    expect(policy).toBe(
      `default-src 'self'; script-src 'self' 'nonce-${nonce}'; style-src 'self'; img-src 'self' blob: data:; font-src 'self'; worker-src 'self'; ` +
        "connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
    )
    const html = await response.text()
    const scripts = html.match(/<script/g)!.length
    expect(html.split(`nonce="${nonce}"`)).toHaveLength(scripts + 1)
    expect(response.headers.get('x-content-type-options')).toBe('nosniff')
  })
})
