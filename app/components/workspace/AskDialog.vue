<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import type { CommandId } from '~/commands/commands'
import type { Findable } from '~/commands/find-by-word'
import { foundByWord } from '~/commands/find-by-word'
import { useFindables } from '~/workspace/use-findables'
import DialogFrame from '~/components/ui/DialogFrame.vue'

/** A few letters find whatever there is, and Enter goes there. */
const props = defineProps<{ open: boolean; run: (id: CommandId) => void }>()
const emit = defineEmits<{ close: [] }>()

const { all, look } = useFindables(props.run)
const typed = ref('')
const found = computed(() => foundByWord(all.value, typed.value))

watch(
  () => props.open,
  (open) => {
    typed.value = ''
    if (open) void look()
  },
)

/** What is asked for has the keyboard: the sheet goes first. */
function go(thing: Findable | null): void {
  if (!thing) return
  emit('close')
  setTimeout(thing.go)
}
</script>

<template>
  <DialogFrame :open="open" title="Ask by word" class="w-[560px]" @close="emit('close')">
    <Combobox :model-value="null" nullable as="div" @update:model-value="go">
      <ComboboxInput
        class="field w-full !py-1.5"
        aria-label="Instrument, command, setting, layer, ink or drawing"
        placeholder="Instrument, command, setting, layer, ink, drawing …"
        autocomplete="off"
        data-testid="ask"
        @keydown.esc="emit('close')"
        @change="typed = ($event.target as HTMLInputElement).value"
      />
      <ComboboxOptions static class="mt-2 max-h-[46vh] min-h-[120px] overflow-y-auto outline-none">
        <ComboboxOption v-for="(f, i) in found" :key="i" v-slot="{ active }" :value="f" as="template">
          <li class="flex cursor-pointer items-baseline gap-3 rounded-lg px-2.5 py-1.5" :class="active && 'bg-blush'">
            <span class="min-w-0 flex-1">
              <b class="font-[600]">{{ f.title }}</b>
              <span v-if="f.says" class="quiet"> · {{ f.says }}</span>
            </span>
            <span class="quiet shrink-0 text-[12px]">{{ f.kind }}</span>
            <span class="number w-[74px] shrink-0 text-right text-[12px]">{{ f.key }}</span>
          </li>
        </ComboboxOption>
        <p v-if="typed && !found.length" class="quiet px-2.5 py-1.5">
          Nothing is called that. Try a shorter word, or the ? for all keys.
        </p>
      </ComboboxOptions>
    </Combobox>
  </DialogFrame>
</template>
