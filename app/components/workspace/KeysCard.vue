<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useEventListener } from '@vueuse/core'
import { ref, watch } from 'vue'
import { CHANGEABLE, useKeysStore } from '~/stores/keys'

const props = defineProps<{
  open: boolean
  /** The keys of the workspace, which can be changed; else those of the Desk. */ changeable?: boolean
}>()
const emit = defineEmits<{ close: [] }>()

const KEYS: [string, string][] = [
  ['1 – 5', 'Go to a pass'],
  ['Q W E R T Y', 'Instruments by place, with Shift the second row; held: only while held'],
  ['Shift, Alt', 'Constrain; act on one side or from the middle'],
  ['Ctrl, held', 'No snapping; with the Caliper: nodes and handles'],
  ['Space + drag', 'Move the page (also middle drag)'],
  ['Space + Shift + drag', 'Turn the page'],
  ['Wheel, + and -', 'Zoom, the wheel at the pointer'],
  ['Two fingers', 'Move, zoom and turn the page'],
  ['0', 'Whole page'],
  ['9', 'Final size'],
  [',  .', 'Turn the page left, right; with Shift by one degree'],
  ['/', 'Turn the page upright'],
  ['G, Shift + G', 'Next, previous thing to look at in Proof'],
  ['M', 'See the page mirrored, to judge the drawing'],
  ['H, held', 'Hide the sketch; with Shift: see it alone'],
  ['B, held', 'The drawing before this visit to the pass; with Shift: with even weight'],
  ['X', 'Ink or bare centrelines'],
  ['F', 'Flip ends'],
  ['Shift + F', 'Flip sides'],
  ['[  ]', 'Lighter, heavier'],
  ['Shift + A', 'With the Caliper: all stops of the chosen lines'],
  ['N, Shift + N', 'Next, previous profile; with Trim: the line below'],
  ['Shift + C, V', 'Copy a weight, paste it'],
  ['Arrows', 'Nudge nodes, stops, the light or an axis; with Shift farther'],
  ['J, K', 'Choose the next, the previous line of the stack; with Shift besides'],
  ['Ctrl + arrows', 'Choose the nearest line that way; with Shift besides'],
  ['P', 'A hand that keys move: arrows (Shift: far, Ctrl: little), Space presses while held'],
  ['O, Shift + O', 'That hand to the next, the previous mark or line'],
  ['S, Esc', 'To the settings of the instrument, and back to the drawing'],
  ['U, D', 'One up, one down in the layer; with Shift to front, to back'],
  ['Delete', 'Remove what is chosen'],
  ['?', 'These keys'],
  ['Enter', 'Finish'],
  ['Esc', 'Drop'],
  ['Backspace', 'Take the last node back'],
  ['Ctrl + Z', 'Undo'],
  ['Ctrl + Shift + Z', 'Redo'],
  ['Ctrl + C, V, D, A', 'Copy, paste, duplicate, choose all'],
]

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

/** Keys as they are now: single letters and digits of a row. */
const shown = (row: string): string =>
  row.replace(/(?<![A-Za-z])[A-Z0-9[\]](?![A-Za-z])/g, (k) => keys.keyOf(k.toLowerCase()).toUpperCase())

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
  <Dialog :open="open" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/30" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="w-[940px] max-w-full rounded-2xl border border-hair bg-raise p-6 shadow-2xl">
        <DialogTitle class="mb-3 text-[16px] font-[650]">Keys</DialogTitle>
        <template v-if="changing">
          <p class="quiet mb-3">
            Choose what to change, then press its new key. With Shift a key does its second thing, as before.
          </p>
          <ul class="grid grid-cols-3 gap-x-6 gap-y-1" aria-label="Keys to change">
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
        <dl v-else class="columns-2 gap-8">
          <div
            v-for="[key, what] in changeable ? KEYS : DESK_KEYS"
            :key="key"
            class="mb-1.5 grid break-inside-avoid grid-cols-[165px_1fr]"
          >
            <dt class="number">{{ changeable ? shown(key) : key }}</dt>
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
      </DialogPanel>
    </div>
  </Dialog>
</template>
