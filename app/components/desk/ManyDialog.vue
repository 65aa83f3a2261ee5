<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, toRaw, watch } from 'vue'
import type { ManyState } from '#shared/desk'
import { deliveriesState, startDeliveries, stopDeliveries } from '~/network/api'
import { useStudioStore } from '~/stores/studio'
import { inBytes } from '~/workspace/in-bytes'
import DialogFrame from '~/components/ui/DialogFrame.vue'

/** Several drawings to one archive, with one set of settings; the server makes it. */
const props = defineProps<{ ids: readonly string[] | null }>()
const emit = defineEmits<{ close: [] }>()
const { preferences } = useStudioStore()
const named = ref('')
const state = shallowRef<ManyState | null>(null)
const problem = ref('')
const AGAIN = 300
let timer: ReturnType<typeof setTimeout> | undefined

const KINDS = {
  outlines: 'outlines as SVG',
  pdf: 'PDF',
  picture: 'PNG',
  lines: 'live lines as SVG',
  traces: 'pen traces as InkML',
  all: 'everything',
} as const
const choices = computed(() => [
  { name: '', title: `As set in Deliver last: ${KINDS[preferences.delivery.kind]}`, settings: preferences.delivery },
  ...preferences.deliveries.map((d) => ({
    name: d.name,
    title: `${d.name}: ${KINDS[d.settings.kind]}`,
    settings: d.settings,
  })),
])
const count = computed(() => props.ids?.length ?? 0)

async function start(): Promise<void> {
  problem.value = ''
  const settings = choices.value.find((c) => c.name === named.value)?.settings ?? preferences.delivery
  try {
    state.value = await startDeliveries({ ids: [...props.ids!], settings: structuredClone(toRaw(settings)) })
    ask()
  } catch (e) {
    problem.value = (e as Error).message
  }
}

function ask(): void {
  timer = setTimeout(async () => {
    const { id } = state.value!
    try {
      const now = await deliveriesState(id)
      if (state.value?.id === id) state.value = now
      if (now.state === 'making') ask()
      if (now.state === 'failed') problem.value = 'The archive could not be made. Try again, with fewer drawings.'
    } catch (e) {
      problem.value = (e as Error).message
    }
  }, AGAIN)
}

/** What was begun is ended, and what was made is taken away. */
function stop(): void {
  clearTimeout(timer)
  if (state.value) void stopDeliveries(state.value.id).catch(() => undefined)
  state.value = null
}

function close(): void {
  // An archive that is being fetched stays until the server takes it away by itself.
  if (state.value?.state === 'making') stop()
  clearTimeout(timer)
  state.value = null
  emit('close')
}

watch(
  () => props.ids,
  () => (problem.value = ''),
)
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <DialogFrame
    :open="ids !== null"
    :title="`Deliver ${count} ${count === 1 ? 'drawing' : 'drawings'} in one archive`"
    class="w-[440px]"
    data-testid="many"
    @close="close"
  >
    <template v-if="!state">
      <label class="mb-1 block">
        <span class="mb-1 block text-mute-deep">Settings</span>
        <select v-model="named" class="field w-full" aria-label="Settings for all drawings">
          <option v-for="c in choices" :key="c.name" :value="c.name">{{ c.title }}</option>
        </select>
      </label>
      <p class="quiet text-[12px]">Settings are given a name in the Deliver pass.</p>
    </template>
    <template v-else-if="state.state === 'making'">
      <progress
        class="h-2 w-full accent-plum"
        :value="state.done"
        :max="state.total"
        aria-label="Drawings that are done"
      />
      <p class="mt-1.5 truncate text-mute-deep" role="status">
        <span class="number">{{ state.done }}</span> of <span class="number">{{ state.total }}</span>,
        {{ state.name }} …
      </p>
    </template>
    <template v-else-if="state.state === 'ready'">
      <p role="status">
        <span class="number">{{ state.done - state.left.length }}</span>
        {{ state.done - state.left.length === 1 ? 'file is' : 'files are' }} in the archive,
        <span class="number">{{ inBytes(state.size) }}</span>.
      </p>
      <ul
        v-if="state.left.length"
        class="mt-2 max-h-[140px] overflow-auto text-[13px] text-amber-deep"
        aria-label="Left out"
      >
        <li v-for="l in state.left" :key="l.name">{{ l.name }}: {{ l.why }}</li>
      </ul>
    </template>
    <p v-if="problem" class="mt-2 text-brick" role="alert">{{ problem }}</p>
    <div class="mt-5 flex gap-2">
      <button v-if="!state" class="button-strong" @click="start">Make the archive</button>
      <button v-else-if="state.state === 'making'" class="button-strong" @click="stop">Stop</button>
      <a
        v-else-if="state.state === 'ready' && state.done > state.left.length"
        class="button-strong"
        :href="`/api/deliveries/${state.id}/file`"
        download
        >Download ZIP</a
      >
      <button class="button" @click="close">Close</button>
    </div>
  </DialogFrame>
</template>
