<script setup lang="ts">
import { computed } from 'vue'
import { unlitWeight } from '#core/weight/light'
import PercentField from '~/components/ui/PercentField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useStudioStore } from '~/stores/studio'
import { useTrialStore } from '~/stores/trial'
import TrialBar from './TrialBar.vue'

/** How strong and how soft the light is, and whether it follows later edits. */
const store = useDrawingStore()
const trial = useTrialStore()
const { light } = useStudioStore().preferences

const settled = computed(() => store.drawing?.settings.light ?? null)
const lit = computed(() => !!settled.value || store.lines.some((l) => l.weight.unlit))

/** The light that is tried, or the one that the drawing has, or the one to begin with. */
function ruleNow() {
  const { page } = store.drawing!
  return (
    trial.current?.light ??
    settled.value ?? {
      at: { x: light.x * page.width, y: light.y * page.height },
      strength: light.strength,
      softness: light.softness,
      live: false,
    }
  )
}

const follows = computed({
  get: () => !!settled.value?.live,
  set: (live) => {
    const rule = { ...ruleNow(), live }
    store.edit(live ? 'Light that follows' : 'Light stays as it is', (draft) => void (draft.settings.light = rule))
    trial.current?.drop()
  },
})

function takeOff(): void {
  trial.current?.drop()
  const ids = store.lines.map((l) => l.id)
  store.edit('Take the light off', (draft) => {
    delete draft.settings.light
    changeLines(draft, ids, (line) => {
      if (line.weight.unlit) line.weight = unlitWeight(line.weight)
    })
  })
}
</script>

<template>
  <div class="flex h-full flex-col gap-2">
    <TrialBar
      title="By light"
      :nothing="
        follows
          ? 'The light follows your edits. Drag it to move it.'
          : 'Drag the light over the drawing: edges that face it are thin, edges away from it thick.'
      "
    >
      <button v-if="lit" class="quiet" title="Every line has its own profile again" @click="takeOff">
        Take the light off
      </button>
    </TrialBar>
    <div class="grid max-w-[860px] grid-cols-2 gap-x-10 gap-y-1.5">
      <PercentField v-model="light.strength" label="Strength" />
      <PercentField v-model="light.softness" label="Softness" />
      <TickField v-model="follows" class="col-span-2">The light follows later edits</TickField>
      <p class="quiet col-span-2">
        A line takes the light on its outside, which is told from what the lines enclose. Click a line to turn it;
        pinned lines stay as they are.
      </p>
    </div>
  </div>
</template>
