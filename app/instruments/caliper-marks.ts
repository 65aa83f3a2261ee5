import type { End } from '#core/geometry/ends'
import type { Line } from '#core/model/model'
import { along } from '#core/geometry/point'
import { sizeTapers } from '#core/weight/taper'
import type { Mark } from '~/canvas/marks'
import type { Across } from './across'
import { acrossAt, edgesOf } from './across'
import { arcOf } from './line-marks'

/** The width in a dark tag a little to the side of the line, this far off in screen px. */
const TAG_OFF = 16

export const jawMark = (line: string, index: number, across: Across, chosen: boolean): Mark => ({
  kind: 'jaws',
  centre: across.centre,
  ...edgesOf(across),
  chosen,
  line,
  index,
})

export function tagMark({ centre, normal, left, right }: Across, zoom: number): Mark {
  const side = normal.x >= 0 ? 1 : -1
  const out = (side === 1 ? left : right) + TAG_OFF / zoom
  return { kind: 'tag', at: along(centre, normal, side * out), text: `${(left + right).toFixed(1)} px` }
}

/** The handles of a line's ends, and of the inner ends of its tapers. */
export function endHandles(line: Line): Mark[] {
  if (line.path.closed) return []
  const arc = arcOf(line)
  if (!arc.total) return []
  const { start, end } = sizeTapers(line.weight.start, line.weight.end, arc.total)
  const handle = (which: End): Mark => {
    const s = which === 'first' ? 0 : arc.total
    const t = arc.tangent(s) ?? { x: 1, y: 0 }
    return {
      kind: 'tip',
      at: arc.point(s),
      outward: which === 'first' ? { x: -t.x, y: -t.y } : t,
      line: line.id,
      end: which,
    }
  }
  const inner = (which: End, s: number): Mark => {
    const { centre, normal } = acrossAt(line, s / arc.total)
    return { kind: 'taper', at: centre, across: normal, line: line.id, end: which }
  }
  return [
    handle('first'),
    handle('last'),
    ...(start ? [inner('first', start.length)] : []),
    ...(end ? [inner('last', arc.total - end.length)] : []),
  ]
}
