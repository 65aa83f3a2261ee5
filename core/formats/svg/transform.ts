import type { Matrix } from '../../geometry/matrix'
import { composed, IDENTITY } from '../../geometry/matrix'

/** The matrix of an SVG transform attribute, read in one pass; parts that cannot be read are left out. */
export function matrixOf(text = ''): Matrix {
  let out = IDENTITY
  for (let from = 0; ;) {
    const open = text.indexOf('(', from)
    const close = text.indexOf(')', open)
    if (open < 0 || close < 0) return out
    const name = /\w{1,9}$/.exec(text.slice(Math.max(from, open - 20), open).trimEnd())
    const v = close - open < LONGEST_LIST ? numbersIn(text.slice(open + 1, close)) : []
    const step = name && v.every(Number.isFinite) ? single(name[0], v) : null
    if (step) out = composed(out, step)
    from = close + 1
  }
}

/** No list of numbers in a transform is longer than this, characters. */
const LONGEST_LIST = 1000

const numbersIn = (list: string): number[] =>
  list
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number.parseFloat)

function single(name: string, v: number[]): Matrix | null {
  const [a = 0, b, c] = v
  switch (name) {
    case 'matrix':
      return v.length === 6 ? (v as unknown as Matrix) : null
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0]
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0]
    case 'rotate': {
      const r = (a * Math.PI) / 180
      const turned: Matrix = [Math.cos(r), Math.sin(r), -Math.sin(r), Math.cos(r), 0, 0]
      if (b === undefined || c === undefined) return turned
      return composed(composed([1, 0, 0, 1, b, c], turned), [1, 0, 0, 1, -b, -c])
    }
    case 'skewX':
      return [1, 0, Math.tan((a * Math.PI) / 180), 1, 0, 0]
    case 'skewY':
      return [1, Math.tan((a * Math.PI) / 180), 0, 1, 0, 0]
    default:
      return null
  }
}

/** Mean scale of a matrix, and whether it scales all directions alike. */
export function scaleOf(m: Matrix): { scale: number; even: boolean } {
  const scale = Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]))
  const e = 1e-6 * (Math.abs(m[0]) + Math.abs(m[1]) + Math.abs(m[2]) + Math.abs(m[3]))
  const straight = Math.abs(m[0] - m[3]) <= e && Math.abs(m[1] + m[2]) <= e
  const mirrored = Math.abs(m[0] + m[3]) <= e && Math.abs(m[1] - m[2]) <= e
  return { scale, even: straight || mirrored }
}
