<script setup lang="ts">
import { computed } from 'vue'
import { boxOfPage, laidOnPage } from '~/canvas/laid-on-page'
import { useLookStore } from '~/stores/look'
import { useViewStore } from '~/stores/view'

/** A moment of the history over the drawing as it is now, and what can be done from there. */
const look = useLookStore()
const view = useViewStore()
const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

const style = computed(() => laidOnPage(view.viewport, boxOfPage(look.looked!.drawing.page)))

async function branch(): Promise<void> {
  const id = await look.branch()
  if (id) globalThis.location.assign(`/drawings/${id}`)
}
</script>

<template>
  <div
    v-if="look.looked"
    class="absolute inset-0 overflow-hidden bg-desk"
    data-testid="look"
    @pointerdown.stop
    @wheel.stop
  >
    <img
      v-if="look.picture"
      :src="look.picture"
      :style="style"
      class="absolute left-0 top-0 max-w-none origin-top-left bg-paper"
      :alt="`The drawing at ${look.looked.title}`"
    />
    <p v-else class="absolute inset-0 grid place-items-center text-mute-deep" role="status">Drawing this moment …</p>
    <div
      class="absolute top-3 left-1/2 flex -translate-x-1/2 items-center gap-2.5 rounded-xl border border-hair bg-raise px-3.5 py-2 shadow-lg"
      role="toolbar"
      aria-label="The moment that is looked at"
    >
      <span class="max-w-[260px] truncate"
        ><b class="font-[650]">{{ look.looked.title }}</b
        ><span v-if="look.looked.madeAt" class="quiet"> · {{ when.format(new Date(look.looked.madeAt)) }}</span></span
      >
      <button
        v-if="look.looked.walk"
        class="button shrink-0"
        title="Takes the steps after it back; they can be brought again"
        @click="look.goThere()"
      >
        Go {{ look.looked.walk > 0 ? 'back' : 'forward' }} to here
      </button>
      <button class="button shrink-0" title="The drawing that is open stays as it is" @click="branch">
        New drawing from here
      </button>
      <button class="button-strong shrink-0" title="Esc" @click="look.stop()">Back to now</button>
    </div>
  </div>
</template>
