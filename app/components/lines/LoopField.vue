<script setup lang="ts">
import { computed } from 'vue'
import NumberField from '~/components/ui/NumberField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useStudioStore } from '~/stores/studio'
import { useHand } from '~/workspace/use-hand'

/** Farthest that a stroke may come back from its start and be closed, px of the screen. */
const FARTHEST = 60

/** Whether drawn strokes are closed: those that are chosen, or how near to their start those to come are. */
const studio = useStudioStore()
const hand = useHand()
const closed = computed({
  get: () => hand.settings.value.loop === true,
  set: (loop) => void hand.keep(loop ? 'Close a stroke' : 'Open a stroke', { loop }),
})
</script>

<template>
  <TickField v-if="hand.traced.value.length" v-model="closed" title="The stroke ends where it began, without a seam"
    >Closed</TickField
  >
  <NumberField
    v-else
    class="quiet [&>input]:!w-[44px]"
    title="A stroke that comes back to its start is closed. 0: never"
    label="Closes within"
    :value="studio.preferences.closesWithin"
    unit="px"
    @keep="(v) => (studio.preferences.closesWithin = Math.min(FARTHEST, Math.max(0, v)))"
  />
</template>
