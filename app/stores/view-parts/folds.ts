import { computed, ref, watch } from 'vue'
import { useRemembered } from '../remembered'
import { useRoom } from '../room'

/** What is folded away in a window of one kind. */
const FOLDS = { column: false, dock: false, islands: true, pinned: false }

/** What is folded away, remembered for each kind of window; and whether the Strip is up where it has no place of its own. */
export function useFolds() {
  const { room } = useRoom()
  const wide = useRemembered('folds', FOLDS)
  const others = useRemembered('folds-small', {
    'wide low': { ...FOLDS },
    narrow: { ...FOLDS, column: true },
    'narrow low': { ...FOLDS, column: true },
  })
  const folds = computed(() => (room.value === 'wide' ? wide : others[room.value]))
  const stripUp = ref(false)
  watch(room, () => (stripUp.value = false))
  return { folds, stripUp }
}
