<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import { ImageOff } from 'lucide-vue-next'

/** The small picture of a checkpoint. One that could not be had, since the server was busy or away, is asked for again. */
const props = defineProps<{ drawing: string; checkpoint: string }>()
const MOST = 5
const tries = ref(0)
const failed = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined

const address = (): string =>
  `/api/drawings/${props.drawing}/checkpoints/${props.checkpoint}/picture${tries.value ? `?again=${tries.value}` : ''}`

function again(): void {
  failed.value = true
  if (tries.value >= MOST) return
  timer = setTimeout(
    () => {
      tries.value++
      failed.value = false
    },
    400 * 2 ** tries.value,
  )
}

onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <span class="grid h-[42px] w-[58px] shrink-0 place-items-center rounded border border-hair bg-paper">
    <img v-if="!failed" :src="address()" alt="" class="h-[40px] w-[56px] object-contain" @error="again" />
    <ImageOff v-else :size="15" class="text-mute" aria-label="No picture yet" />
  </span>
</template>
