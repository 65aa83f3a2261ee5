<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { Ellipsis, PenLine } from 'lucide-vue-next'
import { nextTick, ref } from 'vue'
import type { DrawingCard } from '#shared/api'

const props = defineProps<{ card: DrawingCard }>()
const emit = defineEmits<{ remove: []; rename: [name: string]; duplicate: [] }>()

const naming = ref(false)
const text = ref('')
const field = ref<HTMLInputElement>()

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function startNaming(): Promise<void> {
  naming.value = true
  text.value = props.card.name
  await nextTick()
  field.value?.select()
}

function endNaming(): void {
  if (!naming.value) return
  naming.value = false
  const name = text.value.trim()
  if (name && name !== props.card.name) emit('rename', name)
}
</script>

<template>
  <li class="group rounded-2xl border border-hair bg-raise shadow-[0_14px_34px_-26px_#0008]" data-testid="card" @keydown.f2.prevent="startNaming">
    <NuxtLink :to="`/drawings/${card.id}`" class="block rounded-t-2xl bg-paper p-4" :aria-label="`Open ${card.name}`">
      <img :src="`/api/drawings/${card.id}/thumbnail?revision=${card.revision}`" loading="lazy" class="h-[180px] w-full object-contain transition-transform group-hover:scale-[1.02]" alt="" />
    </NuxtLink>
    <div class="flex items-center gap-2 border-t border-hair px-4 py-2.5">
      <div class="min-w-0 flex-1">
        <input v-if="naming" ref="field" v-model="text" class="field w-full !py-0" aria-label="Name of the drawing" maxlength="120" @blur="endNaming" @keydown.enter="endNaming" @keydown.esc="naming = false" />
        <p v-else class="flex items-center gap-1 text-[14px] font-[650]">
          <NuxtLink :to="`/drawings/${card.id}`" class="truncate hover:underline" :title="card.name">{{ card.name }}</NuxtLink>
          <button class="quiet shrink-0 rounded p-0.5 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100" :title="`Rename ${card.name} (F2)`" :aria-label="`Rename ${card.name}`" @click="startNaming"><PenLine :size="13" /></button>
        </p>
        <p class="quiet text-[12px]"><span class="number">{{ card.lineCount }}</span> {{ card.lineCount === 1 ? 'line' : 'lines' }} · {{ when.format(new Date(card.updatedAt)) }}</p>
      </div>
      <Menu as="div" class="relative">
        <MenuButton class="quiet rounded-lg p-1.5 hover:bg-panel" :aria-label="`More for ${card.name}`"><Ellipsis :size="17" /></MenuButton>
        <MenuItems class="absolute right-0 bottom-full z-20 mb-1 w-44 rounded-xl border border-hair bg-raise p-1 shadow-xl">
          <MenuItem v-slot="{ active }"><button class="w-full rounded-lg px-2.5 py-1.5 text-left" :class="active ? 'bg-panel' : ''" @click="startNaming">Rename</button></MenuItem>
          <MenuItem v-slot="{ active }"><button class="w-full rounded-lg px-2.5 py-1.5 text-left" :class="active ? 'bg-panel' : ''" @click="emit('duplicate')">Duplicate</button></MenuItem>
          <MenuItem v-slot="{ active }"><button class="w-full rounded-lg px-2.5 py-1.5 text-left text-brick" :class="active ? 'bg-panel' : ''" @click="emit('remove')">Take off the Desk</button></MenuItem>
        </MenuItems>
      </Menu>
    </div>
  </li>
</template>
