import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { add, distance, scale, subtract } from '#core/geometry/point'
import type { Page } from '#core/model/model'
import type { Rule } from '#core/repetition/images'
import type { Mark } from '~/canvas/marks'
import { cornerAt } from './snapping'

/** An axis goes on so far beyond its points, as multiples of the page's longer side. */
const BEYOND = 2

/** An axis, across the page and beyond. */
export function axisPath(from: Vec, to: Vec, { width, height }: Pick<Page, 'width' | 'height'>): Path {
  const far = scale(subtract(to, from), (BEYOND * Math.max(width, height)) / (distance(from, to) || 1))
  return { nodes: [subtract(from, far), add(to, far)].map(cornerAt), closed: false }
}

/** Axes, and points about which lines are repeated, where what is drawn goes along: faintly, while other instruments draw. */
export function freshAxisMarks(rules: readonly Rule[], page: Pick<Page, 'width' | 'height'>): Mark[] {
  const fresh = rules.filter((r) => r.fresh)
  const paths = fresh.flatMap((r) => (r.kind === 'mirror' ? [axisPath(r.from, r.to, page)] : []))
  return [
    ...(paths.length ? [{ kind: 'paths', paths, tone: 'mute' } as const] : []),
    ...fresh.flatMap((r) =>
      r.kind === 'repeat' ? [{ kind: 'snap', at: r.about, along: null, text: '' } as const] : [],
    ),
  ]
}
