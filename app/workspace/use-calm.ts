import type { Ref, ShallowRef } from 'vue'
import { onScopeDispose, shallowRef, watch } from 'vue'

/** How often what is calmed follows, ms. */
const EVERY = 60

/**
 * `source` as it is, but while `busy` holds only so often: what a hand drags elsewhere is followed without taking the
 * frame from it. The last value always comes.
 */
export function useCalm<T>(source: Ref<T>, busy: () => boolean, same: (a: T, b: T) => boolean): ShallowRef<T> {
  const calm = shallowRef(source.value) as ShallowRef<T>
  let timer: ReturnType<typeof setTimeout> | undefined
  const follow = (): void => {
    clearTimeout(timer)
    timer = undefined
    calm.value = source.value
  }
  watch(
    [source, busy],
    ([now, is]) => {
      if (!is || !same(now as T, calm.value)) follow()
      else timer ??= setTimeout(follow, EVERY)
    },
    { flush: 'sync' },
  )
  onScopeDispose(() => clearTimeout(timer))
  return calm
}
