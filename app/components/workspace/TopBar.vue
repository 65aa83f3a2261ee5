<script setup lang="ts">
import { Redo2, Undo2 } from 'lucide-vue-next'
import { useDrawingStore } from '~/stores/drawing'
import { useDroppedStore } from '~/stores/dropped'
import { useKeysStore } from '~/stores/keys'
import { useProofStore } from '~/stores/proof'
import { useViewStore } from '~/stores/view'
import { PASSES } from '~/catalogue/passes'
import NameField from '~/components/ui/NameField.vue'
import HistoryMenu from './HistoryMenu.vue'
import SaveState from './SaveState.vue'

const emit = defineEmits<{ undo: []; redo: [] }>()

const store = useDrawingStore()
const view = useViewStore()
const proof = useProofStore()
const keys = useKeysStore()
const dropped = useDroppedStore()

const rename = (name: string): void =>
  store.edit(`Rename to ${name}`, (draft) => {
    draft.name = name
  })
const keepsName = (): void => void (store.notice = 'A drawing needs a name, so it kept the one it had.')
</script>

<template>
  <header
    class="low:h-11 touch:h-[52px] flex h-[52px] items-center gap-3 border-b border-hair bg-panel px-3.5 max-lg:gap-2 max-lg:px-2 max-sm:h-auto! max-sm:flex-wrap max-sm:py-1"
  >
    <h1 class="sr-only">{{ store.drawing?.name }}</h1>
    <NuxtLink to="/" class="quiet min-w-6 shrink-0 rounded px-1 py-1 text-center hover:text-ink" aria-label="← Desk"
      >←<span class="max-md:hidden"> Desk</span></NuxtLink
    >
    <NameField
      v-if="store.drawing"
      class="field-sizing-content w-[150px] max-w-[260px] min-w-[96px] shrink max-lg:max-w-[150px] max-lg:min-w-0 max-lg:flex-1 truncate rounded border border-transparent bg-transparent px-1.5 py-0.5 text-[15px] font-[650] hover:border-hair"
      :value="store.drawing.name"
      label="Name of the drawing"
      :longest="120"
      @keep="rename"
      @empty="keepsName"
    />
    <nav class="mx-auto flex items-center max-sm:order-last max-sm:w-full max-sm:justify-between" aria-label="Passes">
      <template v-for="({ id: pass, title }, i) in PASSES" :key="pass">
        <span v-if="i" class="h-px w-3.5 bg-[#c6bba9] max-xl:w-1 max-lg:hidden" />
        <button
          class="flex items-center gap-[7px] rounded-full px-3 py-1.5 font-[550] max-xl:px-2 max-lg:px-1.5"
          :aria-label="`${i + 1} ${title}`"
          :class="view.pass === pass ? 'bg-ink text-white' : 'text-mute hover:text-ink'"
          :aria-current="view.pass === pass ? 'step' : undefined"
          :title="`${title} (${keys.keyOf(String(i + 1)).toUpperCase()})${proof.done[pass] ? ': nothing left to look at' : ''}`"
          @click="view.pass = pass"
        >
          <span
            class="number h-[18px] w-[18px] rounded-full text-center text-[11px] leading-[18px] font-semibold"
            :class="
              view.pass === pass
                ? 'bg-plum text-white'
                : proof.done[pass]
                  ? 'bg-[#dfe6d4] text-[#3a5530]'
                  : 'bg-[#e4dccf] text-mute-deep'
            "
            >{{ i + 1 }}</span
          >
          <span :class="view.pass === pass ? '' : 'max-lg:hidden'">{{ title }}</span>
        </button>
      </template>
    </nav>
    <SaveState />
    <button
      class="button shrink-0 max-lg:px-2"
      :disabled="!store.canUndo && !dropped.isNext"
      :title="keys.titled('Undo', 'undo')"
      aria-label="Undo"
      @click="emit('undo')"
    >
      <Undo2 :size="16" class="lg:hidden" /><span class="max-lg:hidden">Undo</span>
    </button>
    <button
      class="button shrink-0 max-lg:px-2"
      :disabled="!store.canRedo && !dropped.again"
      :title="keys.titled('Redo', 'redo')"
      aria-label="Redo"
      @click="emit('redo')"
    >
      <Redo2 :size="16" class="lg:hidden" /><span class="max-lg:hidden">Redo</span>
    </button>
    <HistoryMenu />
  </header>
</template>
