<script setup lang="ts">
import { onMounted, ref } from 'vue'

/** A name that is being written: Enter or leaving keeps it; Esc, or nothing written, leaves the one before. */
const props = withDefaults(defineProps<{ value: string; label: string; longest?: number }>(), { longest: 120 })
const emit = defineEmits<{ keep: [name: string]; close: [] }>()

const text = ref(props.value)
const field = ref<HTMLInputElement>()
let ended = false

onMounted(() => {
  field.value!.focus()
  field.value!.select()
})

function end(keep: boolean): void {
  // Taking the field away takes its focus, too.
  if (ended) return
  ended = true
  const name = text.value.trim().slice(0, props.longest)
  if (keep && name && name !== props.value) emit('keep', name)
  emit('close')
}
</script>

<template>
  <input
    ref="field"
    v-model="text"
    class="field !py-0"
    :aria-label="label"
    :maxlength="longest"
    @blur="end(true)"
    @keydown.enter="end(true)"
    @keydown.esc.stop="end(false)"
  />
</template>
