<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDeskStore } from '~/stores/desk'
import { useSeatsStore } from '~/stores/seats'

/** What can be done with the drawings that are chosen. */
const props = defineProps<{ ids: readonly string[] }>()
const emit = defineEmits<{ none: []; deliver: [] }>()
const desk = useDeskStore()
const seats = useSeatsStore()
const naming = ref(false)
const name = ref('')

const cards = computed(() => (desk.cards ?? []).filter((c) => props.ids.includes(c.id)))

function onShelf(e: Event): void {
  const select = e.target as HTMLSelectElement
  const { value } = select
  select.value = ''
  if (value === 'new') naming.value = true
  else if (value) void desk.shelve(props.ids, value === 'none' ? null : value)
}

function toSeat(e: Event): void {
  const select = e.target as HTMLSelectElement
  const seat = seats.of.get(select.value)
  select.value = ''
  if (seat) void desk.handOver(props.ids, seat)
}

async function make(): Promise<void> {
  if (name.value.trim()) await desk.newShelf(name.value.trim(), props.ids)
  naming.value = false
  name.value = ''
}
</script>

<template>
  <div
    class="sticky bottom-5 z-20 mx-auto mt-6 flex w-fit max-w-full flex-wrap items-center gap-2.5 rounded-2xl border border-hair bg-raise px-4 py-2.5 shadow-2xl"
    role="toolbar"
    aria-label="Chosen drawings"
    data-testid="chosen-bar"
  >
    <b class="font-[650]"
      ><span class="number">{{ ids.length }}</span> chosen</b
    >
    <form v-if="naming" class="flex gap-1.5" @submit.prevent="make">
      <input
        v-model="name"
        class="field w-[170px]"
        placeholder="Name of the new shelf"
        aria-label="Name of the new shelf"
        maxlength="60"
        @keydown.esc.stop="naming = false"
      />
      <button class="button" type="submit">Lay there</button>
    </form>
    <select v-else class="field w-[132px]" aria-label="Lay the chosen drawings on a shelf" @change="onShelf">
      <option value="">Lay on a shelf …</option>
      <option v-for="s in desk.shelves" :key="s.id" :value="s.id">{{ s.name }}</option>
      <option v-if="cards.some((c) => c.shelf)" value="none">On no shelf</option>
      <option value="new">New shelf …</option>
    </select>
    <select
      v-if="seats.several"
      class="field w-[132px]"
      aria-label="Hand the chosen drawings over to a seat"
      @change="toSeat"
    >
      <option value="">Hand over to …</option>
      <option v-for="s in seats.all" :key="s.id" :value="s.id">{{ s.name }}</option>
    </select>
    <button class="button" @click="emit('deliver')">Deliver as zip …</button>
    <button class="button" title="One file with these drawings and all their history" @click="desk.backUp(ids)">
      Back up
    </button>
    <button class="button !text-brick" @click="desk.intoBin(ids)">Into the bin</button>
    <button class="quiet underline decoration-dotted hover:text-ink" title="Esc" @click="emit('none')">
      Choose none
    </button>
  </div>
</template>
