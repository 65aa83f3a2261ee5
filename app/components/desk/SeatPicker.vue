<script setup lang="ts">
import { computed } from 'vue'
import { useSeatsStore } from '~/stores/seats'
import SeatDot from './SeatDot.vue'

/** Some seats, each ticked or not; `but` are those that cannot be. */
const props = defineProps<{ but?: ReadonlySet<string> }>()
const picked = defineModel<string[]>({ required: true })
const seats = useSeatsStore()
const open = computed(() => seats.all.filter((s) => !props.but?.has(s.id)))
const isAll = computed(() => open.value.length > 0 && open.value.every((s) => picked.value.includes(s.id)))

const toggleAll = (): void => void (picked.value = isAll.value ? [] : open.value.map((s) => s.id))
</script>

<template>
  <fieldset>
    <legend class="mb-1 flex w-full items-center text-mute-deep">
      To
      <button v-if="open.length > 1" type="button" class="ml-auto underline decoration-dotted" @click="toggleAll">
        {{ isAll ? 'Nobody' : 'Everybody' }}
      </button>
    </legend>
    <div class="grid max-h-[34vh] grid-cols-2 gap-x-4 overflow-y-auto">
      <label v-for="seat in open" :key="seat.id" class="flex min-h-8 min-w-0 items-center gap-2">
        <input v-model="picked" type="checkbox" class="h-4 w-4 shrink-0 accent-plum" :value="seat.id" />
        <SeatDot :colour="seat.colour" /><span class="truncate">{{ seat.name }}</span>
      </label>
    </div>
  </fieldset>
</template>
