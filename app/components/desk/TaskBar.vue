<script setup lang="ts">
import { ClipboardList } from 'lucide-vue-next'
import { onMounted, shallowRef } from 'vue'
import type { Task } from '#shared/seats'
import { listTasks } from '~/network/seat-api'

/** Tasks that were handed out, each with its page; nothing where there is none. */
const tasks = shallowRef<Task[]>([])
onMounted(async () => {
  tasks.value = await listTasks().catch(() => [])
})
</script>

<template>
  <nav v-if="tasks.length" class="-mt-2 mb-5 flex flex-wrap items-center gap-1.5" aria-label="Tasks">
    <NuxtLink
      v-for="t in tasks"
      :key="t.id"
      :to="`/tasks/${t.id}`"
      class="flex max-w-[260px] items-center gap-1.5 rounded-full border border-hair bg-raise px-3 py-1 hover:border-mute"
      title="All copies of this task, as they are now"
    >
      <ClipboardList :size="14" class="shrink-0 text-mute" /><span class="truncate">{{ t.name }}</span>
      <span class="number text-mute-deep">{{ t.copies }}</span>
    </NuxtLink>
  </nav>
</template>
