import type { Drawing, Line, Path, Shape } from '../drawing/model'
import { coveredRegion } from '../shapes/cover'
import type { Failure, Outlines, Region } from './outlines'

/** Something of one ink in the stack: an item's region less what lines above it cover. */
export interface Part {
  item: Line | Shape
  region: Region
}

/** So many outlines are worked out between two signs of progress. */
const AT_A_TIME = 8

/** The parts of a drawing's visible layers from the bottom of the stack to its top, and the items that have no ink. */
export function* stackOf(drawing: Drawing, outlines: Outlines): Generator<number, { parts: Part[]; failed: Failure[] }> {
  const items = drawing.layers.flatMap((l): readonly (Line | Shape)[] => (l.visible && l.kind !== 'sketch' ? l.items : []))
  const failed: Failure[] = []
  const regions: (Region | null)[] = []
  let fresh = 0
  for (const [i, item] of items.entries()) {
    if (!outlines.has(item) && ++fresh % AT_A_TIME === 0) yield i / items.length
    const region = outlines.of(item)
    if ('message' in region) failed.push(region)
    regions.push('message' in region ? null : region)
  }
  const parts: Part[] = []
  let covers: Path[] = []
  for (let i = items.length - 1; i >= 0; i--) {
    const item = items[i]!
    const region = regions[i] && outlines.uncovered(regions[i]!, covers)
    if (region?.contours.length) parts.push({ item, region })
    const cover = 'path' in item && coveredRegion(item)
    if (cover) covers = [cover, ...covers]
  }
  return { parts: parts.reverse(), failed }
}
