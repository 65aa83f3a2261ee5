<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** A sheet that lies over all else until it is closed; what does not fit the window rolls. */
defineProps<{ open: boolean; title: string }>()
const emit = defineEmits<{ close: [] }>()
defineOptions({ inheritAttrs: false })
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/30" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto">
      <div class="grid min-h-full place-items-center p-4 max-md:p-2">
        <DialogPanel
          class="max-w-full rounded-2xl border border-hair bg-raise p-6 shadow-2xl max-md:p-4"
          v-bind="$attrs"
        >
          <DialogTitle class="mb-3 text-[16px] font-[650]">{{ title }}</DialogTitle>
          <slot />
        </DialogPanel>
      </div>
    </div>
  </Dialog>
</template>
