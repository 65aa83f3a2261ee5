import type { Placement } from '@floating-ui/vue'
import { autoUpdate, flip, offset, shift, useFloating } from '@floating-ui/vue'
import type { ComponentPublicInstance, Ref } from 'vue'
import { ref } from 'vue'

/** Room between a pane and the edge of the window, and between it and its button, px. */
const EDGE = 8
const GAP = 6

export interface Placed {
  /** The button, and the pane that comes up from it, to be named as `ref`s of a template. */
  anchor: Ref<ComponentPublicInstance | null>
  panel: Ref<ComponentPublicInstance | null>
  styles: Ref<object>
}

/** Where a pane comes up that belongs to a button: beside it, and within the window, however small that is. */
export function usePlaced(placement: Placement): Placed {
  const anchor = ref<ComponentPublicInstance | null>(null)
  const panel = ref<ComponentPublicInstance | null>(null)
  const { floatingStyles } = useFloating(anchor, panel, {
    placement,
    strategy: 'fixed',
    transform: false,
    whileElementsMounted: autoUpdate,
    middleware: [offset(GAP), flip({ padding: EDGE }), shift({ padding: EDGE, crossAxis: true })],
  })
  return { anchor, panel, styles: floatingStyles }
}
