import type { Matrix } from '../geometry/matrix'
import { composed, IDENTITY, matrixOfMap } from '../geometry/matrix'
import type { Vec } from '../geometry/point'
import { add, rotate, subtract } from '../geometry/point'
import { idIn, originOf } from '../model/image-ids'
import type { Drawing, Mirror, Repeat } from '../model/model'
import { mirrored } from '../weight/mirror-match'

/** Lines that stand on the page more than once. */
export type Rule = Mirror | Repeat

/** One standing of the lines of a rule besides themselves. */
export interface Image {
  /** Ends the ids of what stands there. */
  tag: string
  by: Matrix
  /** Left and right are changed over. */
  isMirrored: boolean
  /** An angle of the page there, rad. */
  turned: (angle: number) => number
}

/** So many signs of a rule's id tell it from others. */
const SIGNS = 6

/** The rules of a drawing in their order: what an earlier one makes, a later one takes with it. */
export const rulesOf = ({ amendments }: Pick<Drawing, 'amendments'>): Rule[] =>
  (amendments ?? []).filter((a): a is Rule => a.kind === 'mirror' || a.kind === 'repeat')

/** Where the lines of a rule stand besides themselves; none where two points of an axis are one. */
export function imagesOf(rule: Rule): Image[] {
  const tag = rule.id.slice(0, SIGNS)
  if (rule.kind === 'mirror') {
    const { from: a, to: b } = rule
    if (a.x === b.x && a.y === b.y) return []
    const way = Math.atan2(b.y - a.y, b.x - a.x)
    return [
      {
        tag,
        by: matrixOfMap((p) => mirrored(p, { a, b })),
        isMirrored: true,
        turned: (angle) => 2 * way - angle,
      },
    ]
  }
  const left = new Set(rule.left)
  return Array.from({ length: rule.times - 1 }, (_, i) => i + 1).flatMap((k): Image[] => {
    const turn = (2 * Math.PI * k) / rule.times
    const by = matrixOfMap((p: Vec) => add(rule.about, rotate(subtract(p, rule.about), turn)))
    return left.has(k) ? [] : [{ tag: `${tag}-${k}`, by, isMirrored: false, turned: (angle) => angle + turn }]
  })
}

/** From a line that was drawn to each place where it stands by some rules: its own first. */
export const matricesOf = ({ id }: { id: string }, rules: readonly Rule[]): Matrix[] =>
  rules.reduce<Matrix[]>(
    (all, rule) =>
      rule.lines.includes(originOf(id))
        ? all.flatMap((m) => [m, ...imagesOf(rule).map((image) => composed(image.by, m))])
        : all,
    [IDENTITY],
  )

/** Ids of all that stands on the page for a line by some rules: its own first. */
export const idsStandingFor = (id: string, rules: readonly Rule[]): string[] =>
  rules.reduce<string[]>(
    (all, rule) =>
      rule.lines.includes(id) ? all.flatMap((i) => [i, ...imagesOf(rule).map(({ tag }) => idIn(i, tag))]) : all,
    [id],
  )
