import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { unzipped } from '../../core/formats/archive/zip'
import { PLAIN_DELIVERY } from '../../core/formats/delivery/settings'
import type { ManyState } from '../../shared/desk'
import { RunningServer, sentence } from './support/running-server'
import { polyline } from '../unit/support/paths'

const server = new RunningServer()
beforeAll(() => server.start())
afterAll(() => server.end())

const line = (y: number) => newLine(polyline(20, y, 300, 90))
const create = async (name: string, lines = 1): Promise<string> =>
  (
    (await (
      await server.send('POST', '/api/drawings', {
        drawing: newDrawing(name, {
          layers: [
            newLinesLayer(
              'Lines',
              Array.from({ length: lines }, (_, i) => line(20 + i)),
            ),
          ],
        }),
      })
    ).json()) as { id: string }
  ).id

async function ended(id: string): Promise<ManyState> {
  for (;;) {
    const state = (await (await server.ask(`/api/deliveries/${id}`)).json()) as ManyState
    if (state.state !== 'making') return state
    await new Promise((next) => setTimeout(next, 50))
  }
}

describe('several drawings', () => {
  it('leave as one archive, with what could not be told apart', { timeout: 60_000 }, async () => {
    const ids = [await create('Bee'), await create('bee'), 'nowhere', await create('Snail')]
    const settings = { ...PLAIN_DELIVERY, kind: 'picture', picture: { by: 'px', dpi: 300, side: 96, tones: 'colour' } }
    const begun = await server.send('POST', '/api/deliveries', { ids, settings })
    expect(begun.status).toBe(202)
    const state = await ended(((await begun.json()) as ManyState).id)
    expect(state).toMatchObject({
      state: 'ready',
      done: 4,
      total: 4,
      left: [{ name: 'nowhere', why: 'It is not on the Desk any more.' }],
    })
    const files = unzipped(new Uint8Array(await (await server.ask(`/api/deliveries/${state.id}/file`)).arrayBuffer()), {
      files: 9,
      bytes: 1e7,
    })
    expect([...files.keys()]).toEqual(['bee.png', 'bee-2.png', 'snail.png'])
    expect((await sharp(files.get('snail.png')).metadata()).width).toBe(96)
    expect((await server.ask(`/api/deliveries/${state.id}`, { method: 'DELETE' })).status).toBe(200)
    const gone = await server.ask(`/api/deliveries/${state.id}/file`)
    expect([gone.status, await sentence(gone)]).toEqual([404, 'This delivery is not there any more. Begin it again.'])
  })

  it('can be stopped, and no more than two are made at once', { timeout: 60_000 }, async () => {
    const slow = await create('Slow', 1500)
    const begin = (): Promise<Response> =>
      server.send('POST', '/api/deliveries', { ids: [slow, slow, slow], settings: PLAIN_DELIVERY })
    const [a, b] = [(await (await begin()).json()) as ManyState, (await (await begin()).json()) as ManyState]
    const third = await begin()
    expect([third.status, await sentence(third)]).toEqual([
      429,
      'Two deliveries are being made already. Wait until one is done, or stop it.',
    ])
    for (const { id } of [a, b])
      expect((await server.ask(`/api/deliveries/${id}`, { method: 'DELETE' })).status).toBe(200)
    const again = await begin()
    expect(again.status).toBe(202)
    await server.ask(`/api/deliveries/${((await again.json()) as ManyState).id}`, { method: 'DELETE' })
  })

  it('are refused with settings that are none', async () => {
    const refused = await server.send('POST', '/api/deliveries', {
      ids: ['a'],
      settings: { ...PLAIN_DELIVERY, kind: 'film' },
    })
    expect(refused.status).toBe(400)
    expect((await server.send('POST', '/api/deliveries', { ids: [], settings: PLAIN_DELIVERY })).status).toBe(400)
  })
})
