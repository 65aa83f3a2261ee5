<script setup lang="ts">
import { useTrialStore } from '~/stores/trial'

/** What a rule would do, and the ways to take it or not. */
defineProps<{ title: string; /** Said when nothing is proposed. */ nothing: string }>()
const trial = useTrialStore()
</script>

<template>
  <div class="flex min-h-8 items-center gap-3.5">
    <b class="shrink-0 font-[650]">{{ title }}</b>
    <span
      class="quiet line-clamp-2 min-w-0 leading-4"
      role="status"
      :title="trial.current?.summary ?? nothing"
      data-testid="trial"
      >{{ trial.current?.summary ?? nothing }}</span
    >
    <span class="ml-auto flex shrink-0 items-center gap-3">
      <slot />
      <template v-if="trial.current">
        <button
          v-if="trial.current.wider"
          class="quiet underline decoration-dotted hover:text-ink"
          @click="trial.current?.wider?.run()"
        >
          {{ trial.current.wider.title }}
        </button>
        <button class="quiet" title="Esc" @click="trial.current?.drop()">Not now</button>
        <button
          class="button-strong !py-1"
          title="Enter"
          :disabled="!trial.current.changes"
          @click="trial.current?.accept()"
        >
          Accept
        </button>
      </template>
    </span>
  </div>
</template>
