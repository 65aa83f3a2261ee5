import type { Remote } from 'comlink'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RasterWorker } from '~/workers/raster.worker'
import { InkRaster } from '~/canvas/ink-raster'
import type { InkEntry } from '~/painting/paint-stack'
import { TILE } from '~/painting/tile'

/** A worker that answers when it is told to, and counts the pictures that nobody gave back. */
class Painter {
  alive = 0
  asked: { key: string; answer: () => void }[] = []
  setStack = (): Promise<void> => Promise.resolve()
  replaced: [place: number, id: string][] = []
  replace(entries: [number, InkEntry][]): void {
    this.replaced.push(...entries.map(([place, { id }]): [number, string] => [place, id]))
  }
  hide = (): Promise<void> => Promise.resolve()
  tile = (_: number, tx: number, ty: number): Promise<ImageBitmap> =>
    new Promise((resolve) => {
      const answer = (): void => {
        this.alive++
        let open = true
        resolve({ close: () => void (open && ((open = false), this.alive--)) } as unknown as ImageBitmap)
      }
      this.asked.push({ key: `${tx},${ty}`, answer })
    })

  async answerAll(): Promise<void> {
    for (const { answer } of this.asked.splice(0)) answer()
    await new Promise((resolve) => setImmediate(resolve))
  }
}

const entry = (id: string, x: number): InkEntry => ({
  id,
  colour: '#000',
  parts: [{ data: `M${x} 0`, box: { minX: x, minY: 0, maxX: x + 10, maxY: 10 } }],
  box: { minX: x, minY: 0, maxX: x + 10, maxY: 10 },
  behind: [],
  layer: '',
  opacity: 1,
})

describe('tiles of ink', () => {
  let painter: Painter
  let raster: InkRaster
  const look = (x: number, zoom = 1): void => raster.setView({ x, y: 0, zoom, angle: 0, mirrored: false })

  beforeEach(() => {
    vi.stubGlobal('window', { devicePixelRatio: 1 })
    vi.stubGlobal('requestAnimationFrame', () => 0)
    vi.stubGlobal('cancelAnimationFrame', () => undefined)
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    painter = new Painter()
    raster = new InkRaster(
      { width: 2 * TILE, height: TILE } as HTMLCanvasElement,
      painter as unknown as Remote<RasterWorker>,
    )
    look(0)
    vi.runAllTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  it('are given back when the page moves on, when it is zoomed, and at the end', async () => {
    await painter.answerAll()
    for (let i = 1; i <= 60; i++) {
      look(i * TILE)
      await painter.answerAll()
    }
    // Those in sight, and two dozen for when the page comes back.
    expect(painter.alive).toBeLessThanOrEqual(6 + 24)
    for (const zoom of [2, 3, 4]) {
      look(0, zoom)
      vi.runAllTimers()
      await painter.answerAll()
    }
    expect(painter.alive).toBeLessThanOrEqual(6)
    raster.destroy()
    expect(painter.alive).toBe(0)
  })

  it('that are under way are asked for again only where an edit touches them', async () => {
    await painter.answerAll()
    const both = [entry('left', 5), entry('right', TILE + 5)]
    raster.setStack(both)
    const first = painter.asked.map((a) => a.key)
    expect(first).toContain('0,0')
    expect(first).toContain('1,0')
    // The left line changes again before any picture has come.
    raster.setStack([{ ...entry('left', 5), parts: [{ data: 'M1 1', box: entry('left', 5).box }] }, both[1]!])
    // What changed where it stands is sent alone.
    expect(painter.replaced).toEqual([[0, 'left']])
    expect(painter.asked.slice(first.length).map((a) => a.key)).toEqual(['0,0'])
    await painter.answerAll()
    raster.destroy()
    expect(painter.alive).toBe(0)
  })
})
