import { shallowRef } from 'vue'
import type { Weight } from '#core/model/model'
import type { WeightPart } from '#core/weight/copy-weight'
import { pastedWeight } from '#core/weight/copy-weight'
import { useDrawingStore } from '~/stores/drawing'
import { useChosenLines } from './use-chosen-lines'

/** The weight that was copied last; it stays across drawings as long as the window is open. */
export const copied = shallowRef<Weight | null>(null)

/** Copies the weight of a chosen line, and puts it, or a part of it, on others. */
export function useCopiedWeight() {
  const store = useDrawingStore()
  const chosen = useChosenLines()

  function copy(): void {
    const [line] = chosen.lines.value
    if (!line) {
      store.notice = 'Choose a line to copy its weight.'
      return
    }
    copied.value = line.weight
    store.notice = 'The weight is copied. Choose other lines and paste it on them.'
  }

  function paste(part: WeightPart): void {
    const weight = copied.value
    if (!weight) store.notice = 'No weight is copied yet. Choose a line and copy its weight first.'
    else if (!chosen.lines.value.length)
      store.notice =
        'Choose the lines that are to have the copied weight. Those of a locked layer cannot be chosen: unlock it first.'
    else
      chosen.change(
        part === 'size' ? 'Paste a size' : part === 'profile' ? 'Paste a profile' : 'Paste a weight',
        (l) => void (l.weight = pastedWeight(l.weight, weight, part)),
      )
  }

  return { copied, copy, paste }
}
