import { useMediaQuery } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { useRemembered } from './remembered'

/** A key that is held while a hand works on the canvas. */
export type HeldKey = 'shift' | 'alt' | 'free' | 'pan'

/** What a finger on the canvas does: as the pen says, where one was seen; or always the one, or the other. */
type FingerWay = 'as the pen' | 'moves' | 'draws'

/** What the second button of a pen does, and its other end. */
type PenButton = 'moves' | 'nothing'
type PenEnd = 'scrapes' | 'nothing'

/** Keys on the screen for the other hand, where there is no keyboard: which are held, and what pen and fingers do. */
export const useScreenKeysStore = defineStore('screen keys', () => {
  // What a device has, and how its pen works, is the device's.
  const settings = useRemembered(
    'screen-keys',
    {
      /** Null: where the device has no mouse. */
      shown: null as boolean | null,
      side: 'left' as 'left' | 'right',
      finger: 'as the pen' as FingerWay,
      penButton: 'moves' as PenButton,
      penEnd: 'scrapes' as PenEnd,
    },
    'device',
  )
  const isCoarse = useMediaQuery('(pointer: coarse)')
  const held = reactive<Record<HeldKey, boolean>>({ shift: false, alt: false, free: false, pan: false })
  const shown = computed({
    get: () => settings.shown ?? isCoarse.value,
    set: (to: boolean) => (settings.shown = to),
  })

  /** Nothing is held any more. */
  function letGo(): void {
    for (const key of Object.keys(held) as HeldKey[]) held[key] = false
  }

  return { settings, held, shown, letGo }
})
