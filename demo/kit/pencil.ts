import sharp from 'sharp'
import type { Line, Page } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import { leftNormal } from '../../core/geometry/point'
import { random, wobble } from './random'

/** Scan resolution: picture px per page px. */
const SCAN = 2

/** Graphite on a sheet: how dark each px is, 0..1. */
class Sheet {
  readonly dark: Float32Array
  private readonly grain: Float32Array

  constructor(
    readonly width: number,
    readonly height: number,
    next: () => number,
  ) {
    this.dark = new Float32Array(width * height)
    this.grain = blurred(
      Float32Array.from({ length: width * height }, () => next()),
      width,
      height,
    )
  }

  /** A touch of the pencil: a soft dot, caught by the tooth of the paper. */
  touch(x: number, y: number, radius: number, force: number): void {
    const reach = Math.ceil(radius + 1)
    for (let py = Math.max(0, Math.floor(y) - reach); py <= Math.min(this.height - 1, Math.floor(y) + reach); py++) {
      for (let px = Math.max(0, Math.floor(x) - reach); px <= Math.min(this.width - 1, Math.floor(x) + reach); px++) {
        // The middle of the first pixel lies half a pixel in.
        const d = Math.hypot(px + 0.5 - x, py + 0.5 - y)
        const soft = Math.max(0, Math.min(1, radius + 0.5 - d))
        if (soft === 0) continue
        const i = py * this.width + px
        const tooth = Math.max(0, Math.min(1, (this.grain[i]! - 0.3) * 4))
        this.dark[i]! += (0.92 - this.dark[i]!) * Math.min(1, force * soft * tooth)
      }
    }
  }

  pixels(next: () => number): Uint8Array {
    const out = new Uint8Array(this.width * this.height * 3)
    for (let i = 0; i < this.dark.length; i++) {
      const paper = 0.965 + (this.grain[i]! - 0.5) * 0.05 + (next() - 0.5) * 0.012
      const light = paper * (1 - this.dark[i]! * 0.82)
      out[3 * i] = Math.round(255 * Math.min(1, light * 0.995))
      out[3 * i + 1] = Math.round(255 * Math.min(1, light * 0.982))
      out[3 * i + 2] = Math.round(255 * Math.min(1, light * 0.953))
    }
    return out
  }
}

function blurred(values: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(values.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (dx: number, dy: number): number =>
        values[Math.min(height - 1, Math.max(0, y + dy)) * width + Math.min(width - 1, Math.max(0, x + dx))]!
      out[y * width + x] = (at(0, 0) * 2 + at(1, 0) + at(-1, 0) + at(0, 1) + at(0, -1)) / 6
    }
  }
  return out
}

/** The scan lies a little askew on the glass, turned about the page's middle. */
function askew(page: Page, angle: number): (p: Vec) => Vec {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const [mx, my] = [page.width / 2, page.height / 2]
  return ({ x, y }) => ({
    x: (mx + (x - mx) * c - (y - my) * s) * SCAN,
    y: (my + (x - mx) * s + (y - my) * c) * SCAN,
  })
}

/**
 * A pencil sketch of lines as a PNG: each line searched for with two or three wobbly strokes that overshoot its ends,
 * on toothed paper with a warm tone, scanned a little askew.
 */
export async function pencilSketch(lines: readonly Line[], page: Page, seed: number): Promise<Buffer> {
  const next = random(seed)
  const sheet = new Sheet(page.width * SCAN, page.height * SCAN, next)
  const place = askew(page, 0.0035)
  for (const line of lines) {
    const arc = new ArcLength(cubicsOfPath(line.path))
    const strokes = arc.total > 60 ? 3 : 2
    for (let k = 0; k < strokes; k++) drawStroke(sheet, arc, place, next, line.path.closed, k)
  }
  return sharp(sheet.pixels(next), { raw: { width: sheet.width, height: sheet.height, channels: 3 } })
    .png({ compressionLevel: 9, palette: true, colours: 128 })
    .toBuffer()
}

function drawStroke(
  sheet: Sheet,
  arc: ArcLength,
  place: (p: Vec) => Vec,
  next: () => number,
  closed: boolean,
  pass: number,
): void {
  const drift = wobble(next)
  const press = wobble(next)
  const amount = 1.6 + 2.6 * pass * next()
  const over = closed ? 0 : 2 + next() * 7
  const skip = pass === 0 ? 0 : next() * arc.total * 0.25
  const step = 1 / SCAN
  for (let s = -over + skip; s <= arc.total + over - skip; s += step) {
    const held = Math.min(arc.total, Math.max(0, s))
    const tangent = arc.tangent(held)
    if (!tangent) return
    const p = arc.point(held)
    const n = leftNormal(tangent)
    const beyond = s - held
    const off = drift(s) * amount
    const at = place({ x: p.x + tangent.x * beyond + n.x * off, y: p.y + tangent.y * beyond + n.y * off })
    const lift = Math.min(1, (s + over - skip) / 14, (arc.total + over - skip - s) / 14)
    sheet.touch(
      at.x,
      at.y,
      1.25 + 0.4 * press(s + 500),
      Math.max(0, lift) * (0.5 + 0.2 * press(s)) * (pass === 0 ? 1.1 : 0.75),
    )
  }
}
