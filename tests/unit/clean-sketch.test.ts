import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage } from '#core/model/create'
import type { Vec } from '#core/geometry/point'
import { CLEAN, cleaned } from '#core/sketch/clean'
import type { GreyImage } from '#core/sketch/grey-image'
import { findPaper } from '#core/sketch/paper-corners'
import type { Quad } from '#core/sketch/perspective'
import { setRight, sizeOfQuad, squareToQuad } from '#core/sketch/perspective'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { seeded } from './support/random-lines'

const page = defaultPage()

async function sketchOf(i: number): Promise<GreyImage> {
  const lines = SCENARIO[i]!().layers.flatMap((l) => l.lines)
  const { data, info } = await sharp(await pencilSketch(lines, page, 41 + i))
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return { width: info.width, height: info.height, grey: new Uint8Array(data) }
}

const light = (image: { rgba: Uint8ClampedArray }, i: number): number =>
  (image.rgba[4 * i]! + image.rgba[4 * i + 1]! + image.rgba[4 * i + 2]!) / 3

describe('a sketch made clean', () => {
  it('has white paper under strong shadow, and keeps its pencil', async () => {
    const plain = await sketchOf(0)
    const { width, height } = plain
    // A shadow over one corner takes up to six tenths of the light, and a lamp is brighter on one side.
    const shade = (i: number): number => {
      const [x, y] = [(i % width) / width, Math.floor(i / width) / height]
      return (1 - 0.6 / (1 + Math.exp(-(x + y - 1.3) * 9))) * (0.85 + 0.15 * x)
    }
    const shadowed = { width, height, grey: plain.grey.map((v, i) => Math.round(v * shade(i))) }
    const clean = cleaned(shadowed, CLEAN)
    const sorted = plain.grey.toSorted()
    const paper = sorted[Math.floor(0.6 * sorted.length)]!
    // What is paper and what is pencil is known from the picture without the shadow.
    let [white, all, before, after, marks] = [0, 0, 0, 0, 0]
    for (let i = 0; i < plain.grey.length; i++) {
      if (plain.grey[i]! >= paper - 2) {
        all++
        if (light(clean, i) >= 0.98 * 255) white++
      } else if (plain.grey[i]! < 0.7 * paper) {
        marks++
        before += 1 - plain.grey[i]! / paper
        after += 1 - light(clean, i) / 255
      }
    }
    expect(white / all).toBeGreaterThan(0.995)
    expect(marks).toBeGreaterThan(1000)
    expect(after / marks).toBeGreaterThan(0.8 * (before / marks))
  })

  it('loses specks and keeps what is larger; takes its tint; stays as it is where nothing is asked for', () => {
    const grey = new Uint8Array(200 * 100).fill(230)
    for (let x = 20; x < 180; x++) grey[50 * 200 + x] = 60
    grey[20 * 200 + 40] = 60
    const image = { width: 200, height: 100, grey }
    const clean = cleaned(image, { ...CLEAN, specks: 200, tint: '#2040c0' })
    expect(light(clean, 20 * 200 + 40)).toBe(255)
    expect([...clean.rgba.slice(4 * (50 * 200 + 100), 4 * (50 * 200 + 100) + 3)]).toEqual([0x20, 0x40, 0xc0])
    expect(light(cleaned(image, { ...CLEAN, specks: 0 }), 20 * 200 + 40)).toBeLessThan(120)
    const same = cleaned(image, { even: false, white: 0, black: 1, pencil: 1, specks: 0, tint: '#000000' })
    for (const i of [0, 50 * 200 + 100]) expect(Math.abs(light(same, i) - grey[i]!)).toBeLessThan(2)
  })

  it('is white where there was nothing, black where all was black, and as small as a px', () => {
    expect(light(cleaned({ width: 1, height: 1, grey: Uint8Array.of(255) }, CLEAN), 0)).toBe(255)
    const black = cleaned({ width: 30, height: 30, grey: new Uint8Array(900) }, CLEAN)
    expect(light(black, 450)).toBeLessThan(80)
  })
})

describe('a photo of a sketch, taken at a slant', () => {
  const r = seeded(5)
  /** The sketch on a table, seen so that its corners lie at `quad`. */
  function photo(sketch: GreyImage, quad: Quad, width: number, height: number): GreyImage {
    const grey = new Uint8Array(width * height)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) grey[y * width + x] = 70 + 12 * Math.sin(x / 9 + Math.sin(y / 31)) + 8 * r()
    const at = squareToQuad(quad)
    // Finer than a px of the photo, so that none stays open; the mean of what falls on it.
    const [sum, count] = [new Float64Array(width * height), new Float64Array(width * height)]
    const [n, m] = [sketch.width * 2, sketch.height * 2]
    for (let j = 0; j < m; j++) {
      for (let i = 0; i < n; i++) {
        const p = at((i + 0.5) / n, (j + 0.5) / m)
        const k = Math.floor(p.y) * width + Math.floor(p.x)
        sum[k]! += sketch.grey[(j >> 1) * sketch.width + (i >> 1)]!
        count[k]!++
      }
    }
    for (let k = 0; k < grey.length; k++) if (count[k]! > 0) grey[k] = (sum[k]! / count[k]!) * (0.95 + 0.05 * r())
    return { width, height, grey }
  }

  it('shows its corners within 4 px in nine of ten, and set right lies as it was', { timeout: 120_000 }, async () => {
    const sketches = await Promise.all([0, 1, 2, 3, 4].map(sketchOf))
    let found = 0
    const off: number[] = []
    for (let k = 0; k < 10; k++) {
      const sketch = sketches[k % 5]!
      const [w, h] = [1500, 1150]
      const jitter = (): number => (r() - 0.5) * 170
      const quad: Quad = [
        { x: 160 + jitter(), y: 130 + jitter() },
        { x: w - 160 + jitter(), y: 130 + jitter() },
        { x: w - 160 + jitter(), y: h - 130 + jitter() },
        { x: 160 + jitter(), y: h - 130 + jitter() },
      ]
      const image = photo(sketch, quad, w, h)
      const corners = findPaper(image)
      if (corners?.every((p, i) => Math.hypot(p.x - quad[i]!.x, p.y - quad[i]!.y) <= 4)) found++
      const right = setRight(image, quad)
      off.push(shift(sketch, right))
    }
    expect(found).toBeGreaterThanOrEqual(9)
    for (const d of off) expect(d).toBeLessThan(1.5)
  })

  /** How far, px of the sketch, blocks of one picture lie from the same ones of the other at most: where they are most alike. */
  function shift(sketch: GreyImage, right: GreyImage): number {
    const at = (x: number, y: number): number =>
      right.grey[
        Math.min(right.height - 1, Math.max(0, Math.floor(((y + 0.5) * right.height) / sketch.height))) * right.width +
          Math.min(right.width - 1, Math.max(0, Math.floor(((x + 0.5) * right.width) / sketch.width)))
      ]!
    let most = 0
    for (const [u, v] of [
      [0.3, 0.3],
      [0.7, 0.3],
      [0.5, 0.5],
      [0.3, 0.7],
      [0.7, 0.7],
    ] as const) {
      const [x0, y0] = [Math.round(u * sketch.width) - 60, Math.round(v * sketch.height) - 60]
      let best = { d: Infinity, off: 0 }
      for (let dy = -3; dy <= 3; dy++) {
        for (let dx = -3; dx <= 3; dx++) {
          let d = 0
          for (let y = 0; y < 120; y += 2)
            for (let x = 0; x < 120; x += 2)
              d += (sketch.grey[(y0 + y) * sketch.width + x0 + x]! - at(x0 + x + dx, y0 + y + dy)) ** 2
          if (d < best.d) best = { d, off: Math.hypot(dx, dy) }
        }
      }
      most = Math.max(most, best.off)
    }
    return most
  }

  it('shows none where there is no sheet: all dark, all light, noise, a px', () => {
    const of = (value: () => number, width = 200, height = 150): GreyImage => ({
      width,
      height,
      grey: Uint8Array.from({ length: width * height }, value),
    })
    expect(findPaper(of(() => 20))).toBeNull()
    expect(findPaper(of(() => 250))).toBeNull()
    expect(findPaper(of(() => 255 * r()))).toBeNull()
    expect(findPaper(of(() => 255, 1, 1))).toBeNull()
  })

  it('maps the corners of the square onto those of the quad', () => {
    const quad: Quad = [
      { x: 10, y: 20 },
      { x: 300, y: 40 },
      { x: 280, y: 260 },
      { x: 5, y: 240 },
    ]
    const at = squareToQuad(quad)
    const corners: Vec[] = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)]
    corners.forEach((p, i) => expect(Math.hypot(p.x - quad[i]!.x, p.y - quad[i]!.y)).toBeLessThan(1e-9))
    // As wide and as high as its longer sides, and what lies in it stays in its place.
    expect(sizeOfQuad(quad)).toEqual({ width: 291, height: 221 })
    const grey = new Uint8Array(320 * 270).fill(250)
    const mark = at(0.7, 0.2)
    for (let y = -2; y <= 2; y++)
      for (let x = -2; x <= 2; x++) grey[(Math.round(mark.y) + y) * 320 + Math.round(mark.x) + x] = 10
    const right = setRight({ width: 320, height: 270, grey }, quad)
    expect([right.width, right.height]).toEqual([291, 221])
    const dark = [...right.grey.keys()].filter((i) => right.grey[i]! < 60)
    const middle = (of: (i: number) => number): number => dark.reduce((n, i) => n + of(i), 0) / dark.length
    expect(Math.abs(middle((i) => i % 291) - 0.7 * 291)).toBeLessThan(1.5)
    expect(Math.abs(middle((i) => Math.floor(i / 291)) - 0.2 * 221)).toBeLessThan(1.5)
  })
})
