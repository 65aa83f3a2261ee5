import { arcOfPath } from '../geometry/known'
import type { Matrix } from '../geometry/matrix'
import { composed, IDENTITY, inverse } from '../geometry/matrix'
import { originOf, tagsOf } from '../model/image-ids'
import type { Drawing, Hold } from '../model/model'
import { linesOf } from '../model/queries'
import type { Joined } from './across-axis'
import type { Image } from './images'
import { imagesOf, rulesOf } from './images'
import { joinedBy, reachOfAxis } from './with-copies'

/** A region of the whole drawing, told by what was drawn. */
export interface RegionAsDrawn {
  /** What holds it there. */
  hold: Hold[]
  /** From where it stands to where it was drawn; null where it is no image of a region that was. */
  back: Matrix | null
}

/** A stretch of an edge as it was drawn, and in which image it stands: the tags of the rules, in their order. */
interface Stretch {
  hold: Hold
  tags: readonly string[]
  /** px */
  length: number
}

/**
 * Tells regions of the whole drawing by places on the lines that were drawn: one that is bounded for its greater part by lines in one
 * image is the image of a region, which is told instead.
 */
export function regionsAsDrawn(drawn: Drawing): (hold: readonly Hold[]) => RegionAsDrawn {
  const rules = rulesOf(drawn)
  if (!rules.length) return (hold) => ({ hold: [...hold], back: null })
  const reach = reachOfAxis(drawn.page)
  const lines = new Map(linesOf(drawn).map((l) => [l.id, l]))
  const images = new Map(rules.flatMap(imagesOf).map((image) => [image.tag, image]))
  const repeated = new Set(rules.flatMap((r) => r.lines))
  const joined = new Map<string, { image: Image; by: Joined } | null>()
  const joinedOf = (id: string): { image: Image; by: Joined } | null => {
    if (!joined.has(id)) {
      const line = lines.get(id)
      const rule = rules.find((r) => r.kind === 'mirror' && r.lines.includes(id))
      const [image] = rule ? imagesOf(rule) : []
      const by = line && rule && image ? joinedBy(line, rule, image, reach) : null
      joined.set(id, by && { image: image!, by })
    }
    return joined.get(id)!
  }
  const stretchesOf = (h: Hold): Stretch[] => {
    const [id, tags] = [originOf(h.line), tagsOf(h.line)]
    const line = lines.get(id)
    if (!line) return []
    const total = arcOfPath(line.path).total
    const isFlipped = tags.filter((t) => images.get(t)?.isMirrored).length % 2 === 1
    const side = isFlipped ? (h.side === 'left' ? 'right' : 'left') : h.side
    const stretch = (from: number, to: number, tags: readonly string[]): Stretch[] =>
      from === to ? [] : [{ hold: { line: id, side, from, to }, tags, length: Math.max(to - from, 1e-4) * total }]
    const across = joinedOf(id)
    if (!across) return stretch(h.from, h.to, tags)
    const { own, other } = across.by
    // A half that was turned round and mirrored has its left to its left still.
    return [...stretch(...spanned(h, own), tags), ...stretch(...spanned(h, other), [across.image.tag, ...tags])]
  }
  return (hold) => {
    const all = hold.flatMap(stretchesOf)
    const tags = all.every((s) => repeated.has(s.hold.line)) ? mostOf(all) : []
    const of = all.filter((s) => same(s.tags, tags)).map((s) => s.hold)
    const there = tags.reduce<Matrix>((m, tag) => composed(images.get(tag)!.by, m), IDENTITY)
    return { hold: of, back: tags.length ? inverse(there) : null }
  }
}

/** What of a stretch lies on a half of a joined line, in shares of the line that was drawn. */
function spanned({ from, to }: Hold, by: (u: number) => number): [number, number] {
  const [begin, span] = [by(0), by(1) - by(0)]
  const [a, b] = [from, to].map((u) => Math.min(1, Math.max(0, (u - begin) / span))) as [number, number]
  return [Math.min(a, b), Math.max(a, b)]
}

const same = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((t, i) => t === b[i])

/** An image has more of an edge by this much, or the edge is of what was drawn. */
const MORE = 1.02

/** The tags of the image that has most of an edge; none where what was drawn has. */
function mostOf(all: readonly Stretch[]): readonly string[] {
  const lengths = new Map<string, { tags: readonly string[]; length: number }>()
  for (const { tags, length } of all) {
    const of = lengths.get(tags.join()) ?? { tags, length: 0 }
    lengths.set(tags.join(), { tags, length: of.length + length })
  }
  const most = [...lengths.values()].reduce((a, b) => (b.length > a.length * MORE ? b : a), {
    tags: [] as readonly string[],
    length: lengths.get('')?.length ?? 0,
  })
  return most.tags
}
