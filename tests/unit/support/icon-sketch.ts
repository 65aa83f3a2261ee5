import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { parseSvg } from '#core/formats/svg/parse-svg'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath, mapPath } from '#core/geometry/path'
import type { GreyImage } from '#core/sketch/grey-image'
import { seeded } from './random-lines'

/** How a sheet is drawn and taken. */
export interface SketchKind {
  name: string
  /** Smooth; with a tooth that breaks the pencil; tinted and mottled. */
  paper: 'smooth' | 'toothed' | 'mottled'
  /** Searching strokes for each line. */
  strokes: 1 | 2 | 3 | 4
  /** Sigma, px of the scan. */
  blur?: number
  /** Quality of a JPEG that it goes through. */
  jpeg?: number
  /** What a shadow across it takes of the light, 0..1. */
  shadow?: number
}

const FOLDER = 'node_modules/lucide-static/icons'
/** Icons of 24 px are drawn so large, px of the page; the scan has twice as many. */
const CELL = 200
const SCAN = 2
const [ACROSS, DOWN] = [4, 2]

/** A sheet of eight icons as a pencil would draw them, and the lines that were drawn, px of the scan. */
export async function iconSketch(
  names: readonly string[],
  { paper, strokes, blur, jpeg, shadow = 0 }: SketchKind,
  seed: number,
): Promise<{ image: GreyImage; paths: Path[] }> {
  const r = seeded(seed)
  const [width, height] = [ACROSS * CELL * SCAN, DOWN * CELL * SCAN]
  const dark = new Float32Array(width * height)
  const noise = (): Float32Array => Float32Array.from({ length: width * height }, () => r())
  const tooth = noise()
  const paths: Path[] = []
  names.slice(0, ACROSS * DOWN).forEach((name, n) => {
    const k = (CELL * SCAN) / 28
    const [ox, oy] = [
      ((n % ACROSS) * CELL + (2 * CELL) / 28) * SCAN,
      (Math.floor(n / ACROSS) * CELL + (2 * CELL) / 28) * SCAN,
    ]
    const { drawing } = parseSvg(readFileSync(join(FOLDER, `${name}.svg`), 'utf8'))
    const lines = drawing.layers.flatMap((l) => (l.kind === 'lines' ? l.items : [])) as Line[]
    // Icons come in at the size of the page that they ask for: 24 px to a side.
    for (const line of lines)
      paths.push(
        mapPath(line.path, ({ x, y }) => ({
          x: ox + (x * 24 * k) / drawing.page.width,
          y: oy + (y * 24 * k) / drawing.page.width,
        })),
      )
  })
  for (const path of paths) for (let pass = 0; pass < strokes; pass++) stroke(path, pass)

  function stroke(path: Path, pass: number): void {
    const cubics = cubicsOfPath(path)
    if (!cubics.length) return
    const arc = new ArcLength(cubics)
    const waves = [97, 43].map((length) => ({
      length: length * (0.8 + 0.4 * r()),
      phase: 7 * r(),
      size: 0.7 + 1.1 * pass * r(),
    }))
    const press = 0.55 + 0.25 * r()
    for (let s = 0; s <= arc.total; s += 0.5) {
      const t = arc.tangent(s) ?? { x: 1, y: 0 }
      const off = waves.reduce((sum, w) => sum + w.size * Math.sin((6.283 * s) / w.length + w.phase), 0)
      const p = arc.point(s)
      touch({ x: p.x - t.y * off, y: p.y + t.x * off }, 1.3, press)
    }
  }
  function touch(p: Vec, radius: number, force: number): void {
    for (let y = Math.max(0, Math.floor(p.y - 3)); y <= Math.min(height - 1, p.y + 3); y++) {
      for (let x = Math.max(0, Math.floor(p.x - 3)); x <= Math.min(width - 1, p.x + 3); x++) {
        const soft = Math.max(0, Math.min(1, radius + 0.5 - Math.hypot(x + 0.5 - p.x, y + 0.5 - p.y)))
        const i = y * width + x
        const caught = paper === 'toothed' ? Math.max(0, Math.min(1, (tooth[i]! - 0.35) * 3)) : 1
        dark[i] = dark[i]! + (0.8 - dark[i]!) * Math.min(1, 0.5 * force * soft * caught)
      }
    }
  }

  const mottle =
    paper === 'mottled'
      ? await sharp(Buffer.from(noise().map((v) => 255 * v)), { raw: { width, height, channels: 1 } })
          .blur(6)
          .normalise()
          .greyscale()
          .raw()
          .toBuffer()
      : null
  const tone = { smooth: 250, toothed: 236, mottled: 205 }[paper]
  const grey = Buffer.alloc(width * height)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      const light = 1 - shadow / (1 + Math.exp(-(x / width + y / height - 1) * 9))
      const sheet = tone + (mottle ? (mottle[i]! - 128) * 0.12 : 0) + (paper === 'toothed' ? (tooth[i]! - 0.5) * 14 : 0)
      grey[i] = Math.max(0, Math.min(255, sheet * light * (1 - dark[i]!)))
    }
  }
  let picture = sharp(grey, { raw: { width, height, channels: 1 } })
  if (blur) picture = picture.blur(blur)
  const file = jpeg ? await picture.jpeg({ quality: jpeg }).toBuffer() : await picture.png().toBuffer()
  const { data, info } = await sharp(file).greyscale().raw().toBuffer({ resolveWithObject: true })
  return { image: { width: info.width, height: info.height, grey: new Uint8Array(data) }, paths }
}
