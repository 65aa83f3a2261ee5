import { useDebounceFn, useEventListener } from '@vueuse/core'
import { watch } from 'vue'
import { useDrawingStore } from '~/stores/drawing'
import { useProofStore } from '~/stores/proof'
import { Hang } from '~/workers/geometry-thread'
import { useGlide } from './use-glide'
import type { Ink } from './use-ink'

/** Findings are looked for once the hand has rested so long, ms. */
const REST = 150
/** The view comes at least so near to a finding. */
const NEAR = 3

/** Keeps Proof up to date while one draws, and takes the view from finding to finding. */
export function useProof(ink: Ink): { step: (by: 1 | -1) => void; goTo: (key: string) => void } {
  const store = useDrawingStore()
  const proof = useProofStore()
  const { show, back, forget } = useGlide(NEAR)

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
        forget()
      }
      if (drawing && !changing) {
        if (proof.trying) proof.drop()
        void look()
      }
    },
  )
  if (store.drawing) void look()

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
      back()
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

  return { step, goTo }
}
