import { useDebounceFn, useEventListener } from '@vueuse/core'
import { onScopeDispose, watch } from 'vue'
import type { Vec } from '#core/geometry/point'
import { withPointAt } from '~/canvas/viewport'
import type { Viewport } from '~/canvas/viewport'
import { useDrawingStore } from '~/stores/drawing'
import { useProofStore } from '~/stores/proof'
import { useViewStore } from '~/stores/view'
import { Hang } from '~/workers/geometry-thread'
import type { Ink } from './use-ink'

/** Findings are looked for once the hand has rested so long, ms. */
const REST = 150
/** The view glides for so long, ms, and comes at least so near. */
const GLIDE = 280
const NEAR = 3

/** Keeps Proof up to date while one draws, and takes the view from finding to finding. */
export function useProof(ink: Ink): { step: (by: 1 | -1) => void; goTo: (key: string) => void } {
  const store = useDrawingStore()
  const proof = useProofStore()
  const view = useViewStore()
  let frame = 0
  /** Where the view was before it went to a finding. */
  let before: Viewport | null = null

  const look = useDebounceFn(async () => {
    const { drawing } = store
    if (!drawing) return
    try {
      const found = await ink.session.ask(drawing, 'findings')
      if (found && store.drawing?.id === drawing.id) proof.found = found
    } catch (e) {
      // A worker that was ended looks again with the next edit.
      if (!(e instanceof Hang)) throw e
    }
  }, REST)

  watch(
    () => [store.drawing, store.changing] as const,
    ([drawing, changing], [was]) => {
      if (drawing?.id !== was?.id) {
        proof.found = null
        proof.current = null
        before = null
      }
      if (drawing && !changing) {
        if (proof.trying) proof.drop()
        void look()
      }
    },
  )
  if (store.drawing) void look()

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
    const zoomed = { ...view.viewport, zoom: Math.max(view.viewport.zoom, NEAR) }
    glide(withPointAt(zoomed, at, { x: view.size.width / 2, y: view.size.height / 2 }))
  }

  function goTo(key: string): void {
    const finding = proof.open.find((f) => f.key === key)
    if (!finding) return
    proof.current = key
    show(finding.at)
  }

  /** The next finding or the one before; past the last the view is where it was. */
  function step(by: 1 | -1): void {
    const all = proof.open
    if (!all.length) {
      store.notice = 'Proof: nothing to look at.'
      return
    }
    const at = all.findIndex((f) => f.key === proof.current)
    const next = at < 0 ? (by > 0 ? 0 : all.length - 1) : at + by
    if (next < 0 || next >= all.length) {
      proof.current = null
      if (before) glide(before)
      before = null
    } else goTo(all[next]!.key)
  }

  useEventListener(
    window,
    'keydown',
    (e: KeyboardEvent) => {
      if (
        !proof.trying ||
        (e.key !== 'Enter' && e.key !== 'Escape') ||
        (e.target as Element).closest('button, input, [role=dialog]')
      )
        return
      e.preventDefault()
      e.stopPropagation()
      if (e.key === 'Enter') proof.accept()
      else proof.drop()
    },
    { capture: true },
  )

  onScopeDispose(() => cancelAnimationFrame(frame))
  return { step, goTo }
}
