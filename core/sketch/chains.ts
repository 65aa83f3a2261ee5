import type { Vec } from '../geometry/point'
import { distance, dot } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'

/** A run of points along a pencil line. */
export interface Chain {
  points: Vec[]
  closed: boolean
  /** Its ends' nodes: a run through a junction goes on in another run. */
  from: number
  to: number
}

/** Two ends at one junction go on into each other when they turn by less than this: the cosine of what is left of half a turn. */
const ON = -Math.cos((42 * Math.PI) / 180)
/** Loose ends are joined over a gap when both point at each other within this. */
const FACING = Math.cos((32 * Math.PI) / 180)

/** A line's own ends, which are all that is left of a loop, within this. */
const AROUND = Math.cos((52 * Math.PI) / 180)

/** A line that comes back to its own beginning closes over so many gaps, where that is no more than this share of its length. */
const WIDER = 2
const OPEN = 0.2

interface End {
  chain: Chain
  at: 'from' | 'to'
  p: Vec
  /** Which way the line would go on. */
  out: Vec
}

function endOf(chain: Chain, at: 'from' | 'to', reach: number): End {
  const points = at === 'to' ? chain.points : chain.points.toReversed()
  const p = points[points.length - 1]!
  let i = points.length - 1
  while (i > 0 && distance(points[i]!, p) < reach) i--
  const d = { x: p.x - points[i]!.x, y: p.y - points[i]!.y }
  const l = Math.hypot(d.x, d.y) || 1
  return { chain, at, p, out: { x: d.x / l, y: d.y / l } }
}

/**
 * Chains that go straight on through junctions, and over small gaps, as one; `reach` is how far back an end's way is
 * looked at, `gap` the widest gap, px.
 */
export function continued(chains: readonly Chain[], { reach, gap }: { reach: number; gap: number }): Chain[] {
  let all = throughJunctions(chains, reach)
  all = overGaps(all, reach, gap)
  return all.map((c) =>
    !c.closed && c.points.length > 8 && closes(c, reach, gap)
      ? { ...c, points: [...c.points, c.points[0]!], closed: true }
      : c,
  )
}

/** Whether a chain comes back to its own beginning, nearly so or over a gap. */
function closes(chain: Chain, reach: number, gap: number): boolean {
  if (distance(chain.points[0]!, chain.points.at(-1)!) < gap / 2 && isRound(chain, reach)) return true
  const [a, b] = [endOf(chain, 'from', reach), endOf(chain, 'to', reach)]
  const far = distance(a.p, b.p)
  return (
    chain.from < 0 &&
    chain.to < 0 &&
    far <= WIDER * gap &&
    far < OPEN * polylineLength(chain.points) &&
    face(a, b, AROUND)
  )
}

/** Whether a chain comes back into its own beginning. */
function isRound(chain: Chain, reach: number): boolean {
  const [a, b] = [endOf(chain, 'from', reach), endOf(chain, 'to', reach)]
  return chain.from === chain.to && chain.from >= 0 ? true : dot(a.out, b.out) < -0.5
}

function throughJunctions(chains: readonly Chain[], reach: number): Chain[] {
  const pairs: { turn: number; a: End; b: End }[] = []
  const at = new Map<number, End[]>()
  for (const chain of chains) {
    if (chain.closed) continue
    for (const end of ['from', 'to'] as const)
      if (chain[end] >= 0) at.set(chain[end], [...(at.get(chain[end]) ?? []), endOf(chain, end, reach)])
  }
  for (const ends of at.values()) {
    for (const [i, a] of ends.entries())
      for (const b of ends.slice(i + 1)) {
        const turn = dot(a.out, b.out)
        // Of two alone nothing else goes on.
        if (turn < ON || (ends.length === 2 && turn < 0)) pairs.push({ turn, a, b })
      }
  }
  return linked(
    chains,
    pairs.sort((p, q) => p.turn - q.turn).map(({ a, b }) => [a, b]),
  )
}

/** Chains joined along links from end to end. */
function walked(
  chains: readonly Chain[],
  linkOf: (chain: Chain, at: 'from' | 'to') => { chain: Chain; at: 'from' | 'to' } | null,
): Chain[] {
  const done = new Set<Chain>()
  const out: Chain[] = []
  const follow = (start: Chain, at: 'from' | 'to'): { points: Vec[]; last: number; closed: boolean } => {
    // Leaves by the other end and goes on as long as there is a link.
    let points = at === 'from' ? [...start.points] : start.points.toReversed()
    let [chain, exit]: [Chain, 'from' | 'to'] = [start, at === 'from' ? 'to' : 'from']
    done.add(start)
    for (;;) {
      const next = linkOf(chain, exit)
      if (!next) return { points, last: chain[exit], closed: false }
      if (done.has(next.chain)) return { points, last: chain[exit], closed: next.chain === start }
      done.add(next.chain)
      points = [...points, ...(next.at === 'from' ? next.chain.points : next.chain.points.toReversed()).slice(1)]
      ;[chain, exit] = [next.chain, next.at === 'from' ? 'to' : 'from']
    }
  }
  const isFirst = (c: Chain): 'from' | 'to' | null => (!linkOf(c, 'from') ? 'from' : !linkOf(c, 'to') ? 'to' : null)
  for (const c of chains) {
    const at = isFirst(c)
    if (done.has(c) || (!at && !c.closed)) continue
    if (c.closed) {
      done.add(c)
      out.push(c)
      continue
    }
    const { points, last } = follow(c, at!)
    out.push({ points, closed: false, from: c[at!], to: last })
  }
  // What is left goes round.
  for (const c of chains) {
    if (done.has(c)) continue
    const { points, closed } = follow(c, 'from')
    out.push({ points: closed ? [...points, points[0]!] : points, closed, from: -1, to: -1 })
  }
  return out
}

/** Whether each of two ends would go on towards the other. */
function face(a: End, b: End, facing: number): boolean {
  const d = { x: b.p.x - a.p.x, y: b.p.y - a.p.y }
  const far = Math.hypot(d.x, d.y)
  return far < 1 ? -dot(a.out, b.out) > facing : dot(a.out, d) > facing * far && -dot(b.out, d) > facing * far
}

/** Loose ends that face each other over a gap, the nearest first. */
function overGaps(chains: readonly Chain[], reach: number, gap: number): Chain[] {
  const ends = chains.flatMap((c) => (c.closed ? [] : [endOf(c, 'from', reach), endOf(c, 'to', reach)]))
  const cells = new Map<string, End[]>()
  const cell = (v: number): number => Math.floor(v / gap)
  for (const e of ends)
    cells.set(`${cell(e.p.x)} ${cell(e.p.y)}`, [...(cells.get(`${cell(e.p.x)} ${cell(e.p.y)}`) ?? []), e])
  const pairs: { far: number; a: End; b: End }[] = []
  const order = new Map(ends.map((e, i) => [e, i]))
  for (const a of ends) {
    for (let i = -1; i <= 1; i++) {
      for (let j = -1; j <= 1; j++) {
        for (const b of cells.get(`${cell(a.p.x) + i} ${cell(a.p.y) + j}`) ?? []) {
          if (order.get(b)! <= order.get(a)! || a.chain === b.chain) continue
          const far = distance(a.p, b.p)
          if (far <= gap && face(a, b, FACING)) pairs.push({ far, a, b })
        }
      }
    }
  }
  return linked(
    chains,
    pairs.sort((p, q) => p.far - q.far).map(({ a, b }) => [a, b]),
  )
}

/** Chains joined end to end, each end once; what comes first in the list has its way. */
function linked(chains: readonly Chain[], pairs: readonly (readonly [End, End])[]): Chain[] {
  const links = new Map<Chain, Partial<Record<'from' | 'to', { chain: Chain; at: 'from' | 'to' }>>>()
  const of = (e: End): { chain: Chain; at: 'from' | 'to' } | undefined => links.get(e.chain)?.[e.at]
  for (const [a, b] of pairs) {
    if (of(a) || of(b) || (a.chain === b.chain && a.at === b.at)) continue
    links.set(a.chain, { ...links.get(a.chain), [a.at]: { chain: b.chain, at: b.at } })
    links.set(b.chain, { ...links.get(b.chain), [b.at]: { chain: a.chain, at: a.at } })
  }
  return walked(chains, (chain, at) => links.get(chain)?.[at] ?? null)
}
