import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Edit } from '#core/document/edits'
import { isKept, wholeTrace } from '#core/model/line-trace'
import type { Drawing, KeptTrace, Line, PenTrace, TraceSample } from '#core/model/model'
import { keptTracesOf, withWholeTraces } from '#core/document/traces-apart'
import { fetchTrace } from '~/network/api'

/** The samples of pen traces, by hash: of strokes that were just drawn, and of others as they are asked for. */
export const useTracesStore = defineStore('traces', () => {
  const book = new Map<string, TraceSample[]>()
  /** Traces that the server is not known to have. */
  const fresh = new Set<string>()
  const asked = new Map<string, Promise<void>>()
  const wholes = new WeakMap<KeptTrace, PenTrace>()
  /** Rises when samples have come. */
  const come = ref(0)

  function keep(hash: string, samples: TraceSample[]): void {
    if (book.has(hash)) return
    book.set(hash, samples)
    fresh.add(hash)
  }

  function ask(hash: string): Promise<void> {
    if (book.has(hash)) return Promise.resolve()
    let coming = asked.get(hash)
    if (!coming) {
      coming = fetchTrace(hash)
        .then((samples) => void book.set(hash, samples))
        .finally(() => {
          asked.delete(hash)
          come.value++
        })
      asked.set(hash, coming)
    }
    return coming
  }

  /** A line's trace with its samples; null where it has none, or they have yet to come. */
  function wholeOf(line: Line): PenTrace | null {
    void come.value
    const { trace } = line
    if (!trace || !isKept(trace)) return trace
    const samples = book.get(trace.of)
    if (!samples) {
      // Whoever looks at it now is told when it has come; one that does not come is asked for again with the next look.
      ask(trace.of).catch((e: unknown) => console.warn('A pen trace could not be fetched:', e))
      return null
    }
    let whole = wholes.get(trace)
    if (!whole) wholes.set(trace, (whole = wholeTrace(trace, samples)))
    return whole
  }

  /** @throws Refusal where samples cannot be had */
  const ready = async (lines: readonly Line[]): Promise<void> => void (await Promise.all(keptTracesOf(lines).map(ask)))

  /** An edit with the samples of those traces it speaks of that the server may not have. */
  function withFresh(edit: Edit): Edit {
    if (!fresh.size) return edit
    const text = JSON.stringify(edit.patches)
    const brought = [...fresh].filter((hash) => text.includes(hash))
    return brought.length
      ? { ...edit, traces: Object.fromEntries(brought.map((hash) => [hash, book.get(hash)!])) }
      : edit
  }

  /** Takes up what edits that were kept in this browser bring. */
  function takeUp(edits: readonly Edit[]): void {
    for (const { traces } of edits) for (const [hash, samples] of Object.entries(traces ?? {})) keep(hash, samples)
  }

  /** The server has what these edits brought. */
  function sent(edits: readonly Edit[]): void {
    for (const { traces } of edits) for (const hash of Object.keys(traces ?? {})) fresh.delete(hash)
  }

  /** A drawing with all samples that are at hand, as it leaves in a file. */
  const withSamples = (drawing: Drawing): Drawing => withWholeTraces(drawing, (hash) => book.get(hash))

  return {
    samplesOf: (hash: string): readonly TraceSample[] | undefined => book.get(hash),
    keep,
    wholeOf,
    ready,
    withFresh,
    takeUp,
    sent,
    withSamples,
  }
})
