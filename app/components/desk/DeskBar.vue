<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { ref } from 'vue'
import { LARGEST_SIDE, PAGE_CHOICES, SMALLEST_SIDE } from '#core/model/page-sizes'
import NumberField from '~/components/ui/NumberField.vue'
import SeatDot from './SeatDot.vue'
import SessionMenu from './SessionMenu.vue'
import { useDeskStore } from '~/stores/desk'
import { useSeatsStore } from '~/stores/seats'
import type { useDeskStart } from '~/workspace/use-desk-start'
import { usePlaced } from '~/workspace/use-placed'

/** The bar of the Desk: what a new drawing begins as, files in, backups. */
const props = defineProps<{ begin: ReturnType<typeof useDeskStart> }>()
const emit = defineEmits<{ keys: []; seats: []; studio: [] }>()

const desk = useDeskStore()
const seats = useSeatsStore()
const { page, own, templates, stopReading, start, bringIn } = props.begin
const picker = ref<HTMLInputElement>()
const MORE = [
  {
    title: 'Back up the whole Desk',
    help: 'One file with every drawing and all its history',
    run: () => desk.backUp(),
  },
  {
    title: 'Bring a backup in …',
    help: 'Checked first; nothing here is written over',
    run: () => picker.value?.click(),
  },
  {
    title: 'Studio file …',
    help: 'Your nibs, profiles, palettes, keys and templates, out or in',
    run: () => emit('studio'),
  },
  {
    title: 'Seats …',
    help: 'For several people at one Desk: each has things of their own',
    run: () => emit('seats'),
  },
]
const GROUPS = [
  { kind: 'label', title: 'Packets and labels' },
  { kind: 'paper', title: 'Paper' },
] as const

const side = (v: number): number => Math.min(LARGEST_SIDE, Math.max(SMALLEST_SIDE, v))

function picked(e: Event): void {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void bringIn(file)
  input.value = ''
}

defineExpose({ pick: () => picker.value?.click() })

const { anchor, panel, styles } = usePlaced('bottom-end')
</script>

<template>
  <header
    class="sticky top-0 z-10 flex min-h-[52px] items-center gap-3 border-b border-hair bg-panel px-6 max-md:flex-wrap max-md:gap-2 max-md:px-3 max-md:py-1.5"
  >
    <img src="/mark.svg" alt="" class="h-6 w-6" />
    <h1 class="text-[15px] font-[650]">Desk</h1>
    <span class="quiet ml-auto truncate" role="status">{{ desk.busy }}</span>
    <button v-if="stopReading" class="button" @click="stopReading()">Stop</button>
    <button class="quiet shrink-0 underline decoration-dotted hover:text-ink" @click="emit('keys')">? keys</button>
    <Menu as="div" class="relative">
      <MenuButton ref="anchor" class="button" :disabled="!!desk.busy">More</MenuButton>
      <MenuItems ref="panel" :style="styles" class="pop w-[290px] p-1">
        <MenuItem v-for="item in MORE" :key="item.title" v-slot="{ active }">
          <button
            class="w-full rounded-lg px-2.5 py-1.5 text-left"
            :class="active ? 'bg-panel' : ''"
            @click="item.run()"
          >
            <b class="block font-[650]">{{ item.title }}</b><span class="quiet text-[12px]">{{ item.help }}</span>
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
    <button
      v-if="seats.several"
      class="button flex max-w-[180px] items-center gap-2"
      title="Whose seat this is; click to change it"
      data-testid="seat"
      @click="emit('seats')"
    >
      <SeatDot :colour="seats.mine?.colour ?? '#d6cdbf'" /><span class="truncate">{{
        seats.mine?.name ?? 'Sit down'
      }}</span>
    </button>
    <SessionMenu />
    <button class="button" :disabled="!!desk.busy" @click="picker?.click()">Bring in a file</button>
    <template v-if="page === 'own'">
      <NumberField label="Width" unit="" :digits="1" :value="own.width" @keep="(v) => (own.width = side(v))" />
      <NumberField label="Height" unit="mm" :digits="1" :value="own.height" @keep="(v) => (own.height = side(v))" />
    </template>
    <label class="flex items-center gap-2">
      <span v-if="page !== 'own'" class="quiet max-md:hidden">Page</span>
      <select
        v-model="page"
        class="field max-w-[256px] max-md:max-w-[150px]"
        aria-label="Page of a new drawing"
        data-testid="new-page"
      >
        <optgroup v-if="templates.length" label="Templates">
          <option v-for="t in templates" :key="t.id" :value="`template:${t.id}`">{{ t.name }}</option>
        </optgroup>
        <optgroup v-for="g in GROUPS" :key="g.kind" :label="g.title">
          <option v-for="p in PAGE_CHOICES.filter((c) => c.kind === g.kind)" :key="p.id" :value="p.id">
            {{ p.title }}, {{ p.width }} x {{ p.height }} mm
          </option>
        </optgroup>
        <option value="own">Own size …</option>
      </select>
    </label>
    <button class="button-strong" :disabled="!!desk.busy" @click="start">New drawing</button>
    <input
      ref="picker"
      type="file"
      accept="image/png,image/jpeg,image/webp,image/svg+xml,.svg,.zip"
      class="hidden"
      data-testid="desk-file"
      @change="picked"
    />
  </header>
</template>
