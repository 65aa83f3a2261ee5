<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue'

/** A sentence for the person at the desk that leaves by itself. */
const props = defineProps<{ /** Where it stands, so that it covers nothing that it speaks of. */ above?: string }>()
const text = defineModel<string>({ required: true })

const LASTING = 9000
let timer: ReturnType<typeof setTimeout> | undefined

function leaveLater(): void {
  clearTimeout(timer)
  if (text.value) timer = setTimeout(() => (text.value = ''), LASTING)
}

/** It stays while the pointer or the keyboard is on it. */
const stay = (): void => clearTimeout(timer)

watch(text, leaveLater)
onBeforeUnmount(stay)
</script>

<template>
  <div
    v-if="text"
    class="pointer-events-none fixed inset-x-0 bottom-6 z-40 flex justify-center px-4"
    :class="props.above"
  >
    <div
      @pointerenter="stay"
      @pointerleave="leaveLater"
      @focusin="stay"
      @focusout="leaveLater"
      class="pointer-events-auto flex max-w-[640px] items-start gap-4 rounded-xl bg-ink px-4 py-2.5 text-white shadow-xl"
      role="alert"
      data-testid="notice"
    >
      <span>{{ text }}</span>
      <slot />
      <button class="shrink-0 font-semibold text-[#f0cfe0]" @click="text = ''">Close</button>
    </div>
  </div>
</template>
