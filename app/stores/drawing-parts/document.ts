import { ref, shallowRef } from 'vue'
import { checkTouched } from '#core/document/check-drawing'
import type { Edit, Recipe } from '#core/document/edits'
import { applyEdit, changed, editBetween, shownAs, underHand, walkOver } from '#core/document/edits'
import type { History } from '#core/document/history'
import { advance, emptyHistory } from '#core/document/history'
import { patchesBetween } from '#core/document/patches-between'
import { withSnipsBound } from '#core/document/settle-snips'
import { withTracesApart } from '#core/document/traces-apart'
import type { Drawing } from '#core/model/model'
import { withLightSettled } from '#core/document/light-settled'
import { noteStep } from '~/workers/known-steps'
import { useTracesStore } from '../traces'
import { useViewStore } from '../view'
import type { Notices } from './notices'

/**
 * The open drawing and its history: what a hand shows while it is down, and what it makes a step.
 *
 * @param push hears of every new step
 */
export function useDocument({ notice }: Notices, push: (edit: Edit) => void) {
  const traces = useTracesStore()
  const view = useViewStore()
  const drawing = shallowRef<Drawing | null>(null)
  const history = shallowRef<History>(emptyHistory())
  const changing = ref(false)
  /** Counts how often the drawing changed other than by the hand: what a hand holds may be gone then. */
  const overtaken = ref(0)
  /** The drawing before the change under the hand. */
  let base: Drawing | null = null
  /** When steps were made, by their ids. */
  const times = new Map<string, string>()

  /** Takes up another drawing, or none; what was under the hand is forgotten. */
  function take(now: Drawing | null, past: History): void {
    base = null
    changing.value = false
    drawing.value = now
    history.value = past
  }

  /** Makes an edit a step of the history, unless it holds a value that no drawing may have. */
  function record(next: Drawing, edit: Edit): void {
    try {
      checkTouched(next, edit.patches)
    } catch (e) {
      notice.value = `"${edit.label}" was not done: ${(e as Error).message}.`
      return
    }
    const whole = { ...traces.withFresh(edit), pass: view.pass }
    times.set(edit.id, new Date().toISOString())
    noteStep(drawing.value!, next, edit.patches)
    drawing.value = next
    history.value = advance(history.value, whole)
    push(whole)
  }

  /** Changes the drawing in one step of the history. */
  function edit(label: string, recipe: Recipe): void {
    if (!drawing.value) return
    drop()
    const next = withTracesApart(changed(drawing.value, recipe), traces.keep, drawing.value)
    const edit = editBetween(drawing.value, next, label)
    if (edit) record(next, edit)
  }

  /** Shows the drawing as `recipe` would make it from where the hand began, without a step of the history yet. */
  const change = (recipe: Recipe): void => showFrom((from) => underHand(from, recipe))

  /** As `change`, of the drawing that `next` makes from where the hand began. */
  const show = (next: (from: Drawing) => Drawing): void => showFrom((from) => shownAs(from, next(from)))

  function showFrom(next: (from: Drawing) => Drawing): void {
    if (!drawing.value) return
    base ??= drawing.value
    changing.value = true
    drawing.value = next(base)
  }

  /** Makes what `change` showed last a step of the history. */
  function finish(label: string): void {
    if (!base || !drawing.value) return
    const before = base
    // A light that follows edits falls once, when the hand lets go.
    const after = withTracesApart(withLightSettled(base, drawing.value), traces.keep, base)
    take(before, history.value)
    const edit = editBetween(before, after, label)
    if (edit) record(after, edit)
  }

  /** Takes back what `change` showed. */
  function drop(): void {
    if (base) take(base, history.value)
  }

  /** The drawing is about to change other than by the hand. */
  function overtake(): void {
    drop()
    overtaken.value++
  }

  /** Takes a step back, or brings it again. */
  function walk(step: Edit, kind: 'undo' | 'redo'): void {
    let edit = walkOver(step, kind)
    let next: Drawing
    try {
      const applied = applyEdit(drawing.value!, edit)
      // Another window may have moved what bounds a snip since.
      next = withSnipsBound(drawing.value!, applied)
      if (next !== applied)
        edit = { ...edit, patches: patchesBetween(drawing.value!, next), inverse: patchesBetween(next, drawing.value!) }
    } catch {
      notice.value = `"${step.label}" cannot be ${kind === 'undo' ? 'taken back' : 'brought again'}: what it changed is gone, by a change in another window.`
      return
    }
    record(next, edit)
  }

  return {
    drawing,
    history,
    changing,
    overtaken,
    times,
    take,
    edit,
    change,
    show,
    finish,
    drop,
    overtake,
    walk,
    isUnderHand: (): boolean => base !== null,
  }
}

export type Document = ReturnType<typeof useDocument>
