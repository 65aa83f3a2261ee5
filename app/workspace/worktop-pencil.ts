import { wayAlongPencil } from '#core/sketch/along-pencil'
import type { PencilMap } from '#core/sketch/pencil-map'
import { segmentsAlong } from '#core/sketch/segment-along'
import { settled } from '#core/sketch/settle'
import type { Pencil, Sketches } from '~/instruments/worktop'
import { useClingStore } from '~/stores/cling'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayerInHand } from '#core/model/find'
import { usePaperStore } from '~/stores/paper'
import { useProposalsStore } from '~/stores/proposals'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** What instruments see of the pencil, and do to sketches. */
export function pencilOfWorktop(): Pencil & Sketches {
  const cling = useClingStore()
  const store = useDrawingStore()
  const paper = usePaperStore()
  const proposals = useProposalsStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const reach = (): number => preferences.cling.reach / view.viewport.zoom
  /** What draws while lines are laid. */
  const drawing = (): PencilMap | null => (preferences.cling.strength > 0 ? cling.pencil : null)
  return {
    pencil: () => cling.pencil,
    // Who asks lines to settle where Cling is off wants them on the pencil.
    clinging: () => ({ reach: reach(), strength: preferences.cling.strength || 1 }),
    clung: (path, fromStart) =>
      drawing() ? settled(path, drawing()!, { reach: reach(), strength: preferences.cling.strength, fromStart }) : path,
    segmentsClung: (path, segments) =>
      drawing()
        ? segmentsAlong(path, segments, drawing()!, { reach: reach(), strength: preferences.cling.strength })
        : path,
    crestAt: (p) => drawing()?.crestNear(p, reach()) ?? null,
    pencilBetween: (a, b) => drawing() && wayAlongPencil(a, b, drawing()!),
    sketchLayer: () => sketchLayerInHand(store.drawing!, view.sketchLayer),
    chooseSketch: (layer) => {
      view.sketchLayer = layer
    },
    paper: () => paper,
    proposals: () => proposals.shown,
    dropProposals: (gone) => proposals.drop(gone),
    findProposals: (box) => void proposals.find(box),
    usualThickness: () => proposals.usual,
  }
}
