import type { Vec } from '../geometry/point'
import { perUsualPx } from '../model/fineness'
import type { Drawing, Line } from '../model/model'
import { shownItems } from '../model/queries'
import { meetingOptions } from './ends/tuck-stage'
import { Ends } from './ends/ends'
import type { Form } from './front/form'
import { pairKey } from './front/decided'
import { Fronts } from './front/fronts'
import { guessFront } from './front/guess'

export type { Form } from './front/form'

/** A place where two forms overlap and nothing was decided about which of them lies in front. */
export interface Overlap {
  /** The same for as long as the same lines bound the two. */
  key: string
  /** The lower one in the stack first. */
  forms: [Form, Form]
  /** A place in both, px. */
  at: Vec
  /** Which of the two lies in front, as far as that can be told from what is there; and how sure it is, 0..1. */
  guess: 0 | 1 | null
  sure: number
}

/** All overlaps of a drawing's forms about which nothing was decided, from the bottom of the stack to the top. */
export const overlapsOf = (drawing: Drawing): Overlap[] => formsAndOverlaps(drawing).overlaps

/** The forms of a drawing, bottom to top, the pairs of them that overlap, by their places, and the overlaps that are undecided. */
export function formsAndOverlaps(drawing: Drawing): { forms: Form[]; pairs: [number, number][]; overlaps: Overlap[] } {
  const layerOf = new Map<string, number>()
  const lines = drawing.layers.flatMap((layer, i) =>
    shownItems(layer).flatMap((item): Line[] => {
      if (!('path' in item)) return []
      layerOf.set(item.id, i)
      return [item]
    }),
  )
  const perPx = perUsualPx(drawing.page)
  const ends = new Ends(meetingOptions(perPx))
  ends.follow(lines)
  const place = new Map(lines.map((l, i) => [l.id, i]))
  const places = {
    layerOf: (id: string): number => layerOf.get(id)!,
    placeOf: (id: string): number => place.get(id)!,
    endsOf: (id: string) => ends.of(id),
  }
  const { forms, crossed, undecided } = new Fronts(perPx).asked(drawing, lines, places.endsOf, places.layerOf)
  const overlaps = undecided.map(({ a, b, at }): Overlap => {
    const [one, other] = [forms[a]!, forms[b]!]
    return { key: pairKey(one, other), forms: [one, other], at, ...guessFront([one, other], places) }
  })
  return { forms, pairs: crossed.map(({ a, b }) => [a, b]), overlaps }
}
