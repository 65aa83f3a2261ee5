<script setup lang="ts">
/** A name that stands there to be changed: Enter or leaving keeps it; nothing written puts back the one before. */
const props = withDefaults(defineProps<{ value: string; label: string; longest?: number }>(), { longest: 80 })
const emit = defineEmits<{ keep: [name: string]; empty: [] }>()

function end(e: Event): void {
  const field = e.target as HTMLInputElement
  const name = field.value.trim().slice(0, props.longest)
  if (name && name !== props.value) return emit('keep', name)
  if (!name) emit('empty')
  field.value = props.value
}
</script>

<template>
  <input
    :value="value"
    :aria-label="label"
    :maxlength="longest"
    @blur="end"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
  />
</template>
