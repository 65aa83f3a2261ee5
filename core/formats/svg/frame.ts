import type { Path } from '../../geometry/path'
import type { Box } from '../../geometry/bounds'
import type { Matrix } from '../../geometry/matrix'
import { composed, IDENTITY, mapped } from '../../geometry/matrix'
import type { Clip } from './clips'
import { boxOfPaths } from './drawing-builder'
import type { SvgElement } from './element'
import { lengthOf } from './lengths'
import { dataOfShape, pathsOfData } from './paths'
import type { Style } from './style'
import { matrixOf } from './transform'
import type { ViewBox } from './viewport'

/** What an element finds about it. */
export interface Frame {
  matrix: Matrix
  style: Style
  /** What groups about it let through, 0..1. */
  alpha: number
  clips: readonly Clip[]
  /** The nearest viewport, in its own user space. */
  port: ViewBox
  /** The named group that it lies in. */
  group: string | null
  /** Ids of what is being reused. */
  reusing: readonly string[]
}

/** Elements that draw nothing where they stand. */
export const SKIPPED = new Set([
  'defs',
  'clipPath',
  'mask',
  'pattern',
  'marker',
  'symbol',
  'metadata',
  'linearGradient',
  'radialGradient',
  'filter',
  'style',
  'title',
  'desc',
  'script',
  'animate',
  'animateTransform',
  'set',
])

/** The rectangle of a view box, put through a matrix. */
export const rectangle = ({ x, y, width, height }: ViewBox, matrix: Matrix): Path => ({
  closed: true,
  nodes: [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ].map(([px, py]) => ({ at: mapped(matrix, { x: px!, y: py! }), in: null, out: null, joint: 'corner' as const })),
})

/** Paths of an element and all in it, in its own space. */
export function localPaths(e: SvgElement, matrix: Matrix = IDENTITY): Path[] {
  const d = dataOfShape(e.tag, e.attributes)
  const own = d ? pathsOfData(d, matrix).filter((p) => p.nodes.length) : []
  return [
    ...own,
    ...(SKIPPED.has(e.tag)
      ? []
      : e.children.flatMap((c) => localPaths(c, composed(matrix, matrixOf(c.attributes.transform))))),
  ]
}

/** Bounds of what is drawn in an element; undefined where nothing is. */
export function boxOfContents(e: SvgElement, matrix: Matrix): Box | undefined {
  const paths = localPaths(e, matrix)
  return paths.length ? boxOfPaths(paths) : undefined
}

/** Where lettering or a picture stands. */
export function placeOf(e: SvgElement, { matrix, style, port }: Frame): Box {
  const of = (name: string, whole: number, otherwise: number): number =>
    lengthOf(e.attributes[name]?.split(/[\s,]/)[0], { whole, em: style.em }) ?? otherwise
  const [x, y] = [of('x', port.width, 0), of('y', port.height, 0)]
  const lettering = e.tag === 'text'
  const size = lettering
    ? { width: style.em * 0.5 * Math.max(1, lettersIn(e)), height: style.em }
    : { width: of('width', port.width, 0), height: of('height', port.height, 0) }
  return boxOfPaths([rectangle({ x, y: lettering ? y - style.em : y, ...size }, matrix)])
}

const lettersIn = (e: SvgElement): number => e.text.trim().length + e.children.reduce((n, c) => n + lettersIn(c), 0)
