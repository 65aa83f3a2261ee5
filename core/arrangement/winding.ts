import { checkFaces, hashOf } from './check-arrangement'
import type { PlanarMap } from './planar-map'

/** What is known of a face: the winding number of each group, and how many groups cover it (a number other than 0). */
export interface Covering {
  winding: Int32Array
  covered: number
}

/**
 * Visits every face with its winding numbers. Walks the faces as a tree from the unbounded one and keeps one set of
 * numbers, changed on the way in and back on the way out, so that the cost grows with the edges and not with the groups.
 *
 * @throws ArrangementFault where the edges contradict each other
 */
export function visitFaces(m: PlanarMap, groups: number, visit: (face: number, covering: Covering) => void): void {
  const halves = m.origin.length
  const first = new Int32Array(m.faces + 1)
  for (let h = 0; h < halves; h++) first[m.face[h]! + 1]!++
  for (let f = 0; f < m.faces; f++) first[f + 1]! += first[f]!
  const around = new Int32Array(halves)
  const fill = first.slice()
  for (let h = 0; h < halves; h++) around[fill[m.face[h]!]!++] = h
  const covering: Covering = { winding: new Int32Array(groups), covered: 0 }
  const seen = new Uint8Array(m.faces)
  const next = first.slice()
  /** The half-chains crossed on the way to the face at hand. */
  const path: number[] = []
  const hashes = new Int32Array(m.faces)
  let face = 0
  seen[0] = 1
  visit(0, covering)
  for (;;) {
    if (next[face]! < first[face + 1]!) {
      const h = around[next[face]!++]!
      const over = m.face[h ^ 1]!
      if (seen[over]) continue
      seen[over] = 1
      cross(m, h, covering)
      path.push(h)
      const change = hashOf(m.arrangement.owners.get(m.chains.owners[h >> 1]!))
      hashes[over] = hashes[face]! + (h & 1 ? change : -change)
      face = over
      visit(face, covering)
    } else if (path.length) {
      const h = path.pop()! ^ 1
      cross(m, h, covering)
      face = m.face[h ^ 1]!
    } else break
  }
  checkFaces(m, hashes)
}

/** Goes over half-chain `h`, from the face on its left to the face on its right. */
function cross(m: PlanarMap, h: number, covering: Covering): void {
  const list = m.arrangement.owners.get(m.chains.owners[h >> 1]!)
  const sign = h & 1 ? 1 : -1
  for (let i = 0; i < list.length; i += 2) {
    const group = list[i]!
    const before = covering.winding[group]!
    const after = before + sign * list[i + 1]!
    covering.winding[group] = after
    if (before === 0) covering.covered++
    if (after === 0) covering.covered--
  }
}
