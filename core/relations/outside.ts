import type { Line } from '../model/model'
import type { Path } from '../geometry/path'
import type { Box } from '../geometry/bounds'
import { uniteBoxes } from '../geometry/bounds'
import { boxOfPath } from '../geometry/known'
import { courseOf } from '../geometry/course'

/** A side of a line, looking along it. */
export type Side = 'left' | 'right'

/** Regions are told apart on a grid of about so many cells across, none smaller than this, px. */
const ACROSS = 420
const FINEST = 2
/** The way beside a line is looked for a region up to so many cells off. */
const FARTHEST = 5
/** A line that bounds nothing needs to bulge by this share of its chord to have an outside. */
const BULGE = 0.1
/** One side must win by this share of the places that tell. */
const MAJORITY = 0.6

/**
 * The outside of each line: the side that faces away from the form it bounds. A closed line's is known from its turning.
 * Of an open one the regions that the lines bound together are compared on either side, small gaps bridged: the open
 * ground, or else the larger region, is outside. A line with the same region on both sides has its outside where it
 * bulges; a straight one there has none.
 */
export function outsidesOf(lines: readonly Line[]): Map<string, Side | null> {
  const open = lines.some((l) => !l.path.closed)
  const ground = open ? new Regions(lines.map((l) => l.path)) : null
  return new Map(
    lines.map((l) => [l.id, l.outside ?? (l.path.closed ? closedOutside(l.path) : openOutside(l.path, ground!))]),
  )
}

/** Outside of a closed path: its area is on the right when it turns clockwise as seen (y down). */
function closedOutside(path: Path): Side | null {
  const area = areaTo(path)
  return area === 0 ? null : area > 0 ? 'left' : 'right'
}

/** Twice the area between a path and its chord, px squared; positive when it goes round clockwise as seen. */
function areaTo(path: Path): number {
  const { x, y } = courseOf(path)
  let sum = 0
  for (let i = 0; i < x.length; i++) {
    const k = (i + 1) % x.length
    sum += x[i]! * y[k]! - x[k]! * y[i]!
  }
  return sum
}

function openOutside(path: Path, ground: Regions): Side | null {
  const { x, y, nx, ny } = courseOf(path)
  let votes = 0
  let told = 0
  for (let i = 1; i + 1 < x.length; i++) {
    const left = ground.sizeBeside(x[i]!, y[i]!, nx[i]!, ny[i]!)
    const right = ground.sizeBeside(x[i]!, y[i]!, -nx[i]!, -ny[i]!)
    if (left === right || left === 0 || right === 0) continue
    told++
    votes += left > right ? 1 : -1
  }
  if (told > x.length / 4 && Math.abs(votes) >= (2 * MAJORITY - 1) * told) return votes > 0 ? 'left' : 'right'
  return bulgingSide(path)
}

/** The side towards which an open path bulges from its chord; null where it is nearly straight, or an even S. */
function bulgingSide(path: Path): Side | null {
  const { x, y } = courseOf(path)
  const last = x.length - 1
  const chord = Math.hypot(x[last]! - x[0]!, y[last]! - y[0]!)
  const area = areaTo(path)
  // A circle's cap of height h over a chord c has about 2/3 h c of area.
  const height = chord > 0 ? (0.75 * Math.abs(area)) / chord : Infinity
  if (area === 0 || height < BULGE * chord) return null
  return area > 0 ? 'left' : 'right'
}

/** What the lines of a drawing enclose, on a grid. */
class Regions {
  private readonly cell: number
  private readonly columns: number
  private readonly rows: number
  private readonly left: number
  private readonly top: number
  /** Region of each cell, from 1; 0 where a line runs. */
  private readonly region: Int32Array
  /** Cells of each region; the ground outside everything is larger than any. */
  private readonly sizes: number[] = [0]

  constructor(paths: readonly Path[]) {
    const box = paths.map(boxOfPath).reduce((a: Box, b) => uniteBoxes(a, b))
    this.cell = Math.max(FINEST, Math.max(box.maxX - box.minX, box.maxY - box.minY) / ACROSS)
    this.left = box.minX - 4 * this.cell
    this.top = box.minY - 4 * this.cell
    this.columns = Math.ceil((box.maxX - this.left) / this.cell) + 5
    this.rows = Math.ceil((box.maxY - this.top) / this.cell) + 5
    this.region = new Int32Array(this.columns * this.rows).fill(-1)
    for (const p of paths) this.wall(p)
    this.name()
  }

  /** Cells along a path become wall, with those beside them: gaps of up to two cells are bridged. */
  private wall(path: Path): void {
    const { x, y } = courseOf(path)
    const count = path.closed ? x.length : x.length - 1
    for (let i = 0; i < count; i++) {
      const k = (i + 1) % x.length
      const steps = Math.max(1, Math.ceil((Math.hypot(x[k]! - x[i]!, y[k]! - y[i]!) / this.cell) * 1.5))
      for (let j = 0; j <= steps; j++)
        this.block(x[i]! + ((x[k]! - x[i]!) * j) / steps, y[i]! + ((y[k]! - y[i]!) * j) / steps)
    }
  }

  private block(x: number, y: number): void {
    const i = this.at(x, y)
    const { region, columns } = this
    region[i] = region[i - 1] = region[i + 1] = region[i - columns] = region[i + columns] = 0
  }

  private at(x: number, y: number): number {
    return Math.floor((y - this.top) / this.cell) * this.columns + Math.floor((x - this.left) / this.cell)
  }

  /** Gives every cell that is not wall the name of its region, by flooding. */
  private name(): void {
    const { region, columns } = this
    const stack = new Int32Array(region.length)
    for (let start = 0; start < region.length; start++) {
      if (region[start] !== -1) continue
      const name = this.sizes.length
      let top = 0
      let size = 0
      stack[top++] = start
      region[start] = name
      while (top) {
        const i = stack[--top]!
        size++
        const column = i % columns
        if (column > 0 && region[i - 1] === -1) region[(stack[top++] = i - 1)] = name
        if (column < columns - 1 && region[i + 1] === -1) region[(stack[top++] = i + 1)] = name
        if (i >= columns && region[i - columns] === -1) region[(stack[top++] = i - columns)] = name
        if (i + columns < region.length && region[i + columns] === -1) region[(stack[top++] = i + columns)] = name
      }
      // The first cell of all lies beyond every line: its region is the open ground.
      this.sizes.push(start === 0 ? Infinity : size + name * 1e-6)
    }
  }

  /** The size of the region that begins beside a place in a direction; 0 where none is near. Regions differ in it. */
  sizeBeside(x: number, y: number, dx: number, dy: number): number {
    for (let k = 1; k <= FARTHEST; k++) {
      const i = this.at(x + dx * k * this.cell, y + dy * k * this.cell)
      const name = this.region[i]
      if (name) return this.sizes[name]!
    }
    return 0
  }
}
