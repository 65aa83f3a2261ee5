<script setup lang="ts" generic="T extends string">
import { RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'
import { onBeforeUnmount } from 'vue'

/** A few choices side by side, of which one holds; `look` tells of one under the pointer, `away` that it left. */
defineProps<{
  label: string
  /** The label takes no more room than it needs. */ tight?: boolean
  choices: readonly { id: T; title: string; help?: string }[]
}>()
const model = defineModel<T>({ required: true })
const emit = defineEmits<{ look: [choice: T]; away: [] }>()
onBeforeUnmount(() => emit('away'))
</script>

<template>
  <RadioGroup v-model="model" class="flex items-center gap-3">
    <RadioGroupLabel class="shrink-0" :class="tight ? '' : 'w-[92px]'">{{ label }}</RadioGroupLabel>
    <div class="flex rounded-[8px] border border-hair bg-raise p-0.5">
      <RadioGroupOption v-for="c in choices" :key="c.id" v-slot="{ checked, active }" :value="c.id" as="template">
        <button
          type="button"
          class="h-7 rounded-[6px] px-3 text-[13px]"
          :class="[
            checked ? 'bg-ink text-white' : 'hover:bg-panel',
            active && 'outline-2 outline-offset-1 outline-plum',
          ]"
          :title="c.help"
          @pointerenter="emit('look', c.id)"
          @pointerleave="emit('away')"
        >
          {{ c.title }}
        </button>
      </RadioGroupOption>
    </div>
  </RadioGroup>
</template>
