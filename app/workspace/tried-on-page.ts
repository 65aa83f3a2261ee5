import { findLine } from '#core/model/find'
import { originOf } from '#core/model/image-ids'
import type { Drawing, Line } from '#core/model/model'
import { rulesOf } from '#core/repetition/images'
import { allStandingFor, reachOfAxis } from '#core/repetition/with-copies'

/** How lines of the page are to be seen: what is tried on one that was drawn, its images have too, and what it is joined to. */
export function triedOnPage(drawing: Drawing, tried: (line: Line) => Line): (line: Line) => Line {
  const rules = rulesOf(drawing)
  if (!rules.length) return tried
  const reach = reachOfAxis(drawing.page)
  return (line) => {
    const drawn = findLine(drawing, originOf(line.id))?.line
    const seen = drawn && tried(drawn)
    if (!seen || seen === drawn) return line
    return allStandingFor(seen, rules, reach).find((l) => l.id === line.id) ?? line
  }
}
