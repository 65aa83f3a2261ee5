<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { onMounted, ref } from 'vue'
import { endSessions, leaveDesk, sessionState } from '~/network/api'
import { forgetAllKept } from '~/network/kept-drawings'
import { useDeskStore } from '~/stores/desk'
import { usePlaced } from '~/workspace/use-placed'

/** Ways out of a Desk that asks for a passphrase; nothing where it does not. */
const desk = useDeskStore()
const isLocked = ref(false)

onMounted(async () => {
  isLocked.value = (await sessionState().catch(() => null))?.locked ?? false
})

async function go(way: () => Promise<unknown>): Promise<void> {
  try {
    await way()
    await forgetAllKept()
    globalThis.location.assign('/enter')
  } catch (e) {
    desk.notice = (e as Error).message
  }
}

const WAYS = [
  { title: 'Leave', help: 'This browser asks for the passphrase again', run: leaveDesk },
  { title: 'End all sessions', help: 'Every browser, this one too, asks for it again', run: endSessions },
]

const { anchor, panel, styles } = usePlaced('bottom-end')
</script>

<template>
  <Menu v-if="isLocked" as="div" class="relative">
    <MenuButton ref="anchor" class="button">Session</MenuButton>
    <MenuItems ref="panel" :style="styles" class="pop w-[290px] p-1">
      <MenuItem v-for="way in WAYS" :key="way.title" v-slot="{ active }">
        <button
          class="w-full rounded-lg px-2.5 py-1.5 text-left"
          :class="active ? 'bg-panel' : ''"
          @click="go(way.run)"
        >
          <b class="block font-[650]">{{ way.title }}</b><span class="quiet text-[12px]">{{ way.help }}</span>
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
