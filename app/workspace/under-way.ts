import type { Drawing, Line } from '#core/model/model'
import { itemProblem } from '#core/document/check-drawing'
import { layerForLine } from '#core/model/queries'
import type { UnderWay } from '~/instruments/instrument'
import { findLine } from '#core/model/find'

/**
 * Lines that were being laid when their window was closed, reloaded or crashed. They are written to the browser's storage
 * at once, before there is time for anything else, each under the name of its window; a window holds a lock of that name
 * for as long as it lives, so that another can tell what was left behind from what is still under a hand.
 */
const PREFIX = 'bellatrait:under-way:'
const WINDOW = globalThis.crypto?.randomUUID?.() ?? String(Math.random())
const lockOf = (window: string): string => `bellatrait:window:${window}`
let locked = false

function holdLock(): void {
  if (locked) return
  locked = true
  void navigator.locks?.request(lockOf(WINDOW), () => new Promise(() => undefined))
}

/** Keeps what is under way in a drawing, in place of what was kept before; null forgets it. */
export function keepUnderWay(drawing: string, underWay: UnderWay | null): void {
  const key = `${PREFIX}${drawing}:${WINDOW}`
  try {
    if (underWay) {
      holdLock()
      localStorage.setItem(key, JSON.stringify(underWay))
    } else localStorage.removeItem(key)
  } catch {
    // Storage that is full or forbidden keeps nothing: the line is still kept when the window is left in the usual way.
  }
}

/** What windows that are gone left under way in a drawing; it is forgotten here. */
export async function takeLeftBehind(drawing: Drawing): Promise<UnderWay[]> {
  const held = await heldLocks()
  const keys = storedKeys().filter(
    (k) => k.startsWith(`${PREFIX}${drawing.id}:`) && !held?.has(lockOf(k.slice(k.lastIndexOf(':') + 1))),
  )
  return keys.flatMap((key) => {
    const text = localStorage.getItem(key)
    localStorage.removeItem(key)
    const left = text && parsed(text)
    if (!left || itemProblem('lines', left.line)) return []
    // A line that was gone on with and is gone itself comes back as one of its own.
    return [{ ...left, replaces: left.replaces && !!findLine(drawing, left.line.id) }]
  })
}

const storedKeys = (): string[] => {
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '')
  } catch {
    return []
  }
}

/** Names of the locks that living windows hold; null where this browser does not tell. */
async function heldLocks(): Promise<Set<string> | null> {
  const state = await navigator.locks?.query().catch(() => null)
  return state ? new Set((state.held ?? []).map((l) => l.name ?? '')) : null
}

function parsed(text: string): UnderWay | null {
  try {
    return JSON.parse(text) as UnderWay
  } catch {
    return null
  }
}

/** Puts a line that was under way where it belongs: in place of itself, or on a layer of lines. */
export function placeLine(draft: Drawing, { line, replaces }: UnderWay, layer: string | null): void {
  const found = replaces ? findLine(draft, line.id) : null
  if (found) {
    found.layer.items[found.index] = line
    return
  }
  const target = layerForLine(draft, layer) ?? draft.layers.findLast((l) => l.kind === 'lines')
  ;(target?.items as Line[] | undefined)?.push(line)
}
