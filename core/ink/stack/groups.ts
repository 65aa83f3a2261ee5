import Flatbush from 'flatbush'
import type { Box } from '../../geometry/bounds'
import { boxOfCubic, holdsBox, overlap } from '../../geometry/bounds'
import type { Region } from '../outlines/outlines'
import type { Part } from './stack'
import { remembered } from '../../remembered'
import type { Drawing } from '../../model/model'

/** Parts of one ink, and of one figure where that is kept apart, that can be united without changing what is seen; they are drawn where the first of them lies. */
export interface Group {
  id: string
  ink: string
  parts: Part[]
}

/**
 * Parts of the stack by ink, as far as nothing of another ink lies between them: a part joins the last group of its ink
 * unless it overlaps a part of another ink above that group's place.
 */
export function groupsOf(parts: readonly Part[], keyOf: (part: Part) => string = byInk): Group[] {
  let index: Flatbush | null = null
  const groups: Group[] = []
  const last = new Map<string, { group: Group; place: number; count: number }>()
  /** Where the run of parts of one ink began that the part before belongs to. */
  let run = 0
  parts.forEach((part, place) => {
    const { ink } = part.item
    const key = keyOf(part)
    const open = last.get(key)
    const isRun = place > 0 && parts[place - 1]!.item.ink === ink
    const lastOther = (isRun ? run : place) - 1
    if (!isRun) run = place
    const between = (i: number): boolean =>
      i > open!.place && i < place && parts[i]!.item.ink !== ink && touch(parts[i]!, part)
    const { box } = part.region
    if (open && lastOther > open.place) index ??= indexOf(parts)
    if (open && !(lastOther > open.place && index!.search(box.minX, box.minY, box.maxX, box.maxY).some(between))) {
      open.group.parts.push(part)
      return
    }
    const count = (open?.count ?? 0) + 1
    const group = { id: count > 1 ? `${key}:united:${count}` : `${key}:united`, ink, parts: [part] }
    groups.push(group)
    last.set(key, { group, place, count })
  })
  return groups
}

/** What unites: an ink, or a figure of it that is kept apart. */
const byInk = ({ item }: Part): string => ('path' in item && item.apart ? `${item.ink}:${item.apart}` : item.ink)

/** As `byInk`, but only what is of one layer; what is of none, as fills are, stays by itself. */
export function byInkAndLayer({ layers }: Pick<Drawing, 'layers'>): (part: Part) => string {
  const layerOf = new Map(layers.flatMap((l) => l.items.map((i) => [i.id, l.id] as const)))
  return (part) => `${byInk(part)} ${layerOf.get(part.item.id) ?? part.item.id}`
}

/** Finds parts, by their places in the stack, from where they lie; null where there are none. */
export function indexOf(parts: readonly Part[]): Flatbush | null {
  if (!parts.length) return null
  const index = new Flatbush(parts.length)
  for (const { region } of parts) index.add(region.box.minX, region.box.minY, region.box.maxX, region.box.maxY)
  index.finish()
  return index
}

/** Whether two regions may overlap: their curves come near each other, or the one may lie within the other. */
function touch(a: Part, b: Part): boolean {
  const [p, q] = [a.region, b.region]
  if (!overlap(p.box, q.box)) return false
  if (holdsBox(p.box, q.box) || holdsBox(q.box, p.box)) return true
  const boxes = boxesOf(q)
  return boxesOf(p).some((box) => overlap(box, q.box) && boxes.some((o) => overlap(box, o)))
}

/** Boxes of a region's curves, kept for as long as the region is. */
const boxesOf = remembered((region: Region): Box[] => region.contours.flat().map(boxOfCubic))
