import type { Ridges } from './ridges'

/** Strokes no farther from the next than this search for one line, px of a picture of 1,440 px. */
export const BESIDE = 14
/** More strokes side by side than this are hatching: each is a line. */
export const MOST = 5
/** Strokes run the same way within this angle: its cosine. */
export const ALIKE = Math.cos((32 * Math.PI) / 180)
/** Crests are looked at for others beside them no farther than this, px of a picture of 1,440 px. */
const REACH = 12.5
/** What is found in a cell of this size holds for it and those about it, px of a picture of 1,440 px. */
const CELL = 100

/** How crests lie to each other. */
export interface Beside {
  /** The share of all crests that have others beside them, 0..1. */
  share: number
  /** The same for those about a pixel; 0 where there are none. */
  about(x: number, y: number): number
}

/**
 * Which crests have others beside them that run the same way, as strokes have that search for one line.
 *
 * @param ridges at some scale
 * @param mask the pixels of their crests, one px wide
 * @param size how large the picture is, as a share of 1,440 px
 */
export function besideEachOther({ width, height, nx, ny }: Ridges, mask: Uint8Array, size: number): Beside {
  const reach = REACH * size + 1
  const find = (x: number, y: number, ux: number, uy: number): number => {
    let left = false
    for (let s = 1; s <= reach; s += 0.5) {
      const [px, py] = [Math.round(x + s * ux), Math.round(y + s * uy)]
      if (px < 0 || py < 0 || px >= width || py >= height) return -1
      const i = py * width + px
      if (!mask[i]) left ||= s > 1
      else if (left) return Math.abs(nx[i]! * ux + ny[i]! * uy) >= ALIKE ? i : -1
    }
    return -1
  }
  const cell = CELL * size
  const columns = Math.ceil(width / cell)
  const cells = new Map<number, { all: number; some: number }>()
  for (let i = 0; i < mask.length; i++) {
    if (!mask[i]) continue
    // How many lie side by side: more than a few are hatching.
    let strokes = 1
    for (const way of [1, -1]) {
      const [ux, uy] = [way * nx[i]!, way * ny[i]!]
      for (
        let k = find(i % width, Math.floor(i / width), ux, uy);
        k >= 0 && strokes <= MOST;
        k = find(k % width, Math.floor(k / width), ux, uy)
      )
        strokes++
    }
    const at = Math.floor(Math.floor(i / width) / cell) * columns + Math.floor((i % width) / cell)
    const { all, some } = cells.get(at) ?? { all: 0, some: 0 }
    cells.set(at, { all: all + 1, some: some + Number(strokes > 1 && strokes <= MOST) })
  }
  const shareOf = (keys: Iterable<number>): number => {
    let [all, some] = [0, 0]
    for (const key of keys) {
      all += cells.get(key)?.all ?? 0
      some += cells.get(key)?.some ?? 0
    }
    return all ? some / all : 0
  }
  const shares = new Map(
    [...cells.keys()].map((key) => [
      key,
      shareOf([-1, 0, 1].flatMap((row) => [-1, 0, 1].map((column) => key + row * columns + column))),
    ]),
  )
  return {
    share: shareOf(cells.keys()),
    about: (x, y) => shares.get(Math.floor(y / cell) * columns + Math.floor(x / cell)) ?? 0,
  }
}
