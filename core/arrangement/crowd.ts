import type { EdgeStore } from './edge-store'
import { FLAT } from './loop-chords'

/** Edges are a crowd where each may cross so many others, by their length and the ground that they lie on. */
const CROWD = 2
/** Chords within a grid unit of their curves may be so many times as many as the crossings. */
const CHORDS = 4

/** Whether edges cross each other so often that it pays to find all crossings first: by Buffon's needle, length squared over area. */
export function isCrowd(s: EdgeStore): boolean {
  const { minX, minY, maxX, maxY } = s.extent()
  let length = 0
  let chords = 0
  for (let e = 0; e < s.count; e++) {
    length += Math.hypot(s.bx[e]! - s.ax[e]!, s.by[e]! - s.ay[e]!)
    chords += Math.ceil(Math.sqrt(s.sag[e]! / FLAT)) || 1
  }
  const crossings = length ** 2 / (Math.PI * Math.max(1, (maxX - minX) * (maxY - minY)))
  return crossings > CROWD * s.count && CHORDS * crossings > chords
}
