<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Seat } from '#shared/seats'
import { LONGEST_SEAT_NAME } from '#shared/seats'
import DialogFrame from '~/components/ui/DialogFrame.vue'
import NameField from '~/components/ui/NameField.vue'
import { useSeatsStore } from '~/stores/seats'
import SeatDot from './SeatDot.vue'

/** Who works at this Desk: whose seat it is here, and seats that are set up, named and taken away. */
defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const seats = useSeatsStore()
const name = ref('')
/** The seat that is about to be taken away. */
const going = ref<string | null>(null)
/** Where nobody sits yet, choosing comes first. */
const asks = computed(() => seats.several && !seats.mine)

async function add(): Promise<void> {
  if (!name.value.trim()) return
  if (await seats.add(name.value.trim(), seats.freeColour)) name.value = ''
}

async function remove(seat: Seat): Promise<void> {
  going.value = null
  await seats.remove(seat.id)
}

const drawings = (n: number): string => (n === 1 ? '1 drawing' : `${n} drawings`)
</script>

<template>
  <DialogFrame
    :open="open"
    :title="asks ? 'Who sits here?' : 'Seats at this Desk'"
    class="w-[500px]"
    data-testid="seats"
    @close="emit('close')"
  >
    <p class="quiet mb-3">
      A seat has its own nibs, profiles, palettes, keys and choices, on every machine that opens this Desk. There are no
      passwords: anybody may sit anywhere.
    </p>
    <ul class="mb-3 grid max-h-[46vh] gap-1 overflow-y-auto" aria-label="Seats">
      <li
        v-for="seat in seats.all"
        :key="seat.id"
        class="flex min-h-11 items-center gap-2 rounded-lg px-2"
        :class="seat.id === seats.taken ? 'bg-blush' : 'hover:bg-panel'"
      >
        <label class="relative grid h-6 w-6 shrink-0 place-items-center" :title="`Colour of ${seat.name}`">
          <SeatDot :colour="seat.colour" class="!h-4 !w-4" />
          <input
            type="color"
            class="absolute inset-0 h-full w-full cursor-pointer opacity-0"
            :value="seat.colour"
            :aria-label="`Colour of ${seat.name}`"
            @change="seats.alter(seat.id, { colour: ($event.target as HTMLInputElement).value })"
          />
        </label>
        <NameField
          class="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 py-0.5 hover:border-hair focus:border-hair focus:bg-paper"
          :value="seat.name"
          :label="`Name of the seat ${seat.name}`"
          :longest="LONGEST_SEAT_NAME"
          @keep="(to) => seats.alter(seat.id, { name: to })"
        />
        <span class="quiet number shrink-0 text-[12px]">{{ drawings(seat.drawings) }}</span>
        <template v-if="going === seat.id">
          <button class="button !py-0.5 !text-brick" @click="remove(seat)">Take away</button>
          <button class="button !py-0.5" @click="going = null">Keep</button>
        </template>
        <template v-else>
          <span v-if="seat.id === seats.taken" class="shrink-0 px-2 text-plum">You sit here</span>
          <button v-else class="button shrink-0 !py-0.5" @click="seats.take(seat.id)">Sit here</button>
          <button
            v-if="seats.several && seat.id !== seats.taken"
            class="quiet h-6 w-6 shrink-0 rounded hover:text-brick"
            :aria-label="`Take the seat ${seat.name} away`"
            title="Take this seat away; its drawings stay"
            @click="going = seat.id"
          >
            ×
          </button>
        </template>
      </li>
    </ul>
    <p v-if="going" class="mb-3 text-amber-deep" role="status">
      Its nibs, profiles, palettes, keys and choices go with the seat; its drawings stay on the Desk.
    </p>
    <form class="flex items-center gap-2" @submit.prevent="add">
      <SeatDot :colour="seats.freeColour" class="!h-4 !w-4" />
      <input
        v-model="name"
        class="field min-w-0 flex-1"
        placeholder="Name of a new seat"
        aria-label="Name of a new seat"
        :maxlength="LONGEST_SEAT_NAME"
      />
      <button class="button" type="submit" :disabled="!name.trim()">Set it up</button>
    </form>
    <p v-if="seats.problem" class="mt-2 text-brick" role="alert">{{ seats.problem }}</p>
    <div class="mt-5 flex justify-end"><button class="button" @click="emit('close')">Close</button></div>
  </DialogFrame>
</template>
