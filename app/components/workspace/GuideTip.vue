<script setup lang="ts">
import { X } from 'lucide-vue-next'
import { useGuideStore } from '~/stores/guide'

/** The next step of a first drawing, in one sentence. It stands out of the way and takes no clicks but to be put away. */
const guide = useGuideStore()
</script>

<template>
  <div
    v-if="guide.sentence"
    class="mr-9 flex items-center self-start gap-2.5 rounded-lg border border-hair bg-raise/95 py-0.5 pl-3 pr-1 text-[13px] shadow"
    role="status"
    data-testid="guide"
  >
    <span v-if="guide.at < guide.count" class="number shrink-0 text-[11px] text-mute-deep"
      >{{ guide.at + 1 }} of {{ guide.count }}</span
    >
    <span>{{ guide.sentence }}</span>
    <button
      class="quiet pointer-events-auto rounded p-1 hover:text-ink"
      title="Put the guide away for good"
      aria-label="Put the guide away for good"
      @click="guide.putAway()"
    >
      <X :size="14" />
    </button>
  </div>
</template>
