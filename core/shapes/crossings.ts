import Flatbush from 'flatbush'
import type { EdgeSoup } from './edge-soup'
import { mergeCoincident, pair } from './merge-edges'
import { emptySoup, pushEdge } from './edge-soup'

/** One round does it but for crossings that rounding displaces by a tie; the cap only guards against the unforeseen. */
const ROUNDS = 8

/**
 * Splits edges until no two cross or touch but at their ends, by snap rounding (J. D. Hobby, Practical segment
 * intersection with finite precision output, 1999): every vertex and every crossing makes its grid square hot, and every
 * edge that passes through a hot square is led through its centre. No point moves by more than one grid step.
 */
export function splitAtCrossings(soup: EdgeSoup): EdgeSoup {
  let now = soup
  for (let round = 0; round < ROUNDS; round++) {
    const splits = findCrossings(now)
    if (!splits) return now
    addHotSquares(now, splits)
    now = mergeCoincident(applySplits(now, splits))
  }
  return now
}

/** Split places of one round: for each, the edge and the grid point. */
interface Splits {
  edge: number[]
  x: number[]
  y: number[]
}

/** Whether any two edges cross or touch other than at their ends. */
export const crossesItself = (soup: EdgeSoup): boolean => findCrossings(soup) !== null

function findCrossings(soup: EdgeSoup): Splits | null {
  const { count, ax, ay, bx, by } = soup
  if (count < 2) return null
  const index = new Flatbush(count, 16, Float64Array)
  for (let i = 0; i < count; i++) {
    index.add(
      Math.min(ax[i]!, bx[i]!),
      Math.min(ay[i]!, by[i]!),
      Math.max(ax[i]!, bx[i]!),
      Math.max(ay[i]!, by[i]!),
    )
  }
  index.finish()
  const splits: Splits = { edge: [], x: [], y: [] }
  let i = 0
  const test = (j: number): boolean => {
    if (j > i) crossPair(soup, i, j, splits)
    return false
  }
  for (; i < count; i++) {
    index.search(
      Math.min(ax[i]!, bx[i]!),
      Math.min(ay[i]!, by[i]!),
      Math.max(ax[i]!, bx[i]!),
      Math.max(ay[i]!, by[i]!),
      test,
    )
  }
  return splits.edge.length ? splits : null
}

/** Adds a split wherever an edge passes through the grid square of a vertex or of a crossing found. */
function addHotSquares(soup: EdgeSoup, splits: Splits): void {
  const { count, ax, ay, bx, by } = soup
  const seen = new Set<number>()
  const hotX: number[] = []
  const hotY: number[] = []
  const heat = (x: number, y: number): void => {
    const key = pair(x, y)
    if (seen.has(key)) return
    seen.add(key)
    hotX.push(x)
    hotY.push(y)
  }
  for (let i = 0; i < count; i++) {
    heat(ax[i]!, ay[i]!)
    heat(bx[i]!, by[i]!)
  }
  for (let k = 0; k < splits.edge.length; k++) heat(splits.x[k]!, splits.y[k]!)
  const index = new Flatbush(hotX.length, 16, Float64Array)
  for (let k = 0; k < hotX.length; k++) index.add(hotX[k]!, hotY[k]!, hotX[k]!, hotY[k]!)
  index.finish()
  for (let i = 0; i < count; i++) {
    const [x0, y0, x1, y1] = [ax[i]!, ay[i]!, bx[i]!, by[i]!]
    const reach = 0.5 * (Math.abs(x1 - x0) + Math.abs(y1 - y0))
    index.search(
      Math.min(x0, x1) - 0.5,
      Math.min(y0, y1) - 0.5,
      Math.max(x0, x1) + 0.5,
      Math.max(y0, y1) + 0.5,
      (k: number) => {
        const [x, y] = [hotX[k]!, hotY[k]!]
        if (Math.abs(orient(x0, y0, x1, y1, x, y)) <= reach && !((x === x0 && y === y0) || (x === x1 && y === y1))) {
          addSplit(splits, i, x, y)
        }
        return false
      },
    )
  }
}

/** Exact for grid coordinates: twice the area of the triangle a, b, p. */
function orient(ax: number, ay: number, bx: number, by: number, px: number, py: number): number {
  return (bx - ax) * (py - ay) - (by - ay) * (px - ax)
}

function crossPair(soup: EdgeSoup, i: number, j: number, splits: Splits): void {
  const { ax, ay, bx, by } = soup
  const [x0, y0, x1, y1] = [ax[i]!, ay[i]!, bx[i]!, by[i]!]
  const [x2, y2, x3, y3] = [ax[j]!, ay[j]!, bx[j]!, by[j]!]
  const o2 = orient(x0, y0, x1, y1, x2, y2)
  const o3 = orient(x0, y0, x1, y1, x3, y3)
  if ((o2 > 0 && o3 > 0) || (o2 < 0 && o3 < 0)) return
  const o0 = orient(x2, y2, x3, y3, x0, y0)
  const o1 = orient(x2, y2, x3, y3, x1, y1)
  if ((o0 > 0 && o1 > 0) || (o0 < 0 && o1 < 0)) return
  if (o2 === 0) splitIfInside(splits, i, x0, y0, x1, y1, x2, y2)
  if (o3 === 0) splitIfInside(splits, i, x0, y0, x1, y1, x3, y3)
  if (o0 === 0) splitIfInside(splits, j, x2, y2, x3, y3, x0, y0)
  if (o1 === 0) splitIfInside(splits, j, x2, y2, x3, y3, x1, y1)
  if (o0 === 0 || o1 === 0 || o2 === 0 || o3 === 0) return
  const u = o0 / (o0 - o1)
  const x = Math.round(x0 + (x1 - x0) * u)
  const y = Math.round(y0 + (y1 - y0) * u)
  if ((x !== x0 || y !== y0) && (x !== x1 || y !== y1)) addSplit(splits, i, x, y)
  if ((x !== x2 || y !== y2) && (x !== x3 || y !== y3)) addSplit(splits, j, x, y)
}

/** The point is on the edge's line: a split when strictly between its ends. */
function splitIfInside(
  splits: Splits,
  edge: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x: number,
  y: number,
): void {
  const d = (x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)
  const whole = (x1 - x0) ** 2 + (y1 - y0) ** 2
  if (d > 0 && d < whole) addSplit(splits, edge, x, y)
}

function addSplit(splits: Splits, edge: number, x: number, y: number): void {
  splits.edge.push(edge)
  splits.x.push(x)
  splits.y.push(y)
}

function applySplits(soup: EdgeSoup, splits: Splits): EdgeSoup {
  const out = emptySoup(soup.count + splits.edge.length, soup)
  const share = (k: number): number => {
    const e = splits.edge[k]!
    const dx = soup.bx[e]! - soup.ax[e]!
    const dy = soup.by[e]! - soup.ay[e]!
    return ((splits.x[k]! - soup.ax[e]!) * dx + (splits.y[k]! - soup.ay[e]!) * dy) / (dx * dx + dy * dy)
  }
  const shares = splits.edge.map((_, k) => share(k))
  const order = splits.edge.map((_, k) => k).sort((a, b) => splits.edge[a]! - splits.edge[b]! || shares[a]! - shares[b]!)
  let k = 0
  for (let e = 0; e < soup.count; e++) {
    let x = soup.ax[e]!
    let y = soup.ay[e]!
    let t = soup.ta[e]!
    while (k < order.length && splits.edge[order[k]!] === e) {
      const s = order[k]!
      const u = Math.min(1, Math.max(0, shares[s]!))
      const next = soup.ta[e]! + (soup.tb[e]! - soup.ta[e]!) * u
      pushEdge(out, x, y, splits.x[s]!, splits.y[s]!, soup.curve[e]!, t, next, soup.net[e]!)
      if (splits.x[s] !== x || splits.y[s] !== y) t = next
      x = splits.x[s]!
      y = splits.y[s]!
      k++
    }
    pushEdge(out, x, y, soup.bx[e]!, soup.by[e]!, soup.curve[e]!, t, soup.tb[e]!, soup.net[e]!)
  }
  return out
}
