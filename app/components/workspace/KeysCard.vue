<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{ open: boolean }>()
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
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/30" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="w-[940px] max-w-full rounded-2xl border border-hair bg-raise p-6 shadow-2xl">
        <DialogTitle class="mb-3 text-[16px] font-[650]">Keys</DialogTitle>
        <dl class="columns-2 gap-8">
          <div v-for="[key, what] in KEYS" :key="key" class="mb-1.5 grid break-inside-avoid grid-cols-[165px_1fr]">
            <dt class="number">{{ key }}</dt>
            <dd>{{ what }}</dd>
          </div>
        </dl>
        <button class="button mt-5" @click="emit('close')">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
