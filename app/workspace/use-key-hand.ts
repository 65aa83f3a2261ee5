import type { Ref } from 'vue'
import { ref, watch } from 'vue'
import type { Vec } from '#core/geometry/point'
import { arcOfPath } from '#core/geometry/known'
import { short } from '#core/geometry/path'
import type { Grip } from '~/canvas/grips'
import { gripsOf } from '~/canvas/grips'
import type { Mark, MarkRef } from '~/canvas/marks'
import { stepToScreen, toPage, toScreen } from '~/canvas/viewport'
import { arrowStep } from '~/instruments/instrument'
import type { Hand, Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { useKeysStore } from '~/stores/keys'
import { useViewStore } from '~/stores/view'
import { ClickCounter } from './count-clicks'

/** An arrow takes the hand so far, screen px; ten times as far with Shift, a single one with Ctrl. */
const STEP = 5
/** The hand keeps this far from the edges of the view: past that the page moves under it, screen px. */
const EDGE = 16
const EVEN_PRESSURE = 0.5

/** The hand that keys move over the canvas. */
export interface KeyHand {
  /** Where it is, screen px, and whether it presses; null while it is put away. */
  hand: Ref<{ at: Vec; pressed: boolean } | null>
  /** Answers whether the key was for the hand. */
  down: (e: KeyboardEvent) => boolean
  up: (e: KeyboardEvent) => void
  /** Gives up what it presses. */
  drop: () => void
  /** Answers whether there was a hand to put away. */
  putAway: () => boolean
}

interface KeyHandOptions {
  worktop: Worktop
  markAt: (p: Vec) => MarkRef | null
  marks: () => readonly Mark[]
  instrument: () => Instrument | null
  after: (done: boolean) => void
}

/**
 * Everything that a pointer does on the canvas, by keys: P takes the hand up, arrows move it, Space presses for as long as
 * it is held, O goes from one thing that can be taken hold of to the next.
 */
export function useKeyHand({ worktop, markAt, marks, instrument, after }: KeyHandOptions): KeyHand {
  const view = useViewStore()
  const keys = useKeysStore()
  const hand = ref<{ at: Vec; pressed: boolean } | null>(null)
  const clicks = new ClickCounter()
  /** Where on the page it was put away, to be taken up there again. */
  let left: Vec | null = null
  /** Which of the places to take hold of it came to; -1 since it moved otherwise. */
  let grip = -1

  function handOf(e: KeyboardEvent, count = 0): Hand {
    const screen = hand.value!.at
    const at = toPage(view.viewport, screen)
    let mark: MarkRef | null | undefined
    return {
      at,
      screen,
      get mark() {
        if (mark === undefined) mark = markAt(screen)
        return mark
      },
      shift: e.shiftKey,
      alt: false,
      free: e.ctrlKey || e.metaKey,
      device: 'mouse',
      clicks: count,
      samples: [{ at, pressure: EVEN_PRESSURE, time: e.timeStamp }],
    }
  }

  function takeUp(): void {
    const at = left && toScreen(view.viewport, left)
    const { width, height } = view.size
    const inView = at && at.x > 0 && at.y > 0 && at.x < width && at.y < height
    hand.value = { at: inView ? at : { x: width / 2, y: height / 2 }, pressed: false }
    grip = -1
    view.spoken = `A hand moved by keys. Arrows move it, Space presses, ${keys.writtenKey('next-grip')} goes to the next thing to take hold of, ${keys.writtenKey('key-hand')} puts it away`
  }

  function putAway(): boolean {
    if (!hand.value) return false
    drop()
    left = toPage(view.viewport, hand.value.at)
    hand.value = null
    instrument()?.away?.()
    after(false)
    return true
  }

  function drop(): void {
    if (!hand.value?.pressed) return
    hand.value = { ...hand.value, pressed: false }
    instrument()?.cancel?.()
    worktop.drop()
    after(true)
  }

  /** Moves the hand by screen px; where the view ends, the page moves instead. */
  function moveBy(e: KeyboardEvent, d: Vec): void {
    const { at, pressed } = hand.value!
    const { width, height } = view.size
    const to = {
      x: Math.min(Math.max(at.x + d.x, EDGE), width - EDGE),
      y: Math.min(Math.max(at.y + d.y, EDGE), height - EDGE),
    }
    const past = { x: at.x + d.x - to.x, y: at.y + d.y - to.y }
    grip = -1
    if (past.x || past.y) view.panBy(-past.x, -past.y)
    hand.value = { at: to, pressed }
    instrument()?.move?.(handOf(e))
    after(false)
  }

  /** Where nothing is marked, lines are what can be taken hold of. */
  function middles(): Grip[] {
    return worktop.allLines(true).flatMap((line): Grip[] => {
      const arc = arcOfPath(line.path)
      return worktop.asSeen(line) ? [{ at: arc.point(arc.total / 2), what: 'line' }] : []
    })
  }

  function onScreen({ at, off }: Grip): Vec {
    const p = toScreen(view.viewport, at)
    if (!off) return p
    const way = stepToScreen(view.viewport, off.way)
    const length = Math.hypot(way.x, way.y) || 1
    return { x: p.x + (way.x / length) * off.by, y: p.y + (way.y / length) * off.by }
  }

  /** To the next thing that can be taken hold of, or the one before. */
  function toGrip(e: KeyboardEvent): void {
    const { width, height } = view.size
    const grips = marks().flatMap(gripsOf)
    const all = (grips.length ? grips : middles())
      .map((g) => ({ ...g, screen: onScreen(g) }))
      .filter(({ screen }) => screen.x > 0 && screen.y > 0 && screen.x < width && screen.y < height)
    if (!all.length) {
      view.spoken = 'Nothing to take hold of is in view'
      return
    }
    // The nearest first, then in their order.
    if (grip < 0)
      grip = nearest(
        all.map((g) => g.screen),
        hand.value!.at,
      )
    else grip = (grip + (e.shiftKey ? all.length - 1 : 1)) % all.length
    const { screen, what } = all[grip]!
    hand.value = { at: screen, pressed: false }
    instrument()?.move?.(handOf(e))
    after(false)
    view.spoken = `${what}, ${grip + 1} of ${all.length}`
  }

  function press(e: KeyboardEvent): void {
    if (e.repeat || hand.value!.pressed) return
    hand.value = { ...hand.value!, pressed: true }
    instrument()?.press?.(handOf(e, clicks.press(e.timeStamp, hand.value.at)))
    after(true)
  }

  function down(e: KeyboardEvent): boolean {
    if (e.key.toLowerCase() === 'p' && !e.ctrlKey && !e.metaKey) {
      if (hand.value) putAway()
      else takeUp()
      return true
    }
    if (!hand.value || isElsewhere(e.target)) return false
    const step = arrowStep(e.key, e.shiftKey)
    if (step)
      moveBy(
        e,
        e.ctrlKey || e.metaKey
          ? { x: Math.sign(step.x), y: Math.sign(step.y) }
          : { x: step.x * STEP, y: step.y * STEP },
      )
    else if (e.key === ' ') press(e)
    else if (e.key.toLowerCase() === 'o' && !e.ctrlKey && !e.metaKey && !hand.value.pressed) toGrip(e)
    else return false
    return true
  }

  function up(e: KeyboardEvent): void {
    if (!hand.value) return
    if (e.key.startsWith('Arrow')) tell()
    if (e.key !== ' ' || !hand.value.pressed) return
    hand.value = { ...hand.value, pressed: false }
    instrument()?.release?.(handOf(e))
    after(true)
  }

  /** Where the hand came to, and over what. */
  function tell(): void {
    const at = toPage(view.viewport, hand.value!.at)
    const over = worktop.lineAt(at, 0)
    view.spoken = `${short(at.x, 0)}, ${short(at.y, 0)} px${over ? ', on a line' : ''}`
  }

  watch(() => view.instrument, drop, { flush: 'sync' })
  watch(
    () => view.pass === 'deliver',
    (gone) => gone && putAway(),
  )

  return { hand, down, up, drop, putAway }
}

/** The keyboard is at something that has its own use for arrows and Space. */
const isElsewhere = (at: EventTarget | null): boolean =>
  at instanceof HTMLElement && !!at.closest('input, select, textarea, button, a, [role="slider"], footer, aside')

/** Which of the places is nearest to `p`, other than one where it is already. */
function nearest(places: readonly Vec[], p: Vec): number {
  const far = places.map((q) => Math.hypot(q.x - p.x, q.y - p.y)).map((d) => (d < 1 ? Infinity : d))
  return Math.max(0, far.indexOf(Math.min(...far)))
}
