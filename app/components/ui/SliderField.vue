<script setup lang="ts">
import { ref, watch } from 'vue'

/** A slider with its number: drag to look, let go to keep; or type. */
const props = defineProps<{
  label: string
  value: number
  min: number
  max: number
  step: number
  unit?: string
  /** Places after the point in the number. */
  digits?: number
  disabled?: boolean
}>()

const emit = defineEmits<{ look: [value: number]; keep: [value: number] }>()

const shown = (v: number): string => v.toFixed(props.digits ?? 0)
const text = ref(shown(props.value))

watch(
  () => props.value,
  (v) => (text.value = shown(v)),
)

/** The number follows the slider, also where looking changes nothing yet. */
function look(v: number): void {
  text.value = shown(v)
  emit('look', v)
}

/** Enter keeps the number and gives the keys back to what the field stands in. */
function leave(field: HTMLInputElement): void {
  field.blur()
  field.closest<HTMLElement>('[tabindex="-1"]')?.focus()
}

function type(): void {
  const v = Number.parseFloat(text.value.replace(',', '.'))
  if (Number.isFinite(v)) emit('keep', Math.min(props.max, Math.max(props.min, v)))
  text.value = shown(props.value)
}
</script>

<template>
  <label class="flex min-w-0 items-center gap-2.5">
    <span class="w-24 shrink-0">{{ label }}</span>
    <input
      type="range"
      class="h-6 min-w-0 flex-1"
      :min="min"
      :max="max"
      :step="step"
      :value="value"
      :disabled="disabled"
      :aria-label="label"
      @input="look(Number(($event.target as HTMLInputElement).value))"
      @change="emit('keep', Number(($event.target as HTMLInputElement).value))"
    />
    <input
      v-model="text"
      class="field number w-16 text-right"
      inputmode="decimal"
      :disabled="disabled"
      :aria-label="`${label}, exactly`"
      @blur="type"
      @keydown.enter="leave($event.target as HTMLInputElement)"
    />
    <span class="quiet number w-5">{{ unit }}</span>
  </label>
</template>
