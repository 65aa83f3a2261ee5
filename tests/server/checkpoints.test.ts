import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newDrawing, newLine } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, LinesLayer } from '#core/model/model'
import type { Checkpoint } from '../../shared/api'
import { RunningServer, sentence } from './support/running-server'
import { polyline } from '../unit/support/paths'

const server = new RunningServer()
beforeAll(() => server.start())
afterAll(() => server.end())

const answer = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T

/** A drawing on the server after `count` edits that each lay a line; and its states by revision. */
async function laid(count: number): Promise<{ id: string; states: Drawing[] }> {
  const { id } = await answer<{ id: string }>(
    server.send('POST', '/api/drawings', { drawing: newDrawing('Pea tendril') }),
  )
  let { drawing } = await answer<{ drawing: Drawing }>(server.ask(`/api/drawings/${id}`))
  const states = [drawing]
  for (let i = 0; i < count; i++) {
    const made = makeEdit(
      drawing,
      `Line ${i}`,
      (draft) => void (draft.layers[0] as LinesLayer).items.push(newLine(polyline(i, 0))),
    )!
    await server.send('POST', `/api/drawings/${id}/edits`, { base: i, edits: [made.edit] })
    drawing = made.drawing
    states.push(drawing)
  }
  return { id, states }
}

describe('checkpoints', () => {
  it('name the drawing as it is, newest first, and can be forgotten', async () => {
    const { id } = await laid(2)
    const first = await answer<Checkpoint>(
      server.send('POST', `/api/drawings/${id}/checkpoints`, { name: 'Plain lines' }),
    )
    expect(first).toMatchObject({ name: 'Plain lines', revision: 2 })
    const second = await answer<Checkpoint>(server.send('POST', `/api/drawings/${id}/checkpoints`, { name: 'Again' }))
    expect((await answer<Checkpoint[]>(server.ask(`/api/drawings/${id}/checkpoints`))).map((c) => c.id)).toEqual([
      second.id,
      first.id,
    ])
    expect((await server.send('DELETE', `/api/drawings/${id}/checkpoints/${first.id}`, {})).status).toBe(200)
    const gone = await server.send('DELETE', `/api/drawings/${id}/checkpoints/${first.id}`, {})
    expect([gone.status, await sentence(gone)]).toEqual([404, 'This checkpoint is not there any more.'])
  })

  it('refuse what is no name, and drawings that are not there', async () => {
    const { id } = await laid(0)
    for (const [body, what] of [
      [{ name: '  ' }, /needs a name/],
      [{ name: 'x'.repeat(81) }, /80 letters/],
      [{}, /needs a name/],
    ] as const) {
      const response = await server.send('POST', `/api/drawings/${id}/checkpoints`, body)
      expect(response.status).toBe(400)
      expect(await sentence(response)).toMatch(what)
    }
    expect((await server.send('POST', '/api/drawings/nowhere/checkpoints', { name: 'A' })).status).toBe(404)
    expect((await server.ask('/api/drawings/nowhere/checkpoints')).status).toBe(404)
  })

  it('bring back the drawing as it was at any revision, also between two snapshots', async () => {
    const { id, states } = await laid(53)
    for (const revision of [0, 1, 49, 50, 51, 53])
      expect(await answer(server.ask(`/api/drawings/${id}/at/${revision}`))).toEqual(
        JSON.parse(JSON.stringify(states[revision])),
      )
    expect((await server.ask(`/api/drawings/${id}/at/54`)).status).toBe(404)
    expect((await server.ask(`/api/drawings/${id}/at/-1`)).status).toBe(400)
    expect((await server.ask(`/api/drawings/${id}/at/x`)).status).toBe(400)
  })
})
