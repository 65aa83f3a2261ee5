import { isImage } from '../model/image-ids'
import type { Drawing, Hold } from '../model/model'
import { linesOf } from '../model/queries'
import type { Joined } from './across-axis'
import { imagesOf, rulesOf } from './images'
import { joinedBy, reachOfAxis } from './with-copies'

/**
 * What holds a region of the whole drawing, told by places on the lines that were drawn: images hold nothing, of a line that is joined
 * across an axis only the half that was drawn does.
 */
export function holdAsDrawn(hold: readonly Hold[], drawn: Drawing): Hold[] {
  const rules = rulesOf(drawn)
  if (!rules.length) return [...hold]
  const reach = reachOfAxis(drawn.page)
  const lines = new Map(linesOf(drawn).map((l) => [l.id, l]))
  const joined = new Map<string, Joined | null>()
  const joinedOf = (id: string): Joined | null => {
    if (!joined.has(id)) {
      const line = lines.get(id)
      const [rule] = rules.filter((r) => r.kind === 'mirror' && r.lines.includes(id))
      const [image] = rule ? imagesOf(rule) : []
      joined.set(id, line && rule && image ? joinedBy(line, rule, image, reach) : null)
    }
    return joined.get(id)!
  }
  return hold.flatMap((h): Hold[] => {
    if (isImage(h.line)) return []
    const with_ = joinedOf(h.line)
    if (!with_) return [h]
    const [begin, span] = [with_.own(0), with_.own(1) - with_.own(0)]
    const [a, b] = [h.from, h.to].map((u) => Math.min(1, Math.max(0, (u - begin) / span))) as [number, number]
    return a === b ? [] : [{ ...h, from: a, to: b }]
  })
}
