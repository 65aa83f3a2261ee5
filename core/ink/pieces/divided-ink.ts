import polylabel from 'polylabel'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import type { Cubic } from '../../geometry/cubic'
import { flatten } from '../../geometry/cubic'
import { orElse } from '../../arrangement/as-far-as-possible'
import { arranged } from '../../arrangement/arranged'
import type { Areas } from '../../arrangement/areas'
import { areasOf } from '../../arrangement/areas'
import { toPaths } from '../../arrangement/contours'
import { loopOf } from '../../arrangement/loop'
import type { PlanarMap } from '../../arrangement/planar-map'
import { facesAt, planarMap } from '../../arrangement/planar-map'
import { contoursOfFaces } from '../../arrangement/resolve'
import { toPx } from '../../arrangement/snap-grid'
import { visitFaces } from '../../arrangement/winding'

type Contours = readonly (readonly Cubic[])[]

/** One of the pieces into which other outlines divide a line's ink. */
export interface InkPiece {
  /** Which of the others cover it, and which bound it, by their places in the list, ascending. */
  over: number[]
  bounds: {
    by: number
    /** The border in short edges: the middle of each and its length, px. */ edges: { at: Vec; length: number }[]
  }[]
  contours: () => readonly Cubic[][]
  /** A point well inside. */
  inside: () => Vec
  faces: readonly number[]
}

/** A line's ink, divided by the outlines of others. */
export class DividedInk {
  /** For each face, null outside of the ink, else which of the others cover it. */
  private readonly over: (number[] | null)[]

  private constructor(
    private readonly map: PlanarMap,
    others: number,
    private readonly tolerance: number,
  ) {
    this.over = new Array<number[] | null>(map.faces).fill(null)
    visitFaces(map, others + 1, (face, { winding }) => {
      if (winding[0] === 0) return
      const list: number[] = []
      for (let g = 1; g <= others; g++) if (winding[g] !== 0) list.push(g - 1)
      this.over[face] = list
    })
  }

  /** Null where the ink is met by none of the others, or cannot be divided. */
  static of(ink: Contours, others: readonly Contours[], tolerance: number): DividedInk | null {
    const groups = [ink, ...others].map((g) => g.map(loopOf))
    return orElse(
      () =>
        arranged(groups, tolerance, (arrangement) =>
          arrangement.met ? new DividedInk(planarMap(arrangement), others.length, tolerance) : null,
        ),
      null,
    )
  }

  /** The pieces into which some of the others divide the ink; all of them, where none are named. */
  pieces(by: ReadonlySet<number> | null = null): Pieces {
    const kinds = new Map<string, number>()
    const faces = this.over.map((list) => {
      if (!list) return 0
      const key = (by ? list.filter((o) => by.has(o)) : list).join()
      let kind = kinds.get(key)
      if (!kind) kinds.set(key, (kind = kinds.size + 1))
      return kind
    })
    return new Pieces(this.map, areasOf(this.map, faces), this.over, by, this.tolerance)
  }

  /** The ink less some faces. */
  without(gone: ReadonlySet<number>): readonly Cubic[][] {
    return contoursOfFaces(
      this.map,
      Uint8Array.from(this.over, (list, f) => (list && !gone.has(f) ? 1 : 0)),
      this.tolerance,
    )
  }
}

/** The pieces of a line's ink. */
export class Pieces {
  private readonly known: (InkPiece | undefined)[] = []

  constructor(
    private readonly map: PlanarMap,
    private readonly areas: Areas,
    private readonly over: readonly (number[] | null)[],
    private readonly by: ReadonlySet<number> | null,
    private readonly tolerance: number,
  ) {}

  /** The piece about a point, px. */
  at(p: Vec): InkPiece | null {
    const area = this.areas.of[facesAt(this.map, [p])[0]!]!
    return area < 0 ? null : this.piece(area)
  }

  all(): InkPiece[] {
    return this.areas.kind.map((_, a) => this.piece(a))
  }

  private piece(area: number): InkPiece {
    return (this.known[area] ??= this.made(area))
  }

  private made(area: number): InkPiece {
    const faces = [...this.areas.of.keys()].filter((f) => this.areas.of[f] === area)
    const inPiece = new Set(faces)
    let contours: readonly Cubic[][] | null = null
    let inside: Vec | null = null
    const traced = (): readonly Cubic[][] =>
      (contours ??= contoursOfFaces(
        this.map,
        Uint8Array.from(this.over, (_, f) => (inPiece.has(f) ? 1 : 0)),
        this.tolerance,
      ))
    const chosen = (o: number): boolean => !this.by || this.by.has(o)
    return {
      over: this.over[faces[0]!]!.filter(chosen),
      bounds: this.boundsOf(inPiece).filter((b) => chosen(b.by)),
      contours: traced,
      inside: () => (inside ??= middleOf(traced())),
      faces,
    }
  }

  /** Whose outlines border on a piece, each at the middle of its border there. */
  private boundsOf(faces: ReadonlySet<number>): InkPiece['bounds'] {
    const { face, chains, arrangement } = this.map
    const { x, y } = chains.vertices
    const borders = new Map<number, { at: Vec; length: number }[]>()
    for (let h = 0; h < face.length; h++) {
      if (!faces.has(face[h]!) || faces.has(face[h ^ 1]!)) continue
      const owners = arrangement.owners.get(chains.owners[h >> 1]!)
      for (let i = 0; i < owners.length; i += 2) {
        const by = owners[i]! - 1
        if (by < 0) continue
        const edges = borders.get(by) ?? []
        borders.set(by, edges)
        for (let k = chains.start[h >> 1]!; k < chains.start[(h >> 1) + 1]!; k++) {
          const [a, b] = [chains.from[chains.edges[k]!]!, chains.to[chains.edges[k]!]!]
          const at = toPx(arrangement.grid, (x[a]! + x[b]!) / 2, (y[a]! + y[b]!) / 2)
          edges.push({ at, length: Math.hypot(x[b]! - x[a]!, y[b]! - y[a]!) * arrangement.grid.step })
        }
      }
    }
    return [...borders].sort(([a], [b]) => a - b).map(([by, edges]) => ({ by, edges }))
  }
}

/** A point well inside of contours (V. Agafonkin, Pole of inaccessibility, 2016). */
function middleOf(contours: readonly Cubic[][]): Vec {
  const rings = contours.map((c) =>
    c.flatMap((s) =>
      flatten(s, 0.1)
        .slice(1)
        .map((p): [number, number] => [p.x, p.y]),
    ),
  )
  const size = Math.max(...rings.flat().map(([x]) => x)) - Math.min(...rings.flat().map(([x]) => x))
  const [x, y] = polylabel(rings, Math.max(1e-3, size / 100))
  return { x: x!, y: y! }
}

/** The contours of a piece as closed paths. */
export const pathsOf = (piece: InkPiece): Path[] => toPaths(piece.contours())
