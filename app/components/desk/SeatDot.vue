<script setup lang="ts">
/** The colour of a seat. */
defineProps<{ colour: string }>()
</script>

<template>
  <span
    class="inline-block h-2.5 w-2.5 shrink-0 rounded-full"
    :style="{ backgroundColor: colour }"
    aria-hidden="true"
  />
</template>
