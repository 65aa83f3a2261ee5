import type { Component } from 'vue'
import type { InstrumentDescription } from '~/catalogue/instruments'

const found = import.meta.glob<{ default: Component }>('./*/*Section.vue', { eager: true })

/** The component of what an instrument has to set. */
export const stripOf = (tool: InstrumentDescription | undefined): Component | undefined =>
  tool?.strip ? found[`./${tool.strip}.vue`]?.default : undefined
