import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { changeLines } from '#core/editing/change-items'
import type { Verdict } from '#core/model/line'
import { VERDICTS } from '#core/model/line'
import type { EndProposal } from '#core/weight/by-contact'
import { keyOfEnd, proposalsFor, verdictsOf, weighedLines, weightsByContact } from '#core/weight/by-contact'
import type { EndContact } from '#core/relations/end-contacts'
import { findContacts } from '#core/relations/end-contacts'
import { outsidesOf } from '#core/relations/outside'
import { litLine, unlitWeight } from '#core/weight/light'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Selection, View } from './worktop'
import { toggled } from './instrument'
import { chosenLines } from './line-marks'
import { leftAlone, makeStep } from './trial'
import { remembered } from '#core/remembered'

const REACH = 12
/** Rings that show the reach are left out where they would be smaller than this, screen px. */
const SMALLEST_RING = 5

const DONE: Record<Verdict, string> = { taper: 'tapers', full: 'is full', leave: 'stays as it is' }

/**
 * What a proposal is worked out from: all lines, as they are without the light, those to be weighed, those that can be
 * changed, those chosen.
 */
interface Look {
  all: readonly Line[]
  lines: readonly Line[]
  weighed: ReadonlySet<string>
  open: ReadonlySet<string>
  chosen: readonly string[]
}

/** Contacts that were found, and among what. */
interface Known {
  lines: readonly Line[]
  weighed: ReadonlySet<string>
  reach: number
  overshoot: number
  contacts: readonly EndContact[]
}

/** Whether contacts are those that would be found again. */
const sameFinding = (
  known: Known,
  { all, weighed }: Look,
  { reach, overshoot }: { reach: number; overshoot: number },
): boolean =>
  known.reach === reach &&
  known.overshoot === overshoot &&
  known.lines.length === all.length &&
  known.weighed.size === weighed.size &&
  all.every((l, i) => l === known.lines[i]) &&
  [...weighed].every((id) => known.weighed.has(id))

/** Proposes a weight for every end by what it touches: free ends taper, meeting ends are full. Single ends can be changed. */
export class Contact implements Instrument {
  readonly name = 'Contact'
  readonly cursor = 'default'
  private proposals: EndProposal[] = []
  private known: Known | null = null
  /** What the person decided of single ends and has not accepted yet. */
  private readonly decided = new Map<string, Verdict>()
  /** All that the person decided, here and before. */
  private verdicts: ReadonlyMap<string, Verdict> = new Map()
  /** The end under the pointer, or the one that the arrow keys came to. */
  private over: string | null = null
  private gone = false
  /** Contacts are being looked for. */
  private looking = false
  /** Escape put the proposal aside. */
  private aside = false
  /** What Enter does; null where nothing would change. */
  private accepting: (() => void) | null = null

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine) {
    this.review()
  }

  hint(): string {
    const end = this.proposals.find((p) => keyOfEnd(p) === this.over)
    if (this.aside) return 'Enter: propose again · Click a line: only this one'
    if (end) return `${this.told(end)}: ${DONE[end.verdict]} · Click, or ↑ ↓: change that`
    return 'Click an end: change what it gets · Click a line: only that one · ← →: ends · Enter: accept'
  }

  private told({ kind, point }: EndProposal): string {
    if (kind === 'free') return 'Free end'
    if (kind === 'crossing') return 'End past a crossing'
    return point ? 'Runs out to a point with another' : 'Meeting end'
  }

  /** Works the proposal out anew from the drawing, the choice of lines and the settings. */
  review(): void {
    const { worktop } = this
    const rule = worktop.preferences().contact
    const all = worktop.allLines(false).flatMap((l) => worktop.asSeen(l) ?? [])
    const open = new Set(worktop.allLines(true).map((l) => l.id))
    const chosen = worktop.selection().filter((id) => open.has(id))
    const lines = all.map((l) => (l.weight.unlit ? { ...l, weight: unlitWeight(l.weight) } : l))
    const weighed = weighedLines(lines, chosen.length ? new Set(chosen) : open, rule)
    const look: Look = { all, lines, weighed, open, chosen }
    this.accepting = null
    this.looking = true
    const { known } = this
    if (known && sameFinding(known, look, rule)) this.propose(look, known.contacts)
    else
      worktop.inTurns('Looking at the ends', findContacts(lines, rule, weighed), (contacts) => {
        this.known = { lines: all, weighed, reach: rule.reach, overshoot: rule.overshoot, contacts }
        this.propose(look, contacts)
      })
  }

  private propose({ all, lines, open, chosen }: Look, contacts: readonly EndContact[]): void {
    const { worktop } = this
    if (this.gone) return
    this.looking = false
    const rule = worktop.preferences().contact
    this.verdicts = new Map([...verdictsOf(all), ...this.decided])
    this.proposals = proposalsFor(contacts, this.verdicts)
    if (this.aside) {
      worktop.tryOn(null)
      worktop.refresh()
      return
    }
    const weights = weightsByContact(lines, this.proposals, rule)
    const { light } = worktop.drawing().settings
    const outsides = light && all.some((l) => l.weight.unlit && weights.has(l.id)) ? outsidesOf(all) : null
    const of = remembered((line: Line): Line => {
      const weight = weights.get(line.id)
      if (!weight) return line
      const next = { ...line, weight }
      return line.weight.unlit && light && outsides ? litLine(next, outsides.get(line.id) ?? null, light) : next
    })
    const accept = (): void => {
      const decided = this.proposals.filter((p) => this.decided.has(keyOfEnd(p)))
      this.decided.clear()
      // What was decided of single ends holds from then on, or the next proposal would overrule it.
      makeStep(worktop, 'Weight by contact', of, weights.keys(), (draft) => {
        for (const { line, end, verdict } of decided)
          changeLines(draft, [line], (l) => void (l.contact = { ...l.contact, [end]: verdict }))
      })
      this.review()
    }
    const changes = weights.size > 0 || this.decided.size > 0
    if (changes) this.accepting = accept
    worktop.tryOn({
      of,
      summary: this.summary(all, open, chosen),
      changes,
      accept,
      drop: () => this.putAside(),
      ...(chosen.length && { wider: { title: 'The whole drawing', run: () => this.takeAll() } }),
    })
    worktop.refresh()
  }

  private summary(all: readonly Line[], open: ReadonlySet<string>, chosen: readonly string[]): string {
    const count = (v: Verdict): number => this.proposals.filter((p) => p.verdict === v).length
    const whose = chosen.length
      ? `Of the ${chosen.length === 1 ? 'chosen line' : `${chosen.length} chosen lines`}`
      : 'Of the whole drawing'
    const asked = chosen.length ? new Set(chosen) : open
    const pinned = this.worktop.preferences().contact.pinned
      ? 0
      : all.filter((l) => asked.has(l.id) && l.weight.pinned).length
    const parts = [
      `${count('taper')} to taper`,
      `${count('full')} to be full`,
      ...(count('leave') ? [`${count('leave')} to stay`] : []),
    ]
    const ends = this.proposals.length
    if (!ends)
      return `${whose}: no end to weigh. ${chosen.length ? 'Closed and pinned lines, and those of locked layers, are left alone.' : ''}${leftAlone(pinned)}`.trim()
    return `${whose}: ${ends} ${ends === 1 ? 'end' : 'ends'}, ${parts.join(', ')}.${leftAlone(pinned)}`
  }

  /** The rule looks at every line instead of the chosen ones. */
  private takeAll(): void {
    this.worktop.select([])
    this.aside = false
    this.review()
  }

  private putAside(): void {
    this.aside = true
    this.decided.clear()
    this.review()
    this.worktop.refresh()
  }

  /** The end nearest to a point, within reach. */
  private endAt(at: Vec): EndProposal | null {
    let best: EndProposal | null = null
    let least = REACH / this.worktop.zoom()
    for (const p of this.proposals) {
      const off = distance(p.at, at)
      if (off >= least) continue
      least = off
      best = p
    }
    return best && this.fromSide(best, at)
  }

  /** Among ends that lie in one place, the one whose line runs towards the pointer. */
  private fromSide(end: EndProposal, at: Vec): EndProposal {
    const same = this.proposals.filter((p) => distance(p.at, end.at) < 1)
    const towards = (p: EndProposal): number => (at.x - p.at.x) * -p.outward.x + (at.y - p.at.y) * -p.outward.y
    return same.reduce((a, b) => (towards(b) > towards(a) ? b : a))
  }

  move(hand: Hand): void {
    const end = this.endAt(hand.at)
    this.over = end && keyOfEnd(end)
    this.worktop.refresh()
  }

  away(): void {
    this.over = null
  }

  press(hand: Hand): void {
    const end = this.endAt(hand.at)
    if (end) {
      this.decide(end, 1)
      return
    }
    const hit = this.worktop.lineAt(hand.at, REACH)
    if (!hit) this.worktop.select([])
    else if (hand.shift) this.worktop.select(toggled(this.worktop.selection(), hit.line.id))
    else this.worktop.select([hit.line.id])
    this.aside = false
    this.review()
  }

  private decide(end: EndProposal, step: 1 | -1): void {
    const next = VERDICTS[(VERDICTS.indexOf(end.verdict) + step + VERDICTS.length) % VERDICTS.length]!
    this.decided.set(keyOfEnd(end), next)
    this.over = keyOfEnd(end)
    this.aside = false
    this.review()
  }

  key(key: string): boolean {
    switch (key) {
      case 'Enter':
        this.acceptOrPropose()
        return true
      case 'Escape':
        if (this.worktop.selection().length && this.aside) this.worktop.select([])
        this.putAside()
        return true
      case 'ArrowRight':
      case 'ArrowLeft':
        return this.stepTo(key === 'ArrowRight' ? 1 : -1)
      case 'ArrowUp':
      case 'ArrowDown': {
        const end = this.proposals.find((p) => keyOfEnd(p) === this.over)
        if (end) this.decide(end, key === 'ArrowUp' ? 1 : -1)
        return !!end
      }
      default:
        return false
    }
  }

  private acceptOrPropose(): void {
    if (this.aside) {
      this.aside = false
      this.review()
      return
    }
    if (this.looking) return
    if (!this.proposals.length)
      this.worktop.say('There is no end to weigh: the lines are closed, pinned or on locked layers.')
    else if (this.accepting) this.accepting()
    else this.worktop.say('Every end has the weight that its contact asks for.')
  }

  private stepTo(step: 1 | -1): boolean {
    const count = this.proposals.length
    if (!count) return false
    const now = this.proposals.findIndex((p) => keyOfEnd(p) === this.over)
    const next = now < 0 ? (step > 0 ? 0 : count - 1) : (now + step + count) % count
    this.over = keyOfEnd(this.proposals[next]!)
    this.worktop.refresh()
    return true
  }

  overtaken(): void {
    this.review()
  }

  leave(): void {
    this.gone = true
    this.worktop.tryOn(null)
  }

  marks(): Mark[] {
    const chosen = chosenLines(this.worktop)
    const { reach, overshoot } = this.worktop.preferences().contact
    const paths: Mark[] = chosen.length ? [{ kind: 'paths', paths: chosen.map((l) => l.path), tone: 'plum' }] : []
    const rings = reach * this.worktop.zoom() >= SMALLEST_RING
    const ends: Mark = {
      kind: 'contacts',
      ends: this.proposals.map((p) => ({
        at: p.at,
        outward: p.outward,
        found: p.kind,
        verdict: p.verdict,
        over: keyOfEnd(p) === this.over,
        decided: this.verdicts.has(keyOfEnd(p)),
      })),
      reach: rings ? reach : null,
      overshoot,
    }
    return [...paths, ends]
  }
}
