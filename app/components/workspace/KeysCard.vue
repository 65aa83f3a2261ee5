<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { CHANGEABLE } from '~/commands/commands'
import { keysCard } from '~/commands/keys-card'
import { useKeysStore } from '~/stores/keys'
import DialogFrame from '~/components/ui/DialogFrame.vue'

const props = defineProps<{
  open: boolean
  /** The keys of the workspace, which can be changed; else those of the Desk. */ changeable?: boolean
}>()
const emit = defineEmits<{ close: [] }>()

const DESK_KEYS: [string, string][] = [
  ['Arrows', 'From drawing to drawing; with Shift choosing on the way'],
  ['Space', 'Choose, or no longer'],
  ['Ctrl + A', 'Choose all'],
  ['Enter', 'Open'],
  ['F2', 'Rename'],
  ['Delete', 'Into the bin'],
  ['/', 'Find by name or shelf'],
  ['Esc', 'Choose none'],
]

const keys = useKeysStore()
const changing = ref(false)
/** The key that is about to get another. */
const asked = ref<string | null>(null)
const told = ref('')

watch(
  () => props.open,
  () => ((changing.value = false), (asked.value = null), (told.value = '')),
)

const rows = computed(() => (props.changeable ? keysCard(keys.keyOf) : DESK_KEYS))

function hear(e: KeyboardEvent): void {
  if (!asked.value || e.key === 'Shift') return
  e.preventDefault()
  e.stopPropagation()
  const was = asked.value
  asked.value = null
  if (e.key === 'Escape' || e.key === 'Tab') return
  if (
    e.key.length !== 1 ||
    e.key === ' ' ||
    e.key === '?' ||
    e.key === '+' ||
    e.key === '-' ||
    e.ctrlKey ||
    e.metaKey ||
    e.altKey
  ) {
    told.value = 'This key cannot be taken: take a letter, a digit or a sign, alone.'
    return
  }
  const moved = keys.change(was, e.key.toLowerCase())
  told.value = moved ? `${moved} has changed places with it.` : ''
}

useEventListener(window, 'keydown', hear, { capture: true })
</script>

<template>
  <DialogFrame :open="open" title="Keys" class="w-[940px]" @close="emit('close')">
    <template v-if="changing">
      <p class="quiet mb-3">
        Choose what to change, then press its new key. With Shift a key does its second thing, as before.
      </p>
      <ul class="grid grid-cols-3 gap-x-6 max-md:grid-cols-2 gap-y-1" aria-label="Keys to change">
        <li v-for="c in CHANGEABLE" :key="c.key" class="flex items-center gap-2.5">
          <button
            class="number h-7 w-[74px] rounded-md border"
            :class="
              asked === c.key
                ? 'border-plum bg-blush'
                : keys.own.has(c.key)
                  ? 'border-plum'
                  : 'border-hair bg-paper hover:border-mute'
            "
            :aria-label="`Key for ${c.does}`"
            @click="((asked = c.key), (told = ''))"
          >
            {{ asked === c.key ? 'press …' : keys.keyOf(c.key).toUpperCase() }}
          </button>
          <span class="truncate">{{ c.does }}</span>
        </li>
      </ul>
      <p class="mt-3 min-h-5 text-mute-deep" role="status">{{ told }}</p>
    </template>
    <dl v-else class="columns-2 gap-8 max-lg:columns-1">
      <div v-for="[key, what] in rows" :key="key" class="mb-1.5 grid break-inside-avoid grid-cols-[165px_1fr]">
        <dt class="number">{{ key }}</dt>
        <dd>{{ what }}</dd>
      </div>
    </dl>
    <p v-if="!changeable" class="quiet mt-2">
      In a drawing, ? shows the keys that are used there; they can be changed there, too.
    </p>
    <div class="mt-4 flex gap-2">
      <button class="button" @click="emit('close')">Close</button>
      <button v-if="changeable" class="button" @click="((changing = !changing), (asked = null))">
        {{ changing ? 'All keys' : 'Change keys …' }}
      </button>
      <button
        v-if="changing && keys.own.size"
        class="button"
        @click="(keys.reset(), (told = 'All keys are as they were.'))"
      >
        As they were
      </button>
    </div>
  </DialogFrame>
</template>
