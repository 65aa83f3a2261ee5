import type { Ref } from 'vue'
import { computed, ref } from 'vue'

/** Which cards of the Desk are chosen: by click or by key, one by one or up to another. */
export function useDeskChoice(shown: Readonly<Ref<readonly { id: string }[]>>) {
  const picked = ref<readonly string[]>([])
  /** From where a row of cards is chosen. */
  let from: string | null = null
  /** What is out of sight is not chosen. */
  const chosen = computed(() => shown.value.filter((c) => picked.value.includes(c.id)).map((c) => c.id))

  function toggle(id: string): void {
    from = id
    picked.value = chosen.value.includes(id) ? chosen.value.filter((c) => c !== id) : [...chosen.value, id]
  }

  /** Besides, all from the last one that was chosen up to this one. */
  function upTo(id: string): void {
    const ids = shown.value.map((c) => c.id)
    const [a, b] = [ids.indexOf(from ?? id), ids.indexOf(id)].sort((p, q) => p - q) as [number, number]
    picked.value = [...new Set([...chosen.value, ...ids.slice(Math.max(0, a), b + 1)])]
    from ??= id
  }

  const all = (): void => void (picked.value = shown.value.map((c) => c.id))
  const none = (): void => void (picked.value = [])

  /** The card that a key leads to, as cards lie in rows; null at an edge. */
  function neighbour(of: HTMLElement, key: string): HTMLElement | null {
    const cards = [...document.querySelectorAll<HTMLElement>('[data-testid=card]')]
    const at = cards.indexOf(of)
    const perRow = cards.filter((c) => c.offsetTop === cards[0]!.offsetTop).length
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -perRow, ArrowDown: perRow }[key]
    return step === undefined ? null : (cards[at + step] ?? null)
  }

  /**
   * Keys on the cards: arrows go to another (with Shift they choose on the way), Space chooses, Ctrl with A all, Escape none,
   * Delete asks for the bin. Answers whether the key was meant for them.
   */
  function key(e: KeyboardEvent, bin: (ids: readonly string[]) => void): boolean {
    const card = (e.target as HTMLElement).closest<HTMLElement>('[data-testid=card]')
    const onLink = !!(e.target as HTMLElement).closest('a')
    const id = card?.dataset.id
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'a') all()
    else if (e.key === 'Escape' && chosen.value.length) none()
    else if (e.key === 'Delete' && (chosen.value.length || (id && onLink)))
      bin(chosen.value.length ? chosen.value : [id!])
    else if (id && onLink && e.key === ' ') toggle(id)
    else if (id && onLink && e.key.startsWith('Arrow')) {
      const next = neighbour(card!, e.key)
      next?.querySelector('a')?.focus()
      if (e.shiftKey && next?.dataset.id) {
        if (!chosen.value.includes(id)) toggle(id)
        upTo(next.dataset.id)
      }
    } else return false
    e.preventDefault()
    return true
  }

  return { chosen, toggle, upTo, all, none, key }
}
