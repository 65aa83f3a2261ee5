<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { StudioKind, StudioPreview, StudioState } from '#shared/studio-file'
import { picks, STUDIO_KINDS } from '#shared/studio-file'
import DialogFrame from '~/components/ui/DialogFrame.vue'
import { lookAtStudio, studioAddress, takeOfStudio } from '~/network/seat-api'
import { seatTaken } from '~/network/seat-taken'

/** All that belongs to a seat, or what is picked of it, to one file; and in again, after a look at what that would do. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const picker = ref<HTMLInputElement>()
const file = shallowRef<File | null>(null)
const preview = shallowRef<StudioPreview | null>(null)
const taken = ref<boolean[]>([])
const kinds = ref<StudioKind[]>([...STUDIO_KINDS])
const problem = ref('')
const busy = ref(false)

const WORDS: Record<StudioKind, string> = {
  nibs: 'Nibs',
  profiles: 'Profiles',
  palettes: 'Palettes',
  deliveries: 'Delivery settings',
  keys: 'Keys',
  templates: 'Templates',
}
const STATES: Record<StudioState, { text: string; colour: string }> = {
  new: { text: 'new here', colour: 'text-moss' },
  same: { text: 'here just so', colour: 'text-mute-deep' },
  changed: { text: 'written over what is here', colour: 'text-amber-deep' },
  clash: { text: 'beside the one of that name', colour: 'text-amber-deep' },
}

const things = computed(() => (preview.value?.things ?? []).map((t, i) => ({ ...t, i })))
const groups = computed(() =>
  STUDIO_KINDS.map((kind) => ({ kind, things: things.value.filter((t) => t.kind === kind) })).filter(
    (g) => g.things.length,
  ),
)
const count = computed(() => taken.value.filter(Boolean).length)
const address = computed(() => studioAddress(seatTaken() ?? '', kinds.value))

watch(
  () => props.open,
  () => {
    preview.value = file.value = null
    problem.value = ''
  },
)

async function attempt(work: () => Promise<void>): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch (e) {
    problem.value = (e as Error).message
  } finally {
    busy.value = false
  }
}

function chosen(e: Event): void {
  const input = e.target as HTMLInputElement
  const [first] = input.files ?? []
  input.value = ''
  if (!first) return
  void attempt(async () => {
    preview.value = await lookAtStudio(seatTaken()!, first)
    file.value = first
    // What would write over something is taken only when asked for.
    taken.value = preview.value.things.map((t) => t.state === 'new' || t.state === 'clash')
  })
}

const bringIn = (): Promise<void> =>
  attempt(async () => {
    await takeOfStudio(seatTaken()!, file.value!, picks(taken.value))
    // What belongs to a seat is there from the start of a page.
    globalThis.location.reload()
  })
</script>

<template>
  <DialogFrame :open="open" title="Studio file" class="w-[500px]" data-testid="studio" @close="emit('close')">
    <template v-if="!preview">
      <p class="quiet mb-3">
        All that makes this your place to ink, as one file: to take it to another Desk, or to give it to somebody.
      </p>
      <fieldset class="mb-4">
        <legend class="mb-1 text-mute-deep">What goes along</legend>
        <div class="grid grid-cols-2 gap-x-4">
          <label v-for="kind in STUDIO_KINDS" :key="kind" class="flex min-h-8 items-center gap-2.5">
            <input v-model="kinds" type="checkbox" class="h-4 w-4 accent-plum" :value="kind" />{{ WORDS[kind] }}
          </label>
        </div>
      </fieldset>
      <p v-if="!seatTaken()" class="mb-3 text-amber-deep">Sit down first: choose a seat on the Desk.</p>
      <div v-else class="flex flex-wrap gap-2">
        <a v-if="kinds.length" class="button-strong" :href="address" download>Save the file</a>
        <button v-else class="button-strong" disabled>Save the file</button>
        <button class="button" :disabled="busy" @click="picker?.click()">Bring one in …</button>
        <button class="button" @click="emit('close')">Close</button>
      </div>
    </template>
    <template v-else>
      <p class="quiet mb-3">
        {{
          things.length
            ? `From ${preview.from}. Nothing is brought in until you say so.`
            : `The file of ${preview.from} holds nothing.`
        }}
      </p>
      <div class="mb-4 max-h-[48vh] overflow-y-auto">
        <section v-for="g in groups" :key="g.kind" class="mb-2.5" :aria-label="WORDS[g.kind]">
          <h3 class="mb-0.5 text-[12px] font-[650]">{{ WORDS[g.kind] }}</h3>
          <label v-for="t in g.things" :key="t.i" class="flex min-h-7 items-center gap-2.5">
            <input
              v-model="taken[t.i]"
              type="checkbox"
              class="h-4 w-4 shrink-0 accent-plum"
              :disabled="t.state === 'same'"
            />
            <span class="truncate">{{ t.name }}</span>
            <span class="ml-auto shrink-0 text-[12px]" :class="STATES[t.state].colour">{{ STATES[t.state].text }}</span>
          </label>
        </section>
      </div>
      <div class="flex gap-2">
        <button class="button-strong" :disabled="busy || !count" @click="bringIn">
          Bring in <span class="number">{{ count }}</span>
        </button>
        <button class="button" @click="emit('close')">Bring nothing in</button>
      </div>
    </template>
    <p v-if="problem" class="mt-3 text-brick" role="alert">{{ problem }}</p>
    <input
      ref="picker"
      type="file"
      accept=".zip,application/zip"
      class="hidden"
      data-testid="studio-file"
      @change="chosen"
    />
  </DialogFrame>
</template>
