<script setup lang="ts">
import { watch } from 'vue'

/** A sentence for the person at the desk that leaves by itself. */
const text = defineModel<string>({ required: true })

const LASTING = 9000
let timer: ReturnType<typeof setTimeout> | undefined

watch(text, (t) => {
  clearTimeout(timer)
  if (t) timer = setTimeout(() => (text.value = ''), LASTING)
})
</script>

<template>
  <div v-if="text" class="pointer-events-none fixed inset-x-0 top-16 z-40 flex justify-center px-4">
    <div class="pointer-events-auto flex max-w-[640px] items-start gap-4 rounded-xl bg-ink px-4 py-2.5 text-white shadow-xl" role="alert" data-testid="notice">
      <span>{{ text }}</span>
      <slot />
      <button class="shrink-0 font-semibold text-[#f0cfe0]" @click="text = ''">Close</button>
    </div>
  </div>
</template>
