import type { Box } from '#core/geometry/bounds'
import { boxOfPoints } from '#core/geometry/bounds'
import type { Vec } from '#core/geometry/point'

/** How the page lies on the screen: turned by `angle` degrees, then mirrored left to right, with `zoom` screen px per page px. */
export interface Viewport {
  /** The page point at the view's top left. */
  x: number
  y: number
  zoom: number
  angle: number
  mirrored: boolean
}

export interface Extent {
  width: number
  height: number
}

const SMALLEST_ZOOM = 0.05
const LARGEST_ZOOM = 64

/** a, b, c, d of the matrix that turns a step on the page into one on the screen: x' = a x + c y, y' = b x + d y. */
function turnOf({ zoom, angle, mirrored }: Viewport): [number, number, number, number] {
  const [cos, sin] = cosSin(angle)
  const k = mirrored ? -zoom : zoom
  return [k * cos, zoom * sin, -k * sin, zoom * cos]
}

/** Quarter turns are exact, so that an upright page has no rounding in it. */
function cosSin(angle: number): [number, number] {
  if (angle % 90) return [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)]
  const quarter = (((angle / 90) % 4) + 4) % 4
  return (
    [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ] as const
  )[quarter]!.slice() as [number, number]
}

/** A step on the page as one on the screen. */
export function stepToScreen(v: Viewport, d: Vec): Vec {
  const [a, b, c, e] = turnOf(v)
  return { x: a * d.x + c * d.y, y: b * d.x + e * d.y }
}

/** A step on the screen as one on the page. */
function stepToPage(v: Viewport, d: Vec): Vec {
  const [a, b, c, e] = turnOf(v)
  const det = a * e - b * c
  return { x: (e * d.x - c * d.y) / det, y: (a * d.y - b * d.x) / det }
}

export const toScreen = (v: Viewport, p: Vec): Vec => stepToScreen(v, { x: p.x - v.x, y: p.y - v.y })

export function toPage(v: Viewport, s: Vec): Vec {
  const d = stepToPage(v, s)
  return { x: v.x + d.x, y: v.y + d.y }
}

/** a to f of the matrix from page to screen px times `k`, as canvases and style sheets take it. */
export function matrixOf(v: Viewport, k = 1): [number, number, number, number, number, number] {
  const [a, b, c, d] = turnOf(v)
  const o = toScreen(v, { x: 0, y: 0 })
  return [a * k, b * k, c * k, d * k, o.x * k, o.y * k]
}

/** The viewport with page point `p` at screen point `s`. */
export function withPointAt(v: Viewport, p: Vec, s: Vec): Viewport {
  const d = stepToPage(v, s)
  return { ...v, x: p.x - d.x, y: p.y - d.y }
}

export const clampZoom = (zoom: number): number => Math.min(LARGEST_ZOOM, Math.max(SMALLEST_ZOOM, zoom))

/** The viewport changed in zoom, turn or mirroring, while the page point under `at` on the screen stays there. */
export const changedAt = (
  v: Viewport,
  at: Vec,
  change: Partial<Pick<Viewport, 'zoom' | 'angle' | 'mirrored'>>,
): Viewport => withPointAt({ ...v, ...change }, toPage(v, at), at)

/** The corners of the view, in page px, in order around it. */
export const cornersOf = (v: Viewport, { width, height }: Extent): Vec[] =>
  [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ].map((s) => toPage(v, s))

/** The smallest upright box of the page that holds all that the view shows. */
export const boxInView = (v: Viewport, extent: Extent): Box => boxOfPoints(cornersOf(v, extent))

/** An angle brought to -180 (excluded) to 180 degrees. */
export function tidyAngle(angle: number): number {
  const a = ((angle % 360) + 360) % 360
  return a > 180 ? a - 360 : a
}

/** The viewport that shows a whole page in the middle with a margin (screen px), or at `zoom` in the middle. */
export function showing(v: Viewport, page: Extent, view: Extent, margin: number, zoom?: number): Viewport {
  const box = boxOfPoints(
    [
      { x: 0, y: 0 },
      { x: page.width, y: 0 },
      { x: page.width, y: page.height },
      { x: 0, y: page.height },
    ].map((p) => stepToScreen({ ...v, zoom: 1 }, p)),
  )
  const fit = Math.min(
    (view.width - 2 * margin) / (box.maxX - box.minX),
    (view.height - 2 * margin) / (box.maxY - box.minY),
  )
  const turned = { ...v, zoom: clampZoom(zoom ?? fit) }
  return withPointAt(turned, { x: page.width / 2, y: page.height / 2 }, { x: view.width / 2, y: view.height / 2 })
}

/** Degrees by which a hand turns that goes from one arm to another. */
export const turnBetween = (from: Vec, to: Vec): number =>
  tidyAngle(((Math.atan2(to.y, to.x) - Math.atan2(from.y, from.x)) * 180) / Math.PI)
