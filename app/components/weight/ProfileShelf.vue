<script setup lang="ts">
import { computed } from 'vue'
import { evenWeight, newLine, roundFinish } from '#core/drawing/create'
import { pathData } from '#core/geometry/path'
import { expandLine } from '#core/outline/expand'
import { SHELF, follows, withProfile } from '#core/weight/shelf'
import type { ShelfProfile } from '#core/weight/shelf'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

const view = useViewStore()
const studio = useStudioStore()
const chosen = useChosenLines()

/** Each profile drawn by the real engine on a short straight line. */
const chips = SHELF.map((profile) => ({
  profile,
  data: expandLine(
    newLine(
      { nodes: [{ at: { x: 2, y: 8 }, in: null, out: null, joint: 'corner' }, { at: { x: 36, y: 8 }, in: null, out: null, joint: 'corner' }], closed: false },
      { weight: withProfile(evenWeight(9), profile), finish: { ...roundFinish(), startCap: 'butt', endCap: 'butt' } },
    ),
    { tolerance: 0.05 },
  )
    .map((c) => pathData(c, 2))
    .join(''),
}))

const forSelection = computed(() => chosen.lines.value.length > 0)

function isOn(profile: ShelfProfile): boolean {
  if (!forSelection.value) return studio.preferences.profile === profile.id
  return chosen.lines.value.every((l) => follows(l.weight, profile))
}

function take(profile: ShelfProfile): void {
  studio.preferences.profile = profile.id
  if (!forSelection.value) return
  view.stop = null
  chosen.change(`Profile: ${profile.name}`, (line) => {
    line.weight = withProfile(line.weight, profile)
  })
}
</script>

<template>
  <div class="flex items-center gap-1.5" role="group" aria-label="Profiles">
    <button
      v-for="{ profile, data } in chips"
      :key="profile.id"
      class="grid h-[30px] w-11 place-items-center rounded-[7px] border border-hair bg-raise hover:border-mute"
      :class="isOn(profile) ? 'outline-2 -outline-offset-1 outline-plum' : ''"
      :aria-pressed="isOn(profile)"
      :title="forSelection ? `${profile.name}: put on the chosen lines` : `${profile.name}: for the next line`"
      :aria-label="profile.name"
      @click="take(profile)"
    >
      <svg width="38" height="16" viewBox="0 0 38 16" aria-hidden="true"><path :d="data" class="fill-ink" /></svg>
    </button>
  </div>
</template>
