import type { Ref } from 'vue'
import { computed, ref } from 'vue'
import type { PassName } from '~/catalogue/passes'

/** What of the drawing is seen, and what is shown besides. */
export function useSeen(pass: Ref<PassName>) {
  const activeLayer = ref<string | null>(null)
  /** Of the layers of ink only the one in use is shown. */
  const solo = ref(false)
  /** The id of the layer that is looked at alone, or null. */
  const alone = computed(() => (solo.value ? activeLayer.value : null))
  const bare = ref(false)
  /** The pencil is out of sight while its key is held. */
  const sketchHidden = ref(false)
  /** Held: the pencil is looked at without the ink. */
  const inkHidden = ref(false)
  /** Left of this share of the canvas the pencil is seen, right of it the ink; null: both. */
  const pencilWipe = ref<number | null>(null)
  /** As `pencilWipe`; what leaves the house is judged without the pencil. */
  const wipedAt = computed(() => (pass.value === 'deliver' ? null : pencilWipe.value))
  /** What lies off the pencil is shown so. */
  const halo = ref(false)
  /** Lines have a colour by their layer. */
  const layerColours = ref(false)
  /** What is being laid has a colour of its own. */
  const laidColour = ref(false)
  /** Layers whose lines are listed. */
  const unfolded = ref<string[]>([])
  /** The line under the pointer on the canvas, and the one under it in a list. */
  const lineOver = ref<string | null>(null)
  const listedOver = ref<string | null>(null)
  /** Outlines as expanded are shown over those of the shapes. */
  const compared = ref(false)

  function reset(): void {
    activeLayer.value = null
    pencilWipe.value = lineOver.value = listedOver.value = null
    unfolded.value = []
    for (const flag of [solo, bare, sketchHidden, inkHidden, halo, compared, layerColours, laidColour])
      flag.value = false
  }

  return {
    ...{ activeLayer, solo, alone, bare, sketchHidden, inkHidden, pencilWipe, wipedAt, halo, compared },
    ...{ layerColours, laidColour, unfolded, lineOver, listedOver, reset },
  }
}
