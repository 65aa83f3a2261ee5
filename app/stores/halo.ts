import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Path } from '#core/geometry/path'
import { seenLines } from '#core/model/queries'
import { distancesToCrests } from '#core/sketch/pencil-distance'
import type { LineStrays } from '#core/sketch/strays'
import { straysOf } from '#core/sketch/strays'
import { useClingStore } from './cling'
import { useDrawingStore } from './drawing'
import { useViewStore } from './view'

/** Lines count as off the pencil from so far on, mm at the final size: a px or two of the usual page. */
const FROM = 0.3

/** Where the lines in sight lie off the pencil, while the person wants to see it. */
export const useHaloStore = defineStore('halo', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const cling = useClingStore()

  const distances = computed(() => cling.pencil && distancesToCrests(cling.pencil.crests))
  /** Lines change one at a time: what was found of the others holds. */
  let known = new WeakMap<Path, LineStrays>()
  const from = computed(() => FROM * (store.drawing?.page.pxPerMm ?? 1))

  let of: unknown[] = []
  const all = computed((): LineStrays[] => {
    const { pencil } = cling
    if (!view.halo || view.pass === 'deliver' || !pencil || !distances.value || !store.drawing) return []
    const now = [pencil, distances.value, from.value]
    if (now.some((v, i) => v !== of[i])) known = new WeakMap()
    of = now
    return seenLines(store.drawing, view.alone).map(({ path }) => {
      const found = known.get(path) ?? straysOf(path, pencil, distances.value!, from.value)
      known.set(path, found)
      return found
    })
  })

  const strays = computed(() => all.value.flatMap((l) => l.strays))
  /** The share of all lines that lies off the pencil, 0..1; null while that is not known. */
  const share = computed(() => {
    const length = all.value.reduce((n, l) => n + l.length, 0)
    return length ? all.value.reduce((n, l) => n + l.off, 0) / length : null
  })

  return { strays, share, from }
})
