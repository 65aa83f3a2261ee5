import type { Page } from '@playwright/test'
import { makeEdit } from '#core/document/edits'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Line } from '#core/model/model'
import { ADDRESS, withApplication } from './application'
import { strokes } from './strokes'
import type { Spread } from './spread'
import { spread } from './spread'

/** A class at work: what an edit that is saved takes, and the page of all copies. */
export interface ClassRow {
  work: string
  spread: Spread
}

const SEATS = 30
const LINES = 200
/** Each of them saves an edit a second, so long, s. */
const LASTING = 20

const post = async <T>(path: string, body: unknown, method = 'POST'): Promise<T> => {
  const answer = await fetch(ADDRESS + path, {
    method,
    body: JSON.stringify(body),
    headers: { origin: ADDRESS, 'content-type': 'application/json' },
  })
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`)
  return (await answer.json()) as T
}
const get = async <T>(path: string): Promise<T> => (await (await fetch(ADDRESS + path)).json()) as T
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

/** Thirty seats with a copy each of a drawing of 200 lines, an edit a second each, while the page of all copies is looked at. */
export const classRows = (): Promise<ClassRow[]> =>
  withApplication(async (page) => {
    const drawing = newDrawing('Leaves', { layers: [newLinesLayer('Lines', strokes(LINES))] })
    const { id: template } = await post<{ id: string }>('/api/drawings', { drawing })
    const seats: string[] = []
    for (let i = 0; i < SEATS; i++)
      seats.push((await post<{ id: string }>('/api/seats', { name: `Pupil ${i}`, colour: '#4a6a3a' })).id)
    const task = await post<{ id: string }>('/api/tasks', { name: 'Leaves', template, seats, guided: false })
    const { cards } = await get<{ cards: { id: string }[] }>(`/api/tasks/${task.id}`)
    const atOnce = (): Promise<number[]> =>
      Promise.all(cards.map((c, i) => atWork(c.id, (i * 1000) / SEATS))).then((all) => all.flat())
    // Who looks at the copies does so on a machine of their own: here a browser would take both processors.
    const [saved] = await Promise.all([atOnce(), asked(task.id)])
    const [, pages] = await Promise.all([atOnce(), pageTimes(page, task.id)])
    return [
      { work: `an edit of one of ${SEATS} seats saved`, spread: spread(saved) },
      { work: `the page of all ${SEATS} copies meanwhile, with its pictures`, spread: spread(pages) },
    ]
  })

/** Saves an edit a second; answers how long each took, ms. */
async function atWork(id: string, after: number): Promise<number[]> {
  await pause(after)
  let { drawing, revision } = await get<{ drawing: ReturnType<typeof newDrawing>; revision: number }>(
    `/api/drawings/${id}`,
  )
  const times: number[] = []
  for (let i = 0; i < LASTING; i++) {
    const made = makeEdit(drawing, 'Move a node', (draft) => {
      const line = draft.layers[0]!.items[(i * 37) % LINES] as Line
      line.path.nodes[0]!.at.x += 1.5
    })!
    const began = performance.now()
    ;({ revision } = await post<{ revision: number }>(`/api/drawings/${id}/edits`, {
      base: revision,
      edits: [made.edit],
    }))
    const took = performance.now() - began
    times.push(took)
    drawing = made.drawing
    await pause(Math.max(0, 1000 - took))
  }
  return times
}

/** Asks for what the page of all copies shows, as often as it does. */
async function asked(task: string): Promise<void> {
  for (let i = 0; i < 2; i++) {
    const { cards } = await get<{ cards: { id: string }[] }>(`/api/tasks/${task}`)
    await Promise.all(cards.map((c) => fetch(`${ADDRESS}/api/drawings/${c.id}/thumbnail?late=1`).then((r) => r.text())))
    await pause(10_000)
  }
}

/** Opens the page of all copies a few times; answers until all pictures of it that are in sight were there, ms. */
async function pageTimes(page: Page, task: string): Promise<number[]> {
  const times: number[] = []
  for (let i = 0; i < 5; i++) {
    await pause(3000)
    const began = performance.now()
    await page.goto(`${ADDRESS}/tasks/${task}`)
    await page.waitForFunction((count) => {
      const pictures = [...document.querySelectorAll<HTMLImageElement>('[data-testid=copy] img')]
      return (
        pictures.length === count &&
        pictures.every((i) => i.getBoundingClientRect().top > innerHeight || i.naturalWidth > 0)
      )
    }, SEATS)
    times.push(performance.now() - began)
  }
  return times
}
