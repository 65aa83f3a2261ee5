import { cubicsOfPath } from '#core/geometry/path'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { mapped } from '#core/geometry/matrix'
import { linesOf } from '#core/model/queries'
import { linesUnder } from '#core/outline/hit-line'
import type { Rule } from '#core/repetition/images'
import { imagesOf } from '#core/repetition/images'
import { isImage, tagOf } from '#core/model/image-ids'
import type { Laid } from '#core/repetition/rules'
import { changeRule, newRule, turnJoint } from '#core/repetition/rules'
import { withCopies } from '#core/repetition/with-copies'
import type { Mark } from '~/canvas/marks'
import { constrained } from './constrained'
import type { Hand, Instrument } from './instrument'
import { DRAG_START, screenDistance } from './instrument'
import { axisPath } from './axis-marks'
import { Snapping } from './snapping'
import type { Copies, Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'

const REACH = 8

/** What the hand holds: a new axis that is drawn, or a point of a rule. */
type Grip =
  { kind: 'axis'; from: Vec; screen: Vec; moved: boolean; to: Vec } | { kind: 'point'; rule: string; index: number }

/** Lays an axis at which lines are mirrored, or a point about which they are repeated; sets what stands there free. */
export class Mirror implements Instrument {
  readonly name = 'Mirror'
  readonly cursor = 'crosshair'
  private grip: Grip | null = null
  private over: { rule: string; standing: number } | null = null
  private overJoint: string | null = null
  private readonly snapping: Snapping

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil & Copies) {
    this.snapping = new Snapping(worktop)
  }

  hint(): string {
    const { way } = this.worktop.preferences().copies
    if (this.grip?.kind === 'point') return 'Drag: put it elsewhere · Shift: 15° steps · Esc: back'
    if (this.grip?.moved) return 'Release: the axis lies here · Shift: 15° steps'
    if (this.overJoint) return 'Click: joined smoothly, or with a corner'
    if (this.over)
      return this.ruleAt(this.over.rule)?.kind === 'mirror'
        ? 'Click: set the mirrored lines free'
        : 'Click: set this one free'
    const what = this.worktop.selection().length ? 'for what is chosen' : 'for all lines to come'
    if (way === 'repeat') return `Click: repeat about this point, ${what} · Enter: about the middle of the page`
    return `Drag: an axis, ${what} · Click a line: along it · Click: upright · Enter: middle of the page`
  }

  private ruleAt(id: string): Rule | undefined {
    return this.worktop.copyRules().find((r) => r.id === id)
  }

  press(hand: Hand): void {
    const ref = hand.mark?.kind === 'node' ? hand.mark : null
    if (ref) {
      this.worktop.takeCopyRule(ref.line)
      this.grip = { kind: 'point', rule: ref.line, index: ref.index }
      return
    }
    this.over = this.standingAt(hand.at)
    const at = this.over || this.jointAt(hand.at) ? hand.at : this.snapping.point(hand)
    this.grip = { kind: 'axis', from: at, screen: hand.screen, moved: false, to: at }
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    const { grip } = this
    if (!grip) {
      this.overJoint = this.jointAt(hand.at)
      this.over = this.overJoint ? null : this.standingAt(hand.at)
      this.snapping.clear()
      if (!this.over && !this.overJoint) this.snapping.point(hand)
    } else if (grip.kind === 'point') this.drag(grip.rule, grip.index, hand)
    else if (this.worktop.preferences().copies.way === 'mirror') {
      if (!grip.moved && screenDistance(grip.screen, hand.screen) < DRAG_START) return
      grip.moved = true
      grip.to = hand.shift ? constrained(grip.from, hand.at) : this.snapping.point(hand, grip.from)
    }
    this.worktop.refresh()
  }

  private drag(id: string, index: number, hand: Hand): void {
    const rule = this.ruleAt(id)
    if (!rule) return
    const fixed = rule.kind === 'repeat' ? null : index ? rule.from : rule.to
    const to = hand.shift && fixed ? constrained(fixed, hand.at) : this.snapping.point(hand, fixed ?? undefined)
    this.worktop.change((draft) =>
      changeRule(draft, id, (r) => {
        if (r.kind === 'repeat') r.about = to
        else if (index) r.to = to
        else r.from = to
      }),
    )
  }

  release(hand: Hand): void {
    const { grip } = this
    this.grip = null
    this.snapping.clear()
    if (grip?.kind === 'point') this.worktop.finish('Put an axis elsewhere')
    else if (grip?.moved) {
      if (distance(grip.from, grip.to) * this.worktop.zoom() > DRAG_START) this.lay({ from: grip.from, to: grip.to })
    } else if (grip) this.click(hand)
    this.worktop.refresh()
  }

  private click(hand: Hand): void {
    const joint = this.jointAt(hand.at)
    const rule = this.worktop.copyRuleInHand()
    if (joint && rule) {
      this.worktop.edit('Joint across the axis', (draft) => changeRule(draft, rule.id, (r) => turnJoint(r, joint)))
      return
    }
    if (this.over) {
      const of = this.ruleAt(this.over.rule)
      this.worktop.freeCopies(this.over.rule, of?.kind === 'repeat' ? this.over.standing : undefined)
      this.over = null
      return
    }
    const { way, times } = this.worktop.preferences().copies
    const at = this.snapping.point(hand)
    this.snapping.clear()
    if (way === 'repeat') {
      this.lay({ about: at, times })
      return
    }
    const line = this.worktop.lineAt(hand.at, REACH)?.line
    const ends = line && !line.path.closed ? [line.path.nodes[0]!.at, line.path.nodes.at(-1)!.at] : null
    if (ends && distance(ends[0]!, ends[1]!) > 1) this.lay({ from: ends[0]!, to: ends[1]! })
    else this.layUpright(at.x)
  }

  private layUpright(x: number): void {
    this.lay({ from: { x, y: 0 }, to: { x, y: this.worktop.drawing().page.height } })
  }

  private lay(laid: Laid): void {
    const { worktop } = this
    const rule = newRule(laid, worktop.selection())
    worktop.edit(
      rule.kind === 'mirror' ? 'Mirror' : `Repeat ${rule.kind === 'repeat' ? rule.times : 0} times`,
      (draft) => {
        // What is drawn goes along with one rule of a kind: another takes over.
        for (const r of worktop.copyRules())
          if (r.kind === rule.kind) changeRule(draft, r.id, (o) => void delete o.fresh)
        draft.amendments = [...(draft.amendments ?? []), rule]
      },
    )
    worktop.takeCopyRule(rule.id)
    worktop.say(
      rule.lines.length
        ? 'What you draw goes along, too. Untick that in the Strip to draw on one side alone.'
        : 'Draw: what you draw stands on the page wherever the rule has it.',
    )
  }

  cancel(): void {
    if (this.grip?.kind === 'point') this.worktop.drop()
    this.grip = null
    this.snapping.clear()
  }

  away(): void {
    this.over = null
    this.overJoint = null
    this.snapping.clear()
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key === 'Escape' && this.grip) this.cancel()
    else if (key === 'Enter') {
      const { width, height } = this.worktop.drawing().page
      const { way, times } = this.worktop.preferences().copies
      if (way === 'mirror') this.layUpright(width / 2)
      else this.lay({ about: { x: width / 2, y: height / 2 }, times })
    } else return false
    this.worktop.refresh()
    return true
  }

  /** Which standing of which rule has a line under a point, where nothing lies that was drawn. */
  private standingAt(p: Vec): { rule: string; standing: number } | null {
    const drawing = this.worktop.drawing()
    if (!this.worktop.copyRules().length || this.worktop.lineAt(p, REACH)) return null
    const images = linesOf(withCopies(drawing)).filter((l) => isImage(l.id))
    const tag = tagOf(linesUnder(images, p, REACH / this.worktop.zoom())[0]?.line.id ?? '')
    for (const rule of this.worktop.copyRules())
      for (const image of imagesOf(rule))
        if (image.tag === tag) return { rule: rule.id, standing: Number(tag.split('-')[1] ?? 1) }
    return null
  }

  /** Joints of lines across the axis in hand, by the line. */
  private joints(): { line: string; at: Vec; isDecided: boolean }[] {
    const rule = this.worktop.copyRuleInHand()
    const [image] = rule?.kind === 'mirror' ? imagesOf(rule) : []
    if (!rule || rule.kind !== 'mirror' || !image) return []
    const named = new Set(rule.lines)
    return linesOf(withCopies(this.worktop.drawing()))
      .filter((l) => named.has(l.id))
      .flatMap((l) =>
        l.path.nodes.flatMap(({ at }, i) =>
          (i > 0 && i < l.path.nodes.length - 1) || l.path.closed
            ? distance(at, mapped(image.by, at)) < 1e-6
              ? [{ line: l.id, at, isDecided: !!rule.otherwise?.includes(l.id) }]
              : []
            : [],
        ),
      )
  }

  private jointAt(p: Vec): string | null {
    const within = REACH / this.worktop.zoom()
    return this.joints().find((j) => distance(j.at, p) < within)?.line ?? null
  }

  marks(): Mark[] {
    const { grip } = this
    const { page } = this.worktop.drawing()
    const inHand = this.worktop.copyRuleInHand()
    const rules = this.worktop.copyRules()
    const paths = rules.flatMap((r) => (r.kind === 'mirror' && r !== inHand ? [axisPath(r.from, r.to, page)] : []))
    const node = (at: Vec, rule: string, index: number): Mark => ({
      kind: 'node',
      at,
      joint: 'corner',
      chosen: rule === inHand?.id,
      ref: { kind: 'node', line: rule, index },
    })
    const freed = this.over && this.linesOfStanding(this.over)
    return [
      { kind: 'paths', paths, tone: 'mute' },
      ...(inHand?.kind === 'mirror'
        ? [{ kind: 'paths', paths: [axisPath(inHand.from, inHand.to, page)], tone: 'plum' } as const]
        : []),
      ...rules.flatMap((r) =>
        r.kind === 'mirror' ? [node(r.from, r.id, 0), node(r.to, r.id, 1)] : [node(r.about, r.id, 0)],
      ),
      ...this.joints().map((j): Mark => ({
        kind: 'joint',
        at: j.at,
        of: 'corner',
        decided: j.isDecided,
        hot: j.line === this.overJoint,
      })),
      ...(freed ? [{ kind: 'paths', paths: freed, tone: 'next' } as const] : []),
      ...(grip?.kind === 'axis' && grip.moved
        ? [{ kind: 'paths', paths: [axisPath(grip.from, grip.to, page)], tone: 'next' } as const]
        : []),
      ...(grip ? [] : this.snapping.marks()),
      ...(inHand?.kind === 'repeat' ? [{ kind: 'tag', at: inHand.about, text: `${inHand.times} times` } as const] : []),
    ]
  }

  private linesOfStanding({ rule: id, standing }: { rule: string; standing: number }): Path[] {
    const rule = this.ruleAt(id)
    const image =
      rule &&
      imagesOf(rule)[rule.kind === 'mirror' ? 0 : imagesOf(rule).findIndex((i) => i.tag.endsWith(`-${standing}`))]
    if (!image) return []
    return linesOf(withCopies(this.worktop.drawing())).flatMap((l) =>
      tagOf(l.id) === image.tag && cubicsOfPath(l.path).length ? [l.path] : [],
    )
  }
}
