import type { Line } from '../model/model'
import type { Path } from '../geometry/path'
import { InputError } from '../errors'
import type { Vec } from '../geometry/point'

const finite = (v: number, field: string): void => {
  if (!Number.isFinite(v)) throw new InputError(field, `${field} must be a number, not ${v}.`)
}

const point = (p: Vec | null, field: string): void => {
  if (!p) return
  finite(p.x, `${field}.x`)
  finite(p.y, `${field}.y`)
}

const notNegative = (v: number, field: string): void => {
  finite(v, field)
  if (v < 0) throw new InputError(field, `${field} must not be negative, but is ${v}.`)
}

/** Throws InputError for a path with a coordinate that is not a finite number. */
export function checkPath(path: Path, field = 'path'): void {
  path.nodes.forEach((n, i) => {
    point(n.at, `${field}.nodes[${i}].at`)
    point(n.in, `${field}.nodes[${i}].in`)
    point(n.out, `${field}.nodes[${i}].out`)
  })
}

/** Throws InputError for a line that has no width or no place: NaN, infinity, negative widths, an empty path. */
export function checkLine(line: Line): void {
  if (!line.path.nodes.length) throw new InputError('path.nodes', 'A line needs at least one node.')
  checkPath(line.path)
  const { weight, finish } = line
  notNegative(weight.size, 'weight.size')
  if (!weight.stops.length) throw new InputError('weight.stops', 'A weight needs at least one width stop.')
  weight.stops.forEach((s, i) => {
    finite(s.at, `weight.stops[${i}].at`)
    notNegative(s.left, `weight.stops[${i}].left`)
    notNegative(s.right, `weight.stops[${i}].right`)
  })
  for (const end of ['start', 'end'] as const) {
    const taper = weight[end]
    if (!taper) continue
    notNegative(taper.length, `weight.${end}.length`)
    notNegative(taper.tip, `weight.${end}.tip`)
  }
  if (weight.nib) {
    notNegative(weight.nib.width, 'weight.nib.width')
    notNegative(weight.nib.height, 'weight.nib.height')
    finite(weight.nib.angle, 'weight.nib.angle')
  }
  finite(finish.miterLimit, 'finish.miterLimit')
  if (finish.rough) {
    notNegative(finish.rough.amount, 'finish.rough.amount')
    notNegative(finish.rough.grain, 'finish.rough.grain')
    finite(finish.rough.seed, 'finish.rough.seed')
  }
  finish.dash.forEach((d, i) => notNegative(d, `finish.dash[${i}]`))
}
