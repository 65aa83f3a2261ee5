import { onScopeDispose } from 'vue'
import type { Vec } from '#core/geometry/point'
import type { Viewport } from '~/canvas/viewport'
import { withPointAt } from '~/canvas/viewport'
import { useViewStore } from '~/stores/view'

/** The view glides for so long, ms. */
const GLIDE = 280

/**
 * Takes the view from place to place, and back to where it was before the first of them.
 *
 * @param near how near it comes at least, as a zoom; as near as it is where that is nearer
 */
export function useGlide(near = 0): { show: (at: Vec) => void; back: () => void; forget: () => void } {
  const view = useViewStore()
  let frame = 0
  let before: Viewport | null = null

  function glide(to: Viewport): void {
    cancelAnimationFrame(frame)
    const [from, began] = [view.viewport, performance.now()]
    view.fitting = false
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    const step = (): void => {
      const t = calm ? 1 : Math.min(1, (performance.now() - began) / GLIDE)
      const u = t * t * (3 - 2 * t)
      const mix = (a: number, b: number): number => a + (b - a) * u
      view.viewport = {
        ...to,
        x: mix(from.x, to.x),
        y: mix(from.y, to.y),
        zoom: from.zoom * (to.zoom / from.zoom) ** u,
      }
      if (t < 1) frame = requestAnimationFrame(step)
    }
    step()
  }

  function show(at: Vec): void {
    before ??= view.viewport
    const zoomed = { ...view.viewport, zoom: Math.max(view.viewport.zoom, near) }
    glide(withPointAt(zoomed, at, { x: view.size.width / 2, y: view.size.height / 2 }))
  }

  function back(): void {
    if (before) glide(before)
    before = null
  }

  onScopeDispose(() => cancelAnimationFrame(frame))
  return { show, back, forget: () => (before = null) }
}
