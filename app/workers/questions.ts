import type { Path } from '#core/geometry/path'
import { pathOfCubics } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { InkSession, Joints } from '#core/ink/open-ink'
import type { Bridged } from '#core/ink/front/form-bridges'
import { formsAndOverlaps } from '#core/ink/overlaps-of'
import type { Bounded, LitterLimits } from '#core/ink/pieces/litter'
import type { PieceHit } from '#core/ink/pieces/piece-at'
import type { RegionHit } from '#core/ink/session/region-hits'
import { bridgesOver, emptyRegions, regionHitAt } from '#core/ink/session/region-hits'
import type { Finding } from '#core/proof/finding'
import { findingsIn } from '#core/proof/findings-of'

/** How a question is answered: in one go, in turns with other messages, or in turns until an edit or a newer one overtakes it. */
type Manner = 'at once' | 'in turns' | 'newest'

interface Question<M extends Manner, A extends unknown[], R> {
  manner: M
  work: (session: InkSession, ...args: A) => Generator<number, R>
}

const question = <M extends Manner, A extends unknown[], R>(
  manner: M,
  work: (session: InkSession, ...args: A) => Generator<number, R>,
): Question<M, A, R> => ({ manner, work })

/** What can be asked of the session: all that is needed for another question is a line here. */
export const QUESTIONS = {
  /** The pieces of lines under a point, page px; the front line's first. */
  piecesAt: question('at once', (session, p: Vec): Generator<number, PieceHit[]> => session.piecesAt(p)),
  /** Where two ends come together, and where an end meets a line or goes past one. */
  joints: question('at once', (session): Generator<number, Joints> => session.joints()),
  /** What of other lines sticks out beyond the lines named, by no more than `most` of their sizes. */
  beyond: question('in turns', (session, fence: readonly string[], most: number): Generator<number, PieceHit[]> =>
    session.beyond(new Set(fence), most),
  ),
  /** Loose ends and specks in regions. */
  litter: question(
    'at once',
    (session, regions: readonly Bounded[], limits: LitterLimits): Generator<number, PieceHit[]> =>
      session.litter(regions, limits),
  ),
  /** The region under a point as it would be poured, gaps of up to `gap` px bridged. */
  regionAt: question('at once', (session, p: Vec, gap: number): Generator<number, RegionHit | null> =>
    regionHitAt(session, p, gap),
  ),
  /** What bridges gaps of up to `gap` px. */
  bridges: question('at once', (session, gap: number): Generator<number, Path[]> => bridgesOver(session, gap)),
  /** Regions that no fill has, none smaller than `least` px squared, and which of them lie side by side. */
  emptyRegions: question('in turns', (session, gap: number, least: number): ReturnType<typeof emptyRegions> =>
    emptyRegions(session, gap, least),
  ),
  /** Forms, which of them overlap, and where nothing was decided about that. */
  fronts: question('at once', fronts),
  /** Outlines as they were before they were simplified, by shape and place among its contours. */
  originals: question('at once', originals),
  /** What Proof finds. */
  findings: question('newest', (session): Generator<number, Finding[]> => findingsIn(session)),
}

export type Questions = typeof QUESTIONS
export type Asked<K extends keyof Questions> =
  Parameters<Questions[K]['work']> extends [InkSession, ...infer A] ? A : never
/** The answer null, of questions of which only the newest counts. */
export type Overtaken<K extends keyof Questions> = Questions[K]['manner'] extends 'newest' ? null : never
export type Answer<K extends keyof Questions> =
  ReturnType<Questions[K]['work']> extends Generator<number, infer R> ? R : never

/** A form, without its lines. */
interface FormFound {
  lines: string[]
  loop: Path
  bridge: Bridged | null
}

/** Forms bottom to top; others name them by their places. */
export interface FrontsFound {
  forms: FormFound[]
  pairs: [number, number][]
  overlaps: { key: string; forms: [number, number]; at: Vec; guess: 0 | 1 | null; sure: number }[]
}

function* fronts({ drawing }: InkSession): Generator<number, FrontsFound> {
  const { forms, pairs, overlaps } = formsAndOverlaps(drawing)
  const place = new Map(forms.map((f, i) => [f, i]))
  return {
    forms: forms.map(({ lines, loop, bridge }) => ({ lines: lines.map((l) => l.id), loop, bridge })),
    pairs,
    overlaps: overlaps.map((o) => ({ ...o, forms: [place.get(o.forms[0])!, place.get(o.forms[1])!] })),
  }
}

function* originals(
  session: InkSession,
  of: readonly [shape: string, contours: readonly number[]][],
): Generator<number, Path[]> {
  const { shapes } = yield* session.shapes()
  const originalOf = yield* session.originals()
  return of.flatMap(([id, places]) => {
    const shape = shapes.find((s) => s.id === id)
    return places.flatMap((i) => {
      const before = shape?.contours[i] && originalOf(shape.contours[i])
      return before ? [pathOfCubics(before, true, 1e-6)] : []
    })
  })
}
