<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PrintInk } from '#core/model/model'
import { printInkOf } from '#core/formats/pdf/print-ink'
import NumberField from '~/components/ui/NumberField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useDeliveryStore } from '~/stores/delivery'
import LeavingField from './LeavingField.vue'

/** How a PDF is made: what goes on beyond the page, marks, colours, a page for each ink. */
const store = useDrawingStore()
const delivery = useDeliveryStore()
const pdf = computed(() => delivery.settings.pdf)
const inks = computed(() => store.drawing!.inks)
const chosen = ref('')
const ink = computed(() => inks.value.find((i) => i.id === chosen.value) ?? inks.value[0]!)
const print = computed(() => printInkOf(ink.value))

const CHANNELS = [
  { id: 'c', title: 'Cyan' },
  { id: 'm', title: 'Magenta' },
  { id: 'y', title: 'Yellow' },
  { id: 'k', title: 'Black' },
] as const

function set(channel: keyof PrintInk, v: number): void {
  const id = ink.value.id
  const next = { ...print.value, [channel]: Math.min(100, Math.max(0, v)) }
  store.edit(`${ink.value.name} as it is printed`, (draft) => {
    const found = draft.inks.find((i) => i.id === id)
    if (found) found.print = next
  })
}

function asColour(): void {
  const id = ink.value.id
  store.edit(`${ink.value.name} printed as its colour`, (draft) => {
    const found = draft.inks.find((i) => i.id === id)
    if (found) delete found.print
  })
}
</script>

<template>
  <div class="grid gap-1.5">
    <label v-if="delivery.preview?.sheets.length" class="flex items-center gap-2">
      Page seen
      <select v-model.number="delivery.sheet" class="field max-w-[260px]" data-testid="sheet">
        <option v-for="(s, i) in delivery.preview.sheets" :key="s" :value="i">{{ i + 1 }}: {{ s }}</option>
      </select>
    </label>
    <div class="flex flex-wrap items-center gap-x-3.5 gap-y-1.5">
      <NumberField
        label="Bleed"
        unit="mm"
        :digits="1"
        :value="pdf.bleed"
        @keep="(v) => (pdf.bleed = Math.min(50, Math.max(0, v)))"
      />
      <TickField v-model="pdf.marks" title="Where the page is cut">Crop marks</TickField>
      <TickField v-model="pdf.separate" title="Each in black, less what lies above it">One ink a page</TickField>
      <button
        v-if="pdf.colours === 'print' && ink.print"
        class="quiet underline decoration-dotted hover:text-ink"
        :title="`${ink.name} printed as its colour has it`"
        @click="asColour"
      >
        As its colour
      </button>
    </div>
    <div class="flex flex-wrap items-center gap-1.5">
      <LeavingField v-if="!pdf.separate && pdf.colours === 'screen'" />
      <select
        v-model="pdf.colours"
        class="field min-w-0 flex-[0_1_144px]"
        aria-label="Colours of the PDF"
        data-testid="pdf-colours"
      >
        <option value="screen">RGB, for screens</option>
        <option value="print">CMYK, for print</option>
      </select>
      <template v-if="pdf.colours === 'print'">
        <select v-model="chosen" class="field min-w-0 flex-[0_1_84px]" aria-label="Ink to set for print">
          <option v-for="i in inks" :key="i.id" :value="i.id === inks[0]!.id ? '' : i.id">{{ i.name }}</option>
        </select>
        <label v-for="c in CHANNELS" :key="c.id" class="flex shrink-0 items-center gap-1" :title="`${c.title}, %`">
          <span class="number text-mute-deep">{{ c.id.toUpperCase() }}</span>
          <input
            class="field number w-[38px] !px-1 text-right"
            :value="print[c.id]"
            inputmode="numeric"
            :aria-label="`${c.title} of ${ink.name}, percent`"
            @change="set(c.id, Number.parseFloat(($event.target as HTMLInputElement).value) || 0)"
          />
        </label>
      </template>
    </div>
  </div>
</template>
