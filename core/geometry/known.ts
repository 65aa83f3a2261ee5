import type { Path } from '../drawing/model'
import { ArcLength } from './arc-length'
import type { Box } from './bounds'
import { boxOfCubics } from './bounds'
import { cubicsOfPath } from './path'

const arcs = new WeakMap<Path, ArcLength>()
const boxes = new WeakMap<Path, Box>()

/** Arc length of a path, measured once as long as it stays the same object. */
export function arcOfPath(path: Path): ArcLength {
  let arc = arcs.get(path)
  if (!arc) arcs.set(path, (arc = new ArcLength(cubicsOfPath(path))))
  return arc
}

/** Bounds of a path's curve, measured once as long as it stays the same object. */
export function boxOfPath(path: Path): Box {
  let box = boxes.get(path)
  if (!box) boxes.set(path, (box = boxOfCubics(cubicsOfPath(path))))
  return box
}
