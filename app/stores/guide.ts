import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import { useRemembered } from './remembered'
import { useDrawingStore } from './drawing'
import { useKeysStore } from './keys'
import { useViewStore } from './view'
import { GUIDE, nextStep } from './guide-steps'
import type { PassName } from '~/catalogue/passes'

const MOST_GUIDED = 60

/** The guide through a first drawing: one sentence at a time, in a drawing that was begun blank here, until it is put away. */
export const useGuideStore = defineStore('guide', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const keys = useKeysStore()
  const kept = useRemembered('guide', {
    away: false,
    drawing: '',
    visited: [] as string[],
    delivered: false,
    /** Copies for tasks through which it went already. */
    guided: [] as string[],
  })

  watch(
    () => store.drawing?.id,
    (id) => {
      if (!id || kept.drawing === id) return
      const blank = store.drawing?.layers.every((l) => l.kind === 'sketch' || !l.items.length)
      // Whoever handed it out wanted the guide to go along, once.
      const asked = store.isGuided && !kept.guided.includes(id)
      if (!asked && (kept.away || !blank)) return
      if (asked) Object.assign(kept, { away: false, guided: [id, ...kept.guided].slice(0, MOST_GUIDED) })
      Object.assign(kept, { drawing: id, visited: [], delivered: false })
    },
    { immediate: true },
  )

  watch(
    () => view.pass,
    (pass) => {
      if (here.value && !kept.visited.includes(pass)) kept.visited = [...kept.visited, pass]
    },
  )

  const here = computed(() => !kept.away && !!store.drawing && store.drawing.id === kept.drawing)
  const next = computed(() =>
    here.value
      ? nextStep({ drawing: store.drawing!, visited: new Set(kept.visited as PassName[]), delivered: kept.delivered })
      : null,
  )
  const sentence = computed(() => {
    if (!here.value) return null
    if (!next.value) return 'That was a whole drawing, from pencil to file. The ? shows all keys.'
    return next.value.step.says.replace(/\{(.)\}/g, (_, key: string) => keys.keyOf(key).toUpperCase())
  })

  const putAway = (): void => void (kept.away = true)

  return {
    sentence,
    at: computed(() => next.value?.at ?? GUIDE.length),
    count: GUIDE.length,
    putAway,
    delivered: () => void (kept.delivered = true),
  }
})
