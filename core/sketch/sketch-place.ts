import { boxOfPoints } from '../geometry/bounds'
import type { Vec } from '../geometry/point'
import { add, rotate, subtract } from '../geometry/point'
import type { Crop, Sketch } from '../model/model'

type Place = Pick<Sketch, 'x' | 'y' | 'width' | 'height' | 'angle'>

/** All of a picture. */
export const WHOLE: Crop = { x: 0, y: 0, width: 1, height: 1 }
/** A part of a picture that is kept has at least this share of its sides. */
const LEAST = 0.01

const radians = (degrees: number): number => (degrees * Math.PI) / 180

/** Where shares of what is seen of a sketch, 0..1 from its first corner, lie on the page: it is turned about that corner. */
export const fromShares = ({ x, y, width, height, angle }: Place, { x: u, y: v }: Vec): Vec =>
  add({ x, y }, rotate({ x: u * width, y: v * height }, radians(angle)))

/** A point of the page in shares of what is seen of a sketch. */
export function toShares({ x, y, width, height, angle }: Place, p: Vec): Vec {
  const q = rotate(subtract(p, { x, y }), -radians(angle))
  return { x: q.x / width, y: q.y / height }
}

/** Corners in order: top left, top right, bottom right, bottom left, turned about the top left. */
export const cornersOf = (s: Place): [Vec, Vec, Vec, Vec] => [
  fromShares(s, { x: 0, y: 0 }),
  fromShares(s, { x: 1, y: 0 }),
  fromShares(s, { x: 1, y: 1 }),
  fromShares(s, { x: 0, y: 1 }),
]

/** Whether a point of the page, px, lies on a sketch. */
export const isOnSketch = (s: Place, p: Vec): boolean => {
  const q = toShares(s, p)
  return q.x >= 0 && q.x <= 1 && q.y >= 0 && q.y <= 1
}

/** A sketch turned by degrees, clockwise as it is seen, about its middle. */
export function turnedBy<T extends Place>(s: T, degrees: number): T {
  const middle = fromShares(s, { x: 0.5, y: 0.5 })
  const first = add(middle, rotate(subtract({ x: s.x, y: s.y }, middle), radians(degrees)))
  return { ...s, ...first, angle: tidy(s.angle + degrees) }
}

/** By how many degrees a sketch is turned for what runs from `a` to `b` to be level, or upright where it is nearer to that. */
export function levelling(a: Vec, b: Vec): number {
  const degrees = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI
  return Math.round(degrees / 90) * 90 - degrees
}

/** Degrees from -180 on and below 180. */
const tidy = (degrees: number): number => degrees - 360 * Math.floor((degrees + 180) / 360)

/** A sketch of which only what lies between two corners is kept, shares of what is seen of it; that stays where it is. */
export function croppedTo<T extends Sketch>(s: T, a: Vec, b: Vec): T {
  const span = (p: number, q: number): [number, number] => {
    const [from, to] = [Math.max(0, Math.min(p, q)), Math.min(1, Math.max(p, q))]
    return to - from < LEAST ? [Math.min(from, 1 - LEAST), LEAST] : [from, to - from]
  }
  const [[x, width], [y, height]] = [span(a.x, b.x), span(a.y, b.y)]
  const was = s.crop ?? WHOLE
  const left = s.mirrored ? 1 - x - width : x
  return {
    ...s,
    ...fromShares(s, { x, y }),
    width: s.width * width,
    height: s.height * height,
    crop: {
      x: was.x + left * was.width,
      y: was.y + y * was.height,
      width: width * was.width,
      height: height * was.height,
    },
  }
}

/** What of a sketch's picture it takes to show it: what is kept, or where the paper lies that is set right. */
export function partSeen({ corners, crop }: Pick<Sketch, 'corners' | 'crop'>): Crop {
  if (!corners) return crop ?? WHOLE
  const { minX, minY, maxX, maxY } = boxOfPoints(corners)
  const [x, y] = [Math.max(0, minX), Math.max(0, minY)]
  return { x, y, width: Math.max(1e-4, Math.min(1, maxX) - x), height: Math.max(1e-4, Math.min(1, maxY) - y) }
}

/** A sketch with all of its picture again; what was kept of it stays where it is. */
export function uncropped<T extends Sketch>(s: T): T {
  const { crop, ...rest } = s
  if (!crop) return s
  const left = s.mirrored ? 1 - crop.x - crop.width : crop.x
  const size = { width: s.width / crop.width, height: s.height / crop.height }
  return { ...rest, ...size, ...fromShares({ ...s, ...size }, { x: -left, y: -crop.y }) } as T
}

/** A sketch seen from behind, about its own middle. */
export function mirroredOver<T extends Sketch>(s: T): T {
  const { mirrored, ...rest } = s
  const turned = turnedBy(rest as T, -2 * s.angle)
  return mirrored ? turned : { ...turned, mirrored: true }
}

/** A sketch as a mirror that stands upright at `x` of the page shows it. */
export function mirroredAcross<T extends Sketch>(s: T, x: number): T {
  const turned = mirroredOver(s)
  const by = 2 * (x - fromShares(s, { x: 0.5, y: 0.5 }).x)
  return { ...turned, x: turned.x + by }
}

/**
 * A sketch of which the paper lies within other corners, shares of its picture; null takes it as it was taken. It keeps its
 * place and its width, and its height follows; what was cropped is whole again.
 *
 * @param ratio height by width of what lies within
 */
export function withPaper<T extends Sketch>(s: T, corners: Sketch['corners'] | null, ratio: number): T {
  const whole = { ...uncropped(s) }
  delete whole.corners
  const height = whole.width * ratio
  return corners ? { ...whole, height, corners } : { ...whole, height }
}
