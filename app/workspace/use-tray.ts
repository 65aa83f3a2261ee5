import { computed } from 'vue'
import { TRAY_KEYS, trayOf } from '~/catalogue/instruments'
import { useKeysStore } from '~/stores/keys'
import { useViewStore } from '~/stores/view'

/** The instruments of the pass with their keys, in rows of six: the second row's keys are those of the first with Shift. */
export function useTray() {
  const view = useViewStore()
  const keys = useKeysStore()

  function keyAt(i: number): { key: string; spoken: string } {
    const key = keys.keyOf(TRAY_KEYS[i % TRAY_KEYS.length]!).toUpperCase()
    return { key, spoken: i < TRAY_KEYS.length ? key : `Shift + ${key}` }
  }

  const tools = computed(() => trayOf(view.pass).map((tool, i) => ({ ...tool, ...keyAt(i) })))
  const rows = computed(() =>
    [tools.value.slice(0, TRAY_KEYS.length), tools.value.slice(TRAY_KEYS.length)].filter((r) => r.length),
  )
  return { tools, rows }
}
