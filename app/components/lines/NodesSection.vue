<script setup lang="ts">
import { computed, reactive } from 'vue'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { useEnds } from '~/workspace/use-ends'
import GatherField from './GatherField.vue'
import NodeFields from './NodeFields.vue'

const store = useDrawingStore()
const view = useViewStore()
const { ends, ...lines } = useEnds()

const surface = reactive({
  drawing: computed(() => store.drawing),
  nodes: computed(() => view.nodes),
  edit: store.edit,
})

/** Inner nodes of open lines, and any node of closed ones, can be cut at. */
const canSplit = computed(() => view.nodes.length > ends.value.length)
const closes = computed(() => ends.value.length === 2 && ends.value[0]!.line.id === ends.value[1]!.line.id)
</script>

<template>
  <div v-if="!view.nodes.length" class="grid gap-2.5">
    <GatherField what="nodes" />
    <p class="quiet">
      {{
        view.selection.length
          ? 'Choose nodes: click one, Shift+click more, or drag over paper.'
          : 'Click a line to see its nodes, or drag over paper to choose nodes of several lines.'
      }}
    </p>
  </div>
  <div v-else class="grid gap-2">
    <NodeFields :surface="surface" />
    <div class="flex items-center gap-1.5" role="group" aria-label="Ends and cuts">
      <button class="button" title="Cut the line at the chosen nodes" :disabled="!canSplit" @click="lines.split()">
        Split here
      </button>
      <button
        class="button"
        :title="closes ? 'Close the line between its two ends' : 'Make one line of two: choose an end of each'"
        :disabled="ends.length !== 2"
        @click="lines.join()"
      >
        {{ closes ? 'Close the gap' : 'Join ends' }}
      </button>
      <button
        class="button"
        title="Lengthen the chosen ends straight on until they meet a line"
        :disabled="!ends.length"
        @click="lines.extend()"
      >
        Extend to a line
      </button>
      <button
        class="button"
        title="Bring the chosen ends onto the middle of the line near them"
        :disabled="!ends.length"
        @click="lines.tuck()"
      >
        Tuck under
      </button>
      <button class="button" title="Begin the line at its other end; its ink stays as it is" @click="lines.reverse()">
        Turn round
      </button>
    </div>
  </div>
</template>
