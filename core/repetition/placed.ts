import { mapNode, mapPath } from '../geometry/path'
import type { PathNode } from '../geometry/path'
import { mapped } from '../geometry/matrix'
import type { Vec } from '../geometry/point'
import type { Amendment, Fill, Hanging, PlaceBy, Retouch } from '../model/model'
import type { Joined } from './across-axis'
import type { Image } from './images'
import { idIn } from '../model/image-ids'

type End = 'first' | 'last'

/** Where what is known by places on a line is known by in an image. */
export interface Placement {
  id: string
  at: (u: number) => number
  /** It runs the other way there. */
  isReversed: boolean
  /** What lay to its left lies to its right. */
  isFlipped: boolean
  /** What an end is there; null where it is none any more. */
  end: (end: End) => End | null
}

/** A line that stands where it stood, as it was. */
export const inPlace = (id: string): Placement => ({
  id,
  at: (u) => u,
  isReversed: false,
  isFlipped: false,
  end: (end) => end,
})

/** A line as it stands in an image by itself. */
export const placedIn = (id: string, { tag, isMirrored }: Image): Placement => ({
  ...inPlace(idIn(id, tag)),
  isFlipped: isMirrored,
})

/** The half of a joined line that was drawn, or that of its image: turned round as well as mirrored, its left stays its left. */
export const placedOn = ({ line, own, other, end }: Joined, isOwn: boolean): Placement => ({
  id: line.id,
  at: isOwn ? own : other,
  isReversed: !isOwn,
  isFlipped: false,
  end: (of) => (end?.of !== of ? null : isOwn ? end.own : end.other),
})

/** What is known by places: on lines, and on the page. */
export interface Standing {
  /** Where a line stands; null for one that does not stand there. */
  of: (line: string) => Placement | null
  /** The image that it is of; null for what was drawn itself. */
  image: Image | null
}

const idThere = (id: string, { image }: Standing): string => (image ? idIn(id, image.tag) : id)

const placeThere = ({ at, ahead, left }: PlaceBy, p: Placement): PlaceBy => ({
  at: p.at(at),
  ahead: p.isReversed ? -ahead : ahead,
  left: p.isFlipped ? -left : left,
})

/** An amendment as it holds where its lines stand; null where one of them does not stand there, or it says nothing of lines. */
export function amendmentThere(a: Amendment, standing: Standing): Amendment | null {
  const { of } = standing
  const id = idThere(a.id, standing)
  const ids = (lines: readonly string[]): string[] | null => {
    const all = lines.map((l) => of(l)?.id)
    return all.every((l) => l !== undefined) ? all : null
  }
  switch (a.kind) {
    case 'trim': {
      const [p, over, by] = [of(a.line), ids(a.over), ids(a.bounds.map((b) => b.by))]
      if (!p || !over || !by) return null
      const bounds = a.bounds.map((b, i) => ({ by: by[i]!, side: (p.isReversed ? -b.side : b.side) as -1 | 0 | 1 }))
      return { ...a, id, line: p.id, place: placeThere(a.place, p), over, bounds }
    }
    case 'fineness': {
      const p = of(a.line)
      return p && { ...a, id, line: p.id, place: placeThere(a.place, p) }
    }
    case 'corner': {
      const [one, two] = a.ends.map(({ line, end }) => {
        const p = of(line)
        const now = p?.end(end)
        return p && now ? { line: p.id, end: now } : null
      })
      return one && two ? { ...a, id, ends: [one, two] } : null
    }
    case 'front': {
      const [front, back] = [ids(a.front), ids(a.back)]
      return front && back && { ...a, id, front, back }
    }
    case 'bridge': {
      const lines = ids(a.lines)
      const isMirrored = standing.image?.isMirrored
      return lines && { ...a, id, lines, across: isMirrored ? -a.across : a.across }
    }
    case 'cast': {
      const front = ids(a.front)
      return front && { ...a, id, front }
    }
    case 'retouch': {
      const p = a.by ? of(a.by.line) : null
      return p && a.by ? retouchThere({ ...a, id }, a.by, p, standing.image) : null
    }
    default:
      return null
  }
}

/** A retouch where its line stands: of an outline that an image turns over, nodes come in the other order. */
function retouchThere(a: Retouch, by: Hanging, p: Placement, image: Image | null): Retouch {
  const map = (q: Vec): Vec => (image ? mapped(image.by, q) : q)
  const node = (n: PathNode): PathNode => {
    const there = mapNode(n, map)
    return image?.isMirrored ? { ...there, in: there.out, out: there.in } : there
  }
  const was = by.was?.map(node) as Hanging['was']
  const turn = image ? image.turned(by.turn) : by.turn
  return {
    ...a,
    at: map(a.at),
    to: typeof a.to === 'object' && a.to ? node(a.to) : a.to,
    by: {
      ...by,
      line: p.id,
      ...placeThere(by, p),
      turn: wrapped(p.isReversed ? turn + Math.PI : turn),
      ...(was && { was: image?.isMirrored ? [was[2], was[1], was[0]] : was }),
    },
  }
}

const wrapped = (a: number): number => Math.atan2(Math.sin(a), Math.cos(a))

/** A fill as it is held where its lines stand. */
export function fillThere(fill: Fill, standing: Standing): Fill {
  const { of, image } = standing
  const map = (p: Vec): Vec => (image ? mapped(image.by, p) : p)
  return {
    ...fill,
    id: idThere(fill.id, standing),
    at: map(fill.at),
    hold: fill.hold.flatMap((h): Fill['hold'] => {
      const p = of(h.line)
      if (!p) return []
      const [a, b] = [p.at(h.from), p.at(h.to)]
      const side = p.isFlipped ? (h.side === 'left' ? 'right' : 'left') : h.side
      return [{ line: p.id, side, from: p.isReversed ? b : a, to: p.isReversed ? a : b }]
    }),
    ...(fill.shades && {
      shades: fill.shades.map((s) => ({
        ...s,
        id: idThere(s.id, standing),
        contours: s.contours.map((c) => mapPath(c, map)),
      })),
    }),
  }
}
