import type { Piece } from '../arrangement/cut-back'
import type { Loop } from '../arrangement/loop'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import type { Box } from '../geometry/bounds'
import { digestOf, digestOfContour } from '../recall/digest'
import type { Code } from '../recall/recall'
import type { Gate, Side, Strand } from './cell-strands'

const SIDES: readonly Side[] = ['left', 'right', 'above', 'below']

/** Numbers before the pieces of a strand: its gates, and how many pieces. */
const HEAD = 5
/** Numbers a piece takes: its curve, from where to where on it, and the places of its ends. */
const PIECE = 7

/**
 * Strands as numbers; their curves are told by their places among the arcs of `loops`. Strands along other curves (loops
 * that were moved a little to mend something) are not kept.
 */
export const strandCode = (loops: readonly Loop[]): Code<Strand[]> => ({
  encode: (strands) => encoded(strands, loops),
  decode: (numbers) => decoded(numbers, loops),
  owner: ([first]) => first ?? null,
})

/** The key of the strands of a cell: its bounds, and the contours that come near it, with how often others go round it. */
export function keyOfCell(
  { minX, minY, maxX, maxY }: Box,
  tolerance: number,
  around: number,
  contours: readonly (readonly Cubic[])[],
): string {
  const where = [minX, minY, maxX, maxY, tolerance, around].join(' ')
  return digestOf(`cell ${where} ${contours.map(digestOfContour).join('')}`)
}

function encoded(strands: readonly Strand[], loops: readonly Loop[]): Float64Array | null {
  const places = new Map<Cubic, number>()
  let place = 0
  for (const loop of loops) {
    for (const { curve } of loop) {
      if (!places.has(curve)) places.set(curve, place)
      place++
    }
  }
  const out = new Float64Array(strands.reduce((n, s) => n + HEAD + PIECE * s.pieces.length, 0))
  let at = 0
  for (const { pieces, from, to } of strands) {
    for (const gate of [from, to]) {
      out[at++] = gate ? SIDES.indexOf(gate.side) : -1
      out[at++] = gate?.at ?? 0
    }
    out[at++] = pieces.length
    for (const { curve, t0, t1, start, end } of pieces) {
      const own = places.get(curve)
      if (own === undefined) return null
      for (const n of [own, t0, t1, start.x, start.y, end.x, end.y]) out[at++] = n
    }
  }
  return out
}

function decoded(code: Float64Array, loops: readonly Loop[]): Strand[] | null {
  const curves = loops.flatMap((loop) => loop.map((arc) => arc.curve))
  const strands: Strand[] = []
  for (let at = 0; at < code.length;) {
    const [from, to] = [gateOf(code, at), gateOf(code, at + 2)]
    const pieces: Piece[] = []
    for (let left = code[at + 4]!, i = at + HEAD; left > 0; left--, i += PIECE) {
      const curve = curves[code[i]!]
      if (!curve) return null
      const [t0, t1] = [code[i + 1]!, code[i + 2]!]
      const start = placeOf(code, i + 3, [pieces[pieces.length - 1]?.end, curve.p0, curve.p3])
      const end = placeOf(code, i + 5, [from ? undefined : pieces[0]?.start, curve.p0, curve.p3])
      pieces.push({ curve, t0, t1, start, end })
    }
    at += HEAD + PIECE * pieces.length
    strands.push({ pieces, from, to })
  }
  return strands
}

function gateOf(code: Float64Array, at: number): Gate | null {
  const side = SIDES[code[at]!]
  return side ? { side, at: code[at + 1]! } : null
}

/** A place, the same object as one of those that may be it. */
function placeOf(code: Float64Array, at: number, known: readonly (Vec | undefined)[]): Vec {
  const [x, y] = [code[at]!, code[at + 1]!]
  return known.find((p) => p?.x === x && p.y === y) ?? { x, y }
}
