<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { Pencil } from 'lucide-vue-next'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useClingStore } from '~/stores/cling'
import { useStudioStore } from '~/stores/studio'
import { useKeysStore } from '~/stores/keys'
import { usePlaced } from '~/workspace/use-placed'

const { preferences } = useStudioStore()
const keys = useKeysStore()
const cling = useClingStore()
const TO = [
  { id: 'middle', title: 'The middle of all', help: 'Of several searching strokes' },
  { id: 'darkest', title: 'The darkest', help: 'The stroke that was meant' },
] as const
const state = computed(() =>
  preferences.cling.strength === 0
    ? 'off'
    : cling.busy
      ? 'reads …'
      : `${Math.round(preferences.cling.strength * 100)} %`,
)
const set = (change: Partial<typeof preferences.cling>): void => void Object.assign(preferences.cling, change)

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      ref="anchor"
      class="button flex items-center gap-1.5 !py-0.5 text-[13px]"
      title="How strongly the pencil draws what is laid over it"
      data-testid="cling"
    >
      <Pencil :size="14" :stroke-width="1.7" /> Cling <span class="number quiet">{{ state }}</span>
    </PopoverButton>
    <PopoverPanel ref="panel" :style="styles" class="pop grid w-[380px] gap-2 p-4">
      <p v-if="!cling.sketch" class="quiet">
        There is no sketch in sight. Bring one in under {{ keys.titled('Sketch', 'pass sketch') }}, or show its layer.
      </p>
      <SliderField
        label="Strength"
        title="0 leaves lines where the hand lays them"
        :value="Math.round(preferences.cling.strength * 100)"
        :min="0"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => set({ strength: v / 100 })"
        @keep="(v) => set({ strength: v / 100 })"
      />
      <SliderField
        label="Within"
        title="Pencil farther from the line draws nothing"
        :value="preferences.cling.reach"
        :min="2"
        :max="40"
        :step="1"
        unit="px"
        @look="(v) => set({ reach: v })"
        @keep="(v) => set({ reach: v })"
      />
      <ChoiceField v-model="preferences.cling.to" label="To" :choices="TO" />
      <p class="quiet text-[12px]">
        A line laid over pencil is drawn onto it; a bow laid from end to end of a pencil curve bends itself. Hold Ctrl
        to let the hand go free.
      </p>
    </PopoverPanel>
  </Popover>
</template>
