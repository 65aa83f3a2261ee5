<script setup lang="ts">
import { Keyboard, Search } from 'lucide-vue-next'
import { useKeysStore } from '~/stores/keys'
import { useRoom } from '~/stores/room'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useViewStore } from '~/stores/view'
import ZoomField from './ZoomField.vue'

/** How the page is seen, and where keys are told and shown; with what the hand can do now where no tray has room for that. */
const emit = defineEmits<{ keys: []; ask: [] }>()

const view = useViewStore()
const keys = useKeysStore()
const screenKeys = useScreenKeysStore()
const { isNarrow } = useRoom()
</script>

<template>
  <div
    class="number absolute bottom-2 left-2 flex max-w-[calc(100%-60px)] items-center gap-3 rounded bg-panel/80 px-1.5 py-0.5 text-[11px] text-mute-deep"
  >
    <ZoomField />
    <button
      v-if="view.viewport.angle"
      class="underline decoration-dotted hover:text-ink"
      title="Turn the page upright ( / )"
      @click="view.setUpright()"
    >
      turned {{ Math.round(view.viewport.angle) }}°
    </button>
    <button
      v-if="view.viewport.mirrored"
      class="underline decoration-dotted hover:text-ink"
      :title="keys.titled('See the page as it is', 'mirror')"
      @click="view.mirror()"
    >
      mirrored view
    </button>
    <button class="shrink-0 underline decoration-dotted hover:text-ink" @click="emit('keys')">? keys</button>
    <button
      class="grid h-6 w-6 shrink-0 place-items-center rounded hover:bg-raise hover:text-ink"
      :title="keys.titled('Ask by word: any instrument, command, setting, layer, ink, drawing', 'ask')"
      aria-label="Ask by word"
      @click="emit('ask')"
    >
      <Search :size="15" />
    </button>
    <button
      class="grid h-6 w-6 shrink-0 place-items-center rounded hover:bg-raise hover:text-ink"
      :class="screenKeys.shown && 'text-plum'"
      :aria-pressed="screenKeys.shown"
      title="Keys on the screen, for the hand that holds no pen"
      aria-label="Keys on the screen"
      @click="screenKeys.shown = !screenKeys.shown"
    >
      <Keyboard :size="15" />
    </button>
    <span
      v-if="isNarrow && view.pass !== 'deliver'"
      class="min-w-0 truncate font-sans"
      aria-live="polite"
      :title="view.hint"
      data-testid="hint"
      >{{ view.hint }}</span
    >
  </div>
</template>
