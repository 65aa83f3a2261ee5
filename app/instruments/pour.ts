import type { Drawing, Fill } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { cubicsOfPath, short } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import type { RegionHit } from '#core/ink/session/region-hits'
import { newId } from '#core/new-id'
import type { Mark } from '~/canvas/marks'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Fills, NextLine, View } from './worktop'

/** What a drag has poured into so far; it takes out where it began with a region that has the ink already. */
interface Spill {
  ink: string
  out: boolean | null
  last: Vec
  taken: RegionHit[]
  asked: Promise<void>
  dropped: boolean
}

/** Pours an ink into regions, takes it out, and takes inks up. */
export class Pour implements Instrument {
  readonly name = 'Pour'
  readonly cursor = 'crosshair'
  private over: RegionHit | null = null
  private at: Vec | null = null
  private onInk = false
  private spill: Spill | null = null
  private looks = 0

  constructor(private readonly worktop: Edits & View & NextLine & Fills) {}

  hint(): string {
    if (this.spill)
      return this.spill.out ? 'Release: take these out · Esc: leave them' : 'Release: pour into these · Esc: leave them'
    const keys = 'N: next ink · Alt+click: take an ink up'
    if (this.onInk) return `This is ink: Alt+click takes it up · Point at paper to pour`
    if (!this.over) return `Point at a region · ${keys}`
    const had = this.inkOf(this.over)
    if (had === this.worktop.inkInHand()) return `Click: take this ink out · ${keys}`
    return `Click: ${had ? 'pour over' : this.over.where === 'open' ? 'pour on the open ground' : 'pour here'} · Drag: into several · ${keys}`
  }

  private inkOf({ fill }: RegionHit): string | null {
    return (fill && this.worktop.drawing().fills?.find((f) => f.id === fill)?.ink) || null
  }

  move(hand: Hand): void {
    this.at = hand.at
    const { spill } = this
    if (spill) {
      for (const p of placesOnTheWay(spill.last, hand.at, this.worktop.zoom())) this.ask(spill, p)
      spill.last = hand.at
      return
    }
    this.look(hand.at)
  }

  private look(at: Vec): void {
    if (this.over && this.over.where === 'region' && isIn(this.over, at)) {
      this.worktop.refresh()
      return
    }
    const mine = ++this.looks
    void this.worktop.regionAt(at).then((hit) => {
      if (mine !== this.looks) return
      this.over = hit
      this.onInk = !hit
      this.worktop.refresh()
    })
  }

  press(hand: Hand): void {
    this.looks++
    if (hand.alt) {
      const ink = this.worktop.inkAt(hand.at)
      if (ink) this.worktop.takeInk(ink)
      else this.worktop.say('There is no ink here to take up.')
      return
    }
    const spill: Spill = {
      ink: this.worktop.inkInHand(),
      out: null,
      last: hand.at,
      taken: [],
      asked: Promise.resolve(),
      dropped: false,
    }
    this.spill = spill
    this.ask(spill, hand.at)
    this.worktop.refresh()
  }

  private ask(spill: Spill, at: Vec): void {
    spill.asked = spill.asked.then(async () => {
      if (spill.dropped || spill.taken.some((t) => t.where === 'region' && isIn(t, at))) return
      const hit = await this.worktop.regionAt(at)
      if (spill.dropped) return
      if (!hit) {
        if (spill.out === null && !spill.taken.length) this.refuse(at)
        return
      }
      // A drag that began in a region is not for the open ground.
      if (
        hit.where === 'open' &&
        (spill.taken.length || spill.out !== null) &&
        !spill.taken.some((t) => t.where === 'open')
      )
        return
      const has = this.inkOf(hit) === spill.ink
      spill.out ??= has
      if (
        has !== spill.out ||
        spill.taken.some((t) => t.where === hit.where && (t.fill ? t.fill === hit.fill : sameRegion(t, hit)))
      )
        return
      spill.taken.push(hit)
      this.worktop.refresh()
    })
  }

  private refuse(at: Vec): void {
    const { page } = this.worktop.drawing()
    const isOff = at.x < 0 || at.y < 0 || at.x > page.width || at.y > page.height
    this.worktop.say(
      isOff
        ? 'This is beside the page. Pour into a region on it.'
        : 'This is ink, and nothing can be poured there. Point at the paper beside it.',
    )
  }

  release(): void {
    const { spill } = this
    if (!spill) return
    // The next press, or another instrument, may come before all is answered: what was poured is kept all the same.
    this.spill = null
    void spill.asked.then(() => {
      this.over = null
      this.keep(spill)
      if (this.at) this.look(this.at)
      this.worktop.refresh()
    })
  }

  private keep({ ink, out, taken }: Spill): void {
    if (!taken.length) return
    const n = taken.length
    const label = out ? (n > 1 ? `Take ${n} fills out` : 'Take a fill out') : n > 1 ? `Pour ${n} regions` : 'Pour'
    const clear = !out && this.worktop.preferences().fill.clear
    this.worktop.edit(label, (draft) => {
      for (const hit of taken) pourIn(draft, hit, out ? null : ink, this.worktop)
    })
    if (clear) void this.worktop.clearInside(taken)
  }

  cancel(): void {
    if (this.spill) this.spill.dropped = true
    this.spill = null
    this.over = null
  }

  away(): void {
    this.looks++
    this.over = null
    this.at = null
  }

  overtaken(): void {
    this.cancel()
  }

  review(): void {
    this.over = null
    if (this.at && !this.spill) this.look(this.at)
  }

  leave(): void {
    this.cancel()
  }

  key(key: string, shift: boolean): boolean {
    if (key.toLowerCase() === 'n') this.worktop.stepInk(shift ? -1 : 1)
    else if (key === 'Escape' && this.spill) this.cancel()
    else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const colour = this.worktop.colourOf(this.worktop.inkInHand())
    const bridges: Mark = { kind: 'bridges', paths: this.worktop.bridges() }
    const all = this.spill ? this.spill.taken : this.over ? [this.over] : []
    const out = this.spill ? !!this.spill.out : !!this.over && this.inkOf(this.over) === this.worktop.inkInHand()
    const marks: Mark[] = [
      bridges,
      ...all.map((h): Mark => ({ kind: 'region', paths: h.contours, colour: out ? null : colour })),
    ]
    const { over, at } = this
    if (over && at && !this.spill)
      marks.push({
        kind: 'tag',
        at,
        text:
          over.area === null ? 'open ground' : `${short(over.area / this.worktop.drawing().page.pxPerMm ** 2, 1)} mm²`,
      })
    return marks
  }
}

/** The fill that a region gets. */
function fillFor(hit: RegionHit, ink: string, worktop: NextLine): Fill {
  const { gap, under } = worktop.preferences().fill
  return {
    id: newId(),
    ink,
    where: hit.where,
    at: hit.outer.nodes[0]!.at,
    hold: hit.hold,
    gap,
    ...(under >= 0 && { under }),
  }
}

/** Pours an ink into a region of a draft, over what it has, or takes out what it has (null). */
export function pourIn(draft: Drawing, hit: RegionHit, ink: string | null, worktop: NextLine): void {
  const before = draft.fills ?? []
  const had = before.find((f) => f.id === hit.fill)
  if (ink === null) draft.fills = before.filter((f) => f !== had)
  else if (had && !(had.where === 'page' && hit.where === 'open')) had.ink = ink
  else draft.fills = [...before, fillFor(hit, ink, worktop)]
}

export const isIn = ({ contours }: RegionHit, p: Vec): boolean =>
  windingAt(
    contours.map((c) => cubicsOfPath({ ...c, closed: true })),
    p,
  ) !== 0

const sameRegion = (a: RegionHit, b: RegionHit): boolean => {
  const [p, q] = [a.contours[0]!.nodes[0]!.at, b.contours[0]!.nodes[0]!.at]
  return p.x === q.x && p.y === q.y
}
