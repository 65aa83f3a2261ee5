import { defineStore } from 'pinia'
import { useRemembered } from './remembered'
import type { PassName } from '~/catalogue/passes'
import { PASSES } from '~/catalogue/passes'
import type { Viewport } from '~/canvas/viewport'

/** Where a person was in a drawing: the pass, the layer, and what was seen; null for the whole page. */
export interface Place {
  drawing: string
  pass: PassName
  layer: string | null
  viewport: Viewport | null
}

/** So many drawings are remembered, those last left first. */
const MOST = 60

/** Where a person was in each drawing when it was left. */
export const usePlacesStore = defineStore('places', () => {
  const kept = useRemembered<{ all: Place[] }>('places', { all: [] })

  function keep(place: Place): void {
    kept.all = [place, ...kept.all.filter((p) => p.drawing !== place.drawing)].slice(0, MOST)
  }

  const of = (drawing: string): Place | undefined =>
    kept.all.find((p) => p.drawing === drawing && PASSES.some((q) => q.id === p.pass))

  return { keep, of }
})
