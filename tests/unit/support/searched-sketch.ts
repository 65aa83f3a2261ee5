import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'
import type { GreyImage } from '#core/sketch/grey-image'
import { around, through } from '../../../demo/kit/spline'
import { seeded } from './random-lines'

const [WIDTH, HEIGHT] = [960, 720]

/** Lines as somebody would lay out a small plant or a toadstool: a dome, stalks, a brim, spots, grass; other ones for each seed. */
function linesFor(r: () => number): Path[] {
  const j = (v: number): number => v + (r() - 0.5) * 36
  const spot = (x: number, y: number, size: number): Path =>
    around([x - size, y], [x, y - size * 0.7], [x + size, y], [x, y + size * 0.7])
  return [
    through([j(180), j(330)], [j(260), j(170)], [j(470), j(100)], [j(690), j(170)], [j(780), j(330)]),
    through([j(180), j(372)], [j(330), j(410)], [j(480), j(420)], [j(640), j(408)], [j(780), j(374)]),
    through([j(395), j(460)], [j(385), j(560)], [j(345), j(660)]),
    through([j(575), j(460)], [j(590), j(570)], [j(640), j(660)]),
    spot(j(400), j(235), 38 + 14 * r()),
    spot(j(600), j(270), 30 + 12 * r()),
    through([j(90), j(640)], [j(120), j(560)], [j(170), j(500)]),
    through([j(820), j(640)], [j(850), j(540)], [j(890), j(470)]),
  ]
}

/**
 * A small picture of lines that were searched for with several strokes, `apart` px from each to the next, and the lines
 * that are meant: the middle of their strokes. Strokes drift, and swap sides now and then, as searching ones do.
 */
export function searchedSketch(strokes: number, apart: number, seed: number): { image: GreyImage; paths: Path[] } {
  const r = seeded(seed)
  const dark = new Float32Array(WIDTH * HEIGHT)
  const tooth = Float32Array.from({ length: WIDTH * HEIGHT }, () => r())
  const paths = linesFor(r)
  for (const path of paths) {
    const arc = new ArcLength(cubicsOfPath(path))
    const [phase, length] = [7 * r(), 150 + 180 * r()]
    for (let k = 0; k < strokes; k++) {
      const lane = (k - (strokes - 1) / 2) * apart
      const press = 0.5 + 0.3 * r()
      const [from, to] = path.closed || !k ? [0, arc.total] : [arc.total * 0.04 * r(), arc.total * (1 - 0.04 * r())]
      for (let s = from; s <= to; s += 0.5) {
        const t = arc.tangent(s) ?? { x: 1, y: 0 }
        const off = lane * Math.cos((6.283 * s) / length + phase) + 0.4 * Math.sin(s / 17 + 5 * k)
        const p = arc.point(s)
        touch({ x: p.x - t.y * off, y: p.y + t.x * off }, press)
      }
    }
  }
  function touch(p: Vec, force: number): void {
    for (let y = Math.max(0, Math.floor(p.y - 3)); y <= Math.min(HEIGHT - 1, p.y + 3); y++) {
      for (let x = Math.max(0, Math.floor(p.x - 3)); x <= Math.min(WIDTH - 1, p.x + 3); x++) {
        const soft = Math.max(0, Math.min(1, 1.7 - Math.hypot(x + 0.5 - p.x, y + 0.5 - p.y)))
        const i = y * WIDTH + x
        dark[i] =
          dark[i]! +
          (0.8 - dark[i]!) * Math.min(1, 0.5 * force * soft * Math.max(0, Math.min(1, (tooth[i]! - 0.25) * 3)))
      }
    }
  }
  const grey = Uint8Array.from(dark, (d, i) => Math.max(0, Math.min(255, (238 + (tooth[i]! - 0.5) * 12) * (1 - d))))
  return { image: { width: WIDTH, height: HEIGHT, grey }, paths }
}
