<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { DrawingCard } from '#shared/desk'
import DialogFrame from '~/components/ui/DialogFrame.vue'
import { beginTask } from '~/network/seat-api'
import { useSeatsStore } from '~/stores/seats'
import SeatPicker from './SeatPicker.vue'

/** A drawing is handed to seats, a copy each, as a task that can be looked at on one page. */
const props = defineProps<{ card: DrawingCard | null }>()
const emit = defineEmits<{ close: [] }>()
const seats = useSeatsStore()
const router = useRouter()
const name = ref('')
const picked = ref<string[]>([])
const guided = ref(false)
const problem = ref('')
const busy = ref(false)

watch(
  () => props.card,
  (card) => {
    name.value = card?.name ?? ''
    picked.value = seats.all.filter((s) => s.id !== seats.taken).map((s) => s.id)
    problem.value = ''
  },
)

async function begin(): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    const { id } = await beginTask({
      name: name.value,
      template: props.card!.id,
      seats: picked.value,
      guided: guided.value,
    })
    emit('close')
    await router.push(`/tasks/${id}`)
  } catch (e) {
    problem.value = (e as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogFrame
    :open="card !== null"
    title="Hand out as a task"
    class="w-[460px]"
    data-testid="hand-out"
    @close="emit('close')"
  >
    <form class="grid gap-4" @submit.prevent="begin">
      <p class="quiet">Everybody whom you tick gets a copy of “{{ card?.name }}” as it is now.</p>
      <label class="block">
        <span class="mb-1 block text-mute-deep">Name of the task</span>
        <input v-model="name" class="field w-full" aria-label="Name of the task" maxlength="100" />
      </label>
      <SeatPicker v-model="picked" />
      <label class="flex items-center gap-2.5">
        <input v-model="guided" type="checkbox" class="h-4 w-4 accent-plum" />
        The guide goes through it, a sentence at a time
      </label>
      <p v-if="problem" class="text-brick" role="alert">{{ problem }}</p>
      <div class="flex gap-2">
        <button class="button-strong" type="submit" :disabled="busy || !name.trim() || !picked.length">
          Hand out <span class="number">{{ picked.length }}</span>
        </button>
        <button class="button" type="button" @click="emit('close')">Close</button>
      </div>
    </form>
  </DialogFrame>
</template>
