import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { newId } from '#core/new-id'
import { openLines } from '#core/model/queries'
import type { Line } from '#core/model/model'
import type { Finding, FindingKind } from '#core/proof/finding'
import { KINDS } from '#core/proof/finding'
import { openFindings } from '#core/proof/findings-of'
import { mendAll, mendedLine } from '#core/proof/mend'
import { useDrawingStore } from './drawing'
import { useTrialStore } from './trial'
import { remembered } from '#core/remembered'

/** How a kind is told of, and the word for its cure. */
export const KIND_WORDS: Record<FindingKind, { title: string; mend: string }> = {
  failed: { title: 'Cannot be worked out', mend: '' },
  blunt: { title: 'Blunt end in the open', mend: 'Taper' },
  gap: { title: 'Ends short of a line', mend: 'Meet' },
  past: { title: 'Ends past a line', mend: 'Tuck' },
  poke: { title: 'Pokes out', mend: 'Tuck' },
  thin: { title: 'Too thin to print', mend: 'Raise' },
  contrast: { title: 'Thick to thin too far', mend: 'Even' },
  doubled: { title: 'Laid twice', mend: 'Remove' },
  hidden: { title: 'Wholly hidden', mend: 'Remove' },
  speck: { title: 'Speck', mend: 'Remove' },
  off: { title: 'Off the page', mend: 'Remove' },
  stray: { title: 'Stray ink', mend: 'Recolour' },
  sliver: { title: 'Sliver of paper', mend: 'Close' },
  open: { title: 'Region that does not close', mend: 'Meet' },
  lump: { title: 'Lump on an edge', mend: '' },
  notch: { title: 'Notch in an edge', mend: '' },
  waiting: { title: 'Waits for its place', mend: 'Forget' },
  joined: { title: 'Fill gave way to a larger one', mend: 'Forget' },
}

/** What can go without a look: nobody sees it, or nobody meant it. */
const CERTAIN: ReadonlySet<FindingKind> = new Set(['doubled', 'hidden', 'speck', 'stray', 'off'])

/** The standing list of what there is to look at. */
export const useProofStore = defineStore('proof', () => {
  const store = useDrawingStore()
  const trial = useTrialStore()
  /** All that was found, what is left as it is too; null until the first look is done. */
  const found = shallowRef<readonly Finding[] | null>(null)
  /** The finding that is being looked at, by its key. */
  const current = ref<string | null>(null)
  /** What is tried on, if it is a mend. */
  const trying = shallowRef<{ findings: readonly Finding[]; summary: string } | null>(null)

  /** What was left as it is: nothing else of the drawing says which findings are open, so nothing else asks for them anew. */
  const amendments = computed(() => store.drawing?.amendments)
  const open = computed(() => (found.value ? openFindings({ amendments: amendments.value }, found.value) : []))
  const kinds = computed(() => {
    const byKind = new Map<FindingKind, { kind: FindingKind; findings: Finding[]; mendable: number }>()
    for (const f of open.value) {
      let row = byKind.get(f.kind)
      if (!row) byKind.set(f.kind, (row = { kind: f.kind, findings: [], mendable: 0 }))
      row.findings.push(f)
      if (f.mend) row.mendable++
    }
    return KINDS.flatMap((kind) => byKind.get(kind) ?? [])
  })
  const certain = computed(() => open.value.filter((f) => CERTAIN.has(f.kind) && f.mend))
  /** Passes of which there is something, and about which nothing is left to look at. */
  const done = computed(() => {
    const layers = store.drawing?.layers ?? []
    const all = new Set(kinds.value.map((k) => k.kind))
    const has = (kind: 'sketch' | 'lines'): boolean => layers.some((l) => l.kind === kind && l.items.length)
    const isClean = (...ofPass: FindingKind[]): boolean =>
      !!found.value && has('lines') && ofPass.every((k) => !all.has(k))
    const lines = isClean('gap', 'past', 'doubled', 'hidden', 'off')
    const weight = isClean('blunt', 'thin', 'contrast')
    const shapes =
      lines && weight && isClean('failed', 'poke', 'speck', 'stray', 'sliver', 'open', 'lump', 'notch', 'waiting')
    return {
      sketch: has('sketch'),
      lines,
      weight,
      shapes,
      fill: !!store.drawing?.fills?.length && isClean('waiting', 'joined'),
      deliver: false,
    }
  })
  /** What was left as it is, as far as it is still there. */
  const left = computed(() => {
    if (open.value === found.value) return []
    const keys = new Set(open.value.map((f) => f.key))
    return (found.value ?? []).filter((f) => !keys.has(f.key))
  })

  /** Shows how findings would be mended; nothing is done until that is accepted. */
  function tryMend(findings: readonly Finding[]): void {
    const drawing = store.drawing!
    const openLine = new Set(openLines(drawing).map((l) => l.id))
    const mendable = findings.filter((f) => f.mend && (!('line' in f.mend) || openLine.has(f.mend.line)))
    const locked = findings.filter((f) => f.mend).length - mendable.length
    const byLine = new Map<string, Finding[]>()
    for (const f of mendable)
      if (f.mend && 'line' in f.mend) byLine.set(f.mend.line, [...(byLine.get(f.mend.line) ?? []), f])
    // A line that would go shows without ink.
    const of = remembered((line: Line): Line =>
      (byLine.get(line.id) ?? []).reduce<Line>(
        (l, f) => mendedLine(l, f.mend!) ?? { ...l, weight: { ...l.weight, size: 0 } },
        line,
      ),
    )
    const n = mendable.length
    const summary = `${n} mended as shown${locked ? `; ${locked} on locked layers stay` : ''}.`
    trying.value = { findings: mendable, summary }
    trial.current = { of, summary, changes: n > 0, accept, drop }
  }

  function accept(): void {
    const mends = trying.value?.findings ?? []
    drop()
    if (!mends.length) return
    const kind = mends.every((f) => f.kind === mends[0]!.kind)
      ? KIND_WORDS[mends[0]!.kind].title.toLowerCase()
      : 'findings'
    store.edit(mends.length > 1 ? `Mend ${mends.length}: ${kind}` : `Mend: ${kind}`, (draft) => mendAll(draft, mends))
  }

  function drop(): void {
    trying.value = null
    trial.current = null
  }

  /** Leaves findings as they are: they are meant to be so. */
  function leave(findings: readonly Finding[]): void {
    store.edit(findings.length > 1 ? `Leave ${findings.length} findings` : 'Leave a finding', (draft) => {
      draft.amendments = [
        ...(draft.amendments ?? []),
        ...findings.map((f) => ({ id: newId(), kind: 'leave' as const, key: f.key })),
      ]
    })
  }

  /** Takes that back. */
  function lookAgain(findings: readonly Finding[]): void {
    const keys = new Set(findings.map((f) => f.key))
    store.edit(
      'Look again',
      (draft) => void (draft.amendments = draft.amendments?.filter((a) => a.kind !== 'leave' || !keys.has(a.key))),
    )
  }

  return { found, current, trying, open, kinds, certain, done, left, tryMend, accept, drop, leave, lookAgain }
})
