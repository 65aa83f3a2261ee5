<script setup lang="ts">
import { ref, watch } from 'vue'
import { short } from '#core/geometry/path'

/** A number to be typed; empty where there is none. */
const props = defineProps<{ label: string; value: number | null; unit?: string; digits?: number }>()
const emit = defineEmits<{ keep: [value: number] }>()

const shown = (): string => (props.value === null ? '' : short(props.value, props.digits ?? 2))
const text = ref(shown())
watch(
  () => props.value,
  () => (text.value = shown()),
)

function keep(): void {
  const v = Number.parseFloat(text.value.replace(',', '.'))
  if (Number.isFinite(v) && text.value !== shown()) emit('keep', v)
  text.value = shown()
}
</script>

<template>
  <label class="flex items-center gap-2">
    <span>{{ label }}</span>
    <input
      v-model="text"
      class="field number w-[74px] text-right"
      inputmode="decimal"
      :disabled="value === null"
      :aria-label="label"
      @blur="keep"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
    />
    <span v-if="unit" class="quiet number">{{ unit }}</span>
  </label>
</template>
