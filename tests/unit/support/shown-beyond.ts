import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { cubicsOfPath } from '#core/geometry/path'
import { FlatOutline } from './flat-outline'
import type { Section } from './true-ink'
import { TrueInk } from './true-ink'

/** Points are looked at so far apart, px, from a place that no edge of round numbers passes. */
const STEP = 0.25
const OFF = 0.0317

/** A place and eight about it, as far off in every direction. */
const AROUND: readonly (readonly [number, number])[] = [
  [0, 0],
  ...Array.from({ length: 8 }, (_, i) => [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)] as const),
]

interface Sampled {
  line: Line
  ink: TrueInk
  sections: Section[]
}

/** The cross-section of a line nearest to a point, its place in the row of all, and how far to its left the point lies, px. */
function nearest(sections: readonly Section[], p: Vec): { section: Section; index: number; off: number } {
  let index = 0
  let best = Infinity
  for (let i = 0; i < sections.length; i++) {
    const d = (sections[i]!.x - p.x) ** 2 + (sections[i]!.y - p.y) ** 2
    if (d < best) [best, index] = [d, i]
  }
  const section = sections[index]!
  return { section, index, off: (p.x - section.x) * section.ty - (p.y - section.y) * section.tx }
}

/** Delivered contours of lines, for asking what of an end shows where it should not. */
export class Shown {
  private readonly outline: FlatOutline
  private readonly lines: Sampled[]

  /** @param hair px: ink so near to another line's counts as that line's, which is drawn no more exactly */
  constructor(
    delivered: readonly Path[],
    lines: readonly Line[],
    private readonly hair: number,
  ) {
    this.outline = new FlatOutline(delivered.map(cubicsOfPath))
    this.lines = lines.map((line) => {
      const ink = new TrueInk(line)
      return { line, ink, sections: ink.rows.flat() }
    })
  }

  /**
   * How far ink shows beyond the far edge of `met` at an end of `line`, px: the deepest place within `reach` px of the end,
   * on the side of `met` that the line does not come from, in no other line's ink by the definition.
   */
  beyond(line: string, end: 'first' | 'last', met: string, reach: number): number {
    const of = (id: string): Sampled => this.lines.find((l) => l.line.id === id)!
    const way = end === 'last' ? of(line).sections.toReversed() : of(line).sections
    const tip = way[0]!
    const {
      sections,
      line: { path },
    } = of(met)
    // The side a line comes from: where it is out of the other's ink, going back.
    const outOf = (back: readonly Section[]): number =>
      back.findIndex((c) => {
        const { section, off } = nearest(sections, c)
        return Math.abs(off) > (off > 0 ? section.left : section.right) + 0.5
      })
    const out = outOf(way)
    if (out < 0) return 0
    const side = -Math.sign(nearest(sections, way[out]!).off)
    const near = this.lines
      .filter(
        (l) =>
          l.line.id !== line &&
          l.sections.some(({ x, y, left, right }) => Math.hypot(x - tip.x, y - tip.y) < 2 * reach + left + right),
      )
      .map(({ line: o, ink, sections: all }) => {
        // The cap of a line that ends here too, and comes from the same side, is no excuse: it must not show either.
        const back = [all, all.toReversed()].find(([end]) => Math.hypot(end!.x - tip.x, end!.y - tip.y) < reach)
        const from = back ? outOf(back) : -1
        const isExcused = from < 0 || Math.sign(nearest(sections, back![from]!).off) === side
        const butt = { ...o, finish: { ...o.finish, startCap: 'butt' as const, endCap: 'butt' as const } }
        return {
          ink: isExcused ? ink : new TrueInk(butt),
          runsOn: isExcused && back ? back[0]! : null,
          way: back === all ? -1 : 1,
        }
      })
    const { hair } = this
    const inOther = (p: Vec): boolean =>
      near.some(
        (o) =>
          (o.runsOn && isAhead(o.runsOn, o.way, o.ink.line.weight.size, p)) ||
          AROUND.some(([x, y]) => o.ink.has({ x: p.x + hair * x, y: p.y + hair * y })),
      )
    const count = Math.ceil((2 * reach) / STEP)
    let deepest = 0
    for (let j = 0; j < count; j++) {
      const y = tip.y - reach + OFF + j * STEP
      const row = this.outline.row(y, tip.x - reach + OFF, STEP, count)
      for (let i = 0; i < count; i++) {
        if (row[i] === 0) continue
        const p = { x: tip.x - reach + OFF + i * STEP, y }
        const { section, index, off } = nearest(sections, p)
        const beyond = side * off - (side > 0 ? section.left : section.right)
        // What lies past the ends of the other, or where the line comes by once more, is no matter of this end.
        if (
          beyond <= deepest ||
          (!path.closed && (index === 0 || index === sections.length - 1)) ||
          nearest(way, p).index >= Math.max(out, 2) ||
          inOther(p)
        )
          continue
        deepest = beyond
      }
    }
    return deepest
  }
}

/** Whether a point lies straight ahead of an end, where it may run on into what it meets: no farther than three times its size. */
function isAhead({ x: cx, y: cy, tx, ty, left, right }: Section, way: number, size: number, p: Vec): boolean {
  const [x, y] = [p.x - cx, p.y - cy]
  const ahead = way * (x * tx + y * ty)
  const off = x * ty - y * tx
  return ahead >= -size / 4 && ahead <= 3 * size && off <= left + 0.3 && off >= -right - 0.3
}
