import { computed } from 'vue'
import type { Line } from '#core/model/model'
import { VARIATION } from '#core/fit/pressure-widths'
import type { HandSettings } from '#core/fit/redraw-trace'
import { redrawn, wasEdited } from '#core/fit/redraw-trace'
import { inTurns } from '#core/turns'
import { handOf } from '~/instruments/preferences'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useStudioStore } from '~/stores/studio'
import { useTracesStore } from '~/stores/traces'
import { useViewStore } from '~/stores/view'
import { useChosenLines } from './use-chosen-lines'

/** Up to this many lines follow a slider while it moves. */
const MOST_LIVE = 12

/** Milliseconds of work between two looks at the screen. */
const TURN = 30

type Settings = Required<Omit<HandSettings, 'widthTolerance' | 'loop'>> & Pick<HandSettings, 'loop'>

/**
 * How the hand draws: of the chosen lines that keep their trace, which are then drawn anew, or where there are none of
 * the lines to come.
 */
export function useHand() {
  const store = useDrawingStore()
  const studio = useStudioStore()
  const view = useViewStore()
  const traces = useTracesStore()
  const chosen = useChosenLines()

  const traced = computed(() => (view.setsNext ? [] : chosen.lines.value.filter((l) => l.trace)))

  const settings = computed<Settings>(() => {
    const trace = traced.value[0]?.trace
    if (!trace) return handOf(studio.preferences)
    // What an older trace does not say is as it was before it could.
    const { squared = false, least = 0, most = 1, fromSpeed = false, unevenness = 0 } = trace
    return {
      steadiness: trace.steadiness,
      response: trace.response,
      variation: trace.variation ?? VARIATION,
      squared,
      least,
      most,
      fromSpeed,
      unevenness,
      loop: trace.loop ?? false,
    }
  })

  function forNext(patch: HandSettings): void {
    const { preferences } = studio
    const { squared, response, least, most, ...same } = patch
    Object.assign(preferences, same)
    if (squared !== undefined) preferences.squareUp = squared
    if (response !== undefined) preferences.response.exponent = response
    if (least !== undefined) preferences.response.least = least
    if (most !== undefined) preferences.response.most = most
  }

  function put(fresh: ReadonlyMap<string, Line>): void {
    store.change((draft) => void changeLines(draft, [...fresh.keys()], (l) => void Object.assign(l, fresh.get(l.id))))
  }

  /** Lines as they would be drawn with other settings, as far as the samples of their traces are at hand. */
  const allRedrawn = (lines: readonly Line[], patch: HandSettings): Map<string, Line> =>
    new Map(
      lines.flatMap((l) => {
        const drawn = traces.wholeOf(l)
        return drawn ? [[l.id, redrawn(l, drawn, patch)] as const] : []
      }),
    )

  /** Shows a setting while a slider moves. */
  function look(patch: HandSettings): void {
    if (!traced.value.length) forNext(patch)
    else if (traced.value.length <= MOST_LIVE) put(allRedrawn(traced.value, patch))
  }

  /** Keeps a setting: of the lines to come, or as one step for the chosen ones. */
  async function keep(label: string, patch: HandSettings): Promise<void> {
    if (!traced.value.length) {
      forNext(patch)
      return
    }
    // The lines as they were before the slider showed anything: what was edited by hand is to be told.
    store.drop()
    const lines = traced.value
    try {
      await traces.ready(lines)
    } catch (e) {
      store.notice = (e as Error).message
      return
    }
    const shapesPath = 'steadiness' in patch || 'squared' in patch || 'loop' in patch
    let edited = 0
    const fresh = new Map<string, Line>()
    function* work(): Generator<number, true> {
      for (const [i, line] of lines.entries()) {
        const drawn = traces.wholeOf(line)!
        if (shapesPath && wasEdited(line, drawn)) edited++
        fresh.set(line.id, redrawn(line, drawn, patch))
        yield (i + 1) / lines.length
      }
      return true
    }
    let going = true
    const shown = view.beginWork('Drawing anew', () => (going = false))
    const done = await inTurns(work(), {
      turn: TURN,
      rest: () => new Promise((resolve) => setTimeout(resolve)),
      go: (share) => {
        shown.tell(share)
        return going
      },
    }).finally(shown.end)
    if (!done) return
    put(fresh)
    store.finish(label)
    if (edited)
      store.notice = `${edited === 1 ? 'One of these lines was' : `${edited} of these lines were`} changed by hand since it was drawn, and now follows the trace again. Undo brings the change back.`
  }

  return { traced, settings, look, keep }
}
