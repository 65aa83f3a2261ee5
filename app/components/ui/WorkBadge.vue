<script setup lang="ts">
/** Long work under way: what it is, how far it is, and a way to stop it. A press on it is none on the drawing beneath. */
defineProps<{ what: string; share: number; stoppable?: boolean }>()
const emit = defineEmits<{ stop: [] }>()
</script>

<template>
  <div
    class="pointer-events-auto flex items-center self-center gap-3 rounded-full border border-hair bg-raise px-4 py-1.5 text-[13px]"
    role="status"
    @pointerdown.stop
  >
    <span>{{ what }}</span>
    <span class="h-1.5 w-28 overflow-hidden rounded-full bg-hair"
      ><span class="block h-full bg-plum" :style="{ width: `${Math.round(share * 100)}%` }"
    /></span>
    <button v-if="stoppable" class="font-semibold text-plum" @click="emit('stop')">Stop</button>
  </div>
</template>
