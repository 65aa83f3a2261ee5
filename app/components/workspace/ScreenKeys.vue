<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import {
  ArrowLeftRight,
  Check,
  Delete,
  Hand,
  Magnet,
  Maximize,
  Minimize,
  Redo2,
  Ruler,
  Settings2,
  SquareSplitVertical,
  Undo2,
  X,
} from 'lucide-vue-next'
import type { Component } from 'vue'
import { useElementSize } from '@vueuse/core'
import { onBeforeUnmount, ref, watch } from 'vue'
import type { HeldKey } from '~/stores/screen-keys'
import { useDrawingStore } from '~/stores/drawing'
import { useGlance } from '~/workspace/use-glance'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useViewStore } from '~/stores/view'
import { usePlaced } from '~/workspace/use-placed'

/** Keys for the other hand, where there is no keyboard: held as long as a finger is on them, or locked by a tap. */
const emit = defineEmits<{ undo: []; redo: [] }>()

const store = useDrawingStore()
const glance = useGlance()
const view = useViewStore()
const keys = useScreenKeysStore()
const root = ref<HTMLElement>()
const { width } = useElementSize(root, undefined, { box: 'border-box' })

/** A page that is shown whole keeps clear of the keys. */
function keepClear(left: number, right: number): void {
  view.beside = { left, right }
  if (view.fitting && store.drawing) view.showPage(store.drawing.page)
}
watch([width, () => keys.settings.side], ([w, side]) => keepClear(side === 'left' ? w : 0, side === 'right' ? w : 0))

onBeforeUnmount(() => {
  // What is not seen is not held.
  keys.letGo()
  keepClear(0, 0)
})

const HELD: readonly { id: HeldKey; title: string; help: string; icon: Component }[] = [
  { id: 'shift', title: 'Straight', help: 'Level, upright or square; adds to what is chosen', icon: Ruler },
  { id: 'alt', title: 'One side', help: 'Acts on one side or one handle alone', icon: SquareSplitVertical },
  { id: 'free', title: 'Free', help: 'Nothing snaps', icon: Magnet },
  { id: 'pan', title: 'Move page', help: 'Drags move the page', icon: Hand },
]
const PRESSED: readonly { key: string; title: string; help: string; icon: Component }[] = [
  { key: 'Enter', title: 'Finish', help: 'Finishes what is being laid', icon: Check },
  { key: 'Backspace', title: 'Back', help: 'Takes the last node back, or what is chosen away', icon: Delete },
  { key: 'Escape', title: 'Drop', help: 'Drops what is under the hand', icon: X },
]

/** A shorter touch locks a key until the next one, ms. */
const TAP = 280
let since = 0
let wasHeld = false

function hold(id: HeldKey, e: PointerEvent): void {
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
  since = e.timeStamp
  wasHeld = keys.held[id]
  keys.held[id] = true
}

function release(id: HeldKey, e: PointerEvent): void {
  keys.held[id] = e.timeStamp - since < TAP ? !wasHeld : false
}

/** As if the key of a keyboard had been pressed on the drawing. */
function press(key: string): void {
  const drawing = document.querySelector<HTMLElement>('[data-testid="canvas"]')
  drawing?.focus({ preventScroll: true })
  for (const type of ['keydown', 'keyup'])
    drawing?.dispatchEvent(new KeyboardEvent(type, { key, bubbles: true, cancelable: true }))
}

const BUTTON =
  'flex h-11 w-[52px] touch-none flex-col items-center justify-center gap-0.5 rounded-[10px] border text-[10px] leading-[11px] tracking-[-0.02em]'

const { anchor, panel, styles } = usePlaced('left-end')
</script>

<template>
  <div
    ref="root"
    class="absolute top-1/2 z-10 grid -translate-y-1/2 gap-1 rounded-2xl border border-hair bg-panel/90 p-1 [@media(height<920px)]:grid-cols-2"
    :class="keys.settings.side === 'left' ? 'left-1.5' : 'right-1.5'"
    role="group"
    aria-label="Keys for the other hand"
    data-testid="screen-keys"
    @contextmenu.prevent
  >
    <button
      v-for="k in HELD"
      :key="k.id"
      :class="[BUTTON, keys.held[k.id] ? 'border-plum bg-plum text-white' : 'border-hair bg-raise']"
      :aria-pressed="keys.held[k.id]"
      :title="`${k.help}. Hold it, or tap to lock it`"
      data-held
      @pointerdown.prevent="hold(k.id, $event)"
      @pointerup="release(k.id, $event)"
      @pointercancel="keys.held[k.id] = false"
      @keydown.enter.prevent="keys.held[k.id] = !keys.held[k.id]"
      @keydown.space.prevent="keys.held[k.id] = !keys.held[k.id]"
    >
      <component :is="k.icon" :size="16" :stroke-width="1.7" />{{ k.title }}
    </button>
    <button
      v-for="k in PRESSED"
      :key="k.key"
      :class="[BUTTON, 'border-hair bg-raise']"
      :title="k.help"
      @click="press(k.key)"
    >
      <component :is="k.icon" :size="16" :stroke-width="1.7" />{{ k.title }}
    </button>
    <button :class="[BUTTON, 'border-hair bg-raise']" title="Takes the last step back" @click="emit('undo')">
      <Undo2 :size="16" :stroke-width="1.7" />Undo
    </button>
    <button :class="[BUTTON, 'border-hair bg-raise']" title="Brings it again" @click="emit('redo')">
      <Redo2 :size="16" :stroke-width="1.7" />Redo
    </button>
    <button
      :class="[BUTTON, 'border-hair bg-raise']"
      title="The whole page; held: for as long"
      @pointerdown="glance.begin('whole')"
      @pointerup="glance.end('whole')"
      @pointerleave="glance.end('whole')"
      @click="$event.detail || view.showPage(store.drawing!.page)"
    >
      <Maximize :size="16" :stroke-width="1.7" />Whole
    </button>
    <button
      :class="[BUTTON, 'border-hair bg-raise']"
      title="The page at its final size; held: for as long"
      @pointerdown="glance.begin('final', 1)"
      @pointerup="glance.end('final')"
      @pointerleave="glance.end('final')"
      @click="$event.detail || view.showPage(store.drawing!.page, 1)"
    >
      <Minimize :size="16" :stroke-width="1.7" />Final size
    </button>
    <Popover class="relative">
      <PopoverButton
        ref="anchor"
        :class="[BUTTON, 'border-transparent text-mute-deep']"
        title="What pen and fingers do"
      >
        <Settings2 :size="15" :stroke-width="1.7" />Hands
      </PopoverButton>
      <PopoverPanel ref="panel" :style="styles" class="pop grid w-[236px] gap-2 p-3">
        <label class="grid gap-1"
          ><span class="quiet">One finger on the drawing</span>
          <select v-model="keys.settings.finger" class="field" aria-label="One finger">
            <option value="as the pen">moves the page once a pen was seen</option>
            <option value="moves">moves the page</option>
            <option value="draws">draws</option>
          </select></label
        >
        <label class="grid gap-1"
          ><span class="quiet">The pen's second button</span>
          <select v-model="keys.settings.penButton" class="field" aria-label="Second button of the pen">
            <option value="moves">moves the page</option>
            <option value="nothing">does nothing</option>
          </select></label
        >
        <label class="grid gap-1"
          ><span class="quiet">The pen's other end</span>
          <select v-model="keys.settings.penEnd" class="field" aria-label="Other end of the pen">
            <option value="scrapes">scrapes, in Lines</option>
            <option value="nothing">does nothing</option>
          </select></label
        >
        <button
          class="button flex items-center justify-center gap-2"
          @click="keys.settings.side = keys.settings.side === 'left' ? 'right' : 'left'"
        >
          <ArrowLeftRight :size="14" /> To the other side
        </button>
        <button class="button" @click="keys.shown = false">Put these keys away</button>
      </PopoverPanel>
    </Popover>
  </div>
</template>
