import { newId } from '#core/new-id'
import type { Corner as Finished } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { CornerPair } from '#core/ink/ends/corner-stage'
import type { Joints } from '#core/ink/open-ink'
import { arcOfPath } from '#core/geometry/known'
import { distance, lerp } from '#core/geometry/point'
import type { EndContact } from '#core/relations/end-contacts'
import type { Mark } from '~/canvas/marks'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Shapes, View } from './worktop'
import { toggled } from './instrument'

/** Screen px. */
const REACH = 12

/** A place where ends come together, or where one meets a line. */
type Joint =
  | { kind: 'corner'; at: Vec; pair: CornerPair }
  | {
      kind: 'end'
      at: Vec
      end: EndContact
      /** Which of the lines that it comes to is meant: the one nearest to the hand. */ met?: string
    }

const keyOf = (j: Joint): string =>
  j.kind === 'corner' ? j.pair.ends.map((e) => `${e.line} ${e.end}`).join() : `${j.end.line} ${j.end.end}`

/** Finishes corners, and says what ends do that meet a line: by a click each, or a drag over several. */
export class Corner implements Instrument {
  readonly name = 'Corner'
  readonly cursor = 'default'
  private joints: Joint[] = []
  private hover: Joint | null = null
  private sweep: { back: boolean; last: Vec; taken: Joint[] } | null = null
  private looks = 0

  constructor(private readonly worktop: Edits & Hits & View & NextLine & Shapes) {
    this.review()
  }

  hint(): string {
    if (this.sweep)
      return this.sweep.back
        ? 'Release: as the drawing has them · Esc: leave them'
        : 'Release: finish these so · Esc: leave them'
    if (!this.joints.length) return 'No ends come together here, and none meets a line'
    if (this.hover?.kind === 'corner')
      return `Click: this corner ${WORDS[this.worktop.preferences().corner.style]} · Alt+click: as the drawing has it`
    if (this.hover)
      return `Click: this end ${ENDS[this.worktop.preferences().endChoice]} · Alt+click: as the drawing has it`
    return 'Click a corner or a meeting end: finish it as set · Drag: several · Alt: take it back'
  }

  review(): void {
    const mine = ++this.looks
    void this.worktop.joints().then((found: Joints) => {
      if (mine !== this.looks) return
      const open = new Set(this.worktop.allLines(true).map((l) => l.id))
      this.joints = [
        ...found.corners
          .filter((p) => p.ends.every((e) => open.has(e.line)))
          .map((pair): Joint => ({ kind: 'corner', at: lerp(pair.contacts[0].at, pair.contacts[1].at, 0.5), pair })),
        ...found.ends.filter((e) => open.has(e.line)).map((end): Joint => ({ kind: 'end', at: end.at, end })),
      ]
      this.worktop.refresh()
    })
  }

  private jointAt(p: Vec): Joint | null {
    const near = this.joints
      .map((joint) => ({ joint, off: distance(joint.at, p) * this.worktop.zoom() }))
      .filter((j) => j.off <= REACH)
    return near.sort((a, b) => a.off - b.off)[0]?.joint ?? null
  }

  press(hand: Hand): void {
    this.sweep = { back: hand.alt, last: hand.at, taken: [] }
    this.take(hand.at)
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    const { sweep } = this
    if (!sweep) {
      this.hover = this.jointAt(hand.at)
      this.worktop.refresh()
      return
    }
    for (const p of placesOnTheWay(sweep.last, hand.at, this.worktop.zoom())) this.take(p)
    sweep.last = hand.at
    this.worktop.refresh()
  }

  private take(p: Vec): void {
    const found = this.jointAt(p)
    const joint = found?.kind === 'end' ? { ...found, met: this.metNear(found.end, p) } : found
    if (joint && !this.sweep!.taken.some((t) => keyOf(t) === keyOf(joint))) this.sweep!.taken.push(joint)
  }

  private metNear({ touched, under }: EndContact, p: Vec): string | undefined {
    const all = touched.length ? touched.map((t) => t.line) : under ? [under.line] : []
    const far = (id: string): number => {
      const path = findLine(this.worktop.drawing(), id)?.line.path
      return path ? arcOfPath(path).nearest(p).distance : Infinity
    }
    return all.sort((a, b) => far(a) - far(b))[0]
  }

  release(): void {
    const { sweep } = this
    this.sweep = null
    if (sweep?.taken.length) this.finish(sweep.taken, sweep.back)
    this.worktop.refresh()
  }

  private finish(joints: readonly Joint[], back: boolean): void {
    const { corner, endChoice } = this.worktop.preferences()
    const n = joints.length
    const what = joints.every((j) => j.kind === 'corner')
      ? n > 1
        ? `${n} corners`
        : 'a corner'
      : joints.every((j) => j.kind === 'end')
        ? n > 1
          ? `${n} ends`
          : 'an end'
        : `${n} corners and ends`
    this.worktop.edit(
      back ? `${what[0]!.toUpperCase()}${what.slice(1)} as the drawing has it` : `Finish ${what}`,
      (draft) => {
        for (const joint of joints) {
          if (joint.kind === 'end') {
            const { line, end } = joint.end
            changeLines(draft, [line], (l) => {
              if (endChoice === 'over' && !back) {
                if (joint.met) l.over = { ...l.over, [end]: toggled(l.over?.[end] ?? [], joint.met) }
                return
              }
              const tuck = { ...l.tuck }
              if (l.over) delete l.over[end]
              if (back) Reflect.deleteProperty(tuck, end)
              else if (endChoice !== 'over') tuck[end] = endChoice
              if (Object.keys(tuck).length) l.tuck = tuck
              else delete l.tuck
            })
            continue
          }
          const { pair } = joint
          const others = (draft.amendments ?? []).filter((a) => a.id !== pair.corner?.id)
          const fresh: Finished = {
            id: newId(),
            kind: 'corner',
            ends: pair.ends,
            style: corner.style,
            ...(corner.style === 'tucked' && { behind: corner.behind }),
            ...(corner.style === 'pointed' && { limit: corner.limit }),
            ...(corner.style === 'crossing' && { length: corner.length }),
          }
          draft.amendments = back ? others : [...others, fresh]
        }
      },
    )
    this.review()
  }

  cancel(): void {
    this.sweep = null
  }

  away(): void {
    this.hover = null
  }

  overtaken(): void {
    this.cancel()
    this.hover = null
    this.review()
  }

  leave(): void {
    this.looks++
    this.cancel()
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.sweep) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const taken = new Set((this.sweep?.taken ?? []).map(keyOf))
    const { hover } = this
    const marks = this.joints.map((j): Mark => {
      const line = j.kind === 'end' ? findLine(this.worktop.drawing(), j.end.line)?.line : null
      const decided =
        j.kind === 'corner' ? !!j.pair.corner : !!line?.tuck?.[j.end.end] || !!line?.over?.[j.end.end]?.length
      return {
        kind: 'joint',
        at: j.at,
        of: j.kind,
        decided,
        hot: taken.has(keyOf(j)) || (!this.sweep && !!hover && keyOf(hover) === keyOf(j)),
      }
    })
    return marks
  }
}

const WORDS = {
  caps: 'as its caps are',
  tucked: 'tucked',
  pointed: 'pointed',
  rounded: 'rounded',
  crossing: 'crossing over',
} as const
const ENDS = {
  out: 'shows past its line',
  in: 'keeps within its line',
  under: 'lies beneath its line',
  over: 'lies over this one of its lines',
} as const
