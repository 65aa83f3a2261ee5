import type { Drawing, LitFill } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { subtract } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Fills, NextLine, View } from './worktop'
import { arrowStep, screenDistance, toggled } from './instrument'

/** The light is taken hold of this near, screen px. */
const GRIP = 18

/** Shade on the side of fills away from the drawing's light, and light on the side towards it: shown until it is accepted. */
export class Glow implements Instrument {
  readonly name = 'From the light'
  readonly cursor = 'default'
  private at: Vec
  private held: Vec | null = null
  /** Ids of the fills that it is for; none: all. */
  private chosen: string[] = []
  private trying = false
  private last = ''

  constructor(private readonly worktop: Edits & View & NextLine & Fills) {
    const { page, settings } = worktop.drawing()
    const { x, y } = worktop.preferences().light
    this.at = settings.light?.at ?? { x: x * page.width, y: y * page.height }
    this.last = JSON.stringify(worktop.preferences().fill.lit)
    this.show()
  }

  private fills(): string[] {
    const all = (this.worktop.drawing().fills ?? []).filter((f) => f.where === 'region').map((f) => f.id)
    const some = all.filter((id) => this.chosen.includes(id))
    return some.length ? some : all
  }

  hint(): string {
    if (!this.fills().length) return 'Pour a fill first: its shade follows from the light'
    if (this.held) return 'Shade lies away from the light · Release: look'
    return 'Enter: keep this shade · Drag the light · Click a fill: for this one alone · Esc: as it was'
  }

  private show(): void {
    const ids = new Set(this.fills())
    if (!ids.size) return
    this.trying = true
    const { depth, softness, shade, light } = this.worktop.preferences().fill.lit
    const lit: LitFill = { depth, softness, shade, light }
    const { at } = this
    this.worktop.change((draft: Drawing) => {
      draft.settings.light = draft.settings.light
        ? { ...draft.settings.light, at }
        : { at, strength: 0.6, softness: 0.6, live: false }
      for (const fill of draft.fills ?? []) {
        if (!ids.has(fill.id)) continue
        if (shade > 0 || light > 0) fill.lit = lit
        else delete fill.lit
      }
    })
    const n = ids.size
    this.worktop.tryOn({
      of: (l) => l,
      summary: `Shade on ${n === 1 ? 'this fill' : `${n} fills`} as shown; it follows the light from now on.`,
      changes: true,
      accept: () => this.accept(),
      drop: () => this.drop(),
    })
    this.worktop.refresh()
  }

  private accept(): void {
    if (!this.trying) return
    this.trying = false
    this.worktop.tryOn(null)
    this.worktop.finish('Shade from the light')
    this.worktop.refresh()
  }

  private drop(): void {
    if (!this.trying) return
    this.trying = false
    this.worktop.tryOn(null)
    this.worktop.drop()
    this.worktop.refresh()
  }

  review(): void {
    const now = JSON.stringify(this.worktop.preferences().fill.lit)
    if (now === this.last) return
    this.last = now
    this.show()
  }

  press(hand: Hand): void {
    const zoom = this.worktop.zoom()
    if (
      screenDistance({ x: this.at.x * zoom, y: this.at.y * zoom }, { x: hand.at.x * zoom, y: hand.at.y * zoom }) <= GRIP
    ) {
      this.held = subtract(this.at, hand.at)
      return
    }
    void this.worktop.regionAt(hand.at).then((hit) => {
      if (!hit?.fill || hit.where !== 'region') return
      this.chosen = hand.shift ? toggled(this.chosen, hit.fill) : [hit.fill]
      this.worktop.drop()
      this.show()
    })
  }

  move(hand: Hand): void {
    if (!this.held) return
    this.at = { x: hand.at.x + this.held.x, y: hand.at.y + this.held.y }
    this.show()
  }

  release(): void {
    this.held = null
    this.worktop.refresh()
  }

  key(key: string, shift: boolean): boolean {
    const step = arrowStep(key, shift)
    if (key === 'Enter' && this.trying) this.accept()
    else if (key === 'Escape' && this.trying) this.drop()
    else if (step && this.fills().length) {
      this.at = { x: this.at.x + step.x, y: this.at.y + step.y }
      this.show()
    } else return false
    return true
  }

  cancel(): void {
    this.held = null
    this.drop()
  }

  overtaken(): void {
    this.held = null
    this.trying = false
    this.worktop.tryOn(null)
  }

  leave(): void {
    this.drop()
  }

  marks(): Mark[] {
    return this.fills().length ? [{ kind: 'light', at: this.at, held: !!this.held }] : []
  }
}
