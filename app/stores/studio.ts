import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import type { Weight } from '#core/drawing/model'
import { evenWeight } from '#core/drawing/create'
import type { FigureShape } from '#core/geometry/figures'
import { SHELF, withProfile } from '#core/weight/shelf'

const KEY = 'bellatrait:studio'

interface Preferences {
  /** Size of the next line, px. */
  size: number
  /** Id of the shelf profile of the next line. */
  profile: string
  /** Steadiness of freehand lines, 0..1. */
  steadiness: number
  /** Whether a pen's pressure becomes the line's profile. */
  pressure: boolean
  /** How the pen's clicked points join: corners or as dragged, smoothly by themselves, or always straight. */
  penJoins: 'free' | 'smooth' | 'straight'
  /** Whether a bow goes on smoothly from the one before. */
  bowsJoin: boolean
  /** The figure that is drawn next. */
  figure: FigureShape
  /** What the last delivery was. */
  delivery: 'outlines' | 'lines' | 'picture'
  pictureScale: number
}

const DEFAULTS: Preferences = {
  size: 6,
  profile: 'even',
  steadiness: 0.4,
  pressure: true,
  penJoins: 'free',
  bowsJoin: true,
  figure: { kind: 'ellipse', sides: 5, depth: 0.5, turns: 3 },
  delivery: 'outlines',
  pictureScale: 2,
}

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
