import { wayAlongPencil } from '#core/sketch/along-pencil'
import type { PencilMap } from '#core/sketch/pencil-map'
import { settled } from '#core/sketch/settle'
import type { Worktop } from '~/instruments/instrument'
import { useClingStore } from '~/stores/cling'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** What instruments see of the pencil. */
export function pencilOfWorktop(): Pick<Worktop, 'pencil' | 'clinging' | 'clung' | 'crestAt' | 'pencilBetween'> {
  const cling = useClingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const reach = (): number => preferences.cling.reach / view.viewport.zoom
  /** What draws while lines are laid. */
  const drawing = (): PencilMap | null => (preferences.cling.strength > 0 ? cling.pencil : null)
  return {
    pencil: () => cling.pencil,
    // Who asks lines to settle where Cling is off wants them on the pencil.
    clinging: () => ({ reach: reach(), strength: preferences.cling.strength || 1 }),
    clung: (path, fromStart) => (drawing() ? settled(path, drawing()!, { reach: reach(), strength: preferences.cling.strength, fromStart }) : path),
    crestAt: (p) => drawing()?.crestNear(p, reach()) ?? null,
    pencilBetween: (a, b) => drawing() && wayAlongPencil(a, b, drawing()!),
  }
}
