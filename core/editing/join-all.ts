import type { Join, Line } from '../model/model'
import { areaOfCubics } from '../geometry/area'
import type { End } from '../geometry/ends'
import { cubicsOfPath, mapNode } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { add, distance, dot, lerp, subtract } from '../geometry/point'
import { closedLine, joinedLines, reversedLine } from './edit-line'
import type { Stretch } from './remade-lines'
import { joinedAs, turnedRound } from './remade-lines'
import { repath } from './repath'

/** What lines became that were made one. */
export interface Joined {
  /** Each has the id of the first of those that it was made of. */
  lines: Line[]
  /** Where each line that was made anew is now, by its id. */
  remade: Map<string, Stretch[]>
  /** Pairs of ends that came together. */
  joints: number
}

interface EndOf {
  line: string
  end: End
}

const placeOf = ({ path: { nodes } }: Line, end: End): Vec => nodes[end === 'first' ? 0 : nodes.length - 1]!.at

/**
 * Joins the ends of lines that lie within `reach` px of each other, the nearest first, each once; a line whose own ends do is
 * closed. Ends that do not touch meet half way.
 *
 * @param join how the corners of what is joined are finished, all alike
 */
export function joinedAll(lines: readonly Line[], reach: number, join: Join): Joined {
  const now = new Map(lines.map((l) => [l.id, l]))
  const remade = new Map<string, Stretch[]>()
  /** Which line each of the lines is part of, and by which of its ends that one has each of theirs. */
  const where = new Map(
    lines.flatMap((l) => (['first', 'last'] as const).map((end) => [keyOf({ line: l.id, end }), { line: l.id, end }])),
  )
  const joined = new Set<string>()
  let joints = 0
  for (const [a, b] of pairsWithin(lines, reach)) {
    const [one, other] = [where.get(keyOf(a))!, where.get(keyOf(b))!]
    const [first, second] = [now.get(one.line)!, now.get(other.line)!]
    const meeting = lerp(placeOf(first, one.end), placeOf(second, other.end), 0.5)
    joints++
    joined.add(one.line)
    if (one.line === other.line) {
      now.set(one.line, closedLine(movedEnd(movedEnd(first, 'first', meeting), 'last', meeting)))
      continue
    }
    const turned = [one.end === 'first', other.end === 'last'] as const
    const [from, to] = [movedEnd(first, one.end, meeting), movedEnd(second, other.end, meeting)]
    const made = joinedLines(turned[0] ? reversedLine(from) : from, turned[1] ? reversedLine(to) : to)
    follow(remade, joinedAs(made, { line: from, turned: turned[0] }, { line: to, turned: turned[1] }))
    now.delete(other.line)
    now.set(one.line, made)
    for (const [key, is] of where) {
      if (is.line === one.line) where.set(key, { line: one.line, end: 'first' })
      else if (is.line === other.line) where.set(key, { line: one.line, end: 'last' })
    }
  }
  return {
    lines: [...now.values()].map((l) => (joined.has(l.id) ? { ...l, finish: { ...l.finish, join } } : l)),
    remade,
    joints,
  }
}

const keyOf = ({ line, end }: EndOf): string => `${end} ${line}`

/** Pairs of ends within reach of each other, the nearest first, each end in one pair. */
function pairsWithin(lines: readonly Line[], reach: number): [EndOf, EndOf][] {
  const ends = lines
    .filter((l) => !l.path.closed && l.path.nodes.length > 1)
    .flatMap((l) => (['first', 'last'] as const).map((end) => ({ line: l.id, end, at: placeOf(l, end) })))
  const pairs = ends
    .flatMap((a, i) => ends.slice(i + 1).map((b) => ({ a, b, far: distance(a.at, b.at) })))
    .filter(({ far }) => far <= reach)
    .sort((p, q) => p.far - q.far)
  const taken = new Set<string>()
  return pairs.flatMap(({ a, b }): [EndOf, EndOf][] => {
    if (taken.has(keyOf(a)) || taken.has(keyOf(b))) return []
    taken.add(keyOf(a)).add(keyOf(b))
    return [[a, b]]
  })
}

function movedEnd(line: Line, end: End, to: Vec): Line {
  const { nodes } = line.path
  const index = end === 'first' ? 0 : nodes.length - 1
  const by = subtract(to, nodes[index]!.at)
  if (!by.x && !by.y) return line
  const moved = { ...line, weight: { ...line.weight } }
  const nodesNow = nodes.with(
    index,
    mapNode(nodes[index]!, (p) => add(p, by)),
  )
  repath(moved, { ...line.path, nodes: nodesNow }, null)
  return moved
}

/** What was made anew is made anew once more: places go on from where they were. */
function follow(remade: Map<string, Stretch[]>, next: ReadonlyMap<string, readonly Stretch[]>): void {
  for (const [id, stretches] of next) {
    const onward = ({ from, to, at: [a, b] }: Stretch): Stretch => {
      const { line, at } = stretches[0]!
      const on = (s: number): number => at[0] + (at[1] - at[0]) * s
      return { from, to, line, at: [on(a), on(b)] }
    }
    for (const [was, all] of remade)
      remade.set(
        was,
        all.map((s) => (s.line === id ? onward(s) : s)),
      )
    if (!remade.has(id)) remade.set(id, [...stretches])
  }
}

/**
 * Lines that all go the way of the first: open ones by the way from their start to their end, loops by how they go round.
 * Answers those that are turned round, and where they are now.
 */
export function goingOneWay(lines: readonly Line[]): { lines: Line[]; remade: Map<string, Stretch[]> } {
  const way = (l: Line): Vec => subtract(placeOf(l, 'last'), placeOf(l, 'first'))
  const round = (l: Line): number => Math.sign(areaOfCubics(cubicsOfPath(l.path)))
  const open = lines.find((l) => !l.path.closed)
  const loop = lines.find((l) => l.path.closed)
  const against = lines.filter((l) => (l.path.closed ? round(l) * round(loop!) < 0 : dot(way(l), way(open!)) < 0))
  return { lines: against.map(reversedLine), remade: new Map(against.map((l) => [l.id, turnedRound(l.id)])) }
}
