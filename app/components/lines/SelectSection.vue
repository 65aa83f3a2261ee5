<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useAlike } from '~/workspace/use-alike'
import { useStudioStore } from '~/stores/studio'

const GATHERS = [
  { id: 'box', title: 'Box', help: 'Takes lines with any part in the box' },
  { id: 'lasso', title: 'Lasso', help: 'Takes lines that lie wholly in the loop' },
  { id: 'touch', title: 'Touch', help: 'Takes lines that the drag goes over' },
] as const

const studio = useStudioStore()
const chosen = useChosenLines()
const alike = useAlike()

const closed = computed(() => chosen.lines.value.filter((l) => l.path.closed))

function setCover(cover: boolean): void {
  chosen.change(cover ? 'Cover what lies behind' : 'Cover nothing', (l) => {
    if (l.path.closed) l.cover = cover
  })
}
</script>

<template>
  <ChoiceField v-model="studio.preferences.gather" label="A drag takes by" :choices="GATHERS" />
  <div v-if="chosen.lines.value.length" class="flex items-center gap-1.5" role="group" aria-label="Choose all alike">
    <span class="mr-1">Choose all with the same</span>
    <button class="button" @click="alike('ink')">Ink</button>
    <button class="button" @click="alike('size')">Size</button>
    <button class="button" @click="alike('profile')">Profile</button>
  </div>
  <label v-if="closed.length" class="flex items-center gap-2.5">
    <input type="checkbox" class="h-4 w-4 accent-plum" :checked="closed.every((l) => l.cover)" @change="setCover(($event.target as HTMLInputElement).checked)" />
    Covers what lies behind it
  </label>
</template>
