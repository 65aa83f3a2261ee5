import type { Path, PathNode } from '#core/geometry/path'

const cornersOf = (xy: readonly number[]): PathNode[] =>
  xy.flatMap((x, i): PathNode[] => (i % 2 ? [] : [{ at: { x, y: xy[i + 1]! }, in: null, out: null, joint: 'corner' }]))

/** A closed path of straight sides through corners, x and y of each in turn, px. */
export const polygon = (...xy: number[]): Path => ({ nodes: cornersOf(xy), closed: true })

/** An open path of straight segments through points, x and y of each in turn, px. */
export const polyline = (...xy: number[]): Path => ({ nodes: cornersOf(xy), closed: false })

/** Numbers two by two. */
export const pairs = (numbers: readonly number[]): [number, number][] =>
  numbers.flatMap((a, i): [number, number][] => (i % 2 ? [] : [[a, numbers[i + 1]!]]))
