import type { Mark } from '~/canvas/marks'

/** Marks of nodes that would lie nearer to each other than this, screen px, are thinned out. */
const APART = 9

type NodeMark = Extract<Mark, { kind: 'node' }>

/** Marks in which nodes do not crowd: of those too near to one that is shown, chosen ones and corners stay first. */
export function thinned(marks: readonly Mark[], zoom: number): Mark[] {
  const apart = APART / zoom
  const cells = new Map<string, NodeMark[]>()
  const cell = (v: number): number => Math.floor(v / apart)
  const rank = (m: NodeMark): number => (m.chosen ? 2 : m.joint === 'corner' ? 1 : 0)
  const nodes = marks.filter((m): m is NodeMark => m.kind === 'node').sort((a, b) => rank(b) - rank(a))
  const kept = new Set<Mark>()
  for (const mark of nodes) {
    const [i, j] = [cell(mark.at.x), cell(mark.at.y)]
    const near = [-1, 0, 1].flatMap((di) => [-1, 0, 1].flatMap((dj) => cells.get(`${i + di} ${j + dj}`) ?? []))
    if (!mark.chosen && near.some((o) => Math.hypot(o.at.x - mark.at.x, o.at.y - mark.at.y) < apart)) continue
    kept.add(mark)
    cells.set(`${i} ${j}`, [...(cells.get(`${i} ${j}`) ?? []), mark])
  }
  return marks.filter((m) => m.kind !== 'node' || kept.has(m))
}
