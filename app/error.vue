<script setup lang="ts">
import type { NuxtError } from '#app'
import { computed } from 'vue'

/** Shown in the place of everything where the application itself could not go on. */
const props = defineProps<{ error: NuxtError }>()
const isNothing = computed(() => props.error.statusCode === 404)
</script>

<template>
  <main class="grid h-full place-content-center justify-items-start gap-3 p-6 text-[15px]">
    <p class="max-w-[44ch]">
      {{
        isNothing
          ? 'There is nothing at this address.'
          : 'Something went wrong here. What you drew is kept in this browser; load the page again.'
      }}
    </p>
    <a class="font-[650] text-plum underline" href="/">Go to the Desk</a>
  </main>
</template>
