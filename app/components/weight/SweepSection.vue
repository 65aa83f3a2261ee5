<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import { useStudioStore } from '~/stores/studio'
import { useCopiedWeight } from '~/workspace/use-copied-weight'

/** What of the copied weight is painted on. */
const PARTS = [
  { id: 'all', title: 'All of it' },
  { id: 'profile', title: 'Only the profile' },
  { id: 'size', title: 'Only the size' },
] as const

const studio = useStudioStore()
const { copied } = useCopiedWeight()
const words = computed(
  () =>
    copied.value &&
    `${short(copied.value.size, 1)} px, ${copied.value.stops.length} ${copied.value.stops.length === 1 ? 'stop' : 'stops'}${copied.value.start || copied.value.end ? ', with tapers' : ''}`,
)
</script>

<template>
  <div class="flex h-full flex-col gap-2.5">
    <div class="flex h-7 items-center gap-3.5">
      <b class="font-[650]">Sweep</b>
      <span class="quiet" data-testid="copied">{{
        words ? `Copied: ${words}` : 'No weight is copied yet: click a line to take up its weight.'
      }}</span>
    </div>
    <ChoiceField v-model="studio.preferences.sweepPart" label="Lines get" :choices="PARTS" />
    <p class="quiet max-w-[640px]">
      Sweep over lines to paint the copied weight on them. Lines of locked layers are passed over; one sweep is one step
      back.
    </p>
  </div>
</template>
