import { watchDebounced } from '@vueuse/core'
import type { Ref } from 'vue'
import { shallowRef } from 'vue'
import type { Line } from '#core/model/model'
import { seenLines } from '#core/model/queries'
import type { EndContact } from '#core/relations/end-contacts'
import { contactsOf } from '#core/relations/end-contacts'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'

/** Once the hand has rested so long, what ends meet is looked for, ms. */
const REST = 200

/** Says what the ends of a few lines do, those of a list that are in sight; nothing of lines that were not looked at yet. */
export function useMet(lines: Ref<readonly Line[]>): (id: string) => string {
  const store = useDrawingStore()
  const studio = useStudioStore()
  const known = shallowRef(new Map<string, EndContact[]>())

  watchDebounced(
    [lines, () => (store.changing ? null : store.drawing?.layers)],
    ([wanted, layers]) => {
      if (!layers) return
      const ids = new Set(wanted.map((l) => l.id))
      const next = new Map<string, EndContact[]>([...ids].map((id) => [id, []]))
      for (const c of contactsOf(seenLines({ layers }), studio.preferences.contact, ids)) next.get(c.line)?.push(c)
      known.value = next
    },
    { debounce: REST, immediate: true },
  )

  return (id) => {
    const ends = known.value.get(id)
    if (!ends?.length) return ''
    const count = (kind: EndContact['kind']): number => ends.filter((e) => e.kind === kind).length
    const [met, crossed] = [count('meeting'), count('crossing')]
    if (!met && !crossed) return ', free'
    return [met && `, meets ${met}`, crossed && `, crosses ${crossed}`].filter(Boolean).join('')
  }
}
