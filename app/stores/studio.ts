import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import type { Weight } from '#core/drawing/model'
import { evenWeight } from '#core/drawing/create'
import { SHELF, withProfile } from '#core/weight/shelf'
import type { Preferences } from '~/instruments/preferences'
import { DEFAULTS } from '~/instruments/preferences'

const KEY = 'bellatrait:studio'

function remembered(): Preferences {
  try {
    return { ...DEFAULTS, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Preferences>) }
  } catch {
    return { ...DEFAULTS }
  }
}

/** Choices that stay with the person, across drawings. */
export const useStudioStore = defineStore('studio', () => {
  const preferences = reactive(remembered())
  watch(preferences, (p) => localStorage.setItem(KEY, JSON.stringify(p)))

  /** The weight that the next line gets. */
  function nextWeight(): Weight {
    const profile = SHELF.find((p) => p.id === preferences.profile) ?? SHELF[0]!
    return withProfile(evenWeight(preferences.size), profile)
  }

  return { preferences, nextWeight }
})
