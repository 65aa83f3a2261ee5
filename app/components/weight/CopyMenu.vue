<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useCopiedWeight } from '~/workspace/use-copied-weight'
import { useKeysStore } from '~/stores/keys'
import { usePlaced } from '~/workspace/use-placed'

const { copied, copy, paste } = useCopiedWeight()
const keys = useKeysStore()

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton ref="anchor" class="quiet" title="Put the weight of one line on others">Copy</MenuButton>
    <MenuItems ref="panel" :style="styles" class="pop w-[270px] p-1.5 outline-none">
      <MenuItem v-slot="{ active }"
        ><button class="item" :class="active ? 'bg-blush' : ''" @click="copy">
          Copy this weight <kbd class="number quiet">{{ keys.writtenKey('copy-weight') }}</kbd>
        </button></MenuItem
      >
      <MenuItem v-slot="{ active }" :disabled="!copied"
        ><button class="item" :class="active ? 'bg-blush' : ''" @click="paste('all')">
          Paste all of it <kbd class="number quiet">{{ keys.writtenKey('paste-weight') }}</kbd>
        </button></MenuItem
      >
      <MenuItem v-slot="{ active }" :disabled="!copied"
        ><button class="item" :class="active ? 'bg-blush' : ''" @click="paste('profile')">
          Paste only the profile
        </button></MenuItem
      >
      <MenuItem v-slot="{ active }" :disabled="!copied"
        ><button class="item" :class="active ? 'bg-blush' : ''" @click="paste('size')">
          Paste only the size
        </button></MenuItem
      >
    </MenuItems>
  </Menu>
</template>

<style scoped>
.item {
  display: flex;
  width: 100%;
  justify-content: space-between;
  border-radius: 8px;
  padding: 6px 10px;
  text-align: left;
}

.item:disabled {
  opacity: 0.45;
}
</style>
