import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Line } from '#core/model/model'
import type { Trial } from '~/instruments/tried-on'

/** What is tried on over the drawing, if anything. */
export const useTrialStore = defineStore('trial', () => {
  const current = shallowRef<Trial | null>(null)
  /** A line as it is to be seen. */
  const shown = (line: Line): Line => current.value?.of(line) ?? line
  return { current, shown }
})
