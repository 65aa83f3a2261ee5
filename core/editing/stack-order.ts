/** Where something goes in its stack. */
export const MOVES = ['front', 'up', 'down', 'back'] as const
export type StackMove = (typeof MOVES)[number]

/**
 * Items, bottom to top, with those named moved to the front or the back, or past the nearest other item above or below.
 * They keep their order among themselves. The same array where nothing moves.
 */
export function restacked<T extends { id: string }>(
  items: readonly T[],
  ids: ReadonlySet<string>,
  move: StackMove,
): readonly T[] {
  const chosen = items.filter((i) => ids.has(i.id))
  if (!chosen.length || chosen.length === items.length) return items
  const others = items.filter((i) => !ids.has(i.id))
  if (move === 'front' || move === 'back')
    return unlessSame(items, move === 'front' ? [...others, ...chosen] : [...chosen, ...others])
  const out = [...items]
  const step = move === 'up' ? 1 : -1
  // From the side towards which they go, so that neighbours do not pass each other.
  for (let i = move === 'up' ? out.length - 2 : 1; i >= 0 && i < out.length; i -= step) {
    const next = out[i + step]
    if (!ids.has(out[i]!.id) || !next || ids.has(next.id)) continue
    out[i + step] = out[i]!
    out[i] = next
  }
  return unlessSame(items, out)
}

const unlessSame = <T>(before: readonly T[], after: T[]): readonly T[] =>
  after.every((x, i) => x === before[i]) ? before : after
