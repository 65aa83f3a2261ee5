import { nextTick } from 'vue'
import { useEventListener } from '@vueuse/core'
import { openLines, openSolids } from '#core/model/queries'
import { flipEnds, flipSides, follows, withProfile } from '#core/weight/shelf'
import { heavier, lighter } from '#core/weight/size'
import { useCompareStore } from '~/stores/compare'
import { useDrawingStore } from '~/stores/drawing'
import { useLookStore } from '~/stores/look'
import { useShelfStore } from '~/stores/shelf'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { instrumentAt } from '~/catalogue/instruments'
import { PASSES } from '~/catalogue/passes'
import type { CommandId } from '~/commands/commands'
import { commandOf } from '~/commands/commands'
import { useCopies } from './use-copies'
import { useGlance } from './use-glance'
import { useChosenLines } from './use-chosen-lines'
import { useChoosing } from './use-choosing'
import { useCopiedWeight } from './use-copied-weight'
import type { KeyHand } from './use-key-hand'
import { useKeyboardOwner } from './use-keyboard-owner'
import { useStackOrder } from './use-stack-order'

/** Held this long, an instrument's key means "only while held", ms. */
const HOLD = 220

/** How far a key turns the page, degrees. */
const TURN = 15

/** How much a key zooms. */
const ZOOM_STEP = 1.25

/** What stands for a key where a command was asked for by word. */
const BY_WORD = 'word'

/** The workspace's keys. What the instrument understands goes to it first. */
export function useHotkeys(to: {
  key: (name: string, shift: boolean) => boolean
  hand: Pick<KeyHand, 'down' | 'up' | 'putAway'>
  undo: () => void
  redo: () => void
  showKeys: () => void
  ask: () => void
  /** Takes the view to the next thing that Proof found, or the one before. */
  finding: (by: 1 | -1) => void
}): { run: (id: CommandId) => void } {
  const store = useDrawingStore()
  const view = useViewStore()
  const studio = useStudioStore()
  const shelf = useShelfStore()
  const compare = useCompareStore()
  const look = useLookStore()
  const chosen = useChosenLines()
  const copies = useCopies()
  const weight = useCopiedWeight()
  const restack = useStackOrder()
  const choosing = useChoosing()
  const glance = useGlance()
  const { cameByKey, takeByKey } = useKeyboardOwner()
  /** The keyboard went to the strip by its key. */
  let wentByKey = false
  let heldKey: { key: string; since: number; giveBack: (back?: boolean) => void } | null = null

  /** The key belongs to the field that has the focus; a slider wants only the keys that move it. */
  const typing = (e: KeyboardEvent): boolean => {
    if (!(e.target instanceof HTMLElement)) return false
    if (e.target.closest('input[type="range"]')) return /^(Arrow|Home|End|Page)/.test(e.key)
    return !!e.target.closest('input:not([type="checkbox"]), textarea, select, [role="dialog"]')
  }

  /** Nothing is under the hand that Escape could drop: what is chosen is let go. */
  function letGo(): void {
    view.select([])
    view.solids = []
  }

  /** The keyboard goes to the first thing that can be set for the instrument; Escape brings it back. */
  function toStrip(): void {
    wentByKey = true
    view.stripUp = true
    void nextTick(focusStrip)
  }

  function focusStrip(): void {
    const first = document.querySelector<HTMLElement>(
      '[data-testid="strip"] :is(input, select, button, [tabindex="0"]):not([disabled])',
    )
    takeByKey(first ?? document.querySelector<HTMLElement>('[data-testid="tray"] button'))
  }

  /** Escape gives the keyboard back to the drawing from a field, or from wherever it came by key. */
  function backToDrawing(e: KeyboardEvent): boolean {
    if (e.key !== 'Escape' || e.defaultPrevented || !(e.target instanceof HTMLElement)) return false
    const here =
      e.target.closest('footer, aside') && !e.target.closest('[role="menu"], [role="listbox"], [role="dialog"]')
    if (!here || !(wentByKey || e.target.closest('input, select, textarea, button'))) return false
    // A button that the pointer pressed lets go of the keyboard, but Escape means what the instrument says.
    if (!wentByKey && !cameByKey() && e.target.matches('button')) {
      e.target.blur()
      return false
    }
    wentByKey = false
    view.stripUp = view.pass === 'deliver'
    view.takeKeyboard(document.querySelector<HTMLElement>('[data-testid="canvas"]'))
    return true
  }

  /** The next or previous profile of the shelf on the chosen lines, or for the next line. */
  function stepProfile(step: 1 | -1): void {
    const [line] = chosen.lines.value
    const now = shelf.all.findIndex((p) => (line ? follows(line.weight, p) : p.id === studio.preferences.profile))
    const count = shelf.all.length
    const next = shelf.all[now < 0 && step < 0 ? count - 1 : (now + step + count) % count]!
    studio.takeProfile(next)
    if (line) chosen.change(`Profile: ${next.name}`, (l) => void (l.weight = withProfile(l.weight, next)))
  }

  /** Of the chosen lines; of the next one, where none is chosen or the last stroke was not asked for. */
  function sizeBy(label: string, step: (size: number) => number): void {
    if (chosen.lines.value.length && !view.setsNext)
      chosen.change(label, (l) => void (l.weight.size = step(l.weight.size)))
    else studio.takeSize(step(studio.preferences.size))
  }

  const keepAll = (): void => {
    void store.allSent()
    store.notice = 'Every step is saved as you make it.'
  }

  function chooseAll(): void {
    view.solids = openSolids(store.drawing!, view.alone).map((s) => s.id)
    view.select(openLines(store.drawing!, view.alone).map((l) => l.id))
  }

  const RUN: Record<CommandId, (key: string) => unknown> = {
    'whole-page': (key) => glance.begin(key),
    'final-size': (key) => glance.begin(key, 1),
    'last-view': () => view.lastView(),
    bare: () => (view.bare = !view.bare),
    fronts: () => (view.pass === 'shapes' ? (view.chosen.shapes = 'front') : view.callUp('front')),
    'mirror-lines': () => view.callUp('mirror'),
    push: () => view.callUp('push'),
    'next-finding': () => to.finding(1),
    'previous-finding': () => to.finding(-1),
    mirror: () => view.mirror(),
    'hide-sketch': () => (view.sketchHidden = true),
    'hide-ink': () => (view.inkHidden = true),
    before: () => (compare.held = 'before'),
    even: () => (compare.held = 'even'),
    'next-profile': () => stepProfile(1),
    'previous-profile': () => stepProfile(-1),
    'copy-weight': () => weight.copy(),
    'paste-weight': () => weight.paste('all'),
    'flip-ends': () => chosen.change('Flip ends', (l) => void (l.weight = flipEnds(l.weight))),
    'flip-sides': () => chosen.change('Flip sides', (l) => void (l.weight = flipSides(l.weight))),
    lighter: () => sizeBy('Lighter', lighter),
    heavier: () => sizeBy('Heavier', heavier),
    'next-nib': () => studio.stepNib(1),
    'previous-nib': () => studio.stepNib(-1),
    'turn-left': () => view.turnBy(-TURN),
    'turn-left-little': () => view.turnBy(-1),
    'turn-right': () => view.turnBy(TURN),
    'turn-right-little': () => view.turnBy(1),
    upright: () => view.setUpright(),
    'next-line': () => choosing.step(1, false),
    'next-line-besides': () => choosing.step(1, true),
    'previous-line': () => choosing.step(-1, false),
    'previous-line-besides': () => choosing.step(-1, true),
    'to-settings': toStrip,
    up: () => restack('up'),
    front: () => restack('front'),
    down: () => restack('down'),
    back: () => restack('back'),
    'zoom-in': () => view.zoomBy(ZOOM_STEP),
    'zoom-out': () => view.zoomBy(1 / ZOOM_STEP),
    ask: to.ask,
    keys: to.showKeys,
    'let-go': () => to.hand.putAway() || letGo(),
    undo: to.undo,
    redo: to.redo,
    'redo-too': to.redo,
    save: keepAll,
    'choose-all': chooseAll,
    copy: () => copies.copy(),
    paste: () => copies.paste(),
    'paste-in-place': () => copies.pasteInPlace(),
    duplicate: () => copies.duplicate(),
  }

  /** Runs what a key stands for; answers whether it stands for anything. */
  function command(key: string, shift: boolean, ctrl: boolean): boolean {
    const pass = ctrl ? undefined : PASSES[Number(key) - 1]
    if (pass) {
      view.pass = pass.id
      return true
    }
    if (key.startsWith('Arrow') && (ctrl || (!view.selection.length && !view.solids.length)))
      return choosing.towards(key, shift)
    const id = commandOf(key, shift, ctrl)
    if (!id) return false
    RUN[id](key)
    return true
  }

  function instrumentKey(e: KeyboardEvent): boolean {
    const key = e.key.toLowerCase()
    const tool = instrumentAt(view.pass, key, e.shiftKey)
    if (!tool) return false
    if (!e.repeat) heldKey = { key, since: e.timeStamp, giveBack: view.borrow(tool.id) }
    return true
  }

  function down(e: KeyboardEvent): void {
    if (!store.drawing || backToDrawing(e)) return
    if (e.key === 'Escape' && (compare.sides || look.looked)) {
      compare.stop()
      look.stop()
      return
    }
    if (typing(e) || e.altKey) return
    const key = e.key.length === 1 ? e.key.toLowerCase() : e.key
    const ctrl = e.ctrlKey || e.metaKey
    const done =
      (!ctrl && ownKeys(e)) ||
      to.hand.down(e) ||
      (!ctrl && (to.key(e.key, e.shiftKey) || instrumentKey(e))) ||
      command(key, e.shiftKey, ctrl)
    if (done) e.preventDefault()
  }

  /** Enter and Space belong to the focused button. */
  const ownKeys = (e: KeyboardEvent): boolean => {
    const onButton = e.target instanceof HTMLElement && !!e.target.closest('button, a, [role="button"]')
    if (onButton && (e.key === 'Enter' || e.key === ' ')) {
      ;(e.target as HTMLElement).click()
      return true
    }
    return false
  }

  function up(e: KeyboardEvent): void {
    if (e.key.toLowerCase() === 'h') view.sketchHidden = view.inkHidden = false
    if (e.key.toLowerCase() === 'b') compare.held = null
    to.hand.up(e)
    glance.end(e.key)
    if (!heldKey || e.key.toLowerCase() !== heldKey.key) return
    heldKey.giveBack(e.timeStamp - heldKey.since > HOLD)
    heldKey = null
  }

  /** The window lost the keyboard: what was held is not known any more. */
  function away(): void {
    glance.away()
    heldKey?.giveBack(false)
    heldKey = null
    to.hand.putAway()
    view.sketchHidden = view.inkHidden = false
    compare.held = null
  }

  useEventListener(window, 'keydown', down)
  useEventListener(window, 'keyup', up)
  useEventListener(window, 'blur', away)

  /** Runs a command that was asked for otherwise than by its key. */
  function run(id: CommandId): void {
    RUN[id](BY_WORD)
    glance.end(BY_WORD)
  }
  return { run }
}
