<script setup lang="ts">
/** A choice that holds or does not. */
const model = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="flex items-center gap-2.5">
    <input v-model="model" type="checkbox" class="h-4 w-4 shrink-0 accent-plum" />
    <slot />
  </label>
</template>
